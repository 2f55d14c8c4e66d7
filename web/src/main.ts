// First, so that the device is being read while what follows is got ready.
import { reading } from './opening'
import { start } from './start'

await start(reading)
