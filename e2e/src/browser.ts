import { chromium, type Browser } from '@playwright/test'

export const CHROMIUM = '/usr/bin/chromium'
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

/** Debian's headless Chromium, quiet towards the network. */
export const openBrowser = (): Promise<Browser> => chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_ARGS })
