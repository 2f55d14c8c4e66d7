/** Answer of `GET /api/reach`: how phones get to this Undercliff. */
export type ReachAnswer =
  /** It answers on its own machine alone. */
  | { readonly by: 'machine' }
  /** With a certificate by the crew's own authority, which a phone takes once. */
  | {
      readonly by: 'authority'
      readonly address: string
      /** Where a phone that comes for the first time takes the authority, by plain http. */
      readonly firstAddress: string
      /** The same as a QR code: an SVG image. */
      readonly firstCode: string
      /** SHA-256 of the authority, as phones show it. */
      readonly fingerprint: string
      /** What the authority can vouch for. */
      readonly names: readonly string[]
    }
  /** With a certificate that phones trust as they are, or through a proxy that has one. */
  | { readonly by: 'certificate' | 'proxy'; readonly address: string }
