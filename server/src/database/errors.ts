/** The driver's error inside whatever wraps it. */
function driverError(error: unknown): { code?: string; sqlMessage?: string } | null {
  let inner: unknown = error
  for (let depth = 0; depth < 5 && typeof inner === 'object' && inner !== null; depth += 1) {
    if ('code' in inner && typeof inner.code === 'string') return inner as { code: string; sqlMessage?: string }
    inner = 'cause' in inner ? inner.cause : null
  }
  return null
}

const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOENT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  'ER_ACCESS_DENIED_ERROR',
  'ER_CONNECTION_KILLED',
  'ER_NORMAL_SHUTDOWN',
  'ER_LOCK_WAIT_TIMEOUT',
  'ER_LOCK_DEADLOCK',
  'POOL_CLOSED',
])

/** Whether the database, not the request, is what failed. */
export function isDatabaseAway(error: unknown): boolean {
  const code = driverError(error)?.code
  if (code !== undefined && AWAY.has(code)) return true
  return error instanceof Error && /closed state|Connection lost|Pool is closed/i.test(error.message)
}

/** The name of the unique key that a write ran into; null when it did not. */
export function duplicateKey(error: unknown): string | null {
  const inner = driverError(error)
  if (inner?.code !== 'ER_DUP_ENTRY') return null
  return /for key '(?:[^'.]*\.)?([^']+)'/.exec(inner.sqlMessage ?? '')?.[1] ?? ''
}
