import { ENTRY_KINDS, specFromProfile, type EntryKind } from '@undercliff/core'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { newEntriesSchema, newPersonSchema, newSawSchema, PROBLEMS, problemDetails, validate } from '.'

const base = { id: 'an-entry-id', loopId: 'a-loop-id-1', happenedAt: '2026-03-01T09:00:00.000Z', personId: null }
const bodies: Record<EntryKind, object> = {
  registered: {
    tag: 'K3',
    spec: specFromProfile({ pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72, cutterType: 'semiChisel' }),
    knownBite: {
      strokeUm: 21.4,
      strokeSdUm: 1.8,
      uncounted: -0.05,
      uncountedSd: 0.1,
      people: [{ personId: 'a-person-1', factor: 1.1, factorSd: 0.05, leanUm: -1.2, leanSdUm: 0.7 }],
    },
  },
  fitted: { sawId: 'a-saw-id-1', barFlipped: true },
  specChanged: { changes: { settingUm: 600 }, origin: 'box' },
  retagged: { tag: '222Y' },
  moved: { to: 'truck' },
  sentOut: { shop: 'Quay works', dueBackAt: '2026-03-14T09:30:00.000Z' },
  cameBack: { to: 'bench', costMinor: 1450 },
  takenOff: {},
  ran: { tanks: 1.5, conditions: 'gritty' },
  struck: { against: 'stone', cutters: [1, 2], deepest: { cutter: 2, depthUm: 900 } },
  measured: { readings: [{ cutter: 1, lengthUm: 5200, damage: [{ kind: 'stone', depthUm: null }], settingUm: 650 }] },
  sharpened: {
    method: 'fileBench',
    gaugesLowered: false,
    wasDull: true,
    fileAge: 'used',
    strokes: { left: 5, right: 6 },
    pairs: [{ cutter: 1, beforeUm: 5200, afterUm: 5000 }],
  },
  gaugesLowered: { settingUm: 650, gaugesByEye: true, plate: { rests: 'progressive', step: 'softer', stampedUm: 760 } },
  begun: { side: 'left', tool: 'plateGuide' },
  noticed: { signs: ['dust', 'pulls'], toward: 'left', wood: 'frozen', along: true },
  looked: { into: 'a-sign-id-1', look: 'edge', found: ['dull'] },
  traced: { into: 'a-sign-id-1', cause: null },
  inspected: { readings: [], parts: [{ kind: 'rivetSeized', nearCutter: null }] },
  retired: { reason: 'worn' },
  dutyChanged: { duty: 'dirty' },
  decided: { action: 'file', advised: 'regrind', rulesVersion: 2, overruled: 'The grinder is away' },
  corrected: { strikes: 'another-entry' },
}
const entry = (kind: EntryKind, more: object = {}) => ({ ...base, kind, ...bodies[kind], ...more })
const check = (...entries: unknown[]) => validate(newEntriesSchema, { entries })
const problems = (...entries: unknown[]) => {
  const checked = check(...entries)
  return checked.ok ? [] : checked.problems
}

describe('entries', () => {
  test.each(ENTRY_KINDS)('a good %s is taken as it is', (kind) => {
    expect(check(entry(kind))).toEqual({ ok: true, value: { entries: [entry(kind)] } })
  })

  test.each(ENTRY_KINDS)('a %s with a field that is not known is refused', (kind) => {
    expect(problems(entry(kind, { colour: 'red' }))).toEqual([
      { field: 'entries[0]', message: 'There is a field that is not known here: colour.' },
    ])
  })

  test.each(ENTRY_KINDS)('a %s loses no field of its own silently', (kind) => {
    for (const field of Object.keys(bodies[kind])) {
      expect(problems(entry(kind, { [field]: { not: 'right' } })).length, field).toBeGreaterThan(0)
    }
  })

  test.each([
    ['strokeUm', 0],
    ['strokeUm', NaN],
    ['strokeSdUm', -1],
    ['uncounted', 2],
    [
      'people',
      Array.from({ length: 13 }, (_, i) => ({
        personId: `a-person-${i}`,
        factor: 1,
        factorSd: 0,
        leanUm: 0,
        leanSdUm: 1,
      })),
    ],
    ['people', [{ personId: 'a-person-1', factor: 0, factorSd: 0, leanUm: 0, leanSdUm: 1 }]],
    ['people', [{ personId: 'a-person-1', factor: 1, factorSd: 0, leanUm: 101, leanSdUm: 1 }]],
  ])('what the crew’s files take cannot have %s %s', (field, value) => {
    const { knownBite } = bodies.registered as { knownBite: object }
    const [problem] = problems(entry('registered', { knownBite: { ...knownBite, [field]: value } }))
    expect(problem?.field).toContain(`entries[0].knownBite.${field}`)
  })

  test('wrong types are refused, not coerced, and the field is named', () => {
    expect(problems(entry('ran', { tanks: '2' }))).toEqual([
      { field: 'entries[0].tanks', message: 'This has to be a number.' },
    ])
    expect(problems(entry('sharpened', { gaugesLowered: 'yes' }))).toEqual([
      { field: 'entries[0].gaugesLowered', message: 'This has to be a boolean.' },
    ])
    expect(
      problems(entry('registered', { spec: { ...(bodies.registered as { spec: object }).spec, driveLinks: 5 } })),
    ).toEqual([{ field: 'entries[0].spec.driveLinks', message: 'A loop has at least 20 drive links.' }])
  })

  test.each(['..', '-1', 'a/b', 'K 3?'])('%s is no tag', (tag) => {
    expect(problems(entry('registered', { tag }))[0]?.field).toBe('entries[0].tag')
  })

  test('the mark lies below the new length', () => {
    const { spec } = bodies.registered as { spec: object }
    expect(problems(entry('registered', { spec: { ...spec, markLengthUm: 8000 } }))[0]?.field).toBe(
      'entries[0].spec.markLengthUm',
    )
  })

  test.each(['2026-02-30T09:00:00.000Z', '2026-03-01', '2026-03-01T09:00:00Z', 'yesterday'])(
    '%s is not a time',
    (happenedAt) => {
      expect(problems(entry('takenOff', { happenedAt }))[0]?.field).toBe('entries[0].happenedAt')
    },
  )

  test.each(['1899-03-01T09:00:00.000Z', '1970-01-01T00:00:00.000Z', '+033658-09-27T01:46:39.999Z'])(
    '%s is what a clock may show, and is put right',
    (happenedAt) => {
      expect(problems(entry('takenOff', { happenedAt }))).toEqual([])
    },
  )

  test('what cannot be printed is refused, what people write is not', () => {
    expect(problems(entry('takenOff', { note: 'bell \u0007' }))).toHaveLength(1)
    expect(problems(entry('takenOff', { note: 'half \ud800' }))).toHaveLength(1)
    expect(problems(entry('takenOff', { note: 'Füße, 木, 🌲\nsecond line' }))).toEqual([])
    expect(problems(entry('takenOff', { note: 'x'.repeat(2001) }))).toHaveLength(1)
  })

  test('none, too many, and things that are no entries', () => {
    expect(check()).toMatchObject({ ok: false })
    expect(check(...Array.from({ length: 51 }, () => entry('takenOff')))).toMatchObject({ ok: false })
    expect(problems(null)).toHaveLength(1)
    expect(problems('ran', 7, [])).not.toHaveLength(0)
  })

  test('anything at all is answered, never thrown', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(validate(newEntriesSchema, value).ok).toBe(false)
        expect(validate(newSawSchema, value).ok).toBe(false)
        expect(validate(newPersonSchema, value).ok).toBe(false)
      }),
    )
  })
})

test('a problem document has what RFC 9457 asks for', () => {
  expect(problemDetails('saw-occupied', 'Take it off first.')).toEqual({
    type: 'urn:undercliff:problem:saw-occupied',
    title: 'There is another loop on that saw',
    status: 409,
    code: 'saw-occupied',
    detail: 'Take it off first.',
  })
  for (const { status, title } of Object.values(PROBLEMS)) {
    expect(status).toBeGreaterThanOrEqual(400)
    expect(title).toMatch(/^[A-Z]/)
  }
})
