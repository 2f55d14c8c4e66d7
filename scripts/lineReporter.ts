import { appendFileSync } from 'node:fs'
import type { Reporter, TestCase } from 'vitest/node'

/** Writes a line a test, `passed name` or `failed name`, to the file that REPORT names. */
export default class LineReporter implements Reporter {
  onTestCaseResult(test: TestCase): void {
    const { REPORT } = process.env
    const { state } = test.result()
    if (REPORT !== undefined && state !== 'skipped') appendFileSync(REPORT, `${state} ${test.fullName}\n`)
  }
}
