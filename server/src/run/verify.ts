import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { connect } from '../database/connect'
import { startPrivateDatabase, type PrivateDatabase } from '../database/privateDatabase'
import { StartProblem } from '../database/startProblem'
import { failToStart } from './failToStart'
import { verifySnapshots } from '../store/refold'
import { readOptions } from './options'

async function verify(url: string): Promise<boolean> {
  const { db, end } = connect(url)
  try {
    const { loops, entries, disagreements } = await verifySnapshots(db)
    for (const { crewId, loopId, what } of disagreements) {
      process.stdout.write(`crew ${crewId} loop ${loopId}: ${what}\n`)
    }
    const outcome = disagreements.length === 0 ? 'every snapshot agrees' : `${disagreements.length} disagree`
    process.stdout.write(`${loops} loops, ${entries} entries folded again: ${outcome}\n`)
    return disagreements.length === 0
  } finally {
    await end()
  }
}

/**
 * Folds every log again and says whether the snapshots agree. Takes `--data DIR` and DATABASE_URL
 * as ./start does, and may run beside it. Exit code 1 when a snapshot does not agree.
 */
async function main(): Promise<boolean> {
  const { databaseUrl, dataDir } = readOptions(process.argv.slice(2), process.env)
  if (databaseUrl !== null) return verify(databaseUrl)
  if (!existsSync(join(dataDir, 'database.json'))) {
    throw new StartProblem(`There is no database in ${dataDir} yet. Run ./start first.`)
  }
  const database: PrivateDatabase = await startPrivateDatabase(dataDir)
  try {
    return await verify(database.url)
  } finally {
    if (database.adopted) database.release()
    else await database.stop()
  }
}

main().then((agrees) => process.exit(agrees ? 0 : 1), failToStart)
