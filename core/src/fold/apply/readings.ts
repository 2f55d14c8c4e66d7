import type { RemovalSample } from '../../state'
import { CUTTER_DAMAGE } from '../../damage'
import type { CutterReading, EntryBase, Instant } from '../../log'
import { HANDS, type Hand } from '../../loop'
import { mean, median, updateNormalMean } from '../../stats'
import type { Um } from '../../units'
import type { Draft, DraftCutter } from '../draft'
import { noteLifePoint } from '../draft'
import { PLATE_SD_UM, READING_SD_UM } from '../../measure/accuracy'
import { doubt, doubtOfLength, settleDoubts } from './doubts'
import { endSpell } from './spells'

/** Cutters read in two sets running that it takes to learn what came off between them. Starting value. */
const LEAST_COMMON = 3
/** Length a cutter has to lose before its two settings say anything of the slope. Starting value. */
const LEAST_LOST_UM = 300
/** Readings of one measuring count for at most this many. Starting value. */
const MOST_EVIDENCE = 4
/** Deviations of a plate before a setting contradicts it. Starting value. */
const PLATE_DEVIATIONS = 3

/** What came off by side, as far as either side was read. */
export function bySide(
  removed: Record<Hand, readonly number[]>,
  strokes?: Readonly<Record<Hand, number>>,
): NonNullable<RemovalSample['sides']> {
  const side = (hand: Hand) =>
    removed[hand].length === 0
      ? {}
      : {
          [hand]: {
            um: Math.round(mean(removed[hand])),
            cutters: removed[hand].length,
            ...(strokes === undefined ? {} : { strokes: strokes[hand] }),
          },
        }
  return { ...side('left'), ...side('right') }
}

/** The cutter with a number; undefined when the loop has none such. */
const cutterAt = (draft: Draft, number: number): DraftCutter | undefined => draft.cutters[number - 1]

/** What came off per sharpening between the last set and this one, where that is plain to see. */
function learnBetweenSets(draft: Draft, at: Instant, readings: readonly CutterReading[]): void {
  const populations = [...draft.sinceSet]
  const [only] = populations
  if (only === undefined || populations.length !== 1 || draft.repairedSinceSet) return
  const [population, sharpenings] = only
  const removed: Record<Hand, number[]> = { left: [], right: [] }
  for (const { cutter, lengthUm } of readings) {
    const before = draft.lastSet.get(cutter)
    const hand = draft.cutters[cutter - 1]?.hand
    if (before !== undefined && lengthUm !== undefined && hand !== undefined)
      removed[hand].push((before - lengthUm) / sharpenings)
  }
  const all = [...removed.left, ...removed.right]
  if (all.length < LEAST_COMMON) return
  const perSharpeningUm = Math.round(mean(all))
  if (perSharpeningUm <= 0) return
  draft.removals.push({
    population,
    perSharpeningUm,
    sharpenings,
    at,
    personId: draft.sharpenerSinceSet ?? null,
    sides: bySide(removed),
  })
}

/** Learns how the top plate falls from cutters read twice between lowerings, length and setting both. */
function learnSlope(draft: Draft, readings: readonly CutterReading[]): void {
  const tangents: number[] = []
  let lostUm = 0
  for (const { cutter, lengthUm, settingUm } of readings) {
    if (lengthUm === undefined || settingUm === undefined) continue
    const before = draft.readTogether.get(cutter)
    const offUm = before === undefined ? 0 : before.lengthUm - lengthUm
    if (before !== undefined && offUm >= LEAST_LOST_UM) {
      tangents.push((before.settingUm - settingUm) / offUm)
      lostUm += offUm
    }
    if (before === undefined || offUm >= LEAST_LOST_UM) draft.readTogether.set(cutter, { lengthUm, settingUm })
  }
  if (tangents.length === 0) return
  const spread = (PLATE_SD_UM * Math.SQRT2) / (lostUm / tangents.length)
  // Cutters of one measuring share the plate and the hand that held it: not many times the evidence of one.
  const evidence = Math.min(tangents.length, MOST_EVIDENCE)
  const { mean: tan, sd } = updateNormalMean(draft.slope, mean(tangents), evidence, spread)
  draft.slope = { mean: Math.max(0, tan), sd, own: draft.slope.own + evidence }
}

/**
 * Moves the cutters of a side that nobody read by as much as those that were read turned out to
 * differ from what was thought: the median, so that one wrecked cutter does not pull the rest.
 */
function estimateUnread(draft: Draft, shifts: Map<number, number>): void {
  for (const hand of HANDS) {
    const side = draft.cutters.filter((cutter) => cutter.hand === hand)
    const known: number[] = []
    for (const cutter of side) {
      const shift = shifts.get(cutter.number)
      if (shift !== undefined) known.push(shift)
    }
    if (known.length === 0 || known.length === side.length) continue
    const shift = Math.round(median(known))
    const strays = median(known.map((one) => Math.abs(one - shift))) * 1.4826
    for (const cutter of side) {
      // One that was measured and has not been sharpened since is as it was.
      if (shifts.has(cutter.number) || cutter.length.known === 'measured') continue
      cutter.length = {
        um: Math.max(0, Math.min(draft.spec.newLengthUm, cutter.length.um + shift)),
        known: 'estimated',
        sdUm: Math.max(READING_SD_UM * 2, strays, known.length < LEAST_COMMON ? cutter.length.sdUm : 0),
      }
    }
  }
}

const SETTLED_BY_LENGTH = ['grew', 'shrank', 'disagree', 'pairGrew'] as const

function takeLength(draft: Draft, entry: EntryBase, cutter: DraftCutter, lengthUm: Um): void {
  const kind = doubtOfLength(draft, entry, cutter, lengthUm)
  const byUm = Math.abs(lengthUm - cutter.length.um)
  settleDoubts(draft, SETTLED_BY_LENGTH, new Set([cutter.number]))
  if (kind !== null) doubt(draft, kind, entry.id, cutter.number, byUm)
  // Two figures that contradict each other are not averaged: the later one stands, less sure.
  cutter.length = {
    um: lengthUm,
    known: 'measured',
    sdUm: kind === null ? READING_SD_UM : Math.max(READING_SD_UM, Math.round(byUm / 2)),
  }
  draft.readBy.set(cutter.number, entry.personId)
}

function takeSetting(draft: Draft, entry: EntryBase, cutter: DraftCutter, settingUm: Um): void {
  settleDoubts(draft, ['belowPlate'], new Set([cutter.number]))
  const finerUm = (draft.plateUm ?? 0) - settingUm
  if (finerUm > PLATE_DEVIATIONS * PLATE_SD_UM) doubt(draft, 'belowPlate', entry.id, cutter.number, finerUm)
  cutter.setting = { um: settingUm, known: 'measured', sdUm: PLATE_SD_UM }
}

/** Takes readings into the draft: lengths, settings and damage of the cutters they name. */
export function takeReadings(draft: Draft, entry: EntryBase, readings: readonly CutterReading[]): void {
  const lengths = new Map<number, Um>()
  const shifts = new Map<number, number>()
  for (const { cutter: number, lengthUm, damage, settingUm } of readings) {
    const cutter = cutterAt(draft, number)
    if (cutter === undefined) continue
    if (lengthUm !== undefined) {
      shifts.set(number, lengthUm - cutter.length.um)
      lengths.set(number, lengthUm)
      takeLength(draft, entry, cutter, lengthUm)
    }
    if (settingUm !== undefined) takeSetting(draft, entry, cutter, settingUm)
    if (damage !== undefined) cutter.damage = damage
  }
  if (readings.some(({ damage }) => damage?.some(({ kind }) => CUTTER_DAMAGE[kind].effect === 'dullness')))
    endSpell(draft, true)
  learnSlope(draft, readings)
  if (lengths.size === 0) return
  estimateUnread(draft, shifts)
  learnBetweenSets(draft, entry.happenedAt, readings)
  draft.lastSet = lengths
  draft.sinceSet = new Map()
  draft.repairedSinceSet = false
  draft.sharpenerSinceSet = undefined
  draft.lastMeasuredAt = entry.happenedAt
  noteLifePoint(draft, entry.happenedAt)
}

/** Closes the strikes whose cutters have all been looked at. */
export function closeStrikes(draft: Draft, looked: ReadonlySet<number>): void {
  draft.openStrikes = draft.openStrikes.filter(({ cutters }) => {
    const concerned = cutters.length > 0 ? cutters : draft.cutters.map(({ number }) => number)
    return !concerned.every((number) => looked.has(number))
  })
}
