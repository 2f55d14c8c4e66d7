import type { ReachAnswer } from '@undercliff/contract'
import qr from 'qrcode'
import type { StartOptions } from '../run/options'
import { authorityOf, fingerprintOf, type Authority } from './authority'
import { byAuthority, fromFiles, type Certificates } from './certificates'
import type { Front } from './front'
import { hostNamesOf, inUrl, isLoopback, namesBeyond } from './names'

/** How Undercliff will be reached, before anything listens. */
export interface Prepared {
  readonly front: Front
  /** Where the certificate comes from; null where it is served by plain http. */
  readonly certificates: Certificates | null
  /** The crew's own authority, where it is by that. */
  readonly authority: Authority | null
  /** The address to tell people. */
  readonly address: string
  /** What is said when it starts, besides the address. */
  readonly said: readonly string[]
}

/** Whether anybody but this machine gets to it. */
export const reachesBeyond = ({ host, proxied }: StartOptions): boolean => !isLoopback(host) || proxied !== null

const HTTPS_PORT = 443
const withPort = (scheme: 'http' | 'https', host: string, port: number): string =>
  new URL(`${scheme}://${inUrl(host)}:${port}`).origin

/** The address as far as it is known before anything is made ready. */
export const likelyAddress = (options: StartOptions): string => {
  const { host, port, tls, proxied } = options
  if (proxied !== null) return proxied.publicUrl.origin
  return withPort(tls !== null || reachesBeyond(options) ? 'https' : 'http', host, port)
}

const base = (hostNames: Set<string>, reach: ReachAnswer): Front => ({
  hostNames,
  reach,
  publicUrl: null,
  proxies: [],
  httpsAlone: false,
})

/** The port by plain http, beside the one by https: for phones that come for the first time, and for this machine. */
export const plainPortOf = ({ port }: Pick<StartOptions, 'port'>): number => (port === 65_535 ? port - 1 : port + 1)

/** Makes ready how Undercliff is reached: names, certificate, whom it believes. */
export async function prepareFront(
  options: StartOptions,
  { crewName, now }: { crewName: string; now: Date },
): Promise<Prepared> {
  const { host, port, names: further, tls, proxied } = options
  const beyond = await namesBeyond(host, further)
  const hostNames = hostNamesOf(host, beyond)
  const none = { certificates: null, authority: null, said: [] }
  if (proxied !== null) return { ...none, ...behindProxy(hostNames, proxied) }
  if (tls !== null) {
    const address = withPort('https', beyond[0] ?? host, port)
    const front = { ...base(hostNames, { by: 'certificate', address }), httpsAlone: port === HTTPS_PORT }
    return { ...none, front, certificates: fromFiles(tls.certificateFile, tls.keyFile), address }
  }
  if (isLoopback(host)) {
    const address = withPort('http', host, port)
    return { ...none, front: base(hostNames, { by: 'machine' }), address }
  }
  return withAuthority(options, hostNames, beyond.length > 0 ? beyond : [host], { crewName, now })
}

function behindProxy(
  hostNames: Set<string>,
  { publicUrl, proxies }: NonNullable<StartOptions['proxied']>,
): Pick<Prepared, 'front' | 'address' | 'said'> {
  const secure = publicUrl.protocol === 'https:'
  return {
    address: publicUrl.origin,
    front: {
      ...base(hostNames, { by: 'proxy', address: publicUrl.origin }),
      publicUrl,
      proxies,
      // Another port of the same host may serve something else by plain http.
      httpsAlone: secure && publicUrl.port === '',
    },
    said: secure ? [] : ['That address is not secure: phones keep nothing there for when they are out of range.'],
  }
}

async function withAuthority(
  options: StartOptions,
  hostNames: Set<string>,
  names: readonly string[],
  { crewName, now }: { crewName: string; now: Date },
): Promise<Prepared> {
  const { authority, isNew } = await authorityOf(options.dataDir, crewName, names, now)
  const [first = options.host] = names
  const address = withPort('https', first, options.port)
  const firstAddress = withPort('http', first, plainPortOf(options))
  const fingerprint = fingerprintOf(authority.certificate)
  const firstCode = await qr.toString(firstAddress, { type: 'svg', margin: 2 })
  const reach = { by: 'authority', address, firstAddress, firstCode, fingerprint, names: authority.names } as const
  return {
    address,
    authority,
    certificates: byAuthority(authority, names),
    front: base(hostNames, reach),
    said: [
      `On this machine it is also at ${withPort('http', '127.0.0.1', plainPortOf(options))}`,
      `A phone that comes for the first time opens ${firstAddress}`,
      `The crew's certificate is ${fingerprint}`,
      ...(isNew === 'again' ? ['It is a new one: every phone has to take it once more.'] : []),
    ],
  }
}
