import { execFile } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { expect, test } from 'vitest'

const ROOT = fileURLToPath(new URL('../../../', import.meta.url))
const EXAMPLE = `${ROOT}docs/house/examples/struck-run.loop.json`

/** Runs the command as a script would. */
const decide = (args: readonly string[], input?: string): Promise<{ code: number; out: string; err: string }> =>
  new Promise((resolve) => {
    const child = execFile(
      'npm',
      ['run', '--silent', 'decide', '--', ...args],
      { cwd: ROOT, maxBuffer: 1e8 },
      (error, out, err) => {
        resolve({ code: typeof error?.code === 'number' ? error.code : 0, out, err })
      },
    )
    child.stdin?.end(input ?? '')
  })

test('a file by name or from standard input comes to the same decision', async () => {
  const named = await decide([EXAMPLE])
  const piped = await decide([], readFileSync(EXAMPLE, 'utf8'))
  expect(named.code).toBe(0)
  expect(JSON.parse(named.out)).toMatchObject({
    format: 'undercliff-decision',
    tag: 'E1',
    verdict: { action: 'regrind' },
  })
  expect(piped.out).toBe(named.out)
})

test.each([
  ['a file that is not there', ['/nowhere/at/all.json'], '', 'bad-request'],
  ['what is not JSON', ['-'], '{"format": ', 'malformed-json'],
  ['JSON that is no loop', [], '{"format": "undercliff-loop"}', 'invalid'],
] as const)('%s: exit code 2 and a problem document', async (_name, args, input, code) => {
  const refused = await decide(args, input)
  expect(refused.code).toBe(2)
  expect(JSON.parse(refused.out)).toMatchObject({ code, type: `urn:undercliff:problem:${code}` })
  expect(refused.err).not.toBe('')
})
