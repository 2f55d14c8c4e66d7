import type { Role } from '@undercliff/core'

/** Who a request comes from. Everything that is read or written is of this crew. */
export interface Caller {
  readonly crewId: string
  readonly personId: string
  /** What they may do in this session. */
  readonly role: Role
}

/** The caller of a session, without what the session knows besides. */
export const callerOf = ({ crewId, personId, role }: Caller): Caller => ({ crewId, personId, role })
