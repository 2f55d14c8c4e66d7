import type { GaugeFinding, NextClue, PitchCandidate, PitchFinding } from '../identify'
import { PITCH_PROFILES } from '../profile'
import { writeLength, writeMm, type LengthPreference } from '../units'

const NEXT: Record<NextClue, string> = {
  span: 'Measure the span over three rivets first.',
  caliperSpan: 'The span falls between two pitches. Take it again with a caliper.',
  thickness: 'Next: the thickness of a drive link.',
  caliperThickness: 'The thickness falls between two gauges. Take it with a caliper, on a clean link with little wear.',
  groove:
    'A caliper cannot tell these two apart. The groove of its bar can: measure that, or try a bar that is stamped.',
  build: 'The span is the same for both. Next: does the cutter look low or tall beside its links?',
  none: 'Pitch and gauge are plain.',
}

const UNDECIDED = 'It lies between two pitches: measure over more rivets, or lay it beside a loop that is known.'

/** What to do next, or what went wrong with the span, as one sentence. */
export function sayNext(finding: PitchFinding, lengths: LengthPreference): string {
  // Where the odds are hardly better than even nothing is plain, whatever was measured.
  if (finding.ok) return finding.next === 'none' && !finding.likely ? UNDECIDED : NEXT[finding.next]
  const meant = finding.meantUm === null ? '' : writeLength(finding.meantUm, lengths)
  switch (finding.reason) {
    case 'oneGap':
      return (
        'That is the span of one gap. Rivets are not evenly spaced: ' +
        `measure from one rivet to the next but one, about ${meant}.`
      )
    case 'wrongUnit':
      return `That looks like the wrong unit. Was it ${meant}?`
    case 'noSuchPitch':
      return 'No pitch in use has that span. Measure centre to centre over three rivets.'
  }
}

/** Why a pitch stands where it stands. */
export function sayCandidate({ pitchClass, spanOffUm, usualGauge }: PitchCandidate, lengths: LengthPreference): string {
  const span = 2 * PITCH_PROFILES[pitchClass].pitchUm.value
  const parts = [
    spanOffUm === null
      ? `three rivets span ${writeLength(span, lengths)}`
      : `span is ${writeMm(Math.abs(spanOffUm))} ${spanOffUm < 0 ? 'under' : 'over'} its ${writeLength(span, lengths)}`,
    usualGauge === null ? '' : usualGauge ? 'the gauge is usual for it' : 'the gauge is not usual for it',
  ]
  return parts.filter(Boolean).join('; ')
}

/** A probability in words: a figure would promise too much. */
export const sayProbability = (probability: number): string =>
  probability >= 0.9
    ? 'very likely'
    : probability >= 0.6
      ? 'likely'
      : probability >= 0.2
        ? 'possible'
        : probability >= 0.02
          ? 'unlikely'
          : 'hardly'

/** What the thickness says. */
export function sayGauge(finding: GaugeFinding): string {
  if (!finding.ok)
    return finding.reason === 'tooThin'
      ? 'Too thin for any chain in use. Was it the tie strap?'
      : 'Too thick for any chain in use. Was it the whole link with its straps?'
  const [first, second] = finding.candidates
  if (first === undefined) return ''
  if (finding.between) {
    const other = second === undefined ? '' : ` and ${writeMm(second.gaugeUm, 1)}`
    const nearest = `${writeMm(first.gaugeUm, 1)}${other}`
    return `No gauge is like that: the nearest are ${nearest}. Measure another link, on a clean place.`
  }
  return finding.sure || second === undefined
    ? `Gauge ${writeMm(first.gaugeUm, 1)}; worn links measure a few hundredths under.`
    : `Gauge ${writeMm(first.gaugeUm, 1)} or ${writeMm(second.gaugeUm, 1)}: the groove of its bar tells which.`
}
