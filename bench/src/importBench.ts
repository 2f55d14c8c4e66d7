import { DEFAULT_RULES, planImport } from '@undercliff/core'
import type { Figure } from './figure'

const ROWS = 5000
const MATCH = { tag: 0, pitch: 1, gauge: 2, driveLinks: 3, cutterType: 4, length: 5, saw: 6, place: 7 }

/** Time for every row's fate of a large spreadsheet. */
export function importBench(): Figure[] {
  const rows = Array.from({ length: ROWS }, (_, i) => [
    `R${i}`,
    i % 3 === 0 ? '3/8' : '.325',
    '1.5',
    '72',
    'semi',
    `6.${i % 10}`,
    `Saw ${i % 40}`,
    ['truck', 'rack', ''][i % 3] ?? '',
  ])
  let ids = 0
  const context = {
    tags: [],
    saws: [],
    takenSawIds: [],
    rules: DEFAULT_RULES,
    unit: 'mm' as const,
    headings: ['Tag', 'Pitch', 'Gauge', 'Links', 'Type', 'Length', 'Saw', 'Where'],
    now: '2026-03-20T12:00:00.000Z',
    newId: () => `bench-id-${(ids += 1)}`,
    random: () => 0,
  }
  const start = performance.now()
  const { counts } = planImport(rows, MATCH, context)
  const ms = performance.now() - start
  if (counts.add !== ROWS) throw new Error(`${counts.add} of ${ROWS} rows would come in`)
  return [{ name: `fate of every row of a spreadsheet of ${ROWS}`, value: ms, unit: 'ms' }]
}
