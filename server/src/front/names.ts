import { lookup } from 'node:dns/promises'
import { hostname, networkInterfaces } from 'node:os'
import { isIP } from 'node:net'

const LOOPBACK = ['127.0.0.1', 'localhost', '::1']

export const isLoopback = (host: string): boolean => LOOPBACK.includes(host)

/** Whether a server that listens there is reached by every address of the machine. */
export const isEveryAddress = (host: string): boolean => host === '0.0.0.0' || host === '::'

/** A host as a URL has it. */
export const inUrl = (host: string): string => (host.includes(':') ? `[${host}]` : host)

const ownAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((addresses) => addresses ?? [])
    // An address of one wire alone cannot be typed into a browser.
    .filter(({ internal, address, scopeid }) => !internal && !address.startsWith('fe80:') && !scopeid)
    .map(({ address }) => address)

export const isName = (name: string): boolean => /^(?=.{1,253}$)([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.?)+$/i.test(name)

/**
 * Every name and address that a machine is reached by from outside when it listens on a host, the one to tell people
 * first.
 *
 * @param further names that people use for it besides
 */
export async function namesBeyond(host: string, further: readonly string[]): Promise<string[]> {
  const named = isEveryAddress(host) ? [] : [host]
  const found =
    isIP(host) === 0
      ? await lookup(host, { all: true })
          .then((all) => all.map(({ address }) => address))
          .catch(() => [])
      : []
  const own = hostname().toLowerCase()
  const local = isName(own) && own !== 'localhost' ? [own, ...(own.includes('.') ? [] : [`${own}.local`])] : []
  const addresses = isEveryAddress(host) ? ownAddresses() : found
  return [...new Set([...further, ...named, ...addresses, ...local].map((name) => name.toLowerCase()))].filter(
    (name) => !isLoopback(name) && (isIP(name) !== 0 || isName(name)),
  )
}

/** Every name that requests may be addressed to when a machine listens on a host and has these names beyond itself. */
export function hostNamesOf(host: string, beyond: readonly string[]): Set<string> {
  return new Set([...LOOPBACK, host, ...beyond, ...(isLoopback(host) ? [] : ownAddresses())])
}
