import { DEFAULT_RULES, PRICE_NAMES, type NewEntry } from '@undercliff/core'
import { DEMO_SIGN_INS, scenario, type Scenario } from '@undercliff/demo'
import { and, asc, eq, isNotNull, sql } from 'drizzle-orm'
import type { Database, Transaction } from '../database/connect'
import {
  accounts,
  crews,
  entries,
  loops,
  people,
  photos,
  kitItems,
  profiles,
  underWay,
  sawEntries,
  saws,
  sessions,
  snapshots,
  tries,
} from '../database/schema'
import { appendWithin } from './appendEntries'
import { kitRow } from './kit'
import { hashSecret } from './passwords'
import { sawRowOf } from './rows'

/** The crew that an installation begins with. Null before there is one. */
export async function installedCrew(db: Database | Transaction): Promise<string | null> {
  const [crew] = await db.select({ id: crews.id }).from(crews).orderBy(asc(crews.id)).limit(1)
  return crew?.id ?? null
}

/** What a crew is called. */
export async function crewNameOf(db: Database, crewId: string): Promise<string> {
  const [crew] = await db.select({ name: crews.name }).from(crews).where(eq(crews.id, crewId))
  return crew?.name ?? 'This crew'
}

/** Makes a crew with nothing in it. */
export async function createCrew(
  db: Database | Transaction,
  crewId: string,
  name: string,
  demo = false,
): Promise<void> {
  // The crew that ships has said what things cost it.
  const rules = demo ? { ...DEFAULT_RULES, saidPrices: PRICE_NAMES } : DEFAULT_RULES
  await db.insert(crews).values({ id: crewId, name, lengths: 'mm', rules, demo })
}

/** Throws away everything of every crew. */
export async function clearAll(tx: Transaction): Promise<void> {
  for (const table of [snapshots, underWay, photos]) await tx.delete(table)
  // Corrections point at the entries they strike out and go first.
  await tx.delete(entries).where(eq(entries.kind, 'corrected'))
  for (const table of [entries, loops, sawEntries, saws, profiles, kitItems, sessions, accounts, tries, people, crews])
    await tx.delete(table)
}

/** Sign-ins of the demo with their secrets hashed, which is not for a transaction to wait for. */
const hashedSignIns = () =>
  Promise.all(
    DEMO_SIGN_INS.map(async ({ name, login, password, pin }) => ({
      name,
      login,
      passwordHash: await hashSecret(password),
      pinHash: await hashSecret(pin),
    })),
  )
type SignIns = Awaited<ReturnType<typeof hashedSignIns>>

async function writeDemo(tx: Transaction, crewId: string, now: Date, signIns: SignIns): Promise<void> {
  const demo = scenario(now)
  await createCrew(tx, crewId, demo.crewName, true)
  await tx.insert(people).values(demo.people.map(({ id, name, role }) => ({ crewId, id, name, role })))
  for (const { name, ...account } of signIns) {
    const person = demo.people.find((one) => one.name === name)
    if (person !== undefined) await tx.insert(accounts).values({ crewId, personId: person.id, ...account })
  }
  await tx.insert(saws).values(demo.saws.map((saw) => ({ crewId, ...saw })))
  await tx.insert(profiles).values(demo.profiles.map((profile) => ({ crewId, ...profile })))
  await tx.insert(kitItems).values(demo.kit.map((item) => kitRow(crewId, item)))
  await writeDemoEntries(tx, crewId, now, demo)
  await tx.insert(sawEntries).values(demo.sawEntries.map((entry) => sawRowOf(crewId, entry)))
}

async function writeDemoEntries(tx: Transaction, crewId: string, now: Date, demo: Scenario): Promise<void> {
  const lead = demo.people.find(({ role }) => role === 'lead')
  const caller = { crewId, personId: lead?.id ?? '', role: 'lead' } as const
  // Registered before any of them is read, each loop begins with common practice, as `docs/bench/verdict.md` has it.
  const isRegistration = ({ kind }: NewEntry): boolean => kind === 'registered'
  const sent = [...demo.entries.filter(isRegistration), ...demo.entries.filter((entry) => !isRegistration(entry))]
  // All at once, so that each log is folded once.
  let next = 0
  await appendWithin(tx, caller, DEFAULT_RULES, sent, () => new Date(sent[next++]?.happenedAt ?? now), undefined)
  // Everybody wrote down their own work.
  await tx
    .update(entries)
    .set({ writtenBy: sql`person_id` })
    .where(and(eq(entries.crewId, crewId), isNotNull(entries.personId)))
}

/** What an installation begins with. */
export interface Beginning {
  readonly crewId: string
  readonly now: Date
  /** Throws away what is there first. */
  readonly fresh: boolean
  /** Without the demo. */
  readonly empty: boolean
}

/**
 * Begins an installation in one transaction: whenever it is cut short, what was there before is there
 * still, and the next start begins anew. The demo is a crew of its own, loaded through the same door as
 * every entry, each written when it happened by whoever did the work.
 */
export async function begin(db: Database, { crewId, now, fresh, empty }: Beginning): Promise<void> {
  const signIns = empty ? [] : await hashedSignIns()
  await db.transaction(async (tx) => {
    if (fresh) await clearAll(tx)
    if (empty) await createCrew(tx, crewId, 'Our crew')
    else await writeDemo(tx, crewId, now, signIns)
  })
}
