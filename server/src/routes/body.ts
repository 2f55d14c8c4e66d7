import { validate } from '@undercliff/contract'
import { Refusal } from '../store/refusal'

/**
 * The body of a request, checked against its contract.
 *
 * @throws Refusal that names every field that is not right
 */
// eslint-disable-next-line @typescript-eslint/no-unnecessary-type-parameters -- the caller names what a schema checks
export function readBody<T>(schema: Parameters<typeof validate>[0], body: unknown): T {
  const checked = validate<T>(schema, body)
  if (checked.ok) return checked.value
  throw new Refusal('invalid', checked.problems[0]?.message ?? 'Not right.', checked.problems)
}
