import { BACKUP_VERSION, type Backup, type ProblemDetails, type SetAsideAnswer } from '@undercliff/contract'
import { DEFAULT_RULES } from '@undercliff/core'
import { Ajv2020 } from 'ajv/dist/2020.js'
import fc from 'fast-check'
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { createConnection } from 'mysql2/promise'
import { Readable } from 'node:stream'
import Papa from 'papaparse'
import { afterAll, afterEach, beforeAll, describe, expect, test } from 'vitest'
import { ne, sql } from 'drizzle-orm'
import { databaseUrl } from '../fixtures/databaseUrl'
import { clearCrew } from '../campaign/clearCrew'
import { crews } from '../database/schema'
import { clearAll, createCrew } from '../store/crew'
import { verifySnapshots } from '../store/refold'
import {
  corrected,
  CREW,
  fitted,
  Harness,
  measured,
  PERSON,
  ran,
  registered,
  takenOff,
  type As,
} from '../fixtures/harness'

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
const clearOther = async (): Promise<void> => {
  const { db } = harness.connected
  const [other] = await db.select().from(crews).where(ne(crews.id, CREW))
  await db.transaction((tx) => clearCrew(tx, other?.id ?? ''))
}
const emptyOther = async (): Promise<void> => {
  const mine = await backup()
  await harness.connected.db.transaction(clearAll)
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
    expect(new Map(theirs.loops.map((loop) => [loop.loopId, loop]))).toEqual(
      new Map(mine.loops.map((loop) => [loop.loopId, loop])),
    )
    expect((await restore(out)).body?.code).toBe('not-empty')
  })

  test('any season goes out and comes back with nothing lost', async () => {
    await harness.reset()
    let count = 0
    const step = fc.constantFrom('ran', 'measured', 'fit', 'strikeOut', 'note')
    await fc.assert(
      fc.asyncProperty(
        fc.array(step, { maxLength: 8 }),
        fc.string({ unit: 'grapheme', maxLength: 30 }),
        async (steps, note) => {
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
        },
      ),
      { numRuns: 15 },
    )
  })

  test('a row that is odd is set aside and named, and keeps nobody’s history out', async () => {
    await harness.reset()
    await harness.write(registered('whole-loop-1', 'W1'), ran('whole-loop-1', 2), ran('whole-loop-1', 3))
    await harness.write(registered('lost-loop-1', 'L1'), ran('lost-loop-1'))
    const good = await backup()
    const { content } = good
    const spoilt = content.entries.map((entry) => {
      if (entry.kind === 'ran' && entry.tanks === 3) return { ...entry, tanks: -3 }
      if (entry.kind === 'registered' && entry.tag === 'L1') return { ...entry, spec: { pitchClass: 'furlong' } }
      return entry
    })
    const rules = { ...content.crew.rules, benchTanks: 'often' }
    const odd = {
      ...content,
      crew: { ...content.crew, rules },
      saws: content.saws.map((saw, i) => (i === 0 ? { ...saw, gaugeUm: 9_999_999 } : saw)),
      kit: [{ id: 'kit-of-odd-kind', kind: 'anvil' }],
      entries: [...spoilt, null, 'x', { id: 'nobody-s-entry' }],
    }
    const checksum = createHash('sha256').update(JSON.stringify(odd)).digest('hex')
    await clearOther()
    const answer = await restore({ ...good, content: odd, checksum })
    expect(answer.status, harness.logged.slice(-2).join('\n')).toBe(200)
    const { rows } = answer.body as unknown as SetAsideAnswer
    expect(rows.map(({ part }) => part).sort()).toEqual([
      ...['entries', 'entries', 'entries', 'entries', 'entries', 'entries', 'kit', 'rules', 'saws'],
    ])
    for (const { why } of rows) expect(why.length, why).toBeGreaterThan(10)
    // What is right is there, and what is odd is kept, in the next backup too.
    const { loops, saws, crew } = await harness.shed('otherLead')
    expect([loops.map(({ tag }) => tag), saws.length]).toEqual([['W1'], content.saws.length])
    expect(crew.rules.benchTanks).toBe(DEFAULT_RULES.benchTanks)
    const listed = (await harness.request<SetAsideAnswer>('/api/set-aside', {}, 'otherLead')).body.rows
    expect(listed).toHaveLength(rows.length)
    const again = await backup('otherLead')
    expect(again.content.setAside).toEqual(listed)
    await clearOther()
    expect((await restore(again)).status).toBe(200)
    expect((await backup('otherLead')).content.entries).toEqual(again.content.entries)
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

// The schema is read by ajv, which knows nothing of this project.
test('the JSON Schema that ships describes what is written, and refuses what is not', async () => {
  const validate = new Ajv2020({ allErrors: true }).compile(
    JSON.parse(readFileSync(new URL('../../../docs/house/backup.schema.json', import.meta.url), 'utf8')) as object,
  )
  await harness.demo()
  const good = await backup()
  expect(validate(good), JSON.stringify(validate.errors?.slice(0, 3))).toBe(true)
  const kinds = new Set(good.content.entries.map(({ kind }) => kind))
  expect(kinds.size).toBeGreaterThan(8)
  const [first, ...rest] = good.content.entries
  const spoilt = (entry: object) => ({
    ...good,
    content: { ...good.content, entries: [{ ...first, ...entry }, ...rest] },
  })
  expect(validate(spoilt({ kind: 'danced' }))).toBe(false)
  expect(validate(spoilt({ happenedAt: 'yesterday' }))).toBe(false)
  expect(validate(spoilt({ colour: 'red' }))).toBe(false)
  expect(validate({ ...good, version: BACKUP_VERSION + 1 })).toBe(false)
  expect(validate({ ...good, checksum: 'none' })).toBe(false)
})

describe('tables', () => {
  test('each is read back by another parser', async () => {
    await harness.demo()
    const { loops, saws, people } = await harness.shed()
    expect((await rowsOf('loops')).map(({ tag }) => tag).sort()).toEqual(loops.map(({ tag }) => tag).sort())
    expect((await rowsOf('loops')).find(({ tag }) => tag === 'K3')).toMatchObject({
      pitch: '3/8"',
      gauge_mm: '1.5',
      drive_links: '72',
      verdict: 'Regrind',
      fit_for_use: 'yes',
    })
    expect((await rowsOf('saws')).map(({ nickname }) => nickname).sort()).toEqual(
      saws.map(({ nickname }) => nickname).sort(),
    )
    expect(await rowsOf('people')).toHaveLength(people.length)
    expect((await rowsOf('log')).length).toBeGreaterThan(500)
    expect((await harness.request<ProblemDetails>('/api/tables/secrets.csv')).body.code).toBe('no-such-route')
  })

  test('a note is text, whatever it begins with', async () => {
    await harness.reset()
    const notes = ['=1+1', '+cmd', '-2', '@sum', 'two\nlines, "quoted"']
    await harness.write(
      registered('noted-in-csv-1', 'NOTED'),
      ...notes.map((note) => ({ ...ran('noted-in-csv-1'), note })),
    )
    const written = (await rowsOf('log')).filter(({ kind }) => kind === 'ran').map(({ note }) => note)
    expect(written).toEqual(["'=1+1", "'+cmd", "'-2", "'@sum", 'two\nlines, "quoted"'])
  })
})

test('whatever stands in a note, two readers that are not ours find the same cells, and no formula', async () => {
  await harness.reset()
  const unit = fc.constantFrom(...Array.from('a\n;,"\t =+-@|%\'\u2028\u0085ü'))
  const notes = fc.sample(fc.string({ unit, minLength: 1, maxLength: 12 }), { numRuns: 150, seed: 17 })
  notes.push('two\nlines', '\n=1+1', 'a;=1+1', 'a\t@x', '"', '""', ';', '\n')
  await harness.write(registered('noted-in-csv-2', 'NOTED'))
  for (let from = 0; from < notes.length; from += 40)
    await harness.write(...notes.slice(from, from + 40).map((note) => ({ ...ran('noted-in-csv-2'), note })))
  const response = await fetch(harness.address('/api/tables/log.csv'), { headers: harness.headers('lead') })
  const text = await response.text()
  // RFC 4180: outside of quotes no break but between rows, nor anything else that parts cells anywhere.
  const outside = text.replace(/"(?:[^"]|"")*"/g, '').replaceAll('\r\n', '')
  expect(outside).not.toMatch(/[\r\n;\t\u2028\u0085"]/)
  const [head = [], ...rows] = Papa.parse<string[]>(text, { skipEmptyLines: true }).data
  const column = head.indexOf('note')
  const cells = rows.map((row) => row[column] ?? '')
  expect(cells).toHaveLength(notes.length + 1)

  // MariaDB reads the same bytes as CSV: quotes doubled, nothing escaped.
  const { db } = harness.connected
  await db.execute(sql.raw('drop table if exists read_by_another'))
  const columns = head.map((_name, i) => `c${i} text character set utf8mb4`).join(', ')
  await db.execute(sql.raw(`create table read_by_another (n int auto_increment primary key, ${columns})`))
  const into = head.map((_name, i) => `c${i}`).join(', ')
  const other = await createConnection({ uri: databaseUrl() })
  await other.query({
    sql: `load data local infile 'log.csv' into table read_by_another character set utf8mb4
      fields terminated by ',' optionally enclosed by '"' escaped by '' lines terminated by '\\r\\n'
      ignore 1 lines (${into})`,
    infileStreamFactory: () => Readable.from([Buffer.from(text)]),
  })
  await other.end()
  const [read] = (await db.execute(
    sql.raw(`select c${column} as note from read_by_another order by n`),
  )) as unknown as [{ note: string }[]]
  await db.execute(sql.raw('drop table read_by_another'))
  expect(read.map(({ note }) => note)).toEqual(cells)

  const bare = (one: string): string => one.replaceAll("'", '')
  expect(cells.slice(1).map(bare)).toEqual(notes.map(bare))
  // However a spreadsheet is set to part cells and rows, none begins a formula.
  for (const cell of cells)
    for (const part of cell.split(/[;\t\n\u0085\u2028]/))
      expect(part, JSON.stringify(cell)).not.toMatch(/^\s*[=+\-@|%]/)
})

describe('a spreadsheet', () => {
  const at = '2026-03-20T11:00:00.000Z'
  const loopsOf = (count: number, more: object = {}) =>
    Array.from({ length: count }, (_, i) => ({ ...registered(`imported-loop-${i}`, `I${i}`), happenedAt: at, ...more }))
  const bring = (entries: readonly unknown[], saws: readonly unknown[] = []) =>
    harness.post<ProblemDetails & { loops: number }>('/api/import', { saws, entries })

  test('comes in all at once, saws and loops on them', async () => {
    await harness.reset()
    const saw = { id: 'imported-saw-1', nickname: 'Petrel', pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 }
    const answer = await bring([...loopsOf(120), { ...fitted('imported-loop-0', saw.id), happenedAt: at }], [saw])
    expect(answer).toMatchObject({ status: 201, body: { loops: 120, saws: 1, entries: 121 } })
    const { loops, saws } = await harness.shed()
    expect(loops).toHaveLength(120)
    expect(saws.map(({ nickname }) => nickname)).toContain('Petrel')
    expect(loops.find(({ tag }) => tag === 'I0')?.sawId).toBe(saw.id)
    expect((await harness.log('imported-loop-0'))[0]).toMatchObject({ writtenBy: PERSON })
  })

  test('or not at all, with the row that is wrong', async () => {
    await harness.reset()
    await harness.write(registered('here-before-1', 'I3'), fitted('here-before-1'))
    const refused = async (entries: readonly unknown[]) => (await bring(entries)).body.code
    expect(await refused(loopsOf(5))).toBe('tag-taken')
    expect(await refused([...loopsOf(3), { ...measured('imported-loop-1', 90_000), happenedAt: at }])).toBe(
      'not-admitted',
    )
    expect(await refused([...loopsOf(3), { ...fitted('imported-loop-1'), happenedAt: at }])).toBe('saw-occupied')
    expect(await refused([...loopsOf(3), { ...fitted('imported-loop-1', 'no-such-saw-1'), happenedAt: at }])).toBe(
      'no-such-saw',
    )
    expect(await refused([...loopsOf(3), { ...ran('never-registered'), happenedAt: at }])).toBe('not-admitted')
    expect(await refused([{ kind: 'danced' }])).toBe('invalid')
    expect(await refused([])).toBe('invalid')
    expect((await harness.shed()).loops.map(({ tag }) => tag)).toEqual(['I3'])
  })
})
