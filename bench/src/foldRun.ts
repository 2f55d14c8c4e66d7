import { cardOf, DEFAULT_RULES, fold, type Entry } from '@undercliff/core'
import { scenario } from '@undercliff/demo'
import { medianSeconds, type Figure } from './figure'

const LOOPS = 5000
const ENTRIES = 40

/** Logs of 40 entries each, cut from seasons of the demo with different seeds. */
function makeLogs(): Entry[][] {
  const logs: Entry[][] = []
  for (let seed = 1; logs.length < LOOPS; seed += 1) {
    const byLoop = new Map<string, Entry[]>()
    for (const entry of scenario(new Date('2026-03-20T09:00:00Z'), seed).entries) {
      const log = byLoop.get(entry.loopId) ?? []
      byLoop.set(entry.loopId, log)
      log.push({ ...entry, writtenBy: null, writtenAt: entry.happenedAt })
    }
    for (const log of byLoop.values()) {
      if (log.length >= ENTRIES && logs.length < LOOPS) logs.push([...log.slice(0, ENTRIES - 10), ...log.slice(-10)])
    }
  }
  return logs
}

/** Folding and deciding for 5,000 loops, and one refold against parsing its log. */
export function foldRun(): Figure[] {
  const logs = makeLogs()
  const start = performance.now()
  let unfit = 0
  for (const log of logs) {
    const state = fold(log)
    if (state !== null && !cardOf(state, DEFAULT_RULES).fitForUse) unfit += 1
  }
  const seconds = (performance.now() - start) / 1000

  const ratios = logs.slice(0, 200).map((log) => {
    const text = JSON.stringify(log)
    const runs = 15
    const parse = medianSeconds(() => JSON.parse(text) as unknown, runs)
    return medianSeconds(() => fold(log), runs) / parse
  })
  ratios.sort((a, b) => a - b)
  return [
    {
      name: `fold and verdict, ${LOOPS} loops of ${ENTRIES} entries (${unfit} unfit)`,
      value: (LOOPS * ENTRIES) / seconds,
      unit: 'entries/s',
    },
    {
      name: 'refold of a loop against JSON.parse of its log, median',
      value: ratios[ratios.length >> 1] ?? 0,
      unit: 'times',
      limit: { atMost: 5 },
    },
    {
      name: 'the same, 95th percentile',
      value: ratios[Math.floor(ratios.length * 0.95)] ?? 0,
      unit: 'times',
      limit: { atMost: 8 },
    },
  ]
}
