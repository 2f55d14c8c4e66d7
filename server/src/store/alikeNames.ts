import { nameLook } from '@undercliff/core'
import { eq } from 'drizzle-orm'
import type { Transaction } from '../database/connect'
import { loops, people, profiles, saws } from '../database/schema'
import { Refusal } from './refusal'

/** Where names are, each kind by itself. */
const NAMES = {
  tag: { table: loops, name: loops.tag },
  saw: { table: saws, name: saws.nickname },
  person: { table: people, name: people.name },
  profile: { table: profiles, name: profiles.name },
} as const
type Kind = keyof typeof NAMES

const taken = (kind: Kind, name: string, other: string): Refusal => {
  const called = name === other ? other : `${other}, which looks like ${name}`
  if (kind === 'tag') return new Refusal('tag-taken', `Another loop has the tag ${called}.`)
  if (kind === 'saw') return new Refusal('name-taken', `Another saw is called ${called}.`)
  return new Refusal('name-taken', `The name is taken by ${called}. Choose another.`)
}

interface Named {
  readonly id: string
  readonly name: string
}

/** Names of one kind: what has each look, and the look that each thing has. */
interface Looks {
  readonly byLook: Map<string, Named>
  readonly lookOf: Map<string, string>
}

/**
 * The names of a crew as they look, read once for a transaction that has locked it. The database itself keeps names
 * apart that differ in more than case and accents; this keeps apart what nobody tells apart by eye.
 */
export class AlikeNames {
  private readonly known = new Map<Kind, Looks>()

  constructor(
    private readonly tx: Transaction,
    private readonly crewId: string,
  ) {}

  /**
   * Takes a name for something.
   *
   * @throws Refusal when something else of its kind has one that looks the same
   */
  async take(kind: Kind, id: string, name: string): Promise<void> {
    const { byLook, lookOf } = await this.looksOf(kind)
    const look = nameLook(name)
    const other = byLook.get(look)
    if (other !== undefined && other.id !== id) throw taken(kind, name, other.name)
    const before = lookOf.get(id)
    // Two that were let in before this was checked may look the same.
    if (before !== undefined && byLook.get(before)?.id === id) byLook.delete(before)
    byLook.set(look, { id, name })
    lookOf.set(id, look)
  }

  private async looksOf(kind: Kind): Promise<Looks> {
    const read = this.known.get(kind)
    if (read !== undefined) return read
    const { table, name } = NAMES[kind]
    const rows = await this.tx.select({ id: table.id, name }).from(table).where(eq(table.crewId, this.crewId))
    const looks: Looks = {
      byLook: new Map(rows.map((row) => [nameLook(row.name), row])),
      lookOf: new Map(rows.map((row) => [row.id, nameLook(row.name)])),
    }
    this.known.set(kind, looks)
    return looks
  }
}
