import type { Backup, ProblemDetails } from '@undercliff/contract'
import fc from 'fast-check'
import Papa from 'papaparse'
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest'
import { clearAll, createCrew } from '../store/crew'
import { verifySnapshots } from '../store/refold'
import { corrected, CREW, fitted, Harness, measured, ran, registered, takenOff, type As } from '../fixtures/harness'

let harness: Harness
beforeAll(async () => {
  harness = await Harness.open()
})
afterEach(async () => {
  expect((await verifySnapshots(harness.connected.db)).disagreements).toEqual([])
})
afterAll(() => harness.close())

const backup = async (as: As = 'lead'): Promise<Backup> => (await harness.request<Backup>('/api/backup', {}, as)).body
const restore = (body: unknown) => harness.post<ProblemDetails | null>('/api/backup', body, 'otherLead')
const emptyOther = async (): Promise<void> => {
  const mine = await backup()
  await clearAll(harness.connected.db)
  await createCrew(harness.connected.db, CREW, CREW)
  await harness.join('lead')
  expect((await harness.post('/api/backup', mine)).status).toBe(204)
}
const rowsOf = async (name: string): Promise<Record<string, string>[]> => {
  const response = await fetch(harness.address(`/api/tables/${name}.csv`), { headers: harness.headers('lead') })
  const text = await response.text()
  const { data, errors } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true })
  expect(errors).toEqual([])
  expect(text).toContain('\r\n')
  return data
}

describe('backup', () => {
  test('the demo goes out and comes back with nothing lost', async () => {
    await harness.demo()
    const out = await backup()
    expect(out.content.entries.length).toBeGreaterThan(500)
    expect((await restore(out)).status).toBe(204)
    expect((await backup('otherLead')).content).toEqual(out.content)
    const [mine, theirs] = [await harness.shed(), await harness.shed('otherLead')]
    expect(theirs.loops).toHaveLength(mine.loops.length)
    expect(new Map(theirs.loops.map((loop) => [loop.loopId, loop]))).toEqual(new Map(mine.loops.map((loop) => [loop.loopId, loop])))
    expect((await restore(out)).body?.code).toBe('not-empty')
  })

  test('any season goes out and comes back with nothing lost', async () => {
    await harness.reset()
    let count = 0
    const step = fc.constantFrom('ran', 'measured', 'fit', 'strikeOut', 'note')
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 8 }), fc.string({ unit: 'grapheme', maxLength: 30 }), async (steps, note) => {
        count += 1
        const loopId = `round-trip-${String(count).padStart(4, '0')}`
        await harness.write(registered(loopId, `R${count}`))
        for (const one of steps) {
          if (one === 'ran') await harness.write(ran(loopId, 2))
          if (one === 'measured') await harness.write(measured(loopId, 5000))
          if (one === 'fit') await harness.write(fitted(loopId))
          if (one === 'note') await harness.write({ ...ran(loopId), note })
          if (one === 'strikeOut') {
            const entry = ran(loopId)
            await harness.write(entry, corrected(loopId, entry.id))
          }
        }
        await harness.write(takenOff(loopId))
        const before = await backup()
        await emptyOther()
        expect((await backup()).content).toEqual(before.content)
      }),
      { numRuns: 15 },
    )
  })

  test('a newer, a truncated, a changed and a wrong one are refused and nothing is written', async () => {
    await harness.reset()
    await harness.write(registered('kept-as-it-is', 'KEPT'), ran('kept-as-it-is'))
    const good = await backup()
    const { content } = good
    await harness.reset()
    expect((await restore({ ...good, version: 99 })).body?.code).toBe('backup-newer')
    const changed = { ...good, content: { ...content, entries: content.entries.slice(0, 1) } }
    expect((await restore(changed)).body?.code).toBe('backup-damaged')
    expect((await restore(JSON.stringify(good).slice(0, -40))).body?.code).toBe('malformed-json')
    expect((await restore({ hello: 'there' })).body?.code).toBe('invalid')
    expect((await restore({ ...good, format: 'something-else' })).body?.problems?.[0]?.field).toBe('format')
    expect(await harness.shed('otherLead')).toMatchObject({ people: [{ name: 'Hesper Dunn' }], saws: [], loops: [] })
  })
})

describe('tables', () => {
  test('each is read back by another parser', async () => {
    await harness.demo()
    const { loops, saws, people } = await harness.shed()
    expect((await rowsOf('loops')).map(({ tag }) => tag).sort()).toEqual(loops.map(({ tag }) => tag).sort())
    expect((await rowsOf('loops')).find(({ tag }) => tag === 'K3')).toMatchObject({ pitch: '3/8"', gauge_mm: '1.5', drive_links: '72', verdict: 'Regrind', fit_for_use: 'yes' })
    expect((await rowsOf('saws')).map(({ nickname }) => nickname).sort()).toEqual(saws.map(({ nickname }) => nickname).sort())
    expect(await rowsOf('people')).toHaveLength(people.length)
    expect((await rowsOf('log')).length).toBeGreaterThan(500)
    expect((await harness.request<ProblemDetails>('/api/tables/secrets.csv')).body.code).toBe('no-such-route')
  })

  test('a note is text, whatever it begins with', async () => {
    await harness.reset()
    const notes = ['=1+1', '+cmd', '-2', '@sum', 'two\nlines, "quoted"']
    await harness.write(registered('noted-in-csv-1', 'NOTED'), ...notes.map((note) => ({ ...ran('noted-in-csv-1'), note })))
    const written = (await rowsOf('log')).filter(({ kind }) => kind === 'ran').map(({ note }) => note)
    expect(written).toEqual(["'=1+1", "'+cmd", "'-2", "'@sum", 'two\nlines, "quoted"'])
  })
})
