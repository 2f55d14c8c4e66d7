import { PART_DAMAGE_KINDS, type PartDamage } from '@undercliff/core'
import { expect, test } from 'vitest'
import { CHASSIS, partsAfter } from './chassis'

const cut: PartDamage = { kind: 'strapCut', nearCutter: 7 }
const loose: PartDamage = { kind: 'rivetLoose', nearCutter: null }

test('the checklist asks about everything that can be wrong with a chassis, each once', () => {
  expect(CHASSIS.flatMap(({ kinds }) => kinds).sort()).toEqual([...PART_DAMAGE_KINDS].sort())
})

test('what nobody looked at stays as it was known; what was looked at is what was found', () => {
  expect(partsAfter([cut, loose], new Map(), null)).toEqual([cut, loose])
  expect(partsAfter([cut, loose], new Map([['Tie straps', 'sound' as const]]), null)).toEqual([loose])
  expect(partsAfter([cut], new Map([['Tie straps', 'strapCut' as const]]), 12)).toEqual([cut])
  expect(partsAfter([], new Map([['Rivets', 'rivetSeized' as const]]), 12)).toEqual([
    { kind: 'rivetSeized', nearCutter: 12 },
  ])
})
