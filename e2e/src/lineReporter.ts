import { appendFileSync } from 'node:fs'
import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter'

/** Writes a line a test, `passed name` or `failed name`, to the file that REPORT names. */
export default class LineReporter implements Reporter {
  onTestEnd(test: TestCase, { status }: TestResult): void {
    const { REPORT } = process.env
    if (REPORT !== undefined && status !== 'skipped') {
      appendFileSync(REPORT, `${status === 'passed' ? 'passed' : 'failed'} ${test.title}\n`)
    }
  }
}
