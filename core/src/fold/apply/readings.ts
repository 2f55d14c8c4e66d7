import type { CutterReading, EntryBase } from '../../log'
import { mean, median } from '../../stats'
import type { Um } from '../../units'
import type { Draft, DraftCutter } from '../draft'
import { noteLifePoint, PLATE_SD_UM, READING_SD_UM } from '../draft'

/** Deviations a reading may lie above what was known before it is doubted. */
const DOUBT_DEVIATIONS = 3
/** Cutters read in two sets running that it takes to learn what came off between them. */
const LEAST_COMMON = 3

/** The cutter with a number; undefined when the loop has none such. */
export const cutterAt = (draft: Draft, number: number): DraftCutter | undefined => draft.cutters[number - 1]

function doubtGrowth(draft: Draft, entry: EntryBase, cutter: DraftCutter, lengthUm: Um): void {
  const allowed = DOUBT_DEVIATIONS * Math.hypot(cutter.length.sdUm, READING_SD_UM)
  const byUm = lengthUm - cutter.length.um
  if (byUm > allowed) draft.doubts.push({ kind: 'grew', entryId: entry.id, cutter: cutter.number, byUm })
}

/** What came off per sharpening between the last set and this one, where that is plain to see. */
function learnBetweenSets(draft: Draft, readings: readonly CutterReading[]): void {
  const populations = [...draft.sinceSet]
  const [only] = populations
  if (only === undefined || populations.length !== 1 || draft.repairedSinceSet) return
  const [population, sharpenings] = only
  const removed: number[] = []
  for (const { cutter, lengthUm } of readings) {
    const before = draft.lastSet.get(cutter)
    if (before !== undefined && lengthUm !== undefined) removed.push(before - lengthUm)
  }
  if (removed.length < LEAST_COMMON) return
  const perSharpeningUm = Math.round(mean(removed) / sharpenings)
  if (perSharpeningUm > 0) draft.removals.push({ population, perSharpeningUm, sharpenings })
}

/**
 * Moves the cutters of a side that nobody read by as much as those that were read turned out to
 * differ from what was thought: the median, so that one wrecked cutter does not pull the rest.
 */
function estimateUnread(draft: Draft, shifts: Map<number, number>): void {
  for (const hand of ['left', 'right'] as const) {
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

/** Takes readings into the draft: lengths, settings and damage of the cutters they name. */
export function takeReadings(draft: Draft, entry: EntryBase, readings: readonly CutterReading[]): void {
  const lengths = new Map<number, Um>()
  const shifts = new Map<number, number>()
  // A new reading of a cutter settles what was doubted about the one before.
  const read = new Set(readings.filter(({ lengthUm }) => lengthUm !== undefined).map(({ cutter }) => cutter))
  draft.doubts = draft.doubts.filter(({ cutter }) => !read.has(cutter))
  for (const { cutter: number, lengthUm, damage, settingUm } of readings) {
    const cutter = cutterAt(draft, number)
    if (cutter === undefined) continue
    if (lengthUm !== undefined) {
      doubtGrowth(draft, entry, cutter, lengthUm)
      shifts.set(number, lengthUm - cutter.length.um)
      lengths.set(number, lengthUm)
      cutter.length = { um: lengthUm, known: 'measured', sdUm: READING_SD_UM }
    }
    if (settingUm !== undefined) cutter.setting = { um: settingUm, known: 'measured', sdUm: PLATE_SD_UM }
    if (damage !== undefined) cutter.damage = damage
  }
  if (lengths.size === 0) return
  estimateUnread(draft, shifts)
  learnBetweenSets(draft, readings)
  draft.lastSet = lengths
  draft.sinceSet = new Map()
  draft.repairedSinceSet = false
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
