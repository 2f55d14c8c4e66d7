/** An error of the driver, as far as it says what went wrong. */
interface DriverError {
  readonly code: string
  readonly errno?: number
  readonly syscall?: string
  readonly sqlMessage?: string
}

/** The driver's error inside whatever wraps it. */
function driverError(error: unknown): DriverError | null {
  let inner: unknown = error
  for (let depth = 0; depth < 5 && typeof inner === 'object' && inner !== null; depth += 1) {
    if ('code' in inner && typeof inner.code === 'string') return inner as DriverError
    inner = 'cause' in inner ? inner.cause : null
  }
  return null
}

const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'EHOSTUNREACH',
  'ENETUNREACH',
  'ENOTFOUND',
  'EAI_AGAIN',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'PROTOCOL_ENQUEUE_AFTER_FATAL_ERROR',
  'PROTOCOL_ENQUEUE_AFTER_QUIT',
  'PROTOCOL_ENQUEUE_AFTER_DESTROY',
  'PROTOCOL_PACKETS_OUT_OF_ORDER',
  'HANDSHAKE_UNKNOWN_ERROR',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  'ER_TOO_MANY_USER_CONNECTIONS',
  'ER_ACCESS_DENIED_ERROR',
  'ER_CONNECTION_KILLED',
  'ER_QUERY_INTERRUPTED',
  'ER_NORMAL_SHUTDOWN',
  'ER_LOCK_WAIT_TIMEOUT',
  'ER_LOCK_DEADLOCK',
  'ER_NET_READ_ERROR',
  'ER_NET_WRITE_INTERRUPTED',
  'POOL_CLOSED',
])
/** What the driver throws without a code when a connection has died under a statement. */
const DIED = /closed state|Connection lost|Pool is closed|socket has been ended|Malformed packet/i

/** Whether the database, not the request, is what failed. */
export function isDatabaseAway(error: unknown): boolean {
  const driver = driverError(error)
  // A file that is not there is none of the database's, whose socket is only ever connected to.
  if (driver?.code === 'ENOENT') return driver.syscall === 'connect'
  if (driver !== null && AWAY.has(driver.code)) return true
  for (let inner: unknown = error; inner instanceof Error; inner = inner.cause)
    if (DIED.test(inner.message)) return true
  return false
}

const FULL = new Set(['ENOSPC', 'EDQUOT', 'ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ER_TEMP_FILE_WRITE_FAILURE'])
/** Errors of the system inside a sentence of the database: no space left, over quota. */
const FULL_INSIDE = /(?:errno|error)[: ]+"?(?:28|122)\b|No space left on device|Disk quota exceeded/i

/** Whether something could not be written because a disk is full. */
export function isDiskFull(error: unknown): boolean {
  const driver = driverError(error)
  return driver !== null && (FULL.has(driver.code) || FULL_INSIDE.test(driver.sqlMessage ?? ''))
}

/** The name of the unique key that a write ran into; null when it did not. */
export function duplicateKey(error: unknown): string | null {
  const inner = driverError(error)
  if (inner?.code !== 'ER_DUP_ENTRY') return null
  return /for key '(?:[^'.]*\.)?([^']+)'/.exec(inner.sqlMessage ?? '')?.[1] ?? ''
}

/** Codes of statements that lost to another and may be tried again. */
export const isDeadlock = (error: unknown): boolean => driverError(error)?.code === 'ER_LOCK_DEADLOCK'
