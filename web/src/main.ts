// First, so that the device is being read while what follows is got ready.
import { opened } from './opening'
import { start } from './start'
import './theme/style.css'

await opened
start()
