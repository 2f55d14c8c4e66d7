import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { PROBLEMS } from '../contract/src/index'
import { ADMIT_CODES } from '../core/src/index'

const PAGE = readFileSync(new URL('../docs/errors.md', import.meta.url), 'utf8')

/** The rows of a table below a heading, their cells without marks. */
function rowsBelow(heading: string): string[][] {
  const [, below = ''] = PAGE.split(`## ${heading}\n`)
  const [section = ''] = below.split('\n## ')
  return section
    .split('\n')
    .filter((line) => line.startsWith('| `'))
    .map((line) =>
      line
        .split('|')
        .slice(1, -1)
        .map((cell) => cell.trim().replaceAll('`', '')),
    )
}

test('docs/errors.md lists the codes of answers as they are', () => {
  const wanted = Object.entries(PROBLEMS).map(([code, { status, title }]) => [code, String(status), title])
  expect(rowsBelow('Codes of answers')).toEqual(wanted.sort(([a = ''], [b = '']) => a.localeCompare(b)))
})

test('and why an entry cannot join a log', () => {
  const wanted = Object.entries(ADMIT_CODES).map(([code, why]): [string, string] => [code, why])
  expect(rowsBelow('Why an entry cannot join a log')).toEqual(wanted.sort(([a], [b]) => a.localeCompare(b)))
})
