import { describe, expect, test } from 'vitest'
import { Log, SPEC, stateOf } from '../fixtures/logs'
import type { WoodStep } from '../geometry'
import type { LoopSpec } from '../profile'
import type { SpentOn } from '../state'
import {
  changeFile,
  expectedBite,
  FILE_STROKES,
  fileAgeOf,
  fileInUse,
  fileLife,
  kitDue,
  kitOf,
  kitUsage,
  mayMount,
  plateFor,
  wheelProblems,
  type KitItem,
  type KitItemOf,
} from '.'

const AT = '2026-02-01T08:00:00.000Z'
const file = (id: string, more: Partial<KitItemOf<'file'>> = {}): KitItemOf<'file'> => ({
  id,
  name: id,
  version: 1,
  kind: 'file',
  fileUm: 5200,
  openedAt: AT,
  ...more,
})
const wheel = (more: Partial<KitItemOf<'wheel'>> = {}): KitItemOf<'wheel'> => ({
  id: 'wheel',
  name: 'wheel',
  version: 1,
  kind: 'wheel',
  widthUm: 4700,
  markedRpm: 4500,
  rungAt: AT,
  ...more,
})
const grinder = (spindleRpm?: number): KitItemOf<'grinder'> => ({
  id: 'grinder',
  name: 'grinder',
  version: 1,
  kind: 'grinder',
  tool: 'benchGrinder',
  ...(spindleRpm === undefined ? {} : { spindleRpm }),
})
const spent = (strokes: number | null, more: Partial<SpentOn> = {}): SpentOn => ({
  at: AT,
  used: ['one'],
  strokes,
  bite: null,
  ...more,
})

describe('a wheel on a spindle', () => {
  // The greatest speed marked on a wheel is never below the spindle's: printed on wheels, ISO 525 and the manuals.
  test('marked below the speed of the spindle it is never mounted', () => {
    expect(wheelProblems(wheel({ markedRpm: 3399 }), grinder(3400))[0]).toBe('tooSlow')
    expect(mayMount(wheel({ markedRpm: 3399 }), grinder(3400))).toBe(false)
    expect(mayMount(wheel({ markedRpm: 3400 }), grinder(3400))).toBe(true)
  })

  test('a speed that nobody has read keeps it off too', () => {
    const { markedRpm: _marked, ...unread } = wheel()
    expect(mayMount(unread, grinder(3400))).toBe(false)
    expect(mayMount(wheel(), grinder())).toBe(false)
    expect(wheelProblems(unread, grinder())).toContain('speedUnknown')
  })

  test('glazed, or of another width than the pitch takes, it says so and may be mounted', () => {
    expect(wheelProblems(wheel({ glazed: true }), grinder(3400))).toEqual(['glazed'])
    expect(wheelProblems(wheel(), grinder(3400), [3200, 3200])).toEqual(['width'])
    expect(wheelProblems(wheel(), grinder(3400), [4700, 4800])).toEqual([])
    expect(mayMount(wheel({ glazed: true }), grinder(3400))).toBe(true)
  })
})

describe('files', () => {
  // About 2,000 strokes, and past that it scrapes: common practice.
  test('strokes are counted by the sharpenings that name it, and past its life it is used up', () => {
    const kit = [file('one'), file('two')]
    const usage = kitUsage(kit, [spent(1200), spent(900), spent(null)])
    expect(usage[0]).toMatchObject({ used: 2100, sharpenings: 3 })
    expect(usage[1]).toMatchObject({ used: 0, sharpenings: 0, lastAt: null })
    expect(fileLife(kit, []).mean).toBeCloseTo(FILE_STROKES, 6)
    expect(kitDue(kit, kitUsage(kit, [spent(5000)])).get('one')).toEqual(['usedUp'])
    expect(kitDue(kit, kitUsage(kit, [spent(500)])).has('one')).toBe(false)
  })

  test('how long they last is learned from those that were used up', () => {
    const gone = Array.from({ length: 12 }, (_, i) => file(`gone-${i}`, { gone: 'usedUp' }))
    const all = gone.map(({ id }) => spent(1000, { used: [id] }))
    const life = fileLife(gone, kitUsage(gone, all))
    expect(life.mean).toBeLessThan(1400)
    expect(life.mean).toBeGreaterThan(1000)
    // Lost, or still in use, it says nothing of how long files last.
    const lost = gone.map((one): KitItem => ({ ...one, gone: 'lost' }))
    expect(fileLife(lost, kitUsage(lost, all))).toEqual({ mean: fileLife([], []).mean, own: 0 })
  })

  test('what its strokes take falls with its age, and readings of it count', () => {
    expect(expectedBite(0, 2000)).toBeGreaterThan(expectedBite(1500, 2000))
    expect(expectedBite(2600, 2000)).toBeLessThan(0.7)
    const kit = [file('one')]
    const [unread] = kitUsage(kit, [spent(600)])
    const [slow] = kitUsage(kit, [spent(300, { bite: 0.6 }), spent(300, { bite: 0.6 })])
    expect(unread?.bite).toBeCloseTo(expectedBite(600, 2000), 1)
    expect(slow?.bite).toBeLessThan((unread?.bite ?? 0) - 0.15)
    expect(slow?.told).toBe(2)
  })

  test('a reading behind a sharpening that names its file tells how the file bites', () => {
    const after = (um: number): number | null | undefined =>
      stateOf(
        new Log()
          .measureAll(7000)
          .file({ strokes: { left: 10, right: 10 }, used: ['one'] })
          .measureAll(um),
      ).spent[0]?.bite
    expect(after(6800)).toBeCloseTo(1, 1)
    // Half of what was thought came off: some of that every stroke on this loop may take, and the rest is the file's.
    expect(after(6900)).toBeLessThan(0.75)
    const unread = stateOf(new Log().file({ strokes: { left: 10, right: 10 }, used: ['one'] })).spent
    expect(unread).toMatchObject([{ strokes: 360, bite: null, used: ['one'] }])
    const both = new Log().measureAll(7000).file({ used: ['one'], strokes: { left: 5, right: 5 } })
    const { spent: two } = stateOf(both.file({ used: ['two'], strokes: { left: 5, right: 5 } }).measureAll(6800))
    // Which of two files took what nobody can tell.
    expect(two.map(({ bite }) => bite)).toEqual([null, null])
  })

  test('the file in hand is the one of that diameter that was opened last', () => {
    const files = [file('old'), file('new', { openedAt: '2026-03-01T08:00:00.000Z' }), file('thin', { fileUm: 4000 })]
    expect(fileInUse(files, 5200)?.id).toBe('new')
    expect(fileInUse(files, 4800)).toBeUndefined()
    expect(fileAgeOf({ used: 0 }, 2000)).toBe('fresh')
    expect(fileAgeOf({ used: 1000 }, 2000)).toBe('used')
    expect(fileAgeOf({ used: 1900 }, 2000)).toBe('worn')
  })

  test('a fresh one is proposed where it saves more on this loop than it costs', () => {
    const prices = { labourPerHourMinor: 3000, filePriceMinor: 250 }
    const usual = new Array<number>(36).fill(200)
    const good = changeFile(usual, 20, 0.9, prices)
    // It pays over the loops that it lasts for, and from which on is said.
    expect(good.pays).toBe(true)
    expect(good.paysAfter).toBeGreaterThan(1)
    expect(changeFile(usual, 20, 0.9, { ...prices, filePriceMinor: 250_000 }).pays).toBe(false)
    expect(good.savedMinutes).toBeGreaterThan(0)
    const struck = changeFile(new Array<number>(36).fill(1200), 20, 0.6, prices)
    expect(struck.pays).toBe(true)
    expect(struck.strokesNow).toBeGreaterThan(struck.strokesFresh)
    // 1.2 s a stroke: common practice. What it saves is those strokes at the crew's hour.
    expect(struck.savedMinutes).toBeCloseTo(((struck.strokesNow - struck.strokesFresh) * 1.2) / 60)
    expect(struck.savedMinor).toBe(Math.round((struck.savedMinutes / 60) * 3000))
    expect(changeFile(usual, 20, 1.4, prices).savedMinutes).toBe(0)
  })
})

test('what calls for something says so, and what is gone says nothing', () => {
  const { markedRpm: _marked, rungAt: _rung, ...bare } = wheel({ id: 'bare' })
  const kit: KitItem[] = [
    { ...bare, glazed: true },
    { ...bare, id: 'away', gone: 'broken' },
    { id: 'stock', name: 'stock', version: 1, kind: 'stock', fileUm: 5200, left: 2, lowAt: 2 },
    grinder(),
    { id: 'vise', name: 'vise', version: 1, kind: 'vise', where: 'stump' },
  ]
  const due = kitDue(kit, kitUsage(kit, []))
  expect(Object.fromEntries(due)).toEqual({ bare: ['speed', 'ring', 'dress'], stock: ['low'], grinder: ['speed'] })
  expect(kitOf(kit, 'wheel').map(({ id }) => id)).toEqual(['bare'])
})

test('of the plates that the crew owns the nearest is taken, and never one of the other school', () => {
  const plate = (id: string, rests: 'constant' | 'progressive', ...stepsUm: number[]): KitItem => ({
    ...{ id, name: id, version: 1, kind: 'plate', rests, stepsUm },
  })
  const kit = [plate('one', 'constant', 650), plate('two', 'constant', 750), plate('grows', 'progressive', 640, 760)]
  const constant = { gaugeSchool: 'constant', woodStep: 'standard' } as const
  const wanting = (settingUm: number): LoopSpec => ({ ...SPEC, settingUm })
  expect(plateFor(kit, wanting(660), 5000, constant)).toMatchObject({ plate: { id: 'one' }, leavesUm: 650, offUm: -10 })
  // As near, the one that takes less off the gauges: steel is not put back.
  expect(plateFor(kit, wanting(700), 5000, constant)?.plate.id).toBe('one')
  expect(plateFor(kit.slice(0, 2), SPEC, 5000, { ...constant, gaugeSchool: 'progressive' })).toBeNull()
})

test('a progressive plate is chosen by its step, whatever the wear: never by the millimetres stamped on it', () => {
  const kit: KitItem[] = [
    { id: 'two', name: 'Two-step plate', version: 1, kind: 'plate', rests: 'progressive', stepsUm: [650, 760] },
  ]
  const at = (lengthUm: number, woodStep: WoodStep) =>
    plateFor(kit, SPEC, lengthUm, { gaugeSchool: 'progressive', woodStep })
  for (const lengthUm of [8000, 5000, 3500, 1000]) {
    expect(at(lengthUm, 'standard')).toMatchObject({ stampedUm: 650, step: 'standard' })
    expect(at(lengthUm, 'softer')).toMatchObject({ stampedUm: 760, step: 'softer' })
    // On a new cutter a step leaves what is stamped on it, and grows with the reach by itself.
    expect(at(lengthUm, 'standard')?.offUm).toBe(0)
  }
  expect(at(8000, 'standard')?.leavesUm).toBe(650)
  expect(at(3500, 'standard')?.leavesUm).toBeGreaterThan(1000)
})
