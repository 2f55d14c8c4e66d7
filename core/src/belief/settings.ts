import type { Hand } from '../loop'
import type { Um } from '../units'
import {
  addCov,
  addShared,
  dropShared,
  meanOf,
  figureOf,
  mergeShared,
  noTies,
  readFigure,
  setFigure,
  type Normal,
  type Tied,
} from './tied'

/** Deviations of depth-gauge settings, micrometres. Starting values. */
const SETTING_SPREADS = {
  /** A new loop's gauges: all of them together, a side, and one against the next. */
  newShared: 50,
  newSide: 20,
  newGauge: 60,
  /** Those of a loop that comes used, all of them together: lowered or not, nobody knows. */
  usedShared: 150,
  /** A pass with plate and flat file: the pass, and each gauge. */
  pass: 20,
  gauge: 25,
  /** The same without a plate. */
  passByEye: 120,
  gaugeByEye: 60,
  /** What an edge sinks less or more than was worked out, as a part of it: of a side, of one cutter. */
  sinks: 0.25,
  sinksOwn: 0.1,
} as const

/** Shifts kept apart before two are made one. */
const MOST_SHIFTS = 6

/** What is known of the setting of every depth gauge: working corner above gauge tip. */
export interface SettingBelief {
  readonly hands: readonly Hand[]
  readonly tied: Tied
  /** The shift of each side that a filing may still add to: none of its gauges was read since. */
  readonly open: { left: number | null; right: number | null }
}

/** The settings of a loop that is registered, new or used. */
export function newSettings(hands: readonly Hand[], settingUm: Um, used = false): SettingBelief {
  const tied = noTies(hands.length, MOST_SHIFTS + 2)
  const { newShared, usedShared, newSide, newGauge } = SETTING_SPREADS
  addShared(tied, { mean: 0, variance: (used ? usedShared : newShared) ** 2 }, () => 1)
  addShared(tied, { mean: 0, variance: newSide ** 2 }, (i) => (hands[i] === 'left' ? 1 : -1))
  for (let i = 0; i < hands.length; i += 1) {
    tied.own[i] = settingUm
    tied.ownVar[i] = newGauge ** 2
  }
  return { hands, tied, open: { left: null, right: null } }
}

/** What is known of one gauge's setting, by its place from 0. */
export const settingOf = ({ tied }: SettingBelief, cutter: number): Normal => figureOf(tied, cutter)

/** Deviations beyond which a gauge is a case of its own, which says nothing of its neighbours. Starting value. */
const APART = 3

/**
 * Takes a reading of a gauge. Its own gauge stands where it was read, since one too low is dangerous;
 * the others are drawn with it as far as they hang together. One that stands where nobody would expect
 * it was filed or bent alone, and draws none.
 */
export function readSettingOf({ hands, open, tied }: SettingBelief, cutter: number, um: Um, sdUm: number): void {
  const { mean, variance } = figureOf(tied, cutter)
  if (Math.abs(um - mean) <= APART * Math.sqrt(variance + sdUm ** 2)) readFigure(tied, cutter, um, sdUm ** 2)
  setFigure(tied, cutter, { mean: um, variance: sdUm ** 2 })
  open[hands[cutter] ?? 'left'] = null
}

/**
 * Edges sink toward their gauges as cutters are filed back.
 *
 * @param offUm what came off each cutter, by its place from 0
 * @param slope how far an edge sinks for what comes off, as a part of it
 */
export function sinkSettings({ hands, tied, open }: SettingBelief, offUm: readonly number[], slope: number): void {
  const most = { left: 0, right: 0 }
  for (let i = 0; i < hands.length; i += 1) {
    const hand = hands[i] ?? 'left'
    const drop = (offUm[i] ?? 0) * slope
    tied.own[i] = (tied.own[i] ?? 0) - drop
    tied.ownVar[i] = (tied.ownVar[i] ?? 0) + (SETTING_SPREADS.sinksOwn * drop) ** 2
    if (drop > most[hand]) most[hand] = drop
  }
  for (const hand of ['left', 'right'] as const) {
    if (most[hand] <= 0) continue
    open[hand] ??= addShared(tied, { mean: 0, variance: 0 }, (i) => (hands[i] === hand ? 1 : 0))
    addCov(tied, open[hand], open[hand], (SETTING_SPREADS.sinks * most[hand]) ** 2)
  }
  while (tied.size > MOST_SHIFTS) {
    mergeShared(tied, 0, 1)
    for (const hand of ['left', 'right'] as const) {
      const place = open[hand]
      open[hand] = place === null || place < 2 ? null : place - 1
    }
  }
}

/**
 * Gauges come down to a plate. One that stands lower stays where it is: steel cannot be put back.
 *
 * @param settingsUm what the plate leaves on each, by its place from 0; null for one that was passed over
 * @param byEye without a plate: about there, and nobody knows how far off
 * @returns whether each was brought to the plate, by its place from 0
 */
export function lowerSettings(
  { tied, open }: SettingBelief,
  settingsUm: readonly (Um | null)[],
  byEye = false,
): readonly boolean[] {
  open.left = null
  open.right = null
  const toUm = (i: number): number => settingsUm[i] ?? -Infinity
  const lowered = tied.own.map((_, i) => meanOf(tied, i) <= toUm(i))
  const { passByEye, gaugeByEye } = SETTING_SPREADS
  const { pass, gauge } = byEye ? { pass: passByEye, gauge: gaugeByEye } : SETTING_SPREADS
  for (const [i, down] of lowered.entries()) if (down) setFigure(tied, i, { mean: toUm(i), variance: gauge ** 2 })
  if (lowered.every(Boolean)) dropShared(tied)
  addShared(tied, { mean: 0, variance: pass ** 2 }, (i) => (lowered[i] === true ? 1 : 0))
  return lowered
}
