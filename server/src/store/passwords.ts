import { hash, verify } from '@node-rs/argon2'
import pLimit from 'p-limit'
import { Refusal } from './refusal'

/** Secrets that are hashed at once; each keeps a processor busy. */
const AT_ONCE = 2
/** Secrets that wait to be hashed; more are turned away. */
const MOST_WAITING = 20

const limit = pLimit(AT_ONCE)

/** @throws Refusal when so many wait that nobody would see the end of it */
function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (limit.pendingCount >= MOST_WAITING)
    throw new Refusal('too-many-tries', 'Too many sign in at once. Try again in a moment.')
  return limit(work)
}

/**
 * A password or PIN as Argon2id in the PHC string format, with a salt of its own. The package's
 * defaults are 19 MiB, 2 passes, 1 lane: OWASP's password storage cheat sheet, from memory.
 *
 * @throws Refusal when too many are hashed at once
 */
export const hashSecret = async (secret: string): Promise<string> => inTurn(() => hash(secret.normalize('NFKC')))

let decoy: Promise<string> | null = null

/**
 * Whether a secret is the one that was hashed. With nothing to compare with it takes as long and
 * says no, so that the time does not tell which names exist.
 *
 * @throws Refusal when too many are hashed at once
 */
export async function isSecret(hashed: string | null, secret: string): Promise<boolean> {
  decoy ??= hash('nobody has this password')
  const against = hashed ?? (await decoy)
  const right = await inTurn(() => verify(against, secret.normalize('NFKC')))
  return hashed !== null && right
}
