import { tagSheetSchema, type TagSheet } from '@undercliff/contract'
import type { Route } from '../http/access'
import { Refusal } from '../store/refusal'
import { readShed } from '../store/shed'
import { printTags } from '../tags/printTags'
import { readBody } from './body'
import type { RouteParts } from './parts'

/** Tags to print. */
export const tagsRoutes = ({ db }: RouteParts): Route[] => [
  {
    method: 'post',
    path: '/tags.pdf',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const { loopIds, sheet, skip } = readBody<TagSheet>(tagSheetSchema, request.body)
      const { loops, crew } = await readShed(db, crewId)
      const byId = new Map(loops.map((loop) => [loop.loopId, loop]))
      const wanted = loopIds.map((id) => byId.get(id)).filter((loop) => loop !== undefined)
      if (wanted.length < loopIds.length)
        throw new Refusal('nothing-to-print', 'Some of these loops are not in the shed.')
      const pdf = await printTags(wanted, { sheet, skip, crewName: crew.name })
      response.attachment('undercliff-tags.pdf').type('application/pdf').send(pdf)
    },
  },
]
