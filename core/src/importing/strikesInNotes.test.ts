import { describe, expect, test } from 'vitest'
import { strikeIn } from './strikesInNotes'

describe('a note that a loop struck something opens a strike', () => {
  test.each([
    ['hit a nail in March', 'metal'],
    ['Struck fencing wire, left side', 'metal'],
    ['ran into a stone', 'stone'],
    ['touched the kerb', 'stone'],
    ['caught some gravel', 'stone'],
    ['hit the ground', 'soil'],
    ['Hits dirt now and then', 'soil'],
    ['struck something', 'unknown'],
    ['bought used. hit rock!', 'stone'],
  ])('%s: %s', (note, object) => {
    expect(strikeIn(note)).toBe(object)
  })
})

describe('a note that says nothing of the kind opens none', () => {
  test.each([
    '',
    'Maren’s best one',
    'reground in spring',
    'touched up on the stone bench',
    'for dirty wood',
    'ironbark only',
    'hit nothing so far',
    'never hit a stone',
    'met no metal',
    // It was seen to.
    'hit a nail, ground out in April',
    'struck a stone; filed since',
    'hit wire, reground since',
    // Said of something else.
    'hitch pin missing',
    'stone for the gauge plate is in the drawer',
  ])('%s', (note) => {
    expect(strikeIn(note)).toBeNull()
  })
})
