import { accountSchema, newPersonSchema, type AccountChange, type NewPerson } from '@undercliff/contract'
import type { Route } from '../http/access'
import { changeAccount, listAccounts, removeAccount } from '../store/accounts'
import { addPerson } from '../store/shed'
import { pathId, readBody } from '../http/body'
import { Refusal } from '../store/refusal'
import type { RouteParts } from './parts'

/** The people of a crew and who of them can sign in. */
export const peopleRoutes = ({ db, writes, tries }: RouteParts): Route[] => [
  {
    method: 'post',
    path: '/people',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      response.status(201).json(await addPerson(writes, crewId, readBody<NewPerson>(newPersonSchema, request.body)))
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
      const change = readBody<AccountChange>(accountSchema, request.body)
      const personId = pathId(request, 'personId')
      if (personId === null) throw new Refusal('no-such-person', 'Nobody on the crew has this id.')
      await changeAccount(writes, tries, session, personId, change)
      response.status(204).end()
    },
  },
  {
    method: 'delete',
    path: '/accounts/:personId',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      const personId = pathId(request, 'personId')
      if (personId === null) throw new Refusal('no-such-account', 'This person cannot sign in.')
      await removeAccount(writes, crewId, personId)
      response.status(204).end()
    },
  },
]
