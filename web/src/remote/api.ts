import type {
  AccountAnswer,
  AccountChange,
  AnyNewEntry,
  CrewChange,
  EntriesAnswer,
  Import,
  ImportAnswer,
  LoopAnswer,
  NewPerson,
  NewSaw,
  PasswordChange,
  PinChange,
  ProblemDetails,
  SawAnswer,
  SessionAnswer,
  SessionListed,
  SetUp,
  ShedAnswer,
  SignedIn,
  SignIn,
  Switch,
  TagSheet,
  WearAnswer,
} from '@undercliff/contract'
import type { CrewProfile, HouseRules } from '@undercliff/core'

/** The server refused; carries its problem document. */
export class ServerRefusal extends Error {
  constructor(readonly problem: ProblemDetails) {
    super(problem.detail)
  }
}

/** The server could not be reached, or its database is away. What was to be sent is not lost. */
class ServerAway extends Error {}

/** Nobody is signed in any more. What was to be sent is not lost. */
export class SignedOut extends Error {}

let csrfToken = ''
let whenSignedOut: () => void = () => undefined

/** Sets the token that every change carries, as the session's answer gave it. */
export const useCsrfToken = (token: string): void => {
  csrfToken = token
}
/** Called when the server says that nobody is signed in. */
export const onSignedOut = (listener: () => void): void => {
  whenSignedOut = listener
}

async function request(path: string, init: RequestInit = {}): Promise<Response> {
  let response: Response
  const headers = {
    ...(init.headers as Record<string, string> | undefined),
    ...(init.method === undefined ? {} : { 'x-csrf-token': csrfToken }),
  }
  try {
    response = await fetch(`/api${path}`, { ...init, headers })
  } catch {
    throw new ServerAway('Undercliff cannot be reached.')
  }
  if (response.ok) return response
  if (response.status >= 500) throw new ServerAway('Undercliff cannot write just now.')
  const problem = (await response.json()) as ProblemDetails
  if (problem.code === 'not-signed-in' || problem.code === 'no-token') {
    whenSignedOut()
    throw new SignedOut(problem.detail)
  }
  throw new ServerRefusal(problem)
}

async function call<T>(path: string, init?: RequestInit): Promise<T> {
  const response = await request(path, init)
  return response.status === 204 ? (undefined as T) : ((await response.json()) as T)
}

type Change = 'POST' | 'PUT' | 'DELETE'
const withText = (method: Change, body: string, more: RequestInit = {}): RequestInit => ({
  ...more,
  method,
  headers: { 'content-type': 'application/json' },
  body,
})
const send = <T>(method: Change, path: string, body?: unknown): Promise<T> =>
  call(path, body === undefined ? { method } : withText(method, JSON.stringify(body)))

export const fetchSession = (): Promise<SessionAnswer> => call('/session')
export const postSession = (body: SignIn): Promise<SignedIn> => send('POST', '/session', body)
export const postSetUp = (body: SetUp): Promise<SignedIn> => send('POST', '/setup', body)
export const postSwitch = (body: Switch): Promise<SignedIn> => send('POST', '/session/switch', body)
export const putShared = (shared: boolean): Promise<SignedIn> => send('PUT', '/session/shared', { shared })
export const deleteSession = (): Promise<undefined> => send('DELETE', '/session')
export const fetchSessions = (): Promise<{ sessions: SessionListed[] }> => call('/sessions')
export const revokeSession = (id: string): Promise<undefined> => send('DELETE', `/sessions/${id}`)
export const putPassword = (body: PasswordChange): Promise<undefined> => send('PUT', '/password', body)
export const putPin = (body: PinChange): Promise<SignedIn> => send('PUT', '/pin', body)

export const fetchAccounts = (): Promise<{ accounts: AccountAnswer[] }> => call('/accounts')
export const putAccount = (personId: string, body: AccountChange): Promise<undefined> =>
  send('PUT', `/accounts/${personId}`, body)
export const deleteAccount = (personId: string): Promise<undefined> => send('DELETE', `/accounts/${personId}`)

/**
 * The whole shed with the mark of its version; null when it is still the version that is known, so
 * that a large shed is not read again for nothing.
 */
export async function fetchShed(
  knownVersion: string | null,
): Promise<{ shed: ShedAnswer; version: string | null } | null> {
  const response = await request('/shed')
  const version = response.headers.get('etag')
  if (version !== null && version === knownVersion) return null
  return { shed: (await response.json()) as ShedAnswer, version }
}
export const fetchLoop = (loopId: string): Promise<LoopAnswer> => call(`/loops/${loopId}`)
export const fetchSaw = (sawId: string): Promise<SawAnswer> => call(`/saws/${sawId}`)
export const fetchWear = (): Promise<WearAnswer> => call('/wear')
export const postEntries = (entries: readonly AnyNewEntry[]): Promise<EntriesAnswer> =>
  send('POST', '/entries', { entries })
export const postSaw = (saw: NewSaw): Promise<NewSaw> => send('POST', '/saws', saw)
export const postPerson = (person: NewPerson): Promise<NewPerson> => send('POST', '/people', person)
export const postProfile = (profile: CrewProfile): Promise<CrewProfile> => send('POST', '/profiles', profile)
export const deleteProfile = (id: string): Promise<undefined> => send('DELETE', `/profiles/${id}`)
export const putCrew = (change: CrewChange): Promise<CrewChange> => send('PUT', '/crew', change)
export const putRules = (rules: HouseRules): Promise<HouseRules> => send('PUT', '/rules', rules)
export const postImport = (body: Import): Promise<ImportAnswer> => send('POST', '/import', body)
/** Tags to print, as the bytes of a PDF. */
export const postTags = async (body: TagSheet): Promise<Blob> =>
  (await request('/tags.pdf', withText('POST', JSON.stringify(body)))).blob()
/** Sends a backup as it stands in its file; the server says what is wrong with it. */
export const postBackup = (text: string): Promise<undefined> => call('/backup', withText('POST', text))
