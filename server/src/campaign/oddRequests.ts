import { DEFAULT_RULES, ENTRY_KINDS, SAW_ENTRY_KINDS } from '@undercliff/core'
import fc from 'fast-check'
import { DOT_PNG } from '../fixtures/pictures'
import { CREW, measured, PERSON, ran, registered, SAW, SAWYER, type As } from '../fixtures/harness'

/** The loop that requests are about. */
export const FUZZED_LOOP = 'fuzzed-loop-1'
const LOOP = FUZZED_LOOP

/** A route as it is named. */
export interface RouteName {
  readonly method: string
  readonly path: string
}

const nasty = fc.oneof(
  fc.jsonValue({ maxDepth: 3 }),
  fc.constantFrom<unknown>(
    null,
    '',
    0,
    -1,
    1e300,
    'constructor',
    '__proto__',
    '\u0000',
    '\ud800',
    'ZOË\u200b',
    '🌲',
    [],
    {},
    [[[]]],
    true,
    '2026-02-31T00:00:00.000Z',
    '9999-12-31T23:59:59.999Z',
    '2027-02-01T00:00:00.000Z',
    2 ** 53,
    "'; drop table entries; --",
    SAW,
    PERSON,
    LOOP,
  ),
)
const fields = [
  ...['id', 'loopId', 'happenedAt', 'personId', 'note', 'kind', 'tanks', 'conditions', 'readings', 'tag', 'spec'],
  ...['strikes', 'sawId', 'parts', 'method', 'pairs', 'strokes', 'gaugesLowered', 'cutters', 'against', 'to', 'shop'],
  ...['changes', 'origin', 'costMinor', 'overruled', 'action', 'advised', 'rulesVersion', 'gaugeUm', 'driveLinks'],
  ...['reason', 'duty', '__proto__', 'toString'],
]
const ids = fc.oneof({ weight: 4, arbitrary: fc.uuid() }, fc.constantFrom('one-id-for-all', 'another-id-1'))
/** A good entry with some of its fields spoilt. */
const spoiltEntry = fc
  .tuple(
    // What the body is of as often as anything else.
    fc.oneof(fc.constantFrom('ran', 'measured'), fc.constantFrom<string>(...ENTRY_KINDS, ...SAW_ENTRY_KINDS)),
    fc.array(fc.tuple(fc.constantFrom(...fields), nasty), { maxLength: 2 }),
    ids,
  )
  .map(([kind, changes, id]) => {
    const entry: Record<string, unknown> = { ...(kind === 'measured' ? measured(LOOP) : ran(LOOP)), id, kind }
    if ((SAW_ENTRY_KINDS as readonly string[]).includes(kind)) Object.assign(entry, { sawId: SAW, loopId: undefined })
    for (const [field, value] of changes)
      Object.defineProperty(entry, field, { value, enumerable: true, configurable: true, writable: true })
    return entry
  })

/** Bodies that are right but for one or two fields. */
const NEAR: Readonly<Record<string, object>> = {
  '/saws': { id: 'a-fuzzed-saw', nickname: 'Heron', pitchClass: 'threeEighths', gaugeUm: 1500, driveLinks: 72 },
  '/people': { id: 'a-fuzzed-person', name: 'Zoë', role: 'sawyer' },
  '/crew': { name: 'Heron Isle crew', lengths: 'mm' },
  '/rules': { ...DEFAULT_RULES },
  '/pin': { pin: '1234' },
  '/password': { current: 'four quiet herons', next: 'five quiet herons' },
  '/session': { login: 'ottoline', password: 'four quiet herons' },
  '/session/switch': { personId: SAWYER, pin: '1234' },
  '/setup': { crewName: 'Crew', name: 'Zoë', login: 'zoe', password: 'four quiet herons' },
  '/accounts/:personId': { login: 'zoe', password: 'four quiet herons', role: 'sawyer' },
  '/tags.pdf': { loopIds: [LOOP], sheet: 'a4-3x8', skip: 0 },
  '/kit/:id': { id: 'a-fuzzed-wheel', kind: 'wheel', name: 'Wheel', version: 1, widthUm: 4700, markedRpm: 4500 },
  '/photos/:id': {
    id: 'a-fuzzed-photo',
    sawId: SAW,
    shows: 'bar',
    takenAt: '2026-03-01T00:00:00.000Z',
    picture: DOT_PNG,
  },
  '/loops/:loopId/under-way': {
    deviceId: 'a-fuzzed-device',
    device: 'a phone',
    walk: { action: 'file', personId: null, events: [{ at: '2026-03-01T00:00:00.000Z', kind: 'done' }] },
  },
  '/loops/:loopId/job-sheet.pdf': { action: 'regrind', personId: null, tool: 'benchGrinder' },
  '/import': { saws: [], entries: [registered('imported-loop-1')] },
  '/backup': { format: 'undercliff-backup', version: 4, writtenAt: '2026-03-01T00:00:00.000Z', content: {} },
}
const broken = fc.oneof(
  fc.string(),
  fc.json().map((text) => text.slice(0, -1)),
  fc.constantFrom('{"entries":', '[[[[[[[[', '\ufeff{}', 'null', '"text"', '['.repeat(5000), '{"a":'.repeat(900)),
)
const bodyFor = (path: string): fc.Arbitrary<string | undefined> => {
  const near = NEAR[path]
  const nearly =
    near === undefined
      ? fc.array(spoiltEntry, { minLength: 1, maxLength: 3 }).map((entries) => JSON.stringify({ entries }))
      : fc
          .array(fc.tuple(fc.constantFrom(...Object.keys(near)), nasty), { maxLength: 2 })
          .map((changes) => JSON.stringify({ ...near, ...Object.fromEntries(changes) }))
  return fc.oneof(
    { weight: 6, arbitrary: nearly },
    { weight: 2, arbitrary: nasty.map((value) => JSON.stringify(value)) },
    { weight: 2, arbitrary: broken },
    { weight: 1, arbitrary: fc.constant(undefined) },
  )
}

const part = fc.oneof(
  fc.constantFrom(SAW, LOOP, PERSON, SAWYER, CREW, 'loops', '..', '%2e%2e', '%00', '%ff', '%E0%A4%A', 's%C3%A4ge-1234'),
  fc.webSegment(),
  fc.string({ maxLength: 12 }).map((text) => encodeURIComponent(text.replace(/[\ud800-\udfff]/g, ''))),
)
const query = fc.oneof(
  { weight: 5, arbitrary: fc.constant('') },
  fc.webQueryParameters().map((text) => `?${text}`),
  fc.constantFrom('?a[b][c]=1', '?__proto__[x]=1', '?%', '?a=%ff&a=1'),
)
/** Header values as they may stand on the wire. */
const headerText = fc.oneof(
  fc.string({ unit: 'binary', maxLength: 70 }).map((text) => text.replace(/[^\u0020-\u007e\u00a0-\u00ff]/g, '')),
  fc.constantFrom('é'.repeat(64), 'x'.repeat(3000), '', 'application/json', 'text/plain; charset=bogus', '1e9', '-1'),
)
const headerNames = [
  ...['x-csrf-token', 'cookie', 'content-type', 'content-encoding', 'accept', 'origin', 'host', 'if-none-match'],
  ...['x-device-time', 'user-agent', 'range', 'expect', 'transfer-encoding', 'x-forwarded-for', 'accept-encoding'],
]
const headers = fc.oneof(
  { weight: 4, arbitrary: fc.constant([]) },
  fc.array(fc.tuple(fc.constantFrom(...headerNames), headerText), { maxLength: 3 }),
)

/** One request, with all that may be odd in it. */
export interface Asked {
  readonly method: string
  readonly path: string
  readonly as: As
  readonly headers: readonly (readonly [string, string])[]
  readonly body: string | undefined
}
const METHODS = ['GET', 'POST', 'PUT', 'DELETE', 'HEAD', 'OPTIONS', 'PATCH', 'SEARCH'] as const
/** Requests over routes, most of them nearly right. */
export const oddRequests = (routes: readonly RouteName[]): fc.Arbitrary<Asked> =>
  fc
    .oneof(
      {
        weight: 6,
        arbitrary: fc.constantFrom(...routes.map(({ method, path }) => [method.toUpperCase(), path] as const)),
      },
      { weight: 4, arbitrary: fc.constant(['POST', '/entries'] as const) },
      {
        weight: 1,
        arbitrary: fc.tuple(fc.constantFrom(...METHODS), fc.constantFrom(...routes.map(({ path }) => path))),
      },
      {
        weight: 1,
        arbitrary: fc.tuple(
          fc.constantFrom(...METHODS),
          part.map((one) => `/${one}`),
        ),
      },
    )
    .chain(([method, path]) =>
      fc.record({
        method: fc.constant(method),
        path: fc.tuple(part, query).map(([id, more]) => `/api${path.replace(/:\w+/, id)}${more}`),
        as: fc.constantFrom<As>('lead', 'lead', 'sawyer', 'nobody'),
        headers,
        body: method === 'GET' || method === 'HEAD' ? fc.constant(undefined) : bodyFor(path),
      }),
    )

/** What comes over a socket that is no HTTP client’s. */
export const oddBytes = fc.oneof(
  fc.uint8Array({ minLength: 1, maxLength: 200 }).map((all) => Buffer.from(all)),
  fc
    .tuple(
      fc.constantFrom('GET', 'POST', 'PUT', 'get', 'G\u0000T', ''),
      fc.constantFrom('/api/shed', '/api/entries', '*', 'http://elsewhere/', '/\u00ff', '/api/rules', '/'.repeat(9000)),
      fc.constantFrom('HTTP/1.1', 'HTTP/1.0', 'HTTP/9.9', 'HTTP/1.1\r\nHost: a\r\nHost: b', ''),
      fc.array(
        fc.constantFrom(
          ...[
            'Host: 127.0.0.1',
            'Content-Length: 5',
            'Content-Length: -1',
            'Content-Length: 99',
            'Expect: 100-continue',
          ],
          ...['Transfer-Encoding: chunked', 'Content-Type: application/json', 'X: \u0000', ': empty', 'Cookie: a=%'],
          ...[
            'Upgrade: websocket\r\nConnection: Upgrade',
            'Transfer-Encoding: gzip, chunked',
            'Content-Encoding: gzip',
          ],
        ),
        { maxLength: 5 },
      ),
      fc.constantFrom('', '5\r\nhello\r\n0\r\n\r\n', '{"a"', 'ffffffffff\r\n', '\u0000\u0000'),
    )
    .map(([method, path, version, lines, body]) =>
      Buffer.from([`${method} ${path} ${version}`, ...lines, '', body].join('\r\n'), 'latin1'),
    ),
)
