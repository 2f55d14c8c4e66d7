import type { Pool } from 'mysql2/promise'
import { RateLimiterMySQL, RateLimiterRes } from 'rate-limiter-flexible'
import { Refusal } from './refusal'

const MINUTES = 15
/** Failed tries for one name or person within a quarter of an hour. */
const TRIES_A_NAME = 5
/** Failed tries from one address within a quarter of an hour. */
const TRIES_AN_ADDRESS = 40

/** Counts failed sign-ins in the database, so that a restart forgives nothing. */
export class Tries {
  private readonly perName: RateLimiterMySQL
  private readonly perAddress: RateLimiterMySQL

  constructor(pool: Pool) {
    const common = {
      storeClient: pool.pool,
      storeType: 'pool',
      tableName: 'tries',
      tableCreated: true,
      duration: MINUTES * 60,
    }
    const dbName = (pool.pool.config as unknown as { connectionConfig: { database: string } }).connectionConfig.database
    this.perName = new RateLimiterMySQL({ ...common, dbName, keyPrefix: 'name', points: TRIES_A_NAME })
    this.perAddress = new RateLimiterMySQL({ ...common, dbName, keyPrefix: 'address', points: TRIES_AN_ADDRESS })
  }

  /**
   * Counts a try before it is made, so that many at once count as many.
   *
   * @throws Refusal when there were too many
   */
  async count(name: string, address: string): Promise<void> {
    try {
      await this.perAddress.consume(address)
      await this.perName.consume(name)
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error
      const minutes = Math.max(1, Math.ceil(error.msBeforeNext / 60_000))
      throw new Refusal(
        'too-many-tries',
        `Too many tries. Try again in ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}.`,
      )
    }
  }

  /** Forgets the tries of somebody who came in. */
  async forgive(name: string, address: string): Promise<void> {
    await this.perName.delete(name)
    await this.perAddress.reward(address)
  }
}
