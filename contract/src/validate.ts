import { ValidationError, type Schema } from 'yup'
import type { FieldProblem } from './problem'

/** A body that was understood, or what is wrong with it, field by field. */
export type Validated<T> = { ok: true; value: T } | { ok: false; problems: readonly FieldProblem[] }

/** Most problems named at once; a body with more is no use to a reader. */
const MOST_PROBLEMS = 20

/**
 * Checks a body against its schema without changing it: wrong types are refused, not coerced, and
 * so are unknown fields.
 */
export function validate<T>(schema: Schema<unknown>, body: unknown): Validated<T> {
  // Yup takes nothing at all for an object with nothing in it.
  if (body === undefined) return { ok: false, problems: [{ field: '', message: 'The request has no body.' }] }
  try {
    return { ok: true, value: schema.validateSync(body, { abortEarly: false, strict: true }) as T }
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error
    const inner = error.inner.length > 0 ? error.inner : [error]
    return {
      ok: false,
      problems: inner.slice(0, MOST_PROBLEMS).map(({ path, errors }) => ({
        field: path ?? '',
        message: plainMessage(errors[0] ?? 'Not right.'),
      })),
    }
  }
}

/** Yup's own wording for wrong types says too much; a reader wants the kind that is wanted. */
function plainMessage(message: string): string {
  const type = /must be a `(\w+)` type/.exec(message)?.[1]
  if (type !== undefined) return `This has to be ${/^[aeio]/.test(type) ? 'an' : 'a'} ${type}.`
  if (/cannot be null|must be defined/.test(message)) return 'This is missing.'
  return message.length > 300 ? `${message.slice(0, 300)}…` : message
}
