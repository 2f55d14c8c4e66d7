import { expect, test } from 'vitest'
import { card, saw } from '../../fixtures/shed'
import { barByStamp, knownByStamp } from './stamps'

const stamped = (tag: string, stamp: string, gaugeUm = 1500) => {
  const plain = card(tag, null)
  return { ...plain, spec: { ...plain.spec, stamp, gaugeUm } }
}

test('a stamp is what the crew’s own loops with it are, what it was last', () => {
  const loops = [stamped('A1', 'D 25'), stamped('A2', 'd25', 1300), stamped('A3', 'E7')]
  expect(knownByStamp('D-25', loops)).toMatchObject({ stamp: 'd25', gaugeUm: 1300, tags: ['A1', 'A2'] })
  expect(knownByStamp('X', loops)).toBeNull()
  expect(knownByStamp('  ', loops)).toBeNull()
})

test('none ships: a crew that added nothing has no stamp', () => {
  expect(knownByStamp('25', [card('A1', null)])).toBeNull()
})

test('a bar is what the saw with such a stamp takes, the last one first', () => {
  const saws = [{ ...saw('Osprey'), barStamp: 'B 16' }, { ...saw('Whelk'), barStamp: 'b16' }, saw('Kelp')]
  expect(barByStamp('B-16', saws)?.nickname).toBe('Whelk')
  expect(barByStamp('', saws)).toBeNull()
  expect(barByStamp('17', saws)).toBeNull()
})
