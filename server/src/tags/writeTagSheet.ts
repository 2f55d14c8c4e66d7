import type { TagSheet } from '@undercliff/contract'
import type { Database } from '../database/connect'
import { Refusal } from '../store/refusal'
import { readShed } from '../store/shed'
import { printTags } from './printTags'

/** A crew's loops whose tags are wanted, and the sheet that they go on. */
export type TagsWanted = TagSheet & { readonly crewId: string }

/**
 * Tags of a crew's loops as the bytes of a PDF.
 *
 * @throws Refusal when one of them is not in the shed
 */
export async function writeTagSheet(db: Database, { crewId, loopIds, sheet, skip }: TagsWanted): Promise<Uint8Array> {
  const { loops, crew } = await readShed(db, crewId)
  const byId = new Map(loops.map((loop) => [loop.loopId, loop]))
  const wanted = loopIds.map((id) => byId.get(id)).filter((loop) => loop !== undefined)
  if (wanted.length < loopIds.length) throw new Refusal('nothing-to-print', 'Some of these loops are not in the shed.')
  return printTags(wanted, { sheet, skip, crewName: crew.name })
}
