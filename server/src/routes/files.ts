import { importSchema, type Import } from '@undercliff/contract'
import type { Route } from '../http/access'
import { restoreBackup, writeBackup } from '../store/backup'
import { runImport } from '../store/importing'
import { Refusal } from '../store/refusal'
import { TABLES, writeTable, type TableName } from '../store/tables'
import { readBody } from './body'
import type { RouteParts } from './parts'

/** Largest backup that is read: some hundred thousand entries. */
const BACKUP_LIMIT = '100mb'
/** Largest import: its rows at about a kilobyte each. */
const IMPORT_LIMIT = '40mb'

const isTable = (name: string): name is TableName => (TABLES as readonly string[]).includes(name)

/** Everything in and out as files: one backup, each table as CSV, and what a spreadsheet brings. */
export const filesRoutes = ({ db, clock }: RouteParts): Route[] => [
  {
    method: 'get',
    path: '/backup',
    access: 'lead',
    handle: async (_request, response, { crewId }) => {
      const now = clock()
      response.attachment(`undercliff-${now.toISOString().slice(0, 10)}.json`)
      response.json(await writeBackup(db, crewId, now))
    },
  },
  {
    method: 'post',
    path: '/backup',
    access: 'lead',
    bodyLimit: BACKUP_LIMIT,
    handle: async (request, response, session) => {
      await restoreBackup(db, session, request.body, clock())
      response.status(204).end()
    },
  },
  {
    method: 'post',
    path: '/import',
    access: 'lead',
    bodyLimit: IMPORT_LIMIT,
    handle: async (request, response, session) => {
      response.status(201).json(await runImport(db, session, readBody<Import>(importSchema, request.body), clock()))
    },
  },
  {
    method: 'get',
    path: '/tables/:name.csv',
    access: 'signedIn',
    handle: async (request, response, { crewId }) => {
      const name = String(request.params.name)
      if (!isTable(name)) throw new Refusal('no-such-route', `There is no such table. There are: ${TABLES.join(', ')}.`)
      response.attachment(`undercliff-${name}.csv`).type('text/csv; charset=utf-8')
      response.send(await writeTable(db, crewId, name))
    },
  },
]
