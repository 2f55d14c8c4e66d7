import {
  accountSchema,
  newPersonSchema,
  personChangeSchema,
  pinSchema,
  type AccountChange,
  type NewPerson,
  type PersonChange,
  type PinChange,
} from '@undercliff/contract'
import type { Request } from 'express'
import type { Route } from '../http/access'
import { changeAccount, listAccounts, removeAccount } from '../store/accounts'
import { changePerson, setPinOf } from '../store/people'
import { addPerson } from '../store/shed'
import { pathId, readBody } from '../http/body'
import { Refusal } from '../store/refusal'
import type { RouteParts } from './parts'

function personIdOf(request: Request): string {
  const personId = pathId(request, 'personId')
  if (personId === null) throw new Refusal('no-such-person', 'Nobody on the crew has this id.')
  return personId
}

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
    method: 'put',
    path: '/people/:personId',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      const change = readBody<PersonChange>(personChangeSchema, request.body)
      response.json(await changePerson(writes, crewId, personIdOf(request), change))
    },
  },
  {
    method: 'put',
    path: '/accounts/:personId/pin',
    access: 'lead',
    handle: async (request, response, { crewId }) => {
      const { pin } = readBody<PinChange>(pinSchema, request.body)
      await setPinOf(writes, tries, crewId, personIdOf(request), pin)
      response.status(204).end()
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
      await changeAccount(writes, tries, session, personIdOf(request), change)
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
