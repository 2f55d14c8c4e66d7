import type { ProblemDetails } from '@undercliff/contract'
import { workerData } from 'node:worker_threads'
import { connect, type Connected } from '../database/connect'
import { loggable, type Loggable } from '../http/loggable'
import { problemOf } from '../store/problemOf'
import { JOBS, type Asked, type JobName } from './jobs'

/** What a thread is handed. */
export interface Order<K extends JobName = JobName> {
  readonly name: K
  readonly asked: Asked<K>
}

/** What a thread hands back; errors as what they answer with, since their classes do not cross over. */
export type Outcome = { readonly done: unknown } | { readonly problem: ProblemDetails; readonly cause: Loggable }

let connected: Connected | null = null

/** A thread of its own: runs one job after the other, on connections of its own. */
export default async function run({ name, asked }: Order): Promise<Outcome> {
  connected ??= connect((workerData as { url: string }).url)
  try {
    const job = JOBS[name] as (on: Connected, wanted: unknown) => Promise<unknown>
    return { done: await job(connected, asked) }
  } catch (error) {
    return { problem: problemOf(error), cause: loggable(error) }
  }
}
