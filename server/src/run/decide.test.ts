import { execFile } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { expect, test } from 'vitest'
import { answerDecide, type CommandAnswer } from './answerDecide'

const ROOT = fileURLToPath(new URL('../../../', import.meta.url))
const EXAMPLE = `${ROOT}docs/house/examples/struck-run.loop.json`

/** Runs the command as a script would. */
const decide = (args: readonly string[], input: string): Promise<CommandAnswer> =>
  new Promise((resolve) => {
    const command = ['run', '--silent', 'decide', '--', ...args]
    const child = execFile('npm', command, { cwd: ROOT, maxBuffer: 1e8 }, (error, out, err) => {
      resolve({ code: typeof error?.code === 'number' ? error.code : 0, out, err })
    })
    child.stdin?.end(input)
  })

test('a file by name or from standard input comes to the same decision', async () => {
  const named = await answerDecide(EXAMPLE, () => Promise.resolve(''))
  const piped = await decide([], readFileSync(EXAMPLE, 'utf8'))
  expect(piped.code).toBe(0)
  expect(JSON.parse(piped.out)).toMatchObject({
    format: 'undercliff-decision',
    tag: 'E1',
    verdict: { action: 'regrind' },
  })
  expect(named).toEqual(piped)
})

test('the command ends with a code of its own and a problem document where a file is not right', async () => {
  const refused = await decide(['/nowhere/at/all.json'], '')
  expect(refused.code).toBe(2)
  expect(JSON.parse(refused.out)).toMatchObject({ code: 'bad-request' })
  expect(refused.err).not.toBe('')
})

test.each([
  ['a file that is not there', '/nowhere/at/all.json', '', 'bad-request'],
  ['what is not JSON', '-', '{"format": ', 'malformed-json'],
  ['JSON that is no loop', undefined, '{"format": "undercliff-loop"}', 'invalid'],
] as const)('%s: exit code 2 and a problem document', async (_name, path, input, code) => {
  const refused = await answerDecide(path, () => Promise.resolve(input))
  expect(refused.code).toBe(2)
  expect(JSON.parse(refused.out)).toMatchObject({ code, type: `urn:undercliff:problem:${code}` })
  expect(refused.err).not.toBe('')
})
