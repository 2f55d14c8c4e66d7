import { describe, expect, test } from 'vitest'
import { card, saw } from '../fixtures/shed'
import { groupShed } from './groupShed'

describe('groupShed', () => {
  test('saws that take the same loops stand together, each with the loop on it', () => {
    const { groups } = groupShed([saw('one'), saw('big', 84), saw('two')], [card('K2', 'two'), card('K10'), card('K9')])
    expect(groups.map(({ saws }) => saws.map(({ saw: { id }, loop }) => [id, loop?.tag ?? null]))).toEqual([
      [
        ['one', null],
        ['two', 'K2'],
      ],
      [['big', null]],
    ])
    expect(groups[0]?.beside.map(({ loop: { tag } }) => tag)).toEqual(['K9', 'K10'])
  })

  test('every loop is somewhere, and only there', () => {
    const loops = [
      card('A1', 'one'),
      card('A2'),
      card('B1', null, { gaugeUm: 1300 }),
      card('C1', null, { driveLinks: 84 }),
      card('D1', null, {}, true),
    ]
    const { groups, homeless, retired } = groupShed([saw('one'), saw('big', 84)], loops)
    const placed = [
      ...groups.flatMap(({ saws, beside }) => [
        ...saws.flatMap(({ loop }) => (loop === null ? [] : [loop])),
        ...beside.map(({ loop }) => loop),
      ]),
      ...homeless,
      ...retired,
    ]
    expect(placed.map(({ tag }) => tag).sort()).toEqual(['A1', 'A2', 'B1', 'C1', 'D1'])
    expect(homeless.map(({ tag }) => tag)).toEqual(['B1'])
    expect(retired.map(({ tag }) => tag)).toEqual(['D1'])
  })

  test('what the fit check says decides: a drawback is told, another nose is another kind of saw', () => {
    const low = card('L1', null, { pitchClass: 'lowProfile' })
    const { groups, homeless } = groupShed([saw('one')], [low])
    expect(groups[0]?.beside).toEqual([{ loop: low, level: 'but' }])
    expect(homeless).toEqual([])
    const nosed = { ...saw('two'), nosePitchClass: 'p325' as const }
    const parted = groupShed([nosed, saw('one')], [card('K1')])
    expect(parted.groups.map(({ beside }) => beside.length)).toEqual(
      parted.groups.map(({ saws }) => (saws[0]?.saw.id === 'one' ? 1 : 0)),
    )
    expect(groupShed([nosed], [card('K1')]).homeless.map(({ tag }) => tag)).toEqual(['K1'])
  })
})
