import { chromium, type Browser } from '@playwright/test'
import { existsSync } from 'node:fs'

const [SHELL, WHOLE] = ['/usr/bin/chromium-headless-shell', '/usr/bin/chromium']
/** Without windows where Debian's package of it is there, which takes less time; else the whole of it. */
export const CHROMIUM = existsSync(SHELL) ? SHELL : WHOLE
export const CHROMIUM_ARGS = [
  '--no-sandbox',
  '--disable-site-isolation-trials',
  '--process-per-site',
  '--renderer-process-limit=1',
  '--in-process-gpu',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

/** Debian's headless Chromium, quiet towards the network. */
export const openBrowser = (): Promise<Browser> => chromium.launch({ executablePath: CHROMIUM, args: CHROMIUM_ARGS })
