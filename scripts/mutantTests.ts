import { join } from 'node:path'
import { createVitest, type TestSpecification } from 'vitest/node'

/**
 * Runs the unit tests of a copy of the repository as often as it is asked to, without starting anew:
 * those beside the file that was changed first, then the quickest. Stops at the first that fails.
 */
const [dir = '.'] = process.argv.slice(2)
process.chdir(dir)

let order: readonly TestSpecification[] = []
class InOrder {
  shard = (files: TestSpecification[]): TestSpecification[] => files
  sort = (files: TestSpecification[]): TestSpecification[] => order.filter((one) => files.includes(one))
}

const vitest = await createVitest('test', {
  root: dir,
  project: ['unit'],
  watch: false,
  bail: 1,
  reporters: [{}],
  pool: 'threads',
  maxWorkers: 1,
  sequence: { sequencer: InOrder },
})
/** The unit tests of core, and those of the demo's logs, of its pages and of its examples. */
const ASKED = /\/(core\/|demo\/src\/(stored|verdictPage)|scripts\/examples)/
const all = (await vitest.globTestSpecifications()).filter(({ moduleId }) => ASKED.test(moduleId.slice(dir.length)))
const took = new Map<string, number>()

/** So many are tried before all the others are even read. */
const AT_FIRST = 16
/** How much sooner a test beside the file is tried than another that takes as long. */
const BESIDE = 0.1

async function anyFails(
  specifications: readonly TestSpecification[],
  say: (name: string) => void = () => undefined,
): Promise<boolean> {
  order = specifications
  vitest.state.filesMap.clear()
  const { testModules, unhandledErrors } = await vitest.runTestSpecifications([...specifications])
  for (const one of testModules) if (!took.has(one.moduleId)) took.set(one.moduleId, one.diagnostic().duration)
  const failed = testModules.filter((one) => one.state() === 'failed')
  for (const one of failed)
    for (const test of one.children.allTests('failed'))
      say(`${one.moduleId} ${test.fullName}: ${test.result().errors?.[0]?.message ?? ''}`)
  return unhandledErrors.length > 0 || failed.length > 0
}

/** @returns whether a test failed; with no file, all are run as they stand */
async function run(file: string | null): Promise<boolean> {
  if (file === null) return anyFails(all, (name) => process.stderr.write(`fails as it stands: ${name}\n`))
  const folder = join(dir, ...file.split('/').slice(0, 3)) + '/'
  const rank = ({ moduleId }: TestSpecification): number =>
    (took.get(moduleId) ?? 0) * (moduleId.startsWith(folder) ? BESIDE : 1)
  const sorted = [...all].sort((a, b) => rank(a) - rank(b))
  vitest.invalidateFile(join(dir, file))
  const fails = (await anyFails(sorted.slice(0, AT_FIRST))) || (await anyFails(sorted.slice(AT_FIRST)))
  vitest.invalidateFile(join(dir, file))
  return fails
}

process.on('message', ({ file }: { file: string | null }) => {
  void run(file).then((failed) => process.send?.(failed))
})
