/** What a browser lets a page do on this device at this address. */
export interface DeviceCan {
  /** The address is one at which a browser keeps pages and asks for the camera. */
  readonly secure: boolean
  /** The application is kept, and opens when nothing answers. */
  readonly opensAlone: boolean
  /** What is kept is not thrown away for room. */
  readonly keeps: boolean
}

/** Asks the browser; the parts that it does not have at all count as no. */
export async function askDevice(): Promise<DeviceCan> {
  const secure = window.isSecureContext
  const controlled = 'serviceWorker' in navigator && navigator.serviceWorker.controller !== null
  const keeps = 'storage' in navigator && (await navigator.storage.persisted().catch(() => false))
  return { secure, opensAlone: controlled, keeps }
}
