import { isId, validate } from '@undercliff/contract'
import type { Request } from 'express'
import { Refusal } from '../store/refusal'

/** Nothing that is sent is nested deeper. */
const DEEPEST = 32

const isNested = (value: unknown): value is object => typeof value === 'object' && value !== null

/** Whether JSON is nested deeper than anything that is sent; a walk that needs no stack. */
function isTooDeep(value: unknown): boolean {
  let level = [value].filter(isNested)
  for (let depth = 0; level.length > 0; depth += 1) {
    if (depth >= DEEPEST) return true
    level = level.flatMap((one): unknown[] => Object.values(one)).filter(isNested)
  }
  return false
}

/**
 * A body that is not nested deeper than anything that is sent.
 *
 * @throws Refusal when it is
 */
export function shallow(body: unknown): unknown {
  if (isTooDeep(body)) throw new Refusal('bad-request', 'The body is nested too deeply.')
  return body
}

/**
 * The body of a request, checked against its contract.
 *
 * @throws Refusal that names every field that is not right
 */
// oxlint-disable-next-line typescript/no-unnecessary-type-parameters -- the caller names what a schema checks
export function readBody<T>(schema: Parameters<typeof validate>[0], body: unknown): T {
  const checked = validate<T>(schema, shallow(body))
  if (checked.ok) return checked.value
  throw new Refusal('invalid', checked.problems[0]?.message ?? 'Not right.', checked.problems)
}

/**
 * The body of a request whose bytes are read where the work is done; undefined when there is none.
 *
 * @throws Refusal when it is not JSON
 */
export function readText(body: Uint8Array): unknown {
  if (body.length === 0) return undefined
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(body)) as unknown
  } catch {
    throw new Refusal('malformed-json', 'The body is not JSON that can be read.')
  }
}

/** The bytes of a body that is read as they are. */
export const bytesOf = ({ body }: Request): Uint8Array => (body instanceof Uint8Array ? body : new Uint8Array())

/** An id in the path of a request; null when nothing can have it. */
export function pathId(request: Request, name: string): string | null {
  const value = request.params[name]
  return isId(value) ? value : null
}

/** Where a device says what its clock shows. */
const CLOCK_HEADER = 'x-device-time'

/** What the clock of the device showed when it sent a request, in ms since 1970; null when it did not say. */
export function deviceMsOf(request: Request): number | null {
  const said = request.headers[CLOCK_HEADER]
  const ms = typeof said === 'string' && /^\d{1,15}$/.test(said) ? Number(said) : NaN
  return Number.isFinite(ms) && Math.abs(ms) <= 8.64e15 ? ms : null
}
