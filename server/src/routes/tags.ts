import { tagSheetSchema, type TagSheet } from '@undercliff/contract'
import type { Route } from '../http/access'
import { readBody } from '../http/body'
import type { RouteParts } from './parts'

/** Tags to print. */
export const tagsRoutes = ({ workers }: RouteParts): Route[] => [
  {
    method: 'post',
    path: '/tags.pdf',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const pdf = await workers.run('writeTagSheet', { crewId, ...readBody<TagSheet>(tagSheetSchema, request.body) })
      response.attachment('undercliff-tags.pdf').type('application/pdf').send(Buffer.from(pdf))
    },
  },
]
