import type { LoopSpec } from '../profile'
import { PITCH_PROFILES, pitchUmOf } from '../profile'
import { SAW_FIGURES, type Gone, type SawDue, type SawFit, type SawGone } from '../saw'
import { pitchName, writeMm, type Um } from '../units'

/** How well a loop goes with a saw. An overrule is possible for *will run but*, never for *must not*. */
export type FitLevel = 'fits' | 'but' | 'mustNot'

/** The part of saw or loop that a finding is about. */
export type FitPart = 'sprocket' | 'nose' | 'groove' | 'driveLinks' | 'condition'

/** What was found of one part. */
export interface FitFinding {
  readonly part: FitPart
  readonly level: FitLevel
  /** One sentence: what the loop is, what the part takes. */
  readonly reason: string
}

/** Whether a loop may go on a saw, part by part. */
export interface FitCheck {
  readonly level: FitLevel
  readonly parts: readonly FitFinding[]
}

/** What of a loop decides where it goes. */
export type FitSpec = Pick<LoopSpec, 'pitchClass' | 'gaugeUm' | 'driveLinks'>

/** What is known of a saw's wear besides what it takes. */
export interface SawWear {
  readonly grooveWidthUm?: Um | null
  readonly due?: readonly SawDue[]
  /** It is not here to be worked with. */
  readonly gone?: Pick<Gone, 'how'> | null
}

const GONE_WORDS: Readonly<Record<SawGone, string>> = { lent: 'the saw is lent out', retired: 'the saw is done with' }

const RANK: Record<FitLevel, number> = { fits: 0, but: 1, mustNot: 2 }

/** A part of a saw that nobody has read off: what is not known to agree must not be taken to. */
const unread = (part: FitPart, what: string): FitFinding => ({ part, level: 'mustNot', reason: what })

function sprocketFinding(spec: FitSpec, { pitchClass }: SawFit): FitFinding {
  const part = 'sprocket'
  if (pitchClass === null) return unread(part, 'nobody has said which pitch the sprocket takes')
  const pitchUm = pitchUmOf({ pitchClass })
  if (pitchUmOf(spec) !== pitchUm) {
    return {
      part,
      level: 'mustNot',
      reason: `pitch is ${pitchName(pitchUmOf(spec))}, the sprocket takes ${pitchName(pitchUm)}`,
    }
  }
  if (spec.pitchClass !== pitchClass) {
    const [loop, takes] = [PITCH_PROFILES[spec.pitchClass].name, PITCH_PROFILES[pitchClass].name]
    return {
      part,
      level: 'but',
      reason: `the pitch agrees, but the loop is ${loop} and the saw is set up for ${takes}`,
    }
  }
  return { part, level: 'fits', reason: `pitch ${PITCH_PROFILES[spec.pitchClass].name}` }
}

function noseFinding(spec: FitSpec, { nosePitchClass }: SawFit): FitFinding[] {
  if (nosePitchClass === undefined || nosePitchClass === null) return []
  const takes = pitchUmOf({ pitchClass: nosePitchClass })
  if (pitchUmOf(spec) === takes) return [{ part: 'nose', level: 'fits', reason: `nose ${pitchName(takes)}` }]
  return [
    {
      part: 'nose',
      level: 'mustNot',
      reason: `pitch is ${pitchName(pitchUmOf(spec))}, the nose of the bar takes ${pitchName(takes)}`,
    },
  ]
}

function grooveFinding(spec: FitSpec, saw: SawFit, { grooveWidthUm }: SawWear): FitFinding {
  const part = 'groove'
  if (saw.gaugeUm === null) return unread(part, 'nobody has said which gauge the groove takes')
  const [loop, groove] = [writeMm(spec.gaugeUm, 1), writeMm(saw.gaugeUm, 1)]
  if (spec.gaugeUm > saw.gaugeUm)
    return { part, level: 'mustNot', reason: `gauge is ${loop}, the groove takes ${groove}: it binds and heats` }
  if (spec.gaugeUm < saw.gaugeUm)
    return { part, level: 'mustNot', reason: `gauge is ${loop}, the groove takes ${groove}: it flops and can come off` }
  if (grooveWidthUm != null && grooveWidthUm - spec.gaugeUm > SAW_FIGURES.grooveSlackUm.value) {
    return { part, level: 'but', reason: `the groove is worn to ${writeMm(grooveWidthUm)}: a ${loop} loop leans in it` }
  }
  return { part, level: 'fits', reason: `gauge ${loop}` }
}

function lengthFinding(spec: FitSpec, saw: SawFit): FitFinding {
  const part = 'driveLinks'
  if (saw.driveLinks === null) return unread(part, 'nobody has said how many drive links the bar takes')
  if (spec.driveLinks === saw.driveLinks) return { part, level: 'fits', reason: `${spec.driveLinks} drive links` }
  const reason = `it has ${spec.driveLinks} drive links, the bar takes ${saw.driveLinks}`
  return { part, level: 'mustNot', reason }
}

/**
 * Whether a loop may go on a saw, part by part, the worst first.
 *
 * Pitch, gauge and drive links that do not agree, or that nobody has read off the saw, are dangerous and must not be; a
 * worn groove or
 * sprocket, or low profile on a saw set up for standard 3/8" (the same pitch), will run with a
 * drawback. Common practice; the saw's manual decides.
 *
 * @param fitForUse whether the loop itself may be used at all
 * @example
 * fitCheck({ pitchClass: 'p325', gaugeUm: 1300, driveLinks: 64 }, saw).level // 'mustNot'
 */
export function fitCheck(spec: FitSpec, saw: SawFit, wear: SawWear = {}, fitForUse = true): FitCheck {
  const parts: FitFinding[] = [
    sprocketFinding(spec, saw),
    ...noseFinding(spec, saw),
    grooveFinding(spec, saw, wear),
    lengthFinding(spec, saw),
  ]
  if (!fitForUse) parts.push({ part: 'condition', level: 'mustNot', reason: 'it is not fit for use as it is' })
  if (wear.gone != null) parts.push({ part: 'condition', level: 'mustNot', reason: GONE_WORDS[wear.gone.how] })
  if (wear.due?.includes('sprocketNow') === true) {
    parts.push({ part: 'sprocket', level: 'but', reason: 'the sprocket is worn and wears the loop with it' })
  }
  parts.sort((a, b) => RANK[b.level] - RANK[a.level])
  return { level: parts[0]?.level ?? 'fits', parts }
}

/** Whether pitch, groove and drive links let a loop run on a saw at all. */
export const fits = (spec: FitSpec, saw: SawFit): boolean => fitCheck(spec, saw).level !== 'mustNot'
