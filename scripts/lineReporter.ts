import { appendFileSync } from 'node:fs'
import { relative } from 'node:path'
import { stripVTControlCharacters } from 'node:util'
import type { Reporter, TestCase } from 'vitest/node'

/** So much of what a test said is enough to find it, and to play a property's case again by its seed. */
const LONGEST_REASON = 600

/** Writes a line a test, `passed file: name` or `failed file: name: why`, to the file that REPORT names. */
export default class LineReporter implements Reporter {
  onTestCaseResult(test: TestCase): void {
    const { REPORT } = process.env
    const { state, errors } = test.result()
    if (REPORT === undefined || state === 'skipped') return
    const why = errors?.[0] === undefined ? '' : `: ${inOneLine(errors[0].message)}`
    appendFileSync(REPORT, `${state} ${relative('.', test.module.moduleId)}: ${test.fullName}${why}\n`)
  }
}

export function inOneLine(message: string): string {
  return stripVTControlCharacters(message).replaceAll(/\s+/g, ' ').trim().slice(0, LONGEST_REASON)
}
