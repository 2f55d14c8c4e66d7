import { appendFileSync, mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from '../paths'

/** Whether the long form was asked for: `npm run campaign`. */
export const LONG = process.env['CAMPAIGN'] !== undefined

/** So many in the short form that every run of the tests has, and so many in the long one. */
export const times = (short: number, long: number): number => (LONG ? long : short)

/** Says what came out, where the long form gathers it for `docs/holds.md`. */
export function report(line: string): void {
  if (!LONG) return
  mkdirSync(join(ROOT, '.cache'), { recursive: true })
  appendFileSync(join(ROOT, '.cache', 'campaign.txt'), `${line}\n`)
}
