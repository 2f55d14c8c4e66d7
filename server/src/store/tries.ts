import { lte, sql } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { isDeadlock } from '../database/errors'
import { tries } from '../database/schema'
import { Refusal } from './refusal'

const MINUTES = 15
/** Failed tries for one name or person within a quarter of an hour. */
const TRIES_A_NAME = 5
/** Failed tries from one address within a quarter of an hour. */
const TRIES_AN_ADDRESS = 40
/** How often somebody may set a PIN or a password within a quarter of an hour. */
const CHANGES = 20

/** What a try is counted under. */
export interface Tried {
  /** Whose secret is tried, or what else is limited. */
  readonly name: string
  /** Where the try comes from; null for a device on which this person has signed in before. */
  readonly address: string | null
}

const keysOf = ({ name, address }: Tried): string[] => [
  `name:${name}`,
  ...(address === null ? [] : [`address:${address}`]),
]

/**
 * Counts tries of secrets in the database, so that a restart forgives nothing, by a clock that no
 * setting of the machine's moves.
 */
export class Tries {
  /** @param nowMs the steady clock */
  constructor(
    private readonly db: Database,
    private readonly nowMs: () => number,
  ) {}

  /**
   * Counts a try before it is made, so that many at once count as many.
   *
   * @throws Refusal when there were too many
   */
  async count(tried: Tried): Promise<void> {
    const [ofName, ofAddress] = keysOf(tried)
    if (ofAddress !== undefined) await this.consume(ofAddress, TRIES_AN_ADDRESS)
    if (ofName !== undefined) await this.consume(ofName, TRIES_A_NAME)
  }

  /**
   * Counts a secret that somebody sets, since each takes a while to hash.
   *
   * @throws Refusal when there were too many
   */
  countChange(name: string): Promise<void> {
    return this.consume(`change:${name}`, CHANGES)
  }

  /** Forgets the tries of somebody who came in. */
  async forgive({ name, address }: Tried): Promise<void> {
    await this.db.delete(tries).where(sql`${tries.key} = ${`name:${name}`}`)
    if (address === null) return
    const key = `address:${address}`
    await this.db
      .update(tries)
      .set({ points: sql`greatest(${tries.points} - 1, 0)` })
      .where(sql`${tries.key} = ${key}`)
  }

  private async consume(key: string, most: number): Promise<void> {
    if ((await this.addOne(key)) <= most) return
    const [row] = await this.db
      .select()
      .from(tries)
      .where(sql`${tries.key} = ${key}`)
    const minutes = Math.max(1, Math.ceil(((row?.expire ?? 0) - this.nowMs()) / 60_000))
    throw new Refusal(
      'too-many-tries',
      `Too many tries. Try again in ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}.`,
    )
  }

  /** Counts one, and says which it is: in the one statement, so that each of many at once has a number of its own. */
  private async addOne(key: string, again = 3): Promise<number> {
    const now = Math.round(this.nowMs())
    try {
      await this.db.delete(tries).where(lte(tries.expire, now))
      const [{ affectedRows, insertId }] = await this.db
        .insert(tries)
        .values({ key, points: 1, expire: now + MINUTES * 60_000 })
        .onDuplicateKeyUpdate({ set: { points: sql`last_insert_id(${tries.points} + 1)` } })
      return affectedRows === 1 ? 1 : insertId
    } catch (error) {
      if (!isDeadlock(error) || again === 0) throw error
      return this.addOne(key, again - 1)
    }
  }
}
