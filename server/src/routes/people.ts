import { accountSchema, newPersonSchema, type AccountChange, type NewPerson } from '@undercliff/contract'
import type { Route } from '../http/access'
import { changeAccount, listAccounts, removeAccount } from '../store/accounts'
import { addPerson } from '../store/shed'
import { readBody } from './body'
import type { RouteParts } from './parts'

/** The people of a crew and who of them can sign in. */
export const peopleRoutes = ({ db }: RouteParts): Route[] => [
  {
    method: 'post',
    path: '/people',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      response.status(201).json(await addPerson(db, crewId, readBody<NewPerson>(newPersonSchema, request.body)))
    },
  },
  {
    method: 'get',
    path: '/accounts',
    access: 'lead',
    handle: async (_request, response, { crewId }) => {
      response.json({ accounts: await listAccounts(db, crewId) })
    },
  },
  {
    method: 'put',
    path: '/accounts/:personId',
    access: 'lead',
    handle: async (request, response, session) => {
      await changeAccount(
        db,
        session,
        String(request.params.personId),
        readBody<AccountChange>(accountSchema, request.body),
      )
      response.status(204).end()
    },
  },
  {
    method: 'delete',
    path: '/accounts/:personId',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      await removeAccount(db, crewId, String(request.params.personId))
      response.status(204).end()
    },
  },
]
