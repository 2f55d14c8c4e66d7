import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import { Answered } from '../store/refusal'
import type { Asked, Done, JobName } from './jobs'
import { Turns } from './turns'
import type { Order, Outcome } from './worker'

/** Threads at most; the first request that needs one starts it. */
const THREADS = 3
/** Threads that work for one person at the same time. */
const THREADS_EACH = 1
/** What takes longer is long, in ms. */
const LONG_MS = 200
/** A thread that has nothing to do ends after this, in ms. */
const IDLE_MS = 60_000

const BUILT = fileURLToPath(new URL('worker.js', import.meta.url))
const SOURCE = fileURLToPath(new URL('worker.ts', import.meta.url))

/** Threads for work that would keep the other requests waiting. */
export class Workers {
  private readonly threads: Piscina<Order, Outcome>
  private readonly turns = new Turns(THREADS, THREADS_EACH)

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
   * Has a job done in a thread, when it is their turn.
   *
   * @param who asks for it: of what one person wants, the others wait for none
   * @throws Answered with the problem document that the job ended with
   */
  async run<K extends JobName>(who: string, name: K, asked: Asked<K>): Promise<Done<K>> {
    const outcome = await this.turns.run(who, () => this.inThread({ name, asked }))
    if ('problem' in outcome) throw new Answered(outcome.problem, outcome.cause)
    return outcome.done as Done<K>
  }

  /** In a thread; while it takes long, another is made ready, so that who asks next waits for none to start. */
  private async inThread(order: Order): Promise<Outcome> {
    const ready = setTimeout(() => {
      // One that cannot be started now is started by who needs it, and whoever that is hears why.
      if (this.threads.threads.length < THREADS)
        void this.threads.run({ name: 'nothing', asked: null }).catch(() => null)
    }, LONG_MS).unref()
    try {
      return await this.threads.run(order)
    } finally {
      clearTimeout(ready)
    }
  }

  /** Ends the threads once what is under way is done. */
  stop(): Promise<void> {
    return this.threads.close()
  }
}
