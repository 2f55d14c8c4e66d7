import type { CutterState, Estimate, LoopState, Population, Stint } from '../state'
import type { CutterDamage, PartDamage } from '../damage'
import { NEW_SD_UM } from '../measure/accuracy'
import { layoutLoop } from '../loop'
import type { Conditions, EntryOf, Instant } from '../log'
import { PITCH_PROFILES, pitchUmOf, usableLengthUm, type LoopSpec } from '../profile'
import type { NormalBelief } from '../stats'
import type { Um } from '../units'

/** A cutter while the log is being folded. */
export interface DraftCutter extends Omit<CutterState, 'length' | 'setting' | 'damage'> {
  length: Estimate
  setting: Estimate
  damage: readonly CutterDamage[]
}

type Writable<T> = { -readonly [K in keyof T]: T[K] }

/** A loop while its log is being folded; only appliers change it. */
export interface Draft extends Omit<
  Writable<LoopState>,
  'sawId' | 'stints' | 'cutters' | 'parts' | 'openStrikes' | 'removals' | 'life' | 'doubts' | 'spells' | 'lastEntryAt'
> {
  cutters: DraftCutter[]
  parts: readonly PartDamage[]
  openStrikes: LoopState['openStrikes'][number][]
  removals: LoopState['removals'][number][]
  life: LoopState['life'][number][]
  doubts: LoopState['doubts'][number][]
  spells: LoopState['spells'][number][]
  lastEntryAt: Instant
  /** Times on saws, each with the shortest cutter when it began. */
  stints: (Writable<Omit<Stint, 'worn'>> & { shortestUm: Um })[]
  /** Lengths read in the last measuring, by cutter number. */
  lastSet: Map<number, Um>
  /** Sharpenings since then, by population. */
  sinceSet: Map<Population, number>
  /** Whether one of those was a repair, which says nothing of a usual sharpening. */
  repairedSinceSet: boolean
  /** Who sharpened since then; undefined when nobody did, null when several or nobody named. */
  sharpenerSinceSet: string | null | undefined
  /** Who read the length of a cutter that has not been sharpened since. */
  readBy: Map<number, string | null>
  /** Length and setting read together since the gauges were last lowered. */
  readTogether: Map<number, { readonly lengthUm: Um; readonly settingUm: Um }>
  /** Setting of the plate that the gauges were filed to, until the next sharpening. */
  plateUm: Um | null
  /** Tanks since sharpened, by what the work was. */
  spellTanks: Record<Conditions, number>
}

/** How far the fall of single loops strays from the profile's, as a tangent. Starting value. */
const SLOPE_SD = 0.03

/** Fall of the top plate of this loop as it is known by now, in degrees. */
export const slopeDegOf = ({ slope }: { readonly slope: NormalBelief }): number =>
  (Math.atan(slope.mean) * 180) / Math.PI

/** A loop as it was registered, by the spec that holds for it: every cutter new. */
export function openDraft(entry: EntryOf<'registered'>, spec: LoopSpec): Draft {
  const layout = layoutLoop({ ...spec, pitchUm: pitchUmOf(spec) })
  const length: Estimate = { um: spec.newLengthUm, known: 'new', sdUm: NEW_SD_UM }
  const setting: Estimate = { um: spec.settingUm, known: 'new', sdUm: NEW_SD_UM }
  return {
    loopId: entry.loopId,
    tag: entry.tag,
    spec,
    registeredAt: entry.happenedAt,
    retired: null,
    place: { at: 'bench' },
    stints: [],
    shopCostMinor: 0,
    cutters: layout.cutters.map(({ number, hand, positionUm }) => ({
      number,
      hand,
      positionUm,
      length,
      setting,
      damage: [],
    })),
    parts: [],
    openStrikes: [],
    sharpenings: 0,
    sharpeningsSinceGauges: 0,
    tanks: 0,
    tanksSinceSharpened: 0,
    wearTanksSinceSharpened: 0,
    wearTanks: 0,
    lastSharpened: null,
    lastMeasuredAt: null,
    lastInspectedAt: null,
    removals: [],
    life: [{ at: entry.happenedAt, sharpenings: 0, shortestUm: spec.newLengthUm, known: 'new' }],
    doubts: [],
    duty: 'clean',
    decision: null,
    spells: [],
    slope: {
      mean: Math.tan((PITCH_PROFILES[spec.pitchClass].topPlateSlopeDeg.value * Math.PI) / 180),
      sd: SLOPE_SD,
      own: 0,
    },
    entriesCounted: 1,
    lastEntryAt: entry.happenedAt,
    lastSet: new Map(),
    sinceSet: new Map(),
    repairedSinceSet: false,
    sharpenerSinceSet: undefined,
    readBy: new Map(),
    readTogether: new Map(),
    plateUm: null,
    spellTanks: { clean: 0, gritty: 0, soil: 0 },
    spellOver: false,
  }
}

/** Notes the shortest cutter as a point of the loop's life. */
export function noteLifePoint(draft: Draft, at: Instant): void {
  let shortest: DraftCutter | undefined
  for (const cutter of draft.cutters) {
    if (shortest === undefined || cutter.length.um < shortest.length.um) shortest = cutter
  }
  if (shortest === undefined) return
  draft.life.push({
    at,
    sharpenings: draft.sharpenings,
    shortestUm: shortest.length.um,
    known: shortest.length.known,
  })
}

/** Length of the shortest cutter as far as it is known. */
export const shortestUmOf = ({ cutters }: Draft): Um => Math.min(...cutters.map(({ length }) => length.um))

/** The state as everybody else may see it. */
export function closeDraft(draft: Draft): LoopState {
  const {
    lastSet: _set,
    sinceSet: _since,
    repairedSinceSet: _repaired,
    sharpenerSinceSet: _sharpener,
    readBy: _readBy,
    readTogether: _readTogether,
    plateUm: _plate,
    spellTanks: _spellTanks,
    stints,
    ...state
  } = draft
  const usable = Math.max(1, usableLengthUm(draft.spec))
  const lastUm = shortestUmOf(draft)
  return {
    ...state,
    sawId: draft.place.at === 'saw' ? draft.place.sawId : null,
    stints: stints.map(({ shortestUm, ...stint }, i) => {
      const worn = (shortestUm - (stints[i + 1]?.shortestUm ?? lastUm)) / usable
      return { ...stint, worn: Math.round(Math.min(1, Math.max(0, worn)) * 1000) / 1000 }
    }),
  }
}
