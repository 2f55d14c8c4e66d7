import { openDevice } from './remote/device'
import './theme/style.css'

// What is kept on the device is read while the application itself is fetched: on a phone either takes its time.
const opened = openDevice()
const { start } = await import('./start')
await opened
start()
