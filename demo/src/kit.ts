import {
  layoutLoop,
  pitchUmOf,
  startingMinutes,
  UM_PER_MM,
  type EntryOf,
  type KitItem,
  type LoopSpec,
  type NewEntry,
  type SharpeningTool,
} from '@undercliff/core'

const DAY_MS = 86_400_000
/** Days before the end of the season from which the crew says which file it was and how long it took. */
const TOLD_DAYS = 60

const GUIDES: readonly KitItem[] = [
  {
    version: 1,
    id: 'kit-guide-plate',
    kind: 'guide',
    name: 'Plate guide',
    tool: 'plateGuide',
    serves: [],
    linesDeg: [25, 30, 35],
  },
  {
    version: 1,
    id: 'kit-guide-two',
    kind: 'guide',
    name: 'Two-in-one, 3/8',
    tool: 'twoInOne',
    serves: ['threeEighths'],
    linesDeg: [30],
  },
]

/** What the invented crew sharpens and measures with. */
export function demoKit(lastMs: number): KitItem[] {
  const daysAgo = (days: number): string => new Date(lastMs - days * DAY_MS).toISOString()
  const mm = (length: number): number => Math.round(length * UM_PER_MM)
  const it = { version: 1 } as const
  return [
    { ...it, id: 'kit-file-40', kind: 'file', name: 'File 4.0, blue grip', fileUm: mm(4), openedAt: daysAgo(8) },
    { ...it, id: 'kit-file-48', kind: 'file', name: 'File 4.8, bench', fileUm: mm(4.8), openedAt: daysAgo(12) },
    { ...it, id: 'kit-file-52', kind: 'file', name: 'File 5.2, bench', fileUm: mm(5.2), openedAt: daysAgo(14) },
    { ...it, id: 'kit-stock-48', kind: 'stock', name: 'Files 4.8, unopened', fileUm: mm(4.8), left: 5, lowAt: 2 },
    { ...it, id: 'kit-stock-52', kind: 'stock', name: 'Files 5.2, unopened', fileUm: mm(5.2), left: 1, lowAt: 2 },
    {
      ...it,
      id: 'kit-wheel-47',
      kind: 'wheel',
      name: 'Grey wheel',
      widthUm: mm(4.7),
      diameterUm: mm(145),
      markedRpm: 4500,
      rungAt: daysAgo(20),
      dressedAt: daysAgo(20),
    },
    {
      ...it,
      id: 'kit-wheel-32',
      kind: 'wheel',
      name: 'Thin wheel',
      widthUm: mm(3.2),
      diameterUm: mm(145),
      markedRpm: 4500,
      rungAt: daysAgo(70),
      glazed: true,
    },
    { ...it, id: 'kit-wheel-old', kind: 'wheel', name: 'Wheel from the barn', widthUm: mm(4.8), markedRpm: 2800 },
    {
      ...it,
      id: 'kit-grinder',
      kind: 'grinder',
      name: 'Bench grinder',
      tool: 'benchGrinder',
      spindleRpm: 3400,
      set: { angleDeg: 30, downDeg: 0, wheelId: 'kit-wheel-47' },
    },
    ...GUIDES,
    { ...it, id: 'kit-plate-65', kind: 'plate', name: 'Plate 0.65', rests: 'constant', stepsUm: [mm(0.65)] },
    { ...it, id: 'kit-plate-two', kind: 'plate', name: 'Two-step plate', rests: 'progressive', stepsUm: [650, 760] },
    { ...it, id: 'kit-caliper', kind: 'caliper', name: 'Caliper with a cable', readsUm: 10, sends: 'serial' },
    { ...it, id: 'kit-vise-bench', kind: 'vise', name: 'Bench vise', where: 'bench' },
    { ...it, id: 'kit-vise-stump', kind: 'vise', name: 'Stump vise', where: 'stump' },
  ]
}

const TOOL_OF: Readonly<Partial<Record<EntryOf<'sharpened'>['method'], SharpeningTool>>> = {
  fileField: 'freehand',
  fileBench: 'plateGuide',
  grinder: 'benchGrinder',
}

/** How the people of the demo take their time, by the first letter of the name. */
const PACE: Readonly<Record<string, number>> = { M: 1, T: 0.75, I: 1.1, C: 1.45 }

/** The log as it is written once the crew says with what it sharpened and how long it took. */
export function withKit(
  entries: readonly NewEntry[],
  kit: readonly KitItem[],
  lastMs: number,
  nameOf: (personId: string | null) => string,
): NewEntry[] {
  const specs = new Map<string, LoopSpec>()
  for (const entry of entries) if (entry.kind === 'registered') specs.set(entry.loopId, entry.spec)
  return entries.map((entry, i) => {
    if (entry.kind !== 'sharpened' || Date.parse(entry.happenedAt) < lastMs - TOLD_DAYS * DAY_MS) return entry
    const spec = specs.get(entry.loopId)
    const tool = TOOL_OF[entry.method]
    if (spec === undefined || tool === undefined) return entry
    const { cutters } = layoutLoop({ ...spec, pitchUm: pitchUmOf(spec) })
    const given = cutters.map(({ hand }) => ({ hand, offUm: 250, strokes: entry.strokes?.[hand] }))
    const usual = startingMinutes(tool, entry.method === 'fileField' ? 'field' : 'bench', given)
    const pace = (PACE[nameOf(entry.personId).charAt(0)] ?? 1) * (0.9 + (i % 5) * 0.05)
    const used = kit
      .filter((item) =>
        tool === 'benchGrinder'
          ? item.id === 'kit-wheel-47'
          : item.kind === 'file' && item.fileUm === spec.fileUm && item.openedAt <= entry.happenedAt,
      )
      .map(({ id }) => id)
    const minutes = Math.round(usual * pace * 10) / 10
    return { ...entry, tool, minutes, ...(used.length === 0 ? {} : { used }) }
  })
}
