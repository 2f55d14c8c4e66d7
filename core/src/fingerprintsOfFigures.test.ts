import fc from 'fast-check'
import { expect, test } from 'vitest'
import { admit, admitSaw } from './admit'
import { CUTTER_DAMAGE_KINDS, damageAfterRemoval, shapeUm, spreadStrike } from './damage'
import { fitCheck } from './fit'
import { anyLog } from './fixtures/anyLog'
import { hour, stateOf } from './fixtures/logs'
import { Draws, madeUpRules } from './fixtures/madeUp'
import { printOf } from './fixtures/printOf'
import * as geometry from './geometry'
import { chanceTooLow, DEFAULT_RULES, gaugeStanding, QUESTIONS, rulesConflicts, schoolsOf } from './house'
import { gaugeCandidates, identifyPitch, likelyDriveLinks } from './identify'
import { guessColumns, planImport } from './importing'
import { readGaugeCell, readPitchCell } from './importing/readCells'
import { layoutLoop, SEQUENCES } from './loop'
import { checkLength } from './measure'
import { CUTTER_TYPES, PITCH_CLASSES, specFromProfile } from './profile'
import { sawState, type SawEntry } from './saw'
import * as sharpen from './sharpen'
import { kaplanMeier, learnLifetime, medianSurvival, shrunkGroups, survivalAt } from './stats'
import { freshTag, looksMade, madeTag, readTag } from './tag'
import * as units from './units'
import { learnedOf } from './jobs/learned'
import { sayCandidate, sayGauge, sayNext, saySawEntry, schoolWords } from './words'

// What the small parts of core come to over grids that hold their limits, a fingerprint for each part. As in
// fingerprints.test.ts: that something changed, not that it is right.

const grid = (from: number, to: number, step: number): number[] =>
  Array.from({ length: Math.floor((to - from) / step) + 1 }, (_, i) => from + i * step)
const across = <A, B, R>(as: readonly A[], bs: readonly B[], of: (a: A, b: B) => R): R[] =>
  as.flatMap((a) => bs.map((b) => of(a, b)))
const SPECS = across(PITCH_CLASSES, CUTTER_TYPES, (pitchClass, cutterType) =>
  specFromProfile({ pitchClass, cutterType, gaugeUm: 1500, driveLinks: 72 }),
)
const or = <T>(of: () => T): T | string => {
  try {
    return of()
  } catch (error) {
    return (error as Error).message
  }
}
const TEXTS = [
  ...['6.2', '6,2', '.250', '1/4', '1/4"', '6.2 mm', '0.62 cm', '5 thou', '62', '620', '3/8 in', '1 1/2"', '5.2mm'],
  ...['abc', '', '6..2', '-3', '1/0', '6.2.1', '99999', '0', '1e3', '6 2', '13/64', '0.250"', '2 mm 3', '½"', '¼'],
]

const PARTS: Readonly<Record<string, () => unknown>> = {
  units: () => [
    ...across(TEXTS, ['mm', 'inch'] as const, units.readLength),
    ...across(TEXTS, ['mm', 'inch'] as const, (text, bare) => {
      const reading = units.readLength(text, bare)
      return reading.ok ? null : units.sayRefusal(reading)
    }),
    ...across(grid(0, 12_000, 61), units.LENGTH_PREFERENCES, units.writeLength),
    ...across(grid(0, 26_000, 397), ['mm', 'inch'] as const, units.lengthField),
    ...grid(3000, 8000, 23).map((um) => [units.writeFile(um), units.pitchName(um), units.writeFraction(um)]),
    ...across(['EUR', 'JPY', 'KWD'], grid(0, 200_000, 7919), (one, minor) => [
      units.writeMoney(minor, one),
      units.moneyField(minor, one),
      units.readMoney(units.moneyField(minor, one), one),
    ]),
    ...across(['12', '12.5', '12,50', '1.234,5', '1,234.5', 'x', '-1', '1.239', ''], ['EUR', 'JPY'], units.readMoney),
    ...grid(100, 90_000, 1777).map((um) => [units.slippedDecimals(um), units.otherUnit(um, 'mm')]),
  ],
  geometry: () => [
    ...across(SPECS, grid(0, 8000, 500), (spec, um) => [
      geometry.topPlateHeight(spec, um),
      geometry.reachAt(spec, um),
      ...across(geometry.GAUGE_SCHOOLS, geometry.WOOD_STEPS, (gaugeSchool, woodStep) => [
        geometry.targetSetting(spec, um, { gaugeSchool, woodStep }),
        geometry.lengthToRight(spec, um / 20, { gaugeSchool, woodStep }, 7),
      ]),
      ...geometry.FILE_SCHOOLS.map((school) => geometry.fileFor(spec, um, school)),
      ...[4000, 4800, 5200, 5500, 5800].map((file) => geometry.fileFitNow(spec, file, um)),
      ...(['topPlate', 'chassis'] as const).map((guide) => geometry.partAboveWorn(spec, um, 5200, 0.2, guide)),
    ]),
    ...across(PITCH_CLASSES, grid(3000, 7000, 1), (pitchClass, um) => geometry.fileFit({ pitchClass }, um)),
    ...across(SPECS, grid(3500, 6500, 20), (spec, file) => [0, 2500].map((um) => geometry.fileFitNow(spec, file, um))),
    ...grid(0, 1, 0.05).map((part) => or(() => geometry.fileBevelDeg(part))),
    ...SPECS.map((spec) => [
      geometry.grinderSettings(spec, { angleDeg: 30, downAngleDeg: 10, stopUm: 5000, settingUm: 650 }),
      geometry.strikeExposure(spec, 20, 20),
      geometry.strikeExposure(spec, 3, 7),
    ]),
  ],
  layout: () =>
    across(SEQUENCES, grid(20, 110, 1), (sequence, driveLinks) =>
      or(() => layoutLoop({ sequence, driveLinks, firstHand: 'right', pitchUm: 9525 })),
    ),
  identify: () => {
    const instruments = ['caliper', 'ruler'] as const
    const builds = [undefined, 'low', 'tall'] as const
    const found = [
      ...across(grid(10_000, 24_000, 41), instruments, (um, instrument) =>
        builds.map((build) => identifyPitch({ span: { um, instrument }, ...(build === undefined ? {} : { build }) })),
      ).flat(),
      ...across(grid(900, 2200, 29), instruments, (um, instrument) => identifyPitch({ thickness: { um, instrument } })),
      ...across(grid(16_000, 21_000, 391), grid(1000, 1700, 83), (span, um) =>
        identifyPitch({ span: { um: span, instrument: 'caliper' }, thickness: { um, instrument: 'caliper' } }),
      ),
      identifyPitch({}),
    ]
    const gauges = across(grid(700, 2500, 1), instruments, (um, instrument) => gaugeCandidates({ um, instrument }))
    return [
      found,
      found.map((one) => sayNext(one, 'both')),
      found.flatMap((one) => (one.ok ? one.candidates.map((candidate) => sayCandidate(candidate, 'mm')) : [])),
      gauges,
      gauges.map(sayGauge),
      across(grid(250_000, 900_000, 9973), [6350, 8255, 9525, 10_260], likelyDriveLinks),
    ]
  },
  checks: () => [
    ...across(SPECS.slice(0, 8), grid(0, 11_000, 97), (spec, um) =>
      [null, 3000, 7000].map((expected) => checkLength(spec, um, expected, 'mm')),
    ),
    ...across(SPECS.slice(0, 1), grid(0, 9000, 1), (spec, um) =>
      [null, 660, 1600, 5400].map((expected) => checkLength(spec, um, expected, 'mm')),
    ),
    ...across(SPECS.slice(0, 1), grid(0, 300_000, 127), (spec, um) => checkLength(spec, um, 5300, 'inch')),
  ],
  sharpen: () => {
    const draws = new Draws(5)
    const cutters = Array.from({ length: 40 }, () =>
      Array.from({ length: 12 }, () => ({
        length: { um: draws.whole(100, 7000) },
        damage: draws.so(0.3) ? [{ kind: draws.of(CUTTER_DAMAGE_KINDS), depthUm: draws.whole(0, 1500) }] : [],
      })),
    )
    const schools = ['matchShortest', 'sameStrokes', 'worstSetsCount', 'extraOnBad', 'ownGauges'] as const
    return [
      across(cutters, schools, (some, school) => [
        sharpen.filingRemovals(some, 200, school),
        sharpen.stagesOf(some, 200, school, 120, 21),
      ]),
      across(cutters, ['file', 'wheel'] as const, (some, tool) => sharpen.removals(some, tool, 180, true)),
      grid(0, 3000, 37).map((um) => [sharpen.strokesFor(um), sharpen.touchesFor(um)]),
      across(grid(0, 900, 90), ['field', 'bench'] as const, (strokes, where) =>
        (['plateGuide', 'freehand', 'jig'] as const).map((tool) =>
          sharpen.workMinutes(tool, sharpen.evenLoad(36, strokes, { inField: where === 'field' })),
        ),
      ),
      cutters.map((some) => some.map(({ damage }) => [shapeUm(damage), damageAfterRemoval(damage, 300)])),
      grid(1, 9, 1).map((cutter) =>
        or(() => [...spreadStrike([2, 3, 4, 5, 6, 7], { cutter, depthUm: 1000 }).entries()]),
      ),
      SPECS.map((spec) => [25, 30].map((deg) => sharpen.topPlateAngleFor(spec, deg))),
    ]
  },
  house: () => {
    const draws = new Draws(9)
    return Array.from({ length: 60 }, () => {
      const rules = madeUpRules(draws)
      const spec = draws.of(SPECS)
      return [
        rulesConflicts(rules),
        grid(300, 1000, 50).map((um) => {
          const cutter = { length: { um: 5000 }, setting: { um, sdUm: draws.of([0, 30]) } }
          return [gaugeStanding(spec, cutter, rules), chanceTooLow(spec, cutter, rules)]
        }),
      ]
    })
  },
  fits: () => {
    const saws = across(PITCH_CLASSES, [1300, 1500, 1600], (pitchClass, gaugeUm) => ({
      pitchClass,
      gaugeUm,
      driveLinks: 72,
      nosePitchClass: pitchClass === 'p404' ? null : ('threeEighths' as const),
    }))
    return across(SPECS, saws, (spec, saw) => [
      fitCheck(spec, saw),
      fitCheck({ ...spec, driveLinks: 70 }, saw, { grooveWidthUm: 1700 }, false),
      fitCheck(spec, saw, { grooveWidthUm: 1510, due: ['sprocketNow'] }),
    ])
  },
  stats: () => {
    const draws = new Draws(3)
    return Array.from({ length: 40 }, () => {
      const spells = Array.from({ length: draws.whole(0, 9) }, () => ({
        time: draws.whole(1, 6),
        ended: draws.so(0.6),
      }))
      const steps = kaplanMeier(spells)
      const groups = Array.from({ length: draws.whole(1, 8) }, () => ({
        group: draws.of(['a', 'b', 'c']),
        value: draws.whole(100, 300),
        weight: draws.whole(1, 5),
      }))
      return [
        steps,
        medianSurvival(steps),
        grid(0, 7, 0.5).map((time) => survivalAt(steps, time)),
        learnLifetime(spells, { mean: 4, worth: 4 }),
        shrunkGroups(groups, { mean: 200, sd: 60 }, 40),
      ]
    })
  },
  tags: () => [
    grid(0, 4095, 31).map((number) => or(() => madeTag(number))),
    grid(0, 0.99, 0.09).map((random) => freshTag(new Set(['AB1', madeTag(5)]), random)),
    [madeTag(77), 'QUC' + madeTag(77), 'k3', 'K 3', '0', 'ABCD', '2345', madeTag(9).toLowerCase(), ''].map((text) => [
      looksMade(text),
      readTag(text, ['K3', madeTag(77), 'AB12']),
    ]),
  ],
  saws: () => {
    const draws = new Draws(11)
    return Array.from({ length: 40 }, () => {
      const log: SawEntry[] = Array.from({ length: draws.whole(0, 8) }, (_, i) => ({
        id: `one${i}`,
        sawId: 'a-saw',
        happenedAt: hour(draws.whole(0, 60)),
        writtenAt: hour(61),
        personId: null,
        writtenBy: null,
        ...draws.of([
          { kind: 'barFitted', gaugeUm: 1500, driveLinks: draws.whole(60, 80), nosePitchClass: null },
          { kind: 'barFlipped' },
          {
            kind: 'barChecked',
            grooveWidthUm: draws.whole(1480, 1750),
            grooveDepthUm: draws.whole(3000, 7000),
            burrs: true,
          },
          { kind: 'barChecked', burrs: false },
          { kind: 'railsDressed' },
          { kind: 'sprocketRenewed', pitchClass: draws.of(PITCH_CLASSES) },
          { kind: 'sawCorrected', strikes: `one${draws.whole(0, i)}` },
        ] as const),
      }))
      const first = { pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 } as const
      const stints = Array.from({ length: draws.whole(0, 5) }, (_, i) => ({
        loopId: draws.of(['a', 'b', 'c']),
        sawId: 'a-saw',
        from: hour(i * 10),
        to: draws.so(0.8) ? hour(i * 10 + 9) : null,
        tanks: draws.whole(0, 30),
        flipped: draws.so(0.3),
        worn: draws.next(),
      }))
      const [last] = log
      return [
        sawState(first, log, stints),
        log.map((entry) => saySawEntry(entry, 'mm')),
        last === undefined ? [] : admitSaw({ ...last, id: 'another' }, log, first, Date.parse(hour(62))),
      ]
    })
  },
  admits: () =>
    fc.sample(anyLog, { numRuns: 60, seed: 4 }).map((log) => {
      const found = []
      for (let i = 1; i < log.entries.length; i += 1) {
        const entry = log.entries[i]
        if (entry !== undefined) found.push(admit(entry, log.entries.slice(0, i), Date.parse(hour(30))))
      }
      const { mix, removal, perStroke, sharpness, usedUp } = learnedOf(stateOf(log))
      return [found, mix, removal, perStroke, sharpness, usedUp.withRemoval, grid(0, 40, 5).map(usedUp.lowerBy)]
    }),
  imports: () => {
    const headings = [
      'Tag',
      'Pitch',
      'Gauge',
      'DL',
      'Cutter type',
      'Sequence',
      'Length',
      'File',
      'On saw',
      'Mark colour',
    ]
    const draws = new Draws(21)
    const cell = (texts: readonly string[]): string => draws.of(texts)
    const rows = Array.from({ length: 120 }, (_, i) => [
      cell([`L${i}`, '', 'L3', ' k9 ', madeTag(i)]),
      cell(['3/8', '3/8 LP', '.325', '0.325"', '1/4', '.404', '3/8"', 'x', '']),
      cell(['1.5', '.058', '1.3 mm', '.050', '0.063', '9', '']),
      cell(['72', '72 DL', '66', '7', '300', 'x', '56.5', '']),
      cell(['full chisel', 'semi', 'chipper', 'ripping', 'square', 'semi chisel', 'odd', '']),
      cell(['full', 'skip', 'semi skip', 'full skip', 'full comp', 'odd', '']),
      cell(['6.2', '7', '62', '0.25"', '1/4', 'x', '']),
      cell(['5.2', '13/64', '4', '5.5 mm', 'x', '']),
      cell(['big saw', 'Small', 'truck', 'bench', 'dull box', 'sharp rack', 'shop', 'retired', 'nowhere', '']),
      cell(['red', 'none', 'white', 'pink', '']),
    ])
    const match = guessColumns(headings)
    const saw = (id: string, nickname: string, pitchClass: 'threeEighths' | 'p325') => ({
      id,
      nickname,
      pitchClass,
      gaugeUm: 1500,
      driveLinks: 72,
    })
    let next = 0
    const plan = planImport(rows, match, {
      tags: ['K9', 'L7'],
      saws: [saw('s1', 'Big saw', 'threeEighths'), saw('s2', 'Small', 'p325')],
      takenSawIds: ['s2'],
      rules: DEFAULT_RULES,
      unit: 'mm',
      headings,
      now: hour(10),
      newId: () => `id${(next += 1)}`,
      random: () => draws.next(),
    })
    return [
      match,
      plan,
      grid(900, 2300, 1).map((um) => readGaugeCell(String(um / 1000), 'mm')),
      grid(0, 120, 1).flatMap((thou) => [readGaugeCell(String(thou), 'mm'), readGaugeCell(`.0${thou}`, 'inch')]),
      across(grid(5000, 11_000, 5), [true, false], (um, low) => readPitchCell(String(um / 1000), low)),
      grid(1, 500, 1).map((thou) => readPitchCell(`0.${String(thou).padStart(3, '0')}`, false)),
    ]
  },
  words: () => QUESTIONS.map((question) => schoolsOf(question).map(({ id }) => schoolWords(question, id))),
}

test('nothing that is worked out on the way changes unseen', async () => {
  const lines = Object.entries(PARTS).flatMap(([name, part]) => {
    const value = part()
    const list: readonly unknown[] = Array.isArray(value) ? value : [value]
    return [`${name} ${list.length} ${printOf(list)}`]
  })
  await expect(lines.join('\n')).toMatchFileSnapshot('./fixtures/fingerprints/figures.txt')
})
