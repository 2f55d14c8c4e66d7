import type { SharpeningPlan } from './plan'
import type { StepId } from '../jobs/steps'
import { stepsAt, type WalkEvent } from './walk'

const MINUTE_MS = 60_000
/** Longer between two things that happen is a break, and no work. Starting value. */
const BREAK_MINUTES = 20

/** What lies between one event and the one before, minutes; nothing for a break or a clock that was set back. */
function between(before: WalkEvent | undefined, event: WalkEvent): number {
  if (before === undefined) return 0
  const minutes = (Date.parse(event.at) - Date.parse(before.at)) / MINUTE_MS
  return minutes > 0 && minutes <= BREAK_MINUTES ? minutes : 0
}

/**
 * Minutes that each step has taken so far. What comes before the first event nobody timed: it takes what was planned.
 *
 * @example
 * minutesByStep(plan, []).size // 0
 */
export function minutesByStep(plan: SharpeningPlan, events: readonly WalkEvent[]): Map<StepId, number> {
  const minutes = new Map<StepId, number>()
  const add = (id: StepId | undefined, by: number): void => {
    if (id !== undefined) minutes.set(id, (minutes.get(id) ?? 0) + by)
  }
  if (events.length > 0) add(plan.steps[0]?.id, plan.steps[0]?.minutes.likely ?? 0)
  // An event ends what it happens in: which step that was, the events before it tell.
  const stepAt = stepsAt(plan, events)
  for (const [i, event] of events.entries()) add(stepAt[i]?.id, between(events[i - 1], event))
  return minutes
}

/** Minutes that a sharpening has taken so far, without breaks. */
export const minutesOf = (plan: SharpeningPlan, events: readonly WalkEvent[]): number =>
  [...minutesByStep(plan, events).values()].reduce((sum, one) => sum + one, 0)
