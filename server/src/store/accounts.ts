import type { AccountAnswer, AccountChange, SetUp, SignIn, Switch } from '@undercliff/contract'
import { and, asc, eq, ne, sql } from 'drizzle-orm'
import { nanoid } from 'nanoid'
import { createHash } from 'node:crypto'
import type { Database } from '../database/connect'
import { duplicateKey } from '../database/errors'
import { accounts, crews, people, sessions } from '../database/schema'
import type { Caller } from './caller'
import { lockCrew } from './crewLock'
import { installedCrew } from './crew'
import { hashSecret, isSecret } from './passwords'
import { Refusal } from './refusal'
import type { Session } from './sessions'
import type { Tried, Tries } from './tries'

/** Whether anybody can sign in to this installation. */
export async function hasAccounts(db: Database): Promise<boolean> {
  const [one] = await db.select({ login: accounts.login }).from(accounts).limit(1)
  return one !== undefined
}

function nameClash(error: unknown): never {
  const key = duplicateKey(error)
  if (key === 'accounts_login') throw new Refusal('name-taken', 'That sign-in name is taken. Choose another.')
  if (key === 'people_name') throw new Refusal('name-taken', 'Somebody on the crew has that name.')
  throw error
}

/** Who came in, with what marks their device. */
export type SignedInAs = Pick<Caller, 'crewId' | 'personId'> & { readonly passwordHash: string }

const setUpAlready = (): Refusal => new Refusal('set-up-already', 'Somebody has set it up. Sign in.')

/**
 * Makes the first lead of an installation that nobody can sign in to yet.
 *
 * @param address where the request comes from, for the limit on tries
 * @throws Refusal when somebody can, or after too many tries
 */
export async function setUp(
  db: Database,
  tries: Tries,
  { crewName, name, login, password }: SetUp,
  address: string,
): Promise<SignedInAs> {
  // A stranger who asks a second time has nothing hashed for it.
  if (await hasAccounts(db)) throw setUpAlready()
  await tries.count({ name: `set-up:${address}`, address })
  const passwordHash = await hashSecret(password)
  return db.transaction(async (tx) => {
    const crewId = await installedCrew(tx)
    if (crewId === null) throw new Error('an installation has a crew')
    await lockCrew(tx, crewId)
    const [one] = await tx.select({ login: accounts.login }).from(accounts).limit(1)
    if (one !== undefined) throw setUpAlready()
    await tx.update(crews).set({ name: crewName }).where(eq(crews.id, crewId))
    // A crew from before people signed in may know the lead by name already.
    const [known] = await tx
      .select({ id: people.id })
      .from(people)
      .where(and(eq(people.crewId, crewId), eq(people.name, name)))
    const personId = known?.id ?? nanoid()
    if (known === undefined) await tx.insert(people).values({ crewId, id: personId, name, role: 'lead' })
    else
      await tx
        .update(people)
        .set({ role: 'lead' })
        .where(and(eq(people.crewId, crewId), eq(people.id, personId)))
    await tx.insert(accounts).values({ crewId, personId, login, passwordHash })
    return { crewId, personId, passwordHash }
  })
}

/** Where a sign-in comes from. */
export interface Origin {
  readonly address: string
  /** What the device is called when this person has signed in on it before; null for a stranger's. */
  readonly knownDevice: (account: { readonly personId: string; readonly passwordHash: string }) => string | null
}

/** A name that is nobody's, whatever was typed, as it is counted. */
const nobodys = (login: string): string => `nobody:${createHash('sha256').update(login).digest('hex')}`

/**
 * Who a name and password belong to. A device on which they signed in before has tries of its own, so
 * that no stranger uses them up.
 *
 * @throws Refusal when they belong to nobody, or after too many tries
 */
export async function checkSignIn(
  db: Database,
  tries: Tries,
  { login, password }: SignIn,
  { address, knownDevice }: Origin,
): Promise<SignedInAs> {
  const wanted = login.trim().toLowerCase()
  const [account] = await db.select().from(accounts).where(eq(accounts.login, wanted))
  const device = account === undefined ? null : knownDevice(account)
  // By the account, and not by what was typed: the database takes accents and case for the same.
  const tried: Tried =
    device === null
      ? { name: account === undefined ? nobodys(wanted) : `login:${account.login}`, address }
      : { name: `device:${device}`, address: null }
  await tries.count(tried)
  if (!(await isSecret(account?.passwordHash ?? null, password)) || account === undefined) {
    throw new Refusal('wrong-sign-in', 'The name or the password is not right.')
  }
  await tries.forgive(tried)
  return { crewId: account.crewId, personId: account.personId, passwordHash: account.passwordHash }
}

/**
 * Checks the PIN with which somebody takes over a shared device.
 *
 * @throws Refusal when the device is not shared, the PIN is wrong, or after too many tries
 */
export async function checkPin(
  db: Database,
  tries: Tries,
  session: Session,
  { personId, pin }: Switch,
  address: string,
): Promise<void> {
  if (!session.shared) throw new Refusal('not-shared', 'A lead has to mark this device as shared first.')
  const tried: Tried = { name: `pin:${session.crewId}:${personId}`, address }
  await tries.count(tried)
  const [account] = await db
    .select()
    .from(accounts)
    .where(and(eq(accounts.crewId, session.crewId), eq(accounts.personId, personId)))
  if (!(await isSecret(account?.pinHash ?? null, pin))) throw new Refusal('wrong-sign-in', 'That is not the PIN.')
  await tries.forgive(tried)
}

/** Everybody of a crew who can sign in. */
export const listAccounts = async (db: Database, crewId: string): Promise<AccountAnswer[]> =>
  (
    await db
      .select({
        personId: people.id,
        name: people.name,
        login: accounts.login,
        role: people.role,
        pinHash: accounts.pinHash,
      })
      .from(accounts)
      .innerJoin(people, and(eq(people.crewId, accounts.crewId), eq(people.id, accounts.personId)))
      .where(eq(accounts.crewId, crewId))
      .orderBy(asc(people.name))
  ).map(({ pinHash, ...account }) => ({ ...account, hasPin: pinHash !== null }))

/** @throws Refusal unless another lead than this person can sign in */
export async function needAnotherLead(db: Pick<Database, 'select'>, crewId: string, personId: string): Promise<void> {
  const [other] = await db
    .select({ id: people.id })
    .from(accounts)
    .innerJoin(people, and(eq(people.crewId, accounts.crewId), eq(people.id, accounts.personId)))
    .where(and(eq(accounts.crewId, crewId), eq(people.role, 'lead'), ne(people.id, personId)))
    .limit(1)
  if (other === undefined) throw new Refusal('last-lead', 'Make somebody else a lead first.')
}

/**
 * Lets a person of the crew sign in, or changes how and as what. A new password ends their other
 * sessions.
 *
 * @throws Refusal when the person is not on the crew, the name is taken or no lead would be left
 */
export async function changeAccount(
  db: Database,
  tries: Tries,
  session: Session,
  personId: string,
  { login, password, role }: AccountChange,
): Promise<void> {
  const { crewId } = session
  if (password !== undefined) await tries.countChange(personId)
  const passwordHash = password === undefined ? null : await hashSecret(password)
  await db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const [person] = await tx
      .select()
      .from(people)
      .where(and(eq(people.crewId, crewId), eq(people.id, personId)))
    if (person === undefined) throw new Refusal('no-such-person', 'Nobody on the crew has this id.')
    if (person.gone) throw new Refusal('no-such-person', 'They have left the crew. Take them back first.')
    const [before] = await tx
      .select()
      .from(accounts)
      .where(and(eq(accounts.crewId, crewId), eq(accounts.personId, personId)))
    if (person.role === 'lead' && role !== 'lead') await needAnotherLead(tx, crewId, personId)
    await tx
      .update(people)
      .set({ role })
      .where(and(eq(people.crewId, crewId), eq(people.id, personId)))
    if (before === undefined) {
      const message = 'The first password is missing.'
      if (passwordHash === null) throw new Refusal('invalid', message, [{ field: 'password', message }])
      await tx.insert(accounts).values({ crewId, personId, login, passwordHash }).catch(nameClash)
      return
    }
    await tx
      .update(accounts)
      .set({ login, ...(passwordHash === null ? {} : { passwordHash }) })
      .where(and(eq(accounts.crewId, crewId), eq(accounts.personId, personId)))
      .catch(nameClash)
    if (passwordHash !== null) {
      await tx
        .delete(sessions)
        .where(and(eq(sessions.crewId, crewId), eq(sessions.personId, personId), ne(sessions.id, session.sessionId)))
    }
  })
}

/**
 * Lets somebody sign in no longer; what they wrote stays.
 *
 * @throws Refusal when they could not, or no lead would be left
 */
export const removeAccount = (db: Database, crewId: string, personId: string): Promise<void> =>
  db.transaction(async (tx) => {
    await lockCrew(tx, crewId)
    const [account] = await tx
      .select()
      .from(accounts)
      .where(and(eq(accounts.crewId, crewId), eq(accounts.personId, personId)))
    if (account === undefined) throw new Refusal('no-such-account', 'This person cannot sign in.')
    await needAnotherLead(tx, crewId, personId)
    await tx.delete(accounts).where(and(eq(accounts.crewId, crewId), eq(accounts.personId, personId)))
  })

/**
 * Changes one's own password and ends one's other sessions.
 *
 * @returns the new password's hash
 * @throws Refusal when the present password is not right, or after too many tries
 */
export async function changePassword(
  db: Database,
  tries: Tries,
  session: Session,
  { current, next, address }: { readonly current: string; readonly next: string; readonly address: string },
): Promise<string> {
  const { crewId, personId } = session
  const tried: Tried = { name: `password:${crewId}:${personId}`, address }
  await tries.count(tried)
  const [account] = await db
    .select()
    .from(accounts)
    .where(and(eq(accounts.crewId, crewId), eq(accounts.personId, personId)))
  if (account === undefined || !(await isSecret(account.passwordHash, current)))
    throw new Refusal('wrong-sign-in', 'The present password is not right.')
  await tries.forgive(tried)
  await tries.countChange(personId)
  const passwordHash = await hashSecret(next)
  await db.transaction(async (tx) => {
    await tx
      .update(accounts)
      .set({ passwordHash })
      .where(and(eq(accounts.crewId, crewId), eq(accounts.personId, personId)))
    await tx
      .delete(sessions)
      .where(and(eq(sessions.crewId, crewId), eq(sessions.personId, personId), ne(sessions.id, session.sessionId)))
  })
  return passwordHash
}

/**
 * Sets somebody's PIN, or takes it away and ends the sessions that were opened by it.
 *
 * @returns whether they can sign in at all
 * @throws Refusal after too many changes
 */
export async function changePin(
  db: Database,
  tries: Tries,
  { crewId, personId }: Pick<Session, 'crewId' | 'personId'>,
  pin: string | null,
): Promise<boolean> {
  if (pin !== null) await tries.countChange(personId)
  const pinHash = pin === null ? null : await hashSecret(pin)
  return db.transaction(async (tx) => {
    const [{ affectedRows }] = await tx
      .update(accounts)
      .set({ pinHash })
      .where(and(eq(accounts.crewId, crewId), eq(accounts.personId, personId)))
    if (pin === null)
      await tx
        .delete(sessions)
        .where(and(eq(sessions.crewId, crewId), eq(sessions.personId, personId), eq(sessions.byPin, true)))
    return affectedRows > 0
  })
}

/** Whether the crew that signs in here is the invented one that ships. */
export async function isDemo(db: Database): Promise<boolean> {
  const [crew] = await db
    .select({ demo: crews.demo })
    .from(crews)
    .where(sql`${crews.demo}`)
    .limit(1)
  return crew !== undefined
}
