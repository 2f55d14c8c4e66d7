import { browserBench } from './browserBench'
import { decisionBench } from './decisionBench'
import { foldBench } from './foldBench'
import { importBench } from './importBench'
import { initialScriptBench } from './initialScriptBench'
import { shedBench } from './shedBench'
import type { Figure } from './figure'

/** Runs every bench and prints its figures against their limits. Exit code 1 when one is missed. */
const figures: Figure[] = [
  ...foldBench(),
  ...(await decisionBench()),
  ...importBench(),
  ...initialScriptBench(),
  ...(await shedBench()),
  ...(await browserBench()),
]
let missed = 0
for (const { name, value, unit, limit } of figures) {
  const met =
    limit === undefined || (limit.atMost === undefined ? value >= (limit.atLeast ?? -Infinity) : value <= limit.atMost)
  if (!met) missed += 1
  const wanted =
    limit === undefined ? '' : limit.atMost === undefined ? `at least ${limit.atLeast}` : `at most ${limit.atMost}`
  const number = value.toLocaleString('en', { maximumFractionDigits: 2 })
  process.stdout.write(`${met ? '  ' : '! '}${name.padEnd(58)} ${number.padStart(12)} ${unit.padEnd(10)} ${wanted}\n`)
}
process.exit(missed === 0 ? 0 : 1)
