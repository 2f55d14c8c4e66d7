import { bytesBench } from './bytesBench'
import { browserBench } from './browserBench'
import { decisionBench } from './decisionBench'
import { foldBench } from './foldBench'
import { homeBench } from './homeBench'
import { importBench } from './importBench'
import { initialScriptBench } from './initialScriptBench'
import { shedBench } from './shedBench'
import { woodBench } from './woodBench'
import type { Bound, Figure } from './figure'

/** Runs every bench and prints its figures against their limits. Exit code 1 when one is missed. */
const figures: Figure[] = [
  ...(await foldBench()),
  ...(await decisionBench()),
  ...importBench(),
  ...initialScriptBench(),
  ...(await shedBench()),
  ...(await browserBench()),
  ...(await woodBench()),
  ...(await homeBench()),
  ...(await bytesBench()),
]
let missed = 0
const meets = (value: number, { atMost = Infinity, atLeast = -Infinity }: Bound): boolean =>
  value <= atMost && value >= atLeast
const said = ({ atMost, atLeast }: Bound): string =>
  atMost === undefined ? `at least ${atLeast}` : `at most ${atMost}`

for (const { name, value, unit, limit, aim } of figures) {
  const met = limit === undefined || meets(value, limit)
  if (!met) missed += 1
  const wanted = limit === undefined ? '' : said(limit)
  const hoped = aim === undefined ? '' : `aim: ${said(aim)}${meets(value, aim) ? '' : ', not met here'}`
  const number = value.toLocaleString('en', { maximumFractionDigits: 2 })
  process.stdout.write(
    `${met ? '  ' : '! '}${name.padEnd(58)} ${number.padStart(12)} ${unit.padEnd(10)} ${wanted}${hoped}\n`,
  )
}
process.exit(missed === 0 ? 0 : 1)
