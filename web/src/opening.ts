import { openDevice } from './remote/device'

/** What is kept on the device is read while the rest is got ready: on a phone each takes its time. */
export const opened = openDevice()
