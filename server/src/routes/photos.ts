import { newPhotoSchema, type NewPhoto } from '@undercliff/contract'
import type { Route } from '../http/access'
import { deviceMsOf, pathId, readBody } from '../http/body'
import { callerOf } from '../store/caller'
import { addPhoto, readPicture, removePhoto } from '../store/photos'
import { Refusal } from '../store/refusal'
import type { RouteParts } from './parts'

/** Largest request with one picture in it. */
const PICTURE_LIMIT = '3mb'

/** Photographs of what is stamped on bars and boxes. Their list is part of the shed. */
export const photosRoutes = ({ db, writes, clock }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/photos/:id',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      response.type('image/jpeg').send(await readPicture(db, crewId, pathId(request, 'id')))
    },
  },
  {
    method: 'put',
    path: '/photos/:id',
    access: 'signedIn',
    bodyLimit: PICTURE_LIMIT,
    handle: async (request, response, session) => {
      const photo = readBody<NewPhoto>(newPhotoSchema, request.body)
      if (pathId(request, 'id') !== photo.id) throw new Refusal('id-taken', 'The address and the body name two things.')
      const sent = { photo, now: clock(), deviceMs: deviceMsOf(request) }
      response.status(201).json(await addPhoto(writes, callerOf(session), sent))
    },
  },
  {
    method: 'delete',
    path: '/photos/:id',
    access: 'signedIn',
    handle: async (request, response, session) => {
      await removePhoto(writes, callerOf(session), pathId(request, 'id'))
      response.status(204).end()
    },
  },
]
