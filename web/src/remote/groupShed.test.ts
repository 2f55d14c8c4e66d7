import {
  cardOf,
  DEFAULT_RULES,
  fold,
  specFromProfile,
  type Entry,
  type LoopCard,
  type SpecChoice,
} from '@undercliff/core'
import { describe, expect, test } from 'vitest'
import { groupShed } from './groupShed'

const saw = (id: string, driveLinks = 72) => ({
  id,
  nickname: id,
  pitchClass: 'threeEighths' as const,
  gaugeUm: 1500,
  driveLinks,
  due: [],
  grooveWidthUm: null,
})
function card(tag: string, sawId: string | null = null, more: Partial<SpecChoice> = {}, retired = false): LoopCard {
  const spec = specFromProfile({
    pitchClass: 'threeEighths',
    gaugeUm: 1500,
    driveLinks: 72,
    cutterType: 'semiChisel',
    ...more,
  })
  const base = {
    loopId: `loop-${tag}`,
    personId: null,
    happenedAt: '2026-03-01T09:00:00.000Z',
    writtenAt: '2026-03-01T09:00:00.000Z',
    writtenBy: null,
  }
  const log: Entry[] = [{ ...base, id: `${tag}-1`, kind: 'registered', tag, spec }]
  if (sawId !== null) log.push({ ...base, id: `${tag}-2`, kind: 'fitted', sawId })
  if (retired) log.push({ ...base, id: `${tag}-3`, kind: 'retired', reason: 'worn' })
  const state = fold(log)
  if (state === null) throw new Error('the loop should be registered')
  return cardOf(state, DEFAULT_RULES)
}

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
