import { describe, expect, test } from 'vitest'
import { Log } from '../fixtures/logs'
import { ACTIONS, ENTRY_KINDS, type Entry, type EntryKind, type NewEntry } from '../log'
import { SAW_ENTRY_KINDS, type SawEntry, type SawEntryKind } from '../saw'
import { isLeadsJob, leadsOnly, leadsOnlyOfSaw, STRIKE_DAYS } from './leadsOnly'

// What a crew lets anybody write: common practice. A new kind is neither until it is named in the code.
const LEADS: readonly EntryKind[] = ['registered', 'specChanged', 'retagged', 'retired', 'dutyChanged']
const LEADS_OF_SAWS: readonly SawEntryKind[] = [
  'barFitted',
  'fitRead',
  'sprocketRenewed',
  'sawRenamed',
  'sawGone',
  'sawBack',
]

const log = new Log().add('retired', { reason: 'worn' }).add('ran', { tanks: 1, conditions: 'clean' }).entries
const BY = { personId: 'me', nowMs: Date.parse('2026-02-01T00:00:00.000Z') }
const entry = (kind: EntryKind, body: object = {}): NewEntry =>
  ({ id: 'one', loopId: 'loop', happenedAt: '2026-02-01T00:00:00.000Z', personId: null, kind, ...body }) as NewEntry
const sawEntry = (kind: SawEntryKind, body: object = {}): SawEntry =>
  ({ id: 'two', sawId: 'saw', happenedAt: '2026-02-01T00:00:00.000Z', personId: null, kind, ...body }) as SawEntry

test.each(ENTRY_KINDS)('%s is a lead’s, or anybody’s', (kind) => {
  const why = leadsOnly(entry(kind), log, BY)
  if (LEADS.includes(kind)) expect(why).toMatch(/lead.*\.$/)
  else expect(why).toBeNull()
})

test.each(SAW_ENTRY_KINDS)('%s of a saw is a lead’s, or anybody’s', (kind) => {
  const why = leadsOnlyOfSaw(sawEntry(kind), [], BY)
  if (LEADS_OF_SAWS.includes(kind)) expect(why).toMatch(/lead.*\.$/)
  else expect(why).toBeNull()
})

test('money and going against a verdict are a lead’s, the rest of such entries anybody’s', () => {
  expect(leadsOnly(entry('cameBack', { to: 'bench', costMinor: 0 }), log, BY)).toMatch(/lead/)
  expect(leadsOnly(entry('cameBack', { to: 'bench' }), log, BY)).toBeNull()
  expect(leadsOnly(entry('decided', { overruled: 'The grinder is away' }), log, BY)).toMatch(/lead/)
  expect(leadsOnly(entry('decided'), log, BY)).toBeNull()
})

test('striking out is a lead’s where writing was', () => {
  expect(leadsOnly(entry('corrected', { strikes: 'entry0001' }), log, BY)).toBe(leadsOnly(entry('retired'), log, BY))
  const mine = log.map((one) => ({ ...one, writtenBy: 'me', writtenAt: '2026-01-31T00:00:00.000Z' }))
  expect(leadsOnly(entry('corrected', { strikes: 'entry0002' }), mine, BY)).toBeNull()
  expect(leadsOnly(entry('corrected', { strikes: 'not there' }), log, BY)).toBeNull()
  const bar = { ...sawEntry('barFitted'), id: 'bar' }
  expect(leadsOnlyOfSaw(sawEntry('sawCorrected', { strikes: 'bar' }), [bar], BY)).toMatch(/lead/)
  expect(leadsOnlyOfSaw(sawEntry('sawCorrected', { strikes: 'bar' }), [], BY)).toBeNull()
})

test('the jobs that a lead begins are those that end in a lead’s entry', () => {
  expect(ACTIONS.filter((action) => isLeadsJob(action))).toEqual(['retire', 'dirtyDuty'])
})

describe('a sawyer strikes out', () => {
  const DAY_MS = 86_400_000
  const daysAgo = (days: number): string => new Date(BY.nowMs - days * DAY_MS).toISOString()
  const by = (writtenBy: string | null, personId: string | null, days: number) => ({
    writtenBy,
    personId,
    writtenAt: daysAgo(days),
  })
  test.each([
    ['what they wrote', by('me', null, 0), null],
    ['what they did and somebody else wrote down', by('other', 'me', 0), null],
    ['what somebody else wrote and did', by('other', 'other', 0), /Somebody else/],
    ['what nobody in particular wrote', by(null, null, 0), /Somebody else/],
    ['what they wrote some days ago', by('me', 'me', STRIKE_DAYS), null],
    ['and not what they wrote long ago', by('me', 'me', STRIKE_DAYS + 0.01), /7 days ago/],
  ])('%s', (_name, written, wanted) => {
    const ran = { ...entry('ran'), id: 'ran', ...written } as Entry
    const bar = { ...sawEntry('barFlipped'), id: 'ran', ...written }
    for (const said of [
      leadsOnly(entry('corrected', { strikes: 'ran' }), [ran], BY),
      leadsOnlyOfSaw(sawEntry('sawCorrected', { strikes: 'ran' }), [bar], BY),
    ]) {
      if (wanted === null) expect(said).toBeNull()
      else expect(said).toMatch(wanted)
    }
  })

  test('and nobody who is not said to be anybody', () => {
    const ran = { ...entry('ran'), id: 'ran', ...by(null, null, 0) } as Entry
    expect(leadsOnly(entry('corrected', { strikes: 'ran' }), [ran], { ...BY, personId: null })).not.toBeNull()
  })
})
