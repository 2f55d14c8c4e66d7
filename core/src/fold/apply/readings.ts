import { looksShortest, readSettingOf } from '../../belief'
import { CUTTER_DAMAGE } from '../../damage'
import type { CutterReading, EntryBase, EntryBodies } from '../../log'
import { LENGTH_SD_UM, PLATE_SD_UM } from '../../measure/accuracy'
import { mean, updateNormalMean } from '../../stats'
import { HANDS, type Hand } from '../../loop'
import type { Um } from '../../units'
import { noteLifePoint, type Draft, type DraftCutter } from '../draft'
import { doubt, settleDoubts } from './doubts'
import { expectedOff, joinRound, learnSpan, noticeUse, takeHeld, takeExplained, takeLength, takeRound } from './lengths'
import { answer } from './questions'
import { gaugesRead, sidesRead } from './signs'
import { endSpell } from './spells'

/** Length a cutter has to lose before its two settings say anything of the slope. Starting value. */
const LEAST_LOST_UM = 300
/** Readings of one measuring count for at most this many. Starting value. */
const MOST_EVIDENCE = 4
/** Deviations of a plate before a setting contradicts it. Starting value. */
const PLATE_DEVIATIONS = 3

/** The cutter with a number; undefined when the loop has none such. */
const cutterAt = (draft: Draft, number: number): DraftCutter | undefined => draft.cutters[number - 1]

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

function takeSetting(draft: Draft, entry: EntryBase, cutter: DraftCutter, settingUm: Um): void {
  settleDoubts(draft, ['belowPlate'], cutter.number)
  const finerUm = (draft.plateUm?.[cutter.number - 1] ?? 0) - settingUm
  if (finerUm > PLATE_DEVIATIONS * PLATE_SD_UM) doubt(draft, 'belowPlate', entry.id, cutter.number, finerUm)
  readSettingOf(draft.settings, cutter.number - 1, settingUm, PLATE_SD_UM)
  cutter.settingKnown = 'measured'
}

/** Gauges read on both sides tell what a plate did that nobody knows: one side says little of the other. */
function answerPlate(draft: Draft, readings: readonly CutterReading[]): void {
  if (readings.every(({ settingUm }) => settingUm === undefined)) return
  gaugesRead(draft)
  const isRead = (side: Hand): boolean =>
    draft.cutters.some(({ hand, settingKnown }) => hand === side && settingKnown === 'measured')
  if (HANDS.every(isRead)) answer(draft, 'plateUnheardOf')
}

/** Lengths were measured, which answers what nobody knew; what an eye says of them is no measurement. */
function measured(draft: Draft, { happenedAt }: EntryBase, read: Readonly<Record<Hand, number>>): void {
  answer(draft, 'sharpenedTwice', 'shopWorkUnsaid', 'moreThanThere')
  draft.lastMeasuredAt = happenedAt
  if (HANDS.every((hand) => read[hand] > 0)) sidesRead(draft)
}

/** Takes readings into the draft: lengths, settings and damage of the cutters they name. */
export function takeReadings(
  draft: Draft,
  entry: EntryBase,
  readings: readonly CutterReading[],
  { chosen, readWith = 'caliper' }: Pick<EntryBodies['measured'], 'chosen' | 'readWith'> = {},
): void {
  noticeUse(draft, readings, LENGTH_SD_UM[readWith])
  const expected = expectedOff(draft)
  const read = { left: 0, right: 0 }
  joinRound(draft, entry, readings, readWith)
  for (const { cutter: number, lengthUm, damage, settingUm, angleDeg } of readings) {
    const cutter = cutterAt(draft, number)
    if (cutter === undefined) continue
    if (lengthUm !== undefined) {
      if (chosen === 'shortest') looksShortest(draft.lengths, number - 1)
      takeLength(draft, entry, cutter, lengthUm, readWith)
      read[cutter.hand] += 1
    }
    if (settingUm !== undefined) takeSetting(draft, entry, cutter, settingUm)
    if (damage !== undefined) cutter.damage = damage
    if (angleDeg !== undefined) cutter.angleDeg = angleDeg
  }
  takeHeld(draft)
  takeExplained(draft, entry, readings)
  takeHeld(draft)
  takeRound(draft)
  answerPlate(draft, readings)
  if (readings.some(({ damage }) => damage?.some(({ kind }) => CUTTER_DAMAGE[kind].effect === 'dullness')))
    endSpell(draft, true)
  learnSlope(draft, readings)
  if (read.left + read.right === 0) return
  if (readWith !== 'eye') measured(draft, entry, read)
  // What some of them were read at says something of all.
  for (const cutter of draft.cutters) if (cutter.lengthKnown === 'new') cutter.lengthKnown = 'estimated'
  learnSpan(draft, entry.happenedAt, read, expected)
  noteLifePoint(draft, entry.happenedAt)
}

/** Closes the strikes whose cutters have all been looked at, by however many people and in however many entries. */
export function closeStrikes(draft: Draft, readings: readonly CutterReading[]): void {
  if (draft.openStrikes.length === 0) return
  const now = readings.filter(({ damage }) => damage !== undefined).map(({ cutter }) => cutter)
  if (now.length === 0) return
  draft.openStrikes = draft.openStrikes
    .map((strike) => ({ ...strike, looked: [...new Set([...strike.looked, ...now])] }))
    .filter(({ cutters, looked }) => {
      const concerned = cutters.length > 0 ? cutters : draft.cutters.map(({ number }) => number)
      return !concerned.every((number) => looked.includes(number))
    })
}
