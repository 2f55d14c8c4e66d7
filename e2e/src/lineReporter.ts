import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter'
import { appendFileSync } from 'node:fs'
import { basename } from 'node:path'
import { inOneLine } from '../../scripts/lineReporter'

/** Writes a line a test, `passed file: name` or `failed file: name: why`, to the file that REPORT names. */
export default class LineReporter implements Reporter {
  onTestEnd(test: TestCase, { status, error }: TestResult): void {
    const { REPORT } = process.env
    if (REPORT === undefined || status === 'skipped') return
    const why = error?.message === undefined ? '' : `: ${inOneLine(error.message)}`
    const state = status === 'passed' ? 'passed' : 'failed'
    appendFileSync(REPORT, `${state} ${basename(test.location.file)}: ${test.title}${why}\n`)
  }
}
