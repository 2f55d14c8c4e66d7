import { describe, expect, test } from 'vitest'
import { stagesOf } from './stages'

const nicked = (...depthsUm: readonly number[]) =>
  depthsUm.map((depthUm) => ({ damage: depthUm === 0 ? [] : [{ kind: 'stone' as const, depthUm }] }))

describe('a filing in stages', () => {
  test('the same strokes reach a nick after as many sharpenings as it is deep, with a little behind it', () => {
    // 500 and 100 behind it, at 200 a filing: three. By the second, the one of 250 is clean.
    expect(stagesOf(nicked(0, 500, 250, 0), 200, 'sameStrokes', 0, 20)).toEqual({ sharpenings: 3, blunt: [2, 1, 0] })
    expect(stagesOf(nicked(0, 100), 200, 'sameStrokes', 0, 20)).toEqual({ sharpenings: 1, blunt: [0] })
  })

  test('the other schools clean in one go; cutters that differ catch up by two strokes a time', () => {
    expect(stagesOf(nicked(0, 500), 200, 'matchShortest', 0, 20)).toEqual({ sharpenings: 1, blunt: [0] })
    // 100 µm at 40 a time: three more.
    expect(stagesOf(nicked(0, 500), 200, 'extraOnBad', 100, 20)).toEqual({ sharpenings: 4, blunt: [0] })
    expect(stagesOf(nicked(0, 0), 200, 'extraOnBad', -50, 20).sharpenings).toBe(1)
    expect(stagesOf(nicked(0, 500), 200, 'sameStrokes', 200, 20).sharpenings).toBe(6)
  })

  test('what lies further ahead than anybody plans is not promised', () => {
    expect(stagesOf(nicked(0, 8100), 200, 'sameStrokes', 0, 20).sharpenings).toBeNull()
    expect(stagesOf(nicked(0, 7500), 200, 'sameStrokes', 0, 20)).toMatchObject({ sharpenings: 38 })
    expect(stagesOf(nicked(0, 0), 200, 'extraOnBad', 4000, 20).sharpenings).toBeNull()
  })
})
