import { expect, test } from 'vitest'
import { Log } from '../fixtures/logs'
import { ACTIONS, ENTRY_KINDS, type EntryKind, type NewEntry } from '../log'
import { SAW_ENTRY_KINDS, type SawEntry, type SawEntryKind } from '../saw'
import { isLeadsJob, leadsOnly, leadsOnlyOfSaw } from './leadsOnly'

// What a crew lets anybody write: common practice. A new kind is neither until it is named in the code.
const LEADS: readonly EntryKind[] = ['registered', 'specChanged', 'retagged', 'retired', 'dutyChanged']
const LEADS_OF_SAWS: readonly SawEntryKind[] = ['barFitted', 'sprocketRenewed']

const log = new Log().add('retired', { reason: 'worn' }).add('ran', { tanks: 1, conditions: 'clean' }).entries
const entry = (kind: EntryKind, body: object = {}): NewEntry =>
  ({ id: 'one', loopId: 'loop', happenedAt: '2026-02-01T00:00:00.000Z', personId: null, kind, ...body }) as NewEntry
const sawEntry = (kind: SawEntryKind, body: object = {}): SawEntry =>
  ({ id: 'two', sawId: 'saw', happenedAt: '2026-02-01T00:00:00.000Z', personId: null, kind, ...body }) as SawEntry

test.each(ENTRY_KINDS)('%s is a lead’s, or anybody’s', (kind) => {
  const why = leadsOnly(entry(kind), log)
  if (LEADS.includes(kind)) expect(why).toMatch(/lead.*\.$/)
  else expect(why).toBeNull()
})

test.each(SAW_ENTRY_KINDS)('%s of a saw is a lead’s, or anybody’s', (kind) => {
  const why = leadsOnlyOfSaw(sawEntry(kind), [])
  if (LEADS_OF_SAWS.includes(kind)) expect(why).toMatch(/lead.*\.$/)
  else expect(why).toBeNull()
})

test('money and going against a verdict are a lead’s, the rest of such entries anybody’s', () => {
  expect(leadsOnly(entry('cameBack', { to: 'bench', costMinor: 0 }), log)).toMatch(/lead/)
  expect(leadsOnly(entry('cameBack', { to: 'bench' }), log)).toBeNull()
  expect(leadsOnly(entry('decided', { overruled: 'The grinder is away' }), log)).toMatch(/lead/)
  expect(leadsOnly(entry('decided'), log)).toBeNull()
})

test('striking out is a lead’s where writing was', () => {
  expect(leadsOnly(entry('corrected', { strikes: 'entry0001' }), log)).toBe(leadsOnly(entry('retired'), log))
  expect(leadsOnly(entry('corrected', { strikes: 'entry0002' }), log)).toBeNull()
  expect(leadsOnly(entry('corrected', { strikes: 'not there' }), log)).toBeNull()
  const bar = { ...sawEntry('barFitted'), id: 'bar' }
  expect(leadsOnlyOfSaw(sawEntry('sawCorrected', { strikes: 'bar' }), [bar])).toMatch(/lead/)
  expect(leadsOnlyOfSaw(sawEntry('sawCorrected', { strikes: 'bar' }), [])).toBeNull()
})

test('the jobs that a lead begins are those that end in a lead’s entry', () => {
  expect(ACTIONS.filter((action) => isLeadsJob(action))).toEqual(['retire', 'dirtyDuty'])
})
