import { describe, expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES, type HouseRules } from '../house'
import { specFromProfile } from '../profile'
import { sayReason, sayTurn, type Figures } from '../words'
import { decideFully, type FullDecision } from './fullDecision'

// Decisions worked out in full, figure by figure, as the model stands. A change to the model shows
// here as a difference that somebody has to look at: `npx vitest run --project unit worked -u` writes
// them anew. Whether they are right is asked elsewhere; these say whether they are the same.

const NOW = '2026-06-01T00:00:00.000Z'
const small = { ...SPEC, driveLinks: 24 }
const COUNT = 12

/** A loop with a life behind it: pairs, strokes by several people, spells, gauges, and a mark that is not 0. */
function used(): Log {
  const spec = specFromProfile({
    pitchClass: 'p325',
    gaugeUm: 1300,
    driveLinks: 28,
    cutterType: 'fullChisel',
    sequence: 'semiSkip',
    newLengthUm: 9000,
    markLengthUm: 2000,
  })
  const log = new Log(spec).measureAll((n) => 7000 + (n % 3) * 60, 10)
  for (const [round, personId] of ['ann', 'bo', 'ann', 'bo', 'ann'].entries()) {
    log.add('ran', { tanks: 2, conditions: round % 2 === 0 ? 'clean' : 'gritty' })
    const beforeUm = 6900 - round * 210
    log.add(
      'sharpened',
      {
        method: round === 3 ? 'grinder' : round % 2 === 0 ? 'fileBench' : 'fileField',
        gaugesLowered: round === 2,
        strokes: { left: 5 + round, right: 6 + round },
        wasDull: round !== 1,
        pairs: [{ cutter: round + 1, beforeUm, afterUm: beforeUm - 150 - 20 * round }],
      },
      { personId },
    )
  }
  return log.add('ran', { tanks: 3, conditions: 'soil' })
}

const CASES: Record<string, readonly [Log, Partial<HouseRules>?]> = {
  'as new': [new Log(small)],
  'sharp, a tank after its sharpening': [
    new Log(small).measureAll(6000, COUNT).file().add('ran', { tanks: 1, conditions: 'clean' }),
  ],
  'dull and uneven': [
    new Log(small)
      .measureAll((n) => 5200 + (n % 4) * 150 + (n % 2) * 120, COUNT)
      .add('ran', { tanks: 7, conditions: 'gritty' }),
  ],
  'struck, with a depth that nobody measured': [
    new Log(small)
      .measureAll(4100, COUNT)
      .add('struck', { against: 'stone', cutters: [4, 5, 6], deepest: { cutter: 5, depthUm: 1300 } })
      .add('inspected', {
        readings: [
          { cutter: 4, damage: [{ kind: 'stone', depthUm: 700 }] },
          { cutter: 5, damage: [{ kind: 'blued', depthUm: 900 }] },
          { cutter: 6, damage: [{ kind: 'chipped', depthUm: null }] },
        ],
        parts: [],
      }),
  ],
  'near its mark': [new Log(small).measureAll(620, COUNT).file().add('ran', { tanks: 2, conditions: 'clean' })],
  'used, by a house that goes by signs and grows its gauges': [
    used(),
    {
      when: 'onSigns',
      gaugeSchool: 'progressive',
      woodStep: 'harder',
      fileSchool: 'largerThenSmaller',
      unevenSchool: 'extraOnBad',
      bench: 'cheapest',
      sidePlate: 'moreHook',
      guide: 'jig',
      chiselAngleDeg: 25,
      chiselDownAngleDeg: 10,
    },
  ],
  'without wheel or shop, low gauges': [
    new Log(small)
      .measureAll(6000, COUNT)
      .add('measured', { readings: [{ cutter: 2, settingUm: 900 }] })
      .add('ran', { tanks: 6, conditions: 'clean' }),
    { grinderOwned: false, shopUsed: false, dirtyDuty: false, unevenSchool: 'sameStrokes', guide: 'chassis' },
  ],
}

/** A decision as lines of data, one for each thing that is decided, with its sentences. */
function linesOf({ verdict, schools, turns, sides, life, grinder, conflicts }: FullDecision, figures: Figures): string {
  const { options, reasons, ...rest } = verdict
  const told = [
    rest,
    ...reasons.map((reason) => ({ ...reason, says: sayReason(reason, figures) })),
    ...options,
    ...turns.map((turn) => ({ ...turn, says: sayTurn(turn, verdict.action, figures) })),
    sides,
    life,
    grinder,
    ...conflicts,
    ...Object.entries(schools).flatMap(([question, outcomes]) => outcomes.map((one) => ({ question, ...one }))),
  ]
  // Machines differ in the last digits of a logarithm.
  const plain = (_key: string, value: unknown): unknown =>
    typeof value === 'number' ? Number(value.toPrecision(9)) : value
  return told.map((one) => JSON.stringify(one, plain)).join('\n') + '\n'
}

describe('worked decisions', () => {
  test.each(Object.entries(CASES))('%s', async (name, [log, rules]) => {
    const full = decideFully(stateOf(log), { ...DEFAULT_RULES, ...rules }, NOW)
    const text = linesOf(full, { lengths: 'both', currency: 'EUR' })
    await expect(text).toMatchFileSnapshot(`./worked/${name.replace(/\W+/g, '-')}.jsonl`)
  })
})
