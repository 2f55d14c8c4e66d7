import { decideFile, writeLoopFile } from '@undercliff/contract'
import { decide, decideFully, DEFAULT_RULES, fold, planSharpening, type Entry } from '@undercliff/core'
import { scenario } from '@undercliff/demo'
import { medianSeconds, type Figure } from './figure'

const NOW = '2026-03-20T09:00:00.000Z'
const CUTTERS = 36
const RUNS = 400
const WARM_UP = 600

/** The struck loop of the demo that is worth grinding: 36 cutters, half a year of log. */
function struckLoop(): Entry[] {
  const byLoop = new Map<string, Entry[]>()
  for (const entry of scenario(new Date(NOW)).entries) {
    const log = byLoop.get(entry.loopId) ?? []
    byLoop.set(entry.loopId, log)
    log.push({ ...entry, writtenBy: null, writtenAt: entry.happenedAt })
  }
  const log = [...byLoop.values()].find(([first]) => first?.kind === 'registered' && first.tag === 'K3')
  if (log === undefined) throw new Error('the demo should have a struck loop')
  return log
}

/**
 * One decision in full (fold, 36 cutters, all options, all schools, sensitivity) against parsing
 * its input file, and how many there are in a second.
 */
export function decisionRun(): Figure[] {
  const log = struckLoop()
  const file = writeLoopFile(log, DEFAULT_RULES, NOW)
  const text = JSON.stringify(file)
  const decision = (): void => {
    const state = fold(log)
    if (state?.cutters.length !== CUTTERS) throw new Error('a loop of 36 cutters is wanted')
    decideFully(state, DEFAULT_RULES, NOW)
  }
  for (let i = 0; i < WARM_UP; i += 1) decision()
  // One after the other, so that whatever else the machine does slows both.
  const ratios = Array.from(
    { length: RUNS },
    () => medianSeconds(decision, 1) / medianSeconds(() => JSON.parse(text) as unknown, 1),
  ).sort((a, b) => a - b)
  const start = performance.now()
  for (let i = 0; i < RUNS; i += 1) decision()
  const perSecond = RUNS / ((performance.now() - start) / 1000)
  // A state of its own for each, since what depends on the loop alone is worked out once for a state.
  const fresh = (): NonNullable<ReturnType<typeof fold>> => {
    const state = fold(log)
    if (state === null) throw new Error('the loop should be registered')
    return state
  }
  const wanted = { action: 'regrind', personId: null } as const
  const plans = Array.from({ length: RUNS }, () => {
    const [forPlan, forVerdict] = [fresh(), fresh()]
    const plan = medianSeconds(() => planSharpening(forPlan, DEFAULT_RULES, wanted), 1)
    return plan / medianSeconds(() => decide(forVerdict, DEFAULT_RULES), 1)
  }).sort((a, b) => a - b)
  const checked = medianSeconds(() => decideFile(file), 9)
  return [
    {
      name: `decision in full, ${CUTTERS} cutters, against JSON.parse of its ${Math.round(text.length / 1000)} kB file`,
      value: ratios[ratios.length >> 1] ?? Infinity,
      unit: 'times',
      limit: { atMost: 15 },
    },
    { name: 'decisions in full', value: perSecond, unit: 'a second', aim: { atLeast: 300 } },
    {
      name: `plan of a sharpening, ${CUTTERS} cutters, against one decision`,
      value: plans[plans.length >> 1] ?? Infinity,
      unit: 'times',
      limit: { atMost: 3 },
    },
    { name: 'npm run decide without starting Node: checks, fold, decision', value: checked * 1000, unit: 'ms' },
  ]
}
