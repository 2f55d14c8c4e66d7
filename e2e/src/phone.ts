import { chromium, type Browser } from '@playwright/test'
import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { CHROMIUM, CHROMIUM_ARGS } from './browser'
import { BEYOND } from './undercliff'

/**
 * A phone of the crew's: a browser that trusts what was given to it and nothing else, and that finds the shed by a
 * name. The name leads to this machine alone and is as untrusted as any other.
 */
export class Phone {
  private readonly home = mkdtempSync(join(tmpdir(), 'undercliff-phone-'))
  private browsers: Browser[] = []

  constructor(private readonly name: string) {
    mkdirSync(join(this.home, '.pki/nssdb'), { recursive: true })
    this.certutil('-N', '--empty-password')
  }

  private certutil(...args: string[]): void {
    execFileSync('certutil', ['-d', `sql:${join(this.home, '.pki/nssdb')}`, ...args])
  }

  /** Tells it to trust an authority, as its owner does in its settings. */
  trust(certificate: string | Buffer): void {
    const file = join(this.home, 'authority.crt')
    writeFileSync(file, certificate)
    this.certutil('-A', '-t', 'C,,', '-n', 'the crew', '-i', file)
  }

  /** Opens its browser, which reads then what it trusts. */
  async open(...args: string[]): Promise<Browser> {
    const browser = await chromium.launch({
      executablePath: CHROMIUM,
      args: [...CHROMIUM_ARGS, `--host-resolver-rules=MAP ${this.name} ${BEYOND}`, ...args],
      env: { ...(process.env as Record<string, string>), HOME: this.home },
    })
    this.browsers.push(browser)
    return browser
  }

  async lose(): Promise<void> {
    for (const browser of this.browsers) await browser.close()
    this.browsers = []
    rmSync(this.home, { recursive: true, force: true })
  }
}
