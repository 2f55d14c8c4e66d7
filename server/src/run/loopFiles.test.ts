import { readFileSync } from 'node:fs'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { decideFully, DEFAULT_RULES, fold, type Entry } from '@undercliff/core'
import { scenario } from '@undercliff/demo'
import { describe, expect, test } from 'vitest'
import { decideFile, readLoopFile, writeLoopFile, type LoopFile } from '@undercliff/contract'

const docs = (name: string): string => readFileSync(new URL(`../../../docs/house/${name}`, import.meta.url), 'utf8')
const example = (name: string): LoopFile => JSON.parse(docs(`examples/${name}.loop.json`)) as LoopFile
const problemsOf = (value: unknown): string[] => {
  const decided = decideFile(value)
  return decided.ok ? [] : (decided.problem.problems ?? []).map(({ field }) => field)
}
const decisionOf = (value: unknown) => {
  const decided = decideFile(value)
  if (!decided.ok) throw new Error(decided.problem.detail)
  return decided.decision
}
const schema = new Ajv2020({ allErrors: true }).compile(JSON.parse(docs('loop.schema.json')) as object)

const NOW = new Date('2026-03-20T09:00:00.000Z')
const logs = new Map<string, Entry[]>()
for (const entry of scenario(NOW).entries) {
  const log = logs.get(entry.loopId) ?? []
  logs.set(entry.loopId, log)
  log.push({ ...entry, writtenBy: null, writtenAt: entry.happenedAt })
}

describe('the three examples of the docs', () => {
  test.each([
    ['struck-run', 'regrind', 'Stone strike on cutter 11 L, 2.60 mm deep: 2.70 mm has to come off.'],
    ['gauges-high', 'lowerGauges', 'Depth gauges stand up to 0.41 mm high; up to 0.10 mm is left as it is.'],
    ['unknown-depth', 'measure', 'Corner gone on cutter 6 R: nobody has measured how deep.'],
  ])('%s: %s', (name, action, said) => {
    const file = example(name)
    expect(schema(file), JSON.stringify(schema.errors?.slice(0, 2))).toBe(true)
    const { verdict, reasons, schools } = decisionOf(file)
    expect(verdict.action).toBe(action)
    expect(reasons[0]?.said).toBe(said)
    expect(schools.uneven).toHaveLength(5)
  })
})

describe('every loop of the demo', () => {
  test('written and read again comes to the same, and the JSON Schema describes it', () => {
    for (const log of logs.values()) {
      const file = JSON.parse(JSON.stringify(writeLoopFile(log, DEFAULT_RULES, NOW.toISOString()))) as LoopFile
      expect(schema(file), `${file.tag} ${JSON.stringify(schema.errors?.slice(0, 2))}`).toBe(true)
      const state = fold(log)
      if (state === null) throw new Error('the loop should be registered')
      const { verdict, life } = decisionOf(file)
      const direct = decideFully(state, DEFAULT_RULES, NOW.toISOString())
      expect(verdict.action, file.tag).toBe(direct.verdict.action)
      expect(verdict.options).toEqual(direct.verdict.options)
      expect(life.sharpeningsLeft).toEqual(direct.life.sharpeningsLeft)
    }
  })
})

describe('what is not right is named, and nothing is guessed', () => {
  const good = example('struck-run')
  test.each<[string, unknown, string[]]>([
    ['not an object', 7, ['']],
    ['another format', { ...good, format: 'something' }, ['format']],
    ['a newer version', { ...good, version: 2 }, ['version']],
    ['a wrong spec', { ...good, spec: { ...good.spec, driveLinks: 3 } }, ['spec.driveLinks']],
    ['a mark above the new length', { ...good, spec: { ...good.spec, markLengthUm: 9000 } }, ['spec.markLengthUm']],
    ['a house rule that is not known', { ...good, rules: { colour: 'red' } }, ['rules']],
    ['rules that cannot hold', { ...good, rules: { touchUpTanks: 9 } }, ['rules.touchUpTanks', 'rules.benchTanks']],
    ['an entry of no kind', { ...good, log: [...good.log, { happenedAt: good.now, kind: 'danced' }] }, ['log[4].kind']],
    [
      'a cutter it does not have',
      { ...good, log: [{ happenedAt: good.now, kind: 'measured', readings: [{ cutter: 99, lengthUm: 7000 }] }] },
      ['log[0].readings[0].cutter'],
    ],
    [
      'a length that cannot be',
      { ...good, log: [{ happenedAt: good.now, kind: 'measured', readings: [{ cutter: 9, lengthUm: 70_000 }] }] },
      ['log[0].readings[0].lengthUm'],
    ],
    [
      'a second registration',
      { ...good, log: [{ happenedAt: good.now, kind: 'registered', tag: 'X', spec: good.spec }] },
      ['log[0].kind'],
    ],
    [
      'later than now',
      { ...good, log: [{ happenedAt: '2027-01-01T00:00:00.000Z', kind: 'ran', tanks: 1, conditions: 'clean' }] },
      ['log[0].happenedAt'],
    ],
  ])('%s', (_name, value, fields) => {
    expect(problemsOf(value)).toEqual(fields)
  })

  test('what the crew’s files take goes with the loop', () => {
    const knownBite = {
      strokeUm: 30,
      strokeSdUm: 1,
      uncounted: 0,
      uncountedSd: 0.05,
      people: [{ personId: 'person-of-file', factor: 1, factorSd: 0, leanUm: 3, leanSdUm: 0.5 }],
    }
    const file = { ...good, knownBite }
    expect(schema(file), JSON.stringify(schema.errors?.slice(0, 2))).toBe(true)
    expect(decisionOf(file).life.perStroke.meanUm).toBeCloseTo(30, 1)
    expect(decisionOf(good).life.perStroke.meanUm).toBeCloseTo(20, 1)
    const read = readLoopFile(file)
    if (!read.ok) throw new Error('the file should be read')
    expect(writeLoopFile(read.entries, read.rules, good.now).knownBite).toEqual(knownBite)
    expect(problemsOf({ ...good, knownBite: { ...knownBite, strokeUm: 0 } })).toEqual(['knownBite.strokeUm'])
  })

  test('an entry that another strikes out is kept by its id', () => {
    const log = [
      { id: 'the-wrong-one', happenedAt: '2026-03-01T08:00:00.000Z', kind: 'ran', tanks: 9, conditions: 'soil' },
      { happenedAt: '2026-03-02T08:00:00.000Z', kind: 'corrected', strikes: 'the-wrong-one' },
    ]
    expect(decisionOf({ ...good, log }).state.tanks).toBe(0)
    const read = readLoopFile({ ...good, log })
    if (!read.ok) throw new Error('the file should be read')
    expect(writeLoopFile(read.entries, read.rules, good.now).log).toEqual([])
  })
})
