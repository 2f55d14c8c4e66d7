/** What of an error may go into the log: where it came from, never what was being written. */
export interface Loggable {
  readonly type: string
  readonly code?: string
  readonly at: readonly string[]
}

const isLoggable = (value: unknown): value is Loggable =>
  typeof value === 'object' && value !== null && !(value instanceof Error) && 'type' in value && 'at' in value

/**
 * An error without its message: a failed query's message quotes the row that was to be written,
 * names and notes included.
 */
export function loggable(error: unknown): Loggable {
  let inner: unknown = error
  if (isLoggable(error)) return error
  if (error instanceof Error && isLoggable(error.cause)) return error.cause
  while (inner instanceof Error && inner.cause !== undefined) inner = inner.cause
  if (!(inner instanceof Error)) return { type: typeof inner, at: [] }
  const code = 'code' in inner && typeof inner.code === 'string' ? inner.code : undefined
  const at = (inner.stack ?? '')
    .split('\n')
    .filter((line) => line.startsWith('    at '))
    .slice(0, 8)
    .map((line) => line.trim())
  return { type: inner.name, ...(code === undefined ? {} : { code }), at }
}
