import {
  specFromProfile,
  type CrewProfile,
  type EntryBodies,
  type KitItem,
  type LoopSpec,
  type NewEntry,
  type PitchClass,
  type SawEntry,
  type SawEntryBodies,
  type SawEntryKind,
  type Shelf,
  type SpecChoice,
  type StartMark,
} from '@undercliff/core'
import { Diary, type DemoPerson } from './diary'
import { demoKit, withKit } from './kit'
import { seeded } from './random'

/** The seed of the scenario that ships. */
export const DEMO_SEED = 20_260

export interface DemoSaw {
  readonly id: string
  readonly nickname: string
  readonly pitchClass: PitchClass
  readonly gaugeUm: number
  readonly driveLinks: number
  readonly nosePitchClass: PitchClass
}

/** Who of the demo can sign in, with what; said on the sign-in screen of the demo. */
export const DEMO_SIGN_INS = [
  { name: 'Maren Aldwick', role: 'lead', login: 'maren', password: 'gale-after-gale', pin: '2580' },
  { name: 'Iska Lund-Pell', role: 'sawyer', login: 'iska', password: 'salt-on-the-bark', pin: '1470' },
] as const

export interface Scenario {
  readonly crewName: string
  readonly people: readonly DemoPerson[]
  readonly saws: readonly DemoSaw[]
  /** Logs of bars and sprockets. */
  readonly sawEntries: readonly SawEntry[]
  readonly profiles: readonly CrewProfile[]
  readonly kit: readonly KitItem[]
  /** Every entry of the season in the order in which it was written. */
  readonly entries: readonly NewEntry[]
}

const DAY_MS = 86_400_000
/** Paint on the joining link, by the first letter of the tag. */
const MARKS: Record<string, StartMark> = { K: 'white', P: 'yellow', B: 'blue', T: 'red' }
const EVEN = { left: 0, right: 0 } as const

/**
 * An invented crew on an invented island, a season after a winter of gales: shelterbelts and
 * clifftop woods, salt-blown bark, wall stones in the hedges.
 *
 * @param now the moment it is loaded; the season ends the evening before
 * @param seed another seed is another season with the same stories
 */
// eslint-disable-next-line max-lines-per-function -- a season in order: what comes first decides what is drawn next
export function scenario(now: Date, seed = DEMO_SEED): Scenario {
  const random = seeded(seed)
  const lastMs = Date.UTC(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate() - 1, 17, 30)

  const person = (
    name: string,
    extra: DemoPerson['extra'] = EVEN,
    role: DemoPerson['role'] = 'sawyer',
  ): DemoPerson => ({ id: random.id(), name, extra, role })
  const maren = person('Maren Aldwick', EVEN, 'lead')
  const tobe = person('Tobe Harrow', { left: -8, right: 20 })
  const iska = person('Iska Lund-Pell')
  const corrin = person('Corrin Vey')
  const people = [maren, tobe, iska, corrin] as const
  const crew: readonly [DemoPerson, ...DemoPerson[]] = [maren, iska, corrin]

  const saws: DemoSaw[] = []
  const saw = (nickname: string, pitchClass: PitchClass, gaugeUm: number, driveLinks: number): DemoSaw => {
    const made = { id: random.id(), nickname, pitchClass, gaugeUm, driveLinks, nosePitchClass: pitchClass }
    saws.push(made)
    return made
  }
  const wren = saw('Wren', 'quarter', 1100, 60)
  const puffin = saw('Puffin', 'lowProfile', 1300, 50)
  const stilt = saw('Stilt', 'lowProfile', 1300, 44)
  const brine = saw('Old Brine', 'p325', 1500, 64)
  const mizzen = saw('Mizzen', 'p325', 1300, 64)
  const bell = saw('Bellwether', 'threeEighths', 1500, 72)
  const kitty = saw('Kittiwake', 'threeEighths', 1500, 72)
  const tern = saw('Great Tern', 'threeEighths', 1600, 84)
  const grinder = saw('Millstone', 'p404', 1600, 104)

  const sawEntries: SawEntry[] = []
  const sawNote = <K extends SawEntryKind>(
    of: DemoSaw,
    who: DemoPerson,
    daysAgo: number,
    kind: K,
    body: SawEntryBodies[K],
    note?: string,
  ): void => {
    const at = new Date(lastMs - daysAgo * DAY_MS).toISOString()
    sawEntries.push({
      id: random.id(),
      sawId: of.id,
      happenedAt: at,
      writtenAt: at,
      personId: who.id,
      writtenBy: who.id,
      kind,
      ...(note === undefined ? {} : { note }),
      ...body,
    } as SawEntry)
  }

  const diaries: Diary[] = []
  const loop = (
    tag: string,
    forSaw: DemoSaw,
    cutterType: SpecChoice['cutterType'],
    firstDay: number,
    more: Partial<LoopSpec> = {},
    foundWorn = 0,
  ): Diary => {
    const { pitchClass, gaugeUm, driveLinks } = forSaw
    const startMark = MARKS[tag.charAt(0)]
    const spec = specFromProfile({
      pitchClass,
      gaugeUm,
      driveLinks,
      cutterType,
      ...(startMark === undefined ? {} : { startMark }),
      ...more,
    })
    const foundWornUm = Math.round(spec.newLengthUm * foundWorn)
    const diary = new Diary(random, tag, spec, lastMs, firstDay, foundWornUm, foundWorn > 0.5 ? null : forSaw.id)
    diaries.push(diary)
    return foundWorn > 0 ? diary.measure(maren, 1, undefined, 'As found, before its log was kept') : diary
  }
  /** Every loop ends its season with a fresh look, so that what is drawn is mostly measured. */
  const usual = (
    tag: string,
    forSaw: DemoSaw,
    type: SpecChoice['cutterType'],
    rounds: number,
    foundWorn = 0,
    more: Partial<LoopSpec> = {},
  ): Diary => {
    const days = 20 + rounds * 7
    const diary = loop(tag, forSaw, type, days + 8, more, foundWorn).season(crew, rounds, days)
    return diary.measure(random.pick(crew), rounds % 2 === 0 ? 1 : 2, diary.spec.settingUm - 30)
  }
  const ranSince = (diary: Diary, tanks: number, conditions?: EntryBodies['ran']['conditions']): Diary =>
    diary.pass(1).run(random.pick(crew), tanks, conditions)

  // Light saws.
  ranSince(usual('W1', wren, 'chipper', 9), 1).fit(wren.id, iska)
  usual('W2', wren, 'chipper', 15, 0.25)
  ranSince(usual('W3', wren, 'chipper', 4), 2.5)
  ranSince(usual('P1', puffin, 'chipper', 12, 0.3), 2)
  usual('P2', puffin, 'chipper', 6)
  usual('P3', puffin, 'semiChisel', 18, 0.35)
  // Touched wire in a hedge; nobody has looked since.
  ranSince(usual('P4', puffin, 'chipper', 8).fit(puffin.id, iska), 0.5).strike(
    iska,
    'metal',
    [],
    'Old fence wire inside a thorn stem',
  )
  ranSince(usual('S1', stilt, 'chipper', 7, 0.15), 1).fit(stilt.id, corrin)
  usual('S2', stilt, 'chipper', 3)
  // Put away with a corner that somebody saw but did not measure.
  usual('S3', stilt, 'chipper', 10)
    .damage([7, 8], 'cornerGone', () => null)
    .inspect(corrin, [], 'Corners look rough')

  // The pair that was mixed up: same pitch and links, another gauge.
  usual('B1', brine, 'semiChisel', 14, 0.2).fit(brine.id, maren)
  const worn = usual('B2', brine, 'semiChisel', 22, 0.4)
  const fresh = usual('M2', mizzen, 'semiChisel', 3)
  worn.pass(1).measureWrongly(tobe, fresh, 'Tag was hard to read')
  usual('B3', brine, 'semiChisel', 5)
  ranSince(usual('M1', mizzen, 'semiChisel', 11, 0.25), 6.5).fit(mizzen.id, tobe)
  // Blued by a heavy hand on the wheel.
  usual('M3', mizzen, 'semiChisel', 9)
    .sharpen(tobe, 'grinder', { note: 'Went in too hard' })
    .damage([5, 9, 13, 14, 22], 'blued', (n) => 250 + n * 10)
    .measure(maren, 1)

  // Filed short on the right, every time by the same hand.
  loop('K1', kitty, 'semiChisel', 150).season([tobe], 18, 130).measure(maren).fit(kitty.id, tobe)
  // Nobody has ever lowered its gauges.
  const gaugesHigh = loop('K2', bell, 'semiChisel', 170).season([corrin], 20, 150, false)
  gaugesHigh.measure(corrin, 1, 430).run(corrin, 1)
  gaugesHigh.fit(bell.id, corrin)
  // A wall stone in a hedge bank: young enough to be worth the wheel.
  loop('K3', bell, 'semiChisel', 60)
    .season(crew, 6, 45)
    .strike(iska, 'stone', [11, 12, 13, 14, 15, 16, 17], 'Wall stone in a hedge bank')
    .damage([11, 12, 13, 14, 15, 16, 17], 'stone', (n) => 1150 - Math.abs(14 - n) * 180)
    .pass(1)
    .measure(maren, 1, 600)
  // The same stone, but this one had little left.
  const spent = loop('K4', bell, 'semiChisel', 178)
  spent.season(crew, 30, 150)
  spent.sharpen(maren, 'grinder', { gauges: true }).sharpen(maren, 'shop', { gauges: true })
  for (const cutter of spent.cutters) cutter.lengthUm -= 2300
  spent
    .damage([3, 4, 5, 6], 'stone', (n) => 1300 - Math.abs(5 - n) * 150)
    .measure(maren, 1, 640, 'Same wall, one day later')
  usual('K5', bell, 'fullChisel', 10, 0.45)
  // Nearly new full chisel that dulls at once in gritty bark.
  loop('K6', kitty, 'fullChisel', 16)
    .run(corrin, 1, 'soil')
    .sharpen(corrin, 'fileField')
    .pass(3)
    .run(corrin, 1, 'soil')
    .sharpen(corrin, 'fileField')
    .pass(3)
    .measure(corrin, 2, 640)
    .run(corrin, 1, 'soil')

  // Big felling saw.
  ranSince(usual('T1', tern, 'fullChisel', 13, 0.2), 1).fit(tern.id, maren)
  // New chain, cracked strap: done, whatever it cost.
  loop('T2', tern, 'fullChisel', 12)
    .run(maren, 1)
    .pass(4)
    .inspect(maren, [{ kind: 'strapCracked', nearCutter: 19 }], 'Seen when cleaning')
  // Somebody lowered the gauges by eye.
  usual('T3', tern, 'semiChisel', 16).lowerGauges(tobe).measure(maren, 3, 980, 'Snatches; gauges filed without a plate')
  usual('T4', tern, 'semiChisel', 8)
  usual('T5', tern, 'semiChisel', 21, 0.45)

  // Milling.
  const ripping = { sequence: 'fullSkip' as const }
  ranSince(usual('X1', grinder, 'ripping', 6, 0.3, ripping), 2).fit(grinder.id, maren)
  usual('X2', grinder, 'ripping', 9, 0.1, ripping)
  usual('X3', grinder, 'ripping', 2, 0, ripping)
  loop('X0', grinder, 'ripping', 175, ripping, 0.82)
    .season(crew, 12, 120)
    .measure(maren)
    .retire(maren, 'worn', 'Served out')

  // Where everything lies tonight.
  const lie: Record<Shelf, string[]> = {
    truck: ['W2', 'P2', 'S2', 'K5', 'T4'],
    sharpRack: ['B3', 'M2', 'X2', 'X3', 'T5'],
    dullBox: ['W3', 'P1', 'K6', 'S3'],
    bench: [],
  }
  for (const [shelf, tags] of Object.entries(lie) as [Shelf, string[]][]) {
    for (const diary of diaries.filter(({ tag }) => tags.includes(tag))) diary.put(shelf, iska)
  }
  for (const diary of diaries.filter(({ tag }) => tag === 'M3')) diary.sendOut('Harbour saw works', 5, maren)

  // Bars and sprockets.
  sawNote(bell, maren, 120, 'sprocketRenewed', { pitchClass: 'threeEighths' })
  sawNote(
    kitty,
    tobe,
    20,
    'barChecked',
    { grooveWidthUm: 1740, grooveDepthUm: 5200, burrs: true },
    'Rails mushroomed on the outside',
  )
  sawNote(tern, maren, 30, 'barFitted', { gaugeUm: 1600, driveLinks: 84, nosePitchClass: 'threeEighths' }, 'New bar')
  sawNote(brine, iska, 12, 'barFlipped', {})
  const milling = specFromProfile({
    pitchClass: 'p404',
    gaugeUm: 1600,
    driveLinks: 104,
    cutterType: 'ripping',
    sequence: 'fullSkip',
  })
  const { driveLinks: _links, firstHand: _hand, ...values } = milling
  const profiles: CrewProfile[] = [{ id: random.id(), name: 'Milling loop', values }]

  const entries = diaries
    .flatMap((diary) => diary.entries.map((entry, order) => ({ entry, order })))
    .sort((a, b) =>
      a.entry.happenedAt < b.entry.happenedAt ? -1 : a.entry.happenedAt > b.entry.happenedAt ? 1 : a.order - b.order,
    )
    .map(({ entry }) => entry)
  const kit = demoKit(lastMs)
  const nameOf = (id: string | null): string => people.find((one) => one.id === id)?.name ?? ''
  const told = withKit(entries, kit, lastMs, nameOf)
  return { crewName: 'Skerrow Head tree crew', people, saws, sawEntries, profiles, kit, entries: told }
}
