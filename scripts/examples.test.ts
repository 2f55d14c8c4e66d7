import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import ts from 'typescript'
import { describe, expect, test } from 'vitest'
import { Log, SPEC } from '../core/src/fixtures/logs'
import * as core from '../core/src/index'

// Every `expression // value` of a doc comment, evaluated. The value is written as code; what stands
// after it is for the reader. A figure is right to the decimals that it shows, `…` stands for the rest.

const ROOT = join(import.meta.dirname, '..')
const WORKSPACES = ['core', 'contract', 'server', 'web', 'demo']

const saw = { pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 } as const
const log = new Log().add('ran', { tanks: 2, conditions: 'clean' })
const nicked = [[], [{ kind: 'chipped', depthUm: 500 }], [], []].map((damage) => ({ length: { um: 7000 }, damage }))

const planOf = (state: core.LoopState | null) =>
  state === null ? null : core.planSharpening(state, core.DEFAULT_RULES, { action: 'regrind', personId: null })

/** What examples take for granted. */
const GIVEN = {
  spec38: SPEC,
  spec: SPEC,
  saw,
  state: core.fold(log.entries),
  plan: planOf(core.fold(log.entries)),
  log: log.entries,
  base: { id: 'one', loopId: 'loop', sawId: 'saw', happenedAt: '2026-02-01T00:00:00.000Z', personId: null },
  figures: { lengths: 'mm', currency: 'EUR' },
  sawName: () => 'a saw',
  rules: core.DEFAULT_RULES,
  constant: { gaugeSchool: 'constant', woodStep: 'standard' },
  check: core.fitCheck({ pitchClass: 'p325', gaugeUm: 1500, driveLinks: 72 }, saw),
  cutter: { length: { um: 7000 } },
  cutters: nicked,
  steps: core.kaplanMeier([
    { time: 6, ended: true },
    { time: 12, ended: false },
  ]),
  samples: [],
  since: '2026-01-01T00:00:00.000Z',
  now: '2026-05-01T00:00:00.000Z',
  context: {
    ...{ tags: [], saws: [], takenSawIds: [], unit: 'mm', now: '2026-05-01T00:00:00.000Z' },
    ...{ headings: ['Tag', 'Pitch', 'Gauge', 'DL'], rules: core.DEFAULT_RULES },
    newId: () => 'new',
    random: () => 0.5,
  },
}

interface Example {
  readonly where: string
  readonly setUp: string
  readonly code: string
  readonly value: string
}

/** Examples of one doc comment: a line of code with its value behind it, or on the line below. */
function examplesIn(comment: string, where: string): Example[] {
  const lines = comment
    .replace(/^\/\*\*|\*\/$/g, '')
    .split('\n')
    .map((line) => line.replace(/^\s*\* ?/, '').trimEnd())
  const inline = lines.flatMap((line) => [...line.matchAll(/`([^`]+?)\s*\/\/ ([^`]+)`/g)])
  const found = inline.map(([, code = '', value = '']) => ({ where, setUp: '', code, value }))
  const from = lines.findIndex((line) => line.startsWith('@example'))
  if (from < 0) return found
  let setUp = ''
  let code = ''
  for (const line of lines.slice(from + 1)) {
    if (line.startsWith('@') || line.startsWith('`')) break
    const [, before = line, value] = /^(.*?)\s*\/\/ ?(.*)$/.exec(line) ?? []
    code += `${before}\n`
    if (value === undefined) {
      if (/^const .*[^,({]$/.test(line)) {
        setUp += code
        code = ''
      }
    } else if (code.trim() !== '') {
      found.push({ where, setUp, code, value })
      code = ''
    }
  }
  return found
}

function examplesOf(file: string): Example[] {
  const text = readFileSync(join(ROOT, file), 'utf8')
  return [...text.matchAll(/\/\*\*[\s\S]*?\*\//g)].flatMap((match) =>
    examplesIn(match[0], `${file}:${text.slice(0, match.index).split('\n').length}`),
  )
}

function run(setUp: string, expression: string, scope: object): unknown {
  const source = `${setUp}\nreturn (${expression.trim()})`
  const { outputText } = ts.transpileModule(`function example() { ${source} }`, {
    compilerOptions: { target: ts.ScriptTarget.ES2023, module: ts.ModuleKind.ESNext },
  })
  // oxlint-disable-next-line typescript/no-implied-eval -- the code is this repository's own comments
  const make = new Function(...Object.keys(scope), `${outputText}\nreturn example()`) as (
    ...given: unknown[]
  ) => unknown
  return make(...(Object.values(scope) as unknown[]))
}

/** The value at the beginning of a comment: its longest part that is code. */
function valueOf(text: string): unknown {
  const plain = text.replace(/, … ?([}\]])/g, ' $1').replace(/^≈ /, '')
  const ends = [...plain.matchAll(/[:;,.]? |[:;,.]|$/g)].map(({ index }) => index).reverse()
  for (const end of ends) {
    try {
      return run('', plain.slice(0, end), {})
    } catch {
      // That much of it is not code.
    }
  }
  throw new Error(`there is no value in "${text}"`)
}

const decimals = (text: string): number => /^≈?\s?-?[\d_]+\.(\d+)/.exec(text)?.[1]?.length ?? 0

function agree(actual: unknown, value: string): void {
  const wanted = valueOf(value)
  if (typeof wanted === 'number' && typeof actual === 'number')
    expect(Number(actual.toFixed(decimals(value)))).toBe(wanted)
  else if (typeof wanted === 'string' && wanted.endsWith('…'))
    expect(String(actual).startsWith(wanted.slice(0, -1).trimEnd()), String(actual)).toBe(true)
  else if (value.includes('…')) expect(actual).toMatchObject(wanted as object)
  else expect(actual).toEqual(wanted)
}

const files = WORKSPACES.flatMap((workspace) =>
  readdirSync(join(ROOT, workspace, 'src'), { recursive: true, encoding: 'utf8' })
    .filter((name) => name.endsWith('.ts') && !/\.(test|d)\.ts$/.test(name))
    .map((name) => `${workspace}/src/${name}`),
)
const examples = files.flatMap((file) => examplesOf(file).map((example) => ({ ...example, file })))

describe('examples of doc comments', () => {
  test('there are examples', () => {
    expect(examples.length).toBeGreaterThan(100)
  })

  test.each(examples)('$where $code', async ({ file, setUp, code, value }) => {
    const own = (await import(pathToFileURL(join(ROOT, file)).href)) as object
    agree(run(setUp, code, { ...core, ...GIVEN, ...own }), value)
  })
})
