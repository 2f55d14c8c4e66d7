import { expect, test } from 'vitest'
import { Log, stateOf } from '../fixtures/logs'
import { DEFAULT_RULES } from '../house'
import { minutesByStep, minutesOf, planSharpening, walkOf, type WalkEvent } from '.'

const plan = planSharpening(stateOf(new Log().measureAll(6500)), DEFAULT_RULES, { action: 'file', personId: null })
const at = (minutes: number): string => new Date(Date.UTC(2026, 1, 1, 8) + minutes * 60_000).toISOString()

test('every minute belongs to the step it was spent in, and a break to none', () => {
  const events: WalkEvent[] = []
  let minutes = 0
  while (walkOf(plan, events).step?.id !== 'firstSide') events.push({ at: at((minutes += 1)), kind: 'done' })
  for (let i = 0; i < 18; i += 1) events.push({ at: at((minutes += 0.5)), kind: i === 3 ? 'skip' : 'done' })
  const byStep = minutesByStep(plan, events)
  expect(byStep.get('firstSide')).toBeCloseTo(9)
  expect(byStep.get('setUp')).toBeCloseTo(1)
  expect(byStep.get('makeSafe')).toBeCloseTo(plan.steps[0]?.minutes.likely ?? 0)
  // Lunch, and then a clock that was set back.
  events.push({ at: at(minutes + 60), kind: 'done' })
  events.push({ at: at(minutes + 30), kind: 'unchecked' })
  expect(minutesOf(plan, events)).toBeCloseTo(minutesOf(plan, events.slice(0, -2)))
  expect(walkOf(plan, events).step?.id).toBe('secondSide')
  events.push({ at: at(minutes + 32), kind: 'done' })
  expect(minutesByStep(plan, events).get('secondSide')).toBeCloseTo(2)
})
