import { jobSheetSchema, tagSheetSchema, type TagSheet } from '@undercliff/contract'
import type { Sharpening } from '@undercliff/core'
import type { Route } from '../http/access'
import { pathId, readBody } from '../http/body'
import { Refusal } from '../store/refusal'
import type { RouteParts } from './parts'

/** What goes on paper: tags, and job sheets. */
export const tagsRoutes = ({ workers }: RouteParts): Route[] => [
  {
    method: 'post',
    path: '/tags.pdf',
    access: 'signedIn',
    handle: async (request, response, { crewId, personId }) => {
      const pdf = await workers.run(personId, 'writeTagSheet', {
        crewId,
        ...readBody<TagSheet>(tagSheetSchema, request.body),
      })
      response.attachment('undercliff-tags.pdf').type('application/pdf').send(Buffer.from(pdf))
    },
  },
  {
    method: 'post',
    path: '/loops/:loopId/job-sheet.pdf',
    access: 'signedIn',
    handle: async (request, response, { crewId, personId }) => {
      const wanted = readBody<Sharpening>(jobSheetSchema, request.body)
      const loopId = pathId(request, 'loopId')
      if (loopId === null) throw new Refusal('no-such-loop', 'There is no such loop.')
      const pdf = await workers.run(personId, 'writeJobSheet', { crewId, loopId, wanted })
      response.attachment('undercliff-job-sheet.pdf').type('application/pdf').send(Buffer.from(pdf))
    },
  },
]
