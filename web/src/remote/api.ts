import type {
  AccountAnswer,
  AccountChange,
  AnyNewEntry,
  CrewChange,
  EntriesAnswer,
  Import,
  ImportAnswer,
  KitAnswer,
  LogsAnswer,
  LoopAnswer,
  NewPerson,
  NewPhoto,
  NewSaw,
  PasswordChange,
  Person,
  PersonChange,
  PhotoAbout,
  PinChange,
  ProblemDetails,
  SaveUnderWay,
  SawAnswer,
  SessionAnswer,
  SessionListed,
  SetUp,
  ReachAnswer,
  SetAsideAnswer,
  ShedNews,
  SignIn,
  SignedIn,
  Switch,
  TagSheet,
  UnderWay,
  WearAnswer,
} from '@undercliff/contract'
import {
  CLOCK_SLACK_MS,
  type CrewProfile,
  type HouseRules,
  type KitItem,
  type Sharpening,
  type ShedEffect,
} from '@undercliff/core'
import { ref } from 'vue'
import { base64Of } from './base64'

/** The server refused; carries its problem document. */
export class ServerRefusal extends Error {
  constructor(readonly problem: ProblemDetails) {
    super(problem.detail)
  }
}

/** The server could not be reached, or its database is away. What was to be sent is not lost. */
export class ServerAway extends Error {
  /** @param said what the server says of it; null when it says nothing */
  constructor(readonly said: string | null = null) {
    super(said ?? 'Undercliff cannot be reached.')
  }
}

/** The server made a mistake, or what answers is not Undercliff. Trying again may help, and may not. */
class ServerFault extends Error {}

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

/** How long an answer may take, in ms; a file may take longer. */
const ANSWER_MS = 10_000
const FILE_MS = 180_000
/** What a server says that will be able to again: its database is away, its disk full, it is starting. */
const AWAY: ReadonlySet<number> = new Set([502, 503, 504, 507])

interface Asked extends RequestInit {
  readonly withinMs?: number
}

/** By how much this device's clock is ahead of the server's, in ms; 0 where it is right, or nobody knows. */
export const clockAheadMs = ref(0)

/** Compares clocks by what the server says of the time of its answer (RFC 9110, 6.6.1). */
function compareClocks({ headers }: Response): void {
  const said = Date.parse(headers.get('date') ?? '')
  if (Number.isNaN(said)) return
  const aheadMs = Date.now() - said
  clockAheadMs.value = Math.abs(aheadMs) > CLOCK_SLACK_MS ? aheadMs : 0
}

/** Fetches, and gives up after a while. */
async function fetchWithin(path: string, { withinMs = ANSWER_MS, ...init }: Asked): Promise<Response> {
  const giveUp = new AbortController()
  const timer = setTimeout(() => {
    giveUp.abort()
  }, withinMs)
  try {
    const response = await fetch(`/api${path}`, { ...init, signal: giveUp.signal })
    compareClocks(response)
    // The body counts as well: an answer that stops halfway is none.
    const body = response.status === 204 || response.status === 304 ? null : await response.blob()
    return new Response(body, response)
  } catch {
    throw new ServerAway()
  } finally {
    clearTimeout(timer)
  }
}

/** The problem document of an answer; null when it is none of Undercliff's. */
async function problemIn(response: Response): Promise<ProblemDetails | null> {
  try {
    const problem = (await response.json()) as Partial<ProblemDetails> | null
    return typeof problem?.detail === 'string' ? (problem as ProblemDetails) : null
  } catch {
    return null
  }
}

async function request(path: string, init: Asked = {}): Promise<Response> {
  const headers = {
    ...(init.headers as Record<string, string> | undefined),
    ...(init.method === undefined ? {} : { 'x-csrf-token': csrfToken, 'x-device-time': String(Date.now()) }),
  }
  const response = await fetchWithin(path, { ...init, headers })
  if (response.ok || response.status === 304) return response
  const problem = await problemIn(response)
  if (AWAY.has(response.status)) throw new ServerAway(problem?.code === 'disk-full' ? problem.detail : null)
  if (problem === null) throw new ServerFault('What answers is not Undercliff. Is this network asking for a sign-in?')
  if (response.status >= 500) throw new ServerFault(`Undercliff made a mistake. ${problem.detail}`)
  if (problem.code === 'not-signed-in' || problem.code === 'no-token') {
    whenSignedOut()
    throw new SignedOut(problem.detail)
  }
  throw new ServerRefusal(problem)
}

async function call<T>(path: string, init?: Asked): Promise<T> {
  const response = await request(path, init)
  return response.status === 204 ? (undefined as T) : readJson(response)
}

async function readJson<T>(response: Response): Promise<T> {
  try {
    return (await response.json()) as T
  } catch {
    throw new ServerFault('What answers is not Undercliff. Is this network asking for a sign-in?')
  }
}

type Change = 'POST' | 'PUT' | 'DELETE'
const withText = (method: Change, body: string, more: Asked = {}): Asked => ({
  ...more,
  method,
  headers: { 'content-type': 'application/json' },
  body,
})
/** Changes on their way, by what they say: a button that is pressed again asks for the same. */
const underWay = new Map<string, Promise<unknown>>()

/** Text that is the same for bodies that say the same, under whatever id. */
const sayingOf = (body: unknown): string =>
  body === undefined ? '' : JSON.stringify(body, (key, value: unknown) => (key === 'id' ? undefined : value))

/** Sends a change; the same again, while the first is on its way, is the first. */
function send<T>(method: Change, path: string, body?: unknown, more: Asked = {}): Promise<T> {
  const saying = `${method} ${path} ${sayingOf(body)}`
  const before = underWay.get(saying)
  if (before !== undefined) return before as Promise<T>
  const init = body === undefined ? { ...more, method } : withText(method, JSON.stringify(body), more)
  const sending = call<T>(path, init).finally(() => underWay.delete(saying))
  underWay.set(saying, sending)
  return sending
}

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
export const putPinOf = (personId: string, pin: string | null): Promise<undefined> =>
  send('PUT', `/accounts/${personId}/pin`, { pin })
export const putPerson = (personId: string, body: PersonChange): Promise<Person> =>
  send('PUT', `/people/${personId}`, body)
export const deleteAccount = (personId: string): Promise<undefined> => send('DELETE', `/accounts/${personId}`)

/** What changed in the shed since a place, or all of it; null when nothing did. */
export async function fetchShed(since: string | null): Promise<ShedNews | null> {
  const response = await request(since === null ? '/shed' : `/shed?since=${encodeURIComponent(since)}`)
  return response.status === 204 ? null : readJson(response)
}
export const fetchLoop = (loopId: string): Promise<LoopAnswer> => call(`/loops/${loopId}`)
/** What was written to the crew's logs since a place; from the beginning for null. */
export const fetchLogs = (since: string | null): Promise<LogsAnswer> =>
  call(since === null ? '/logs' : `/logs?since=${since}`, { withinMs: FILE_MS })
export const fetchSaw = (sawId: string): Promise<SawAnswer> => call(`/saws/${sawId}`)
export const fetchReach = (): Promise<ReachAnswer> => call('/reach')
export const fetchWear = (): Promise<WearAnswer> => call('/wear', { withinMs: FILE_MS })
/** Sends entries under their ids; what is pressed twice is told apart in the outbox, before it has one. */
export const postEntries = (entries: readonly AnyNewEntry[]): Promise<EntriesAnswer> =>
  call('/entries', withText('POST', JSON.stringify({ entries })))
export const postSaw = (saw: NewSaw): Promise<NewSaw> => send('POST', '/saws', saw)
export const postPerson = (person: NewPerson): Promise<NewPerson> => send('POST', '/people', person)
export const postProfile = (profile: CrewProfile): Promise<CrewProfile> => send('POST', '/profiles', profile)
export const deleteProfile = (id: string): Promise<undefined> => send('DELETE', `/profiles/${id}`)
export const putCrew = (change: CrewChange): Promise<CrewChange> => send('PUT', '/crew', change)
export const fetchKit = (): Promise<KitAnswer> => call('/kit', { withinMs: FILE_MS })
export const putKitItem = (item: KitItem): Promise<KitItem> => send('PUT', `/kit/${item.id}`, item)
export const putPhoto = (photo: NewPhoto): Promise<PhotoAbout> =>
  send('PUT', `/photos/${photo.id}`, photo, { withinMs: FILE_MS })
export const deletePhoto = (id: string): Promise<undefined> => send('DELETE', `/photos/${id}`)
/** A photograph as a JPEG, in Base64. */
export const fetchPicture = async (id: string): Promise<string> =>
  base64Of(await (await request(`/photos/${id}`, { withinMs: FILE_MS })).blob())
const underWayOf = (loopId: string): string => `/loops/${loopId}/under-way`
/** The sharpening of a loop that is under way somewhere. */
export const fetchUnderWay = (loopId: string): Promise<{ underWay: UnderWay | null }> => call(underWayOf(loopId))
export const putUnderWay = (loopId: string, body: SaveUnderWay): Promise<{ underWay: UnderWay }> =>
  send('PUT', underWayOf(loopId), body)
export const deleteUnderWay = (loopId: string, deviceId: string): Promise<undefined> =>
  send('DELETE', `${underWayOf(loopId)}/${deviceId}`)
export const putRules = (rules: HouseRules): Promise<HouseRules> => send('PUT', '/rules', rules, { withinMs: FILE_MS })
/** What rules would do to the whole shed; nothing is written. */
export const postRulesEffect = (rules: HouseRules): Promise<ShedEffect> =>
  send('POST', '/rules/effect', rules, { withinMs: FILE_MS })
export const postImport = (body: Import): Promise<ImportAnswer> => send('POST', '/import', body, { withinMs: FILE_MS })
/** Tags to print, as the bytes of a PDF. */
export const postTags = async (body: TagSheet): Promise<Blob> =>
  (await request('/tags.pdf', withText('POST', JSON.stringify(body), { withinMs: FILE_MS }))).blob()
/** A sharpening on paper, as the bytes of a PDF. */
export const postJobSheet = async (loopId: string, wanted: Sharpening): Promise<Blob> =>
  (
    await request(`/loops/${loopId}/job-sheet.pdf`, withText('POST', JSON.stringify(wanted), { withinMs: FILE_MS }))
  ).blob()
export const fetchAside = (): Promise<SetAsideAnswer> => call('/set-aside')
/** Sends a backup as it stands in its file. Nothing comes where all of it was brought in, else what is set aside. */
export const postBackup = (text: string): Promise<SetAsideAnswer | undefined> =>
  call('/backup', withText('POST', text, { withinMs: FILE_MS }))
