import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import { Answered } from '../store/refusal'
import type { Asked, Done, JobName } from './jobs'
import type { Order, Outcome } from './worker'

/** Threads at most; the first request that needs one starts it. */
const THREADS = 2
/** A thread that has nothing to do ends after this, in ms. */
const IDLE_MS = 60_000

const BUILT = fileURLToPath(new URL('worker.js', import.meta.url))
const SOURCE = fileURLToPath(new URL('worker.ts', import.meta.url))

/** Threads for work that would keep the other requests waiting. */
export class Workers {
  private readonly threads: Piscina<Order, Outcome>

  /** @param url of the database that the threads connect to */
  constructor(url: string) {
    const built = existsSync(BUILT)
    this.threads = new Piscina({
      filename: built ? BUILT : SOURCE,
      execArgv: built ? [] : ['--import', 'tsx'],
      workerData: { url },
      minThreads: 0,
      maxThreads: THREADS,
      idleTimeout: IDLE_MS,
    })
  }

  /**
   * Has a job done in a thread.
   *
   * @throws Answered with the problem document that the job ended with
   */
  async run<K extends JobName>(name: K, asked: Asked<K>): Promise<Done<K>> {
    const outcome = await this.threads.run({ name, asked })
    if ('problem' in outcome) throw new Answered(outcome.problem, outcome.cause)
    return outcome.done as Done<K>
  }

  /** Ends the threads once what is under way is done. */
  stop(): Promise<void> {
    return this.threads.close()
  }
}
