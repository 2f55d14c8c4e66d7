import type { CrewChange, EntriesAnswer, LoopAnswer, NewPerson, NewSaw, ProblemDetails, ShedAnswer } from '@undercliff/contract'
import type { NewEntry } from '@undercliff/core'

/** The server refused; carries its problem document. */
export class ServerRefusal extends Error {
  constructor(readonly problem: ProblemDetails) {
    super(problem.detail)
  }
}

/** The server could not be reached, or its database is away. What was to be sent is not lost. */
export class ServerAway extends Error {}

async function call<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, init)
  } catch {
    throw new ServerAway('Undercliff cannot be reached.')
  }
  if (response.status === 204) return undefined as T
  if (response.ok) return (await response.json()) as T
  if (response.status >= 500) throw new ServerAway('Undercliff cannot write just now.')
  throw new ServerRefusal((await response.json()) as ProblemDetails)
}

const sendText = <T>(method: 'POST' | 'PUT', path: string, body: string): Promise<T> =>
  call(path, { method, headers: { 'content-type': 'application/json' }, body })

const send = <T>(method: 'POST' | 'PUT', path: string, body: unknown): Promise<T> =>
  sendText(method, path, JSON.stringify(body))

export const fetchShed = (): Promise<ShedAnswer> => call('/shed')
export const fetchLoop = (loopId: string): Promise<LoopAnswer> => call(`/loops/${loopId}`)
export const postEntries = (entries: readonly NewEntry[]): Promise<EntriesAnswer> => send('POST', '/entries', { entries })
export const postSaw = (saw: NewSaw): Promise<NewSaw> => send('POST', '/saws', saw)
export const postPerson = (person: NewPerson): Promise<NewPerson> => send('POST', '/people', person)
export const putCrew = (change: CrewChange): Promise<CrewChange> => send('PUT', '/crew', change)
/** Sends a backup as it stands in its file; the server says what is wrong with it. */
export const postBackup = (text: string): Promise<undefined> => sendText('POST', '/backup', text)
