import { hash, verify } from '@node-rs/argon2'

/**
 * A password or PIN as Argon2id in the PHC string format, with a salt of its own. The package's
 * defaults are 19 MiB, 2 passes, 1 lane: OWASP's password storage cheat sheet, from memory.
 */
export const hashSecret = (secret: string): Promise<string> => hash(secret.normalize('NFKC'))

let decoy: Promise<string> | null = null

/**
 * Whether a secret is the one that was hashed. With nothing to compare with it takes as long and
 * says no, so that the time does not tell which names exist.
 */
export async function isSecret(hashed: string | null, secret: string): Promise<boolean> {
  decoy ??= hashSecret('nobody has this password')
  const right = await verify(hashed ?? (await decoy), secret.normalize('NFKC'))
  return hashed !== null && right
}
