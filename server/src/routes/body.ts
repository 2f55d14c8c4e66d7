import { validate } from '@undercliff/contract'
import type { Schema } from 'yup'
import { Refusal } from '../store/refusal'

/**
 * The body of a request, checked against its contract.
 *
 * @throws Refusal that names every field that is not right
 */
export function readBody<T>(schema: Schema<unknown>, body: unknown): T {
  const checked = validate<T>(schema, body)
  if (checked.ok) return checked.value
  throw new Refusal('invalid', checked.problems[0]?.message ?? 'Not right.', checked.problems)
}
