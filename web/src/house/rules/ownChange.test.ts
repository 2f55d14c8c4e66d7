import { DEFAULT_RULES } from '@undercliff/core'
import { expect, test } from 'vitest'
import { changedFields, takenBack } from './ownChange'

test('a change is what differs, but for the version', () => {
  expect(changedFields(DEFAULT_RULES, { ...DEFAULT_RULES, version: 2 })).toEqual([])
  const dearer = { ...DEFAULT_RULES.linkPriceMinor, p404: 60 }
  expect(changedFields(DEFAULT_RULES, { ...DEFAULT_RULES, linkPriceMinor: dearer, shopDays: 9 })).toEqual([
    'shopDays',
    'linkPriceMinor',
  ])
})

test('undo takes back only its own change, and nothing that somebody changed since', () => {
  const before = DEFAULT_RULES
  const saved = { ...before, version: 2, benchTanks: 9, guide: 'jig' as const }
  const now = { ...saved, version: 4, guide: 'freehand' as const, evennessUm: 300 }
  expect(takenBack(before, saved, now, ['benchTanks', 'guide'])).toEqual({ benchTanks: before.benchTanks })
  expect(takenBack(before, saved, saved, ['benchTanks', 'guide'])).toEqual({ benchTanks: 6, guide: 'topPlate' })
})
