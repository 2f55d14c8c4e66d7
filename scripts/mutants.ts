import { fork, type ChildProcess } from 'node:child_process'
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import ts from 'typescript'

/**
 * Breaks core in small ways, one at a time, and asks its unit tests whether they notice: signs,
 * limits, units, turned conditions and missing cases, drawn with a seed over all of core.
 *
 * npm run mutants -- [--count 100] [--seed 1] [--only PATH-PART] [--workers 2]
 */
const { values: asked } = parseArgs({
  options: {
    count: { type: 'string', default: '100' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string', default: '' },
    workers: { type: 'string', default: '2' },
  },
})

/** Changes that come to the same, with why: nobody could notice them. By file, line as it stands, and change. */
const SAME: Readonly<Record<string, string>> = JSON.parse(
  readFileSync(join(import.meta.dirname, 'sameMutants.json'), 'utf8'),
) as Record<string, string>

interface Mutant {
  /** As the list of those that come to the same names it. */
  readonly key: string
  readonly file: string
  readonly from: number
  readonly to: number
  readonly text: string
  readonly what: string
}

const ROOT = join(import.meta.dirname, '..')
const COPIES = join(ROOT, '.cache', 'mutants')
/** Whose unit tests are asked, and what they read. */
const WORKSPACES = ['core', 'contract', 'demo', 'web', 'server', 'prove']
const SLOWEST_MS = 180_000

const LEFT_OUT = ['fixtures/', 'index.ts']

/** What an operator is taken for: the limit itself, the other way round, the other sign. */
const SWAPS: Partial<Record<ts.SyntaxKind, readonly string[]>> = {
  [ts.SyntaxKind.LessThanToken]: ['<=', '>='],
  [ts.SyntaxKind.LessThanEqualsToken]: ['<', '>'],
  [ts.SyntaxKind.GreaterThanToken]: ['>=', '<='],
  [ts.SyntaxKind.GreaterThanEqualsToken]: ['>', '<'],
  [ts.SyntaxKind.PlusToken]: ['-'],
  [ts.SyntaxKind.MinusToken]: ['+'],
  [ts.SyntaxKind.AsteriskToken]: ['/'],
  [ts.SyntaxKind.SlashToken]: ['*'],
  [ts.SyntaxKind.EqualsEqualsEqualsToken]: ['!=='],
  [ts.SyntaxKind.ExclamationEqualsEqualsToken]: ['==='],
  [ts.SyntaxKind.AmpersandAmpersandToken]: ['||'],
  [ts.SyntaxKind.BarBarToken]: ['&&'],
}

const CALLS: Readonly<Record<string, string>> = { min: 'max', max: 'min', some: 'every', every: 'some' }
const isFallback = (node: ts.Node): boolean =>
  ts.isNumericLiteral(node) &&
  ts.isBinaryExpression(node.parent) &&
  node.parent.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken
/** The 1 or -1 of `a < b ? -1 : 1`, whose size says nothing. */
function isSign(node: ts.NumericLiteral): boolean {
  const holder = ts.isPrefixUnaryExpression(node.parent) ? node.parent.parent : node.parent
  return (
    node.text === '1' && ts.isConditionalExpression(holder) && /\? -1 : (1|.*\? 1 : )/.test(holder.parent.getText())
  )
}
const isTiny = (value: number): boolean => value > 0 && value < 1e-5
const isText = (side: ts.Node): boolean => ts.isStringLiteralLike(side) || ts.isTemplateExpression(side)

/** A node that can be changed, and what it may become. */
type Change = readonly [node: ts.Node, becomes: readonly string[]]

function numberChange(node: ts.NumericLiteral): Change | null {
  // A fallback that only the compiler asks for: no test can get there.
  if (isFallback(node)) return null
  // Of what a comparator gives only the sign counts.
  if (isSign(node)) return null
  const value = Number(node.text.replaceAll('_', ''))
  // A tolerance for rounding: a quarter more of next to nothing is the same.
  if (isTiny(value)) return null
  // A count or a place in a list stays whole, or it would be cut back to what it was.
  const next = value * 1.25
  return [node, [value === 0 ? '1' : String(Number.isInteger(value) ? Math.max(value + 1, Math.round(next)) : next)]]
}

const isTolerance = (node: ts.Node): boolean => ts.isNumericLiteral(node) && isTiny(Number(node.text))

function operatorChange({ operatorToken, left, right }: ts.BinaryExpression): Change | null {
  // Of a tolerance itself it does not matter on which side it is.
  const swaps = SWAPS[operatorToken.kind]
  const becomes = swaps?.length === 2 && isTolerance(right) ? swaps.slice(1) : swaps
  // A sum of texts has no minus.
  return becomes === undefined || isText(left) || isText(right) ? null : [operatorToken, becomes]
}

/** What can be changed of a node; null where no small change is known. */
function changeOf(node: ts.Node, source: ts.SourceFile): Change | null {
  if (ts.isBinaryExpression(node)) return operatorChange(node)
  if (ts.isPrefixUnaryExpression(node) && node.operator === ts.SyntaxKind.ExclamationToken)
    return [node, [node.operand.getText(source)]]
  if (ts.isNumericLiteral(node)) return numberChange(node)
  if (ts.isConditionalExpression(node)) return [node.condition, [`!(${node.condition.getText(source)})`]]
  if (ts.isIfStatement(node)) return [node.expression, ['false', 'true']]
  if (ts.isCaseClause(node) && node.statements.length > 0) return [node, ['']]
  if (ts.isIdentifier(node) && ts.isPropertyAccessExpression(node.parent) && node.parent.name === node) {
    const text = CALLS[node.text]
    return text === undefined ? null : [node, [text]]
  }
  return null
}

function mutantsOf(file: string): Mutant[] {
  const text = readFileSync(join(ROOT, file), 'utf8')
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, true)
  const found: Mutant[] = []
  const walk = (node: ts.Node): void => {
    if (ts.isTypeNode(node) || ts.isInterfaceDeclaration(node) || ts.isImportDeclaration(node)) return
    const [part, becomes] = changeOf(node, source) ?? []
    if (part !== undefined && becomes !== undefined) {
      const [from, to] = [part.getStart(source), part.getEnd()]
      const line = source.getLineAndCharacterOfPosition(from).line + 1
      const short = (one: string): string => one.replace(/\s+/g, ' ').slice(0, 60)
      const row = text.slice(0, from).lastIndexOf('\n') + 1
      const whole = text.slice(row, text.indexOf('\n', from)).trim()
      for (const one of becomes)
        found.push({
          key: `${file.replace('core/src/', '')} | ${whole} | ${short(text.slice(from, to))} → ${short(one)}`,
          file,
          from,
          to,
          text: one,
          what: `${file}:${line} ${short(text.slice(from, to))} → ${short(one)}`,
        })
    }
    ts.forEachChild(node, walk)
  }
  walk(source)
  return found
}

/** A seeded source of numbers from 0 to 1 (mulberry32, public domain). */
function seeded(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32
  }
}

function copyFor(worker: number): string {
  const dir = join(COPIES, String(worker))
  rmSync(dir, { recursive: true, force: true })
  mkdirSync(dir, { recursive: true })
  for (const part of [...WORKSPACES, 'docs', 'scripts', 'vitest.config.ts', 'package.json', 'tsconfig.base.json'])
    cpSync(join(ROOT, part), join(dir, part), {
      recursive: true,
      filter: (from) => !/\/(dist|node_modules)$/.test(from),
    })
  // The packages are shared, the workspaces are the copy's own.
  const modules = join(dir, 'node_modules')
  mkdirSync(join(modules, '@undercliff'), { recursive: true })
  for (const name of readdirSync(join(ROOT, 'node_modules')))
    if (name !== '@undercliff' && !name.startsWith('.'))
      symlinkSync(join(ROOT, 'node_modules', name), join(modules, name))
  for (const name of WORKSPACES) symlinkSync(join(dir, name), join(modules, '@undercliff', name))
  return dir
}

/** A process that has the tests of one copy at hand; one that hangs is ended, and another takes its place. */
function askerFor(dir: string) {
  let child: ChildProcess | null = null
  return {
    /** Whether the tests of a copy notice what its file was changed to. */
    async fails(file: string | null): Promise<boolean> {
      child ??= fork(join(import.meta.dirname, 'mutantTests.ts'), [dir], {
        stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
        env: { ...process.env, FIRST_FAILURE: 'yes' },
      })
      const asked = child
      return new Promise((resolve) => {
        const end = (failed: boolean): void => {
          clearTimeout(timer)
          asked.removeAllListeners()
          resolve(failed)
        }
        // What never comes to an end is noticed too.
        const gone = (): void => {
          asked.kill('SIGKILL')
          child = null
          end(true)
        }
        const timer = setTimeout(gone, SLOWEST_MS)
        asked.once('exit', gone)
        asked.once('message', (failed) => {
          end(failed === true)
        })
        asked.send({ file })
      })
    },
    close(): void {
      child?.kill()
    },
  }
}

const files = readdirSync(join(ROOT, 'core/src'), { recursive: true, encoding: 'utf8' })
  .filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'))
  .filter((name) => !LEFT_OUT.some((part) => name.startsWith(part)) && name.includes(asked.only))
  .sort()
const all = files.flatMap((name) => mutantsOf(`core/src/${name}`))
const random = seeded(Number(asked.seed))
const drawn: Mutant[] = []
const pool = [...all]
while (drawn.length < Number(asked.count) && pool.length > 0)
  drawn.push(...pool.splice(Math.floor(random() * pool.length), 1))

const survivors: Mutant[] = []
const same: Mutant[] = []
const queue = [...drawn]
async function work(worker: number): Promise<void> {
  const dir = copyFor(worker)
  const tests = askerFor(dir)
  if (await tests.fails(null)) throw new Error('the unit tests fail as they stand')
  for (let mutant = queue.shift(); mutant !== undefined; mutant = queue.shift()) {
    const path = join(dir, mutant.file)
    const text = readFileSync(path, 'utf8')
    writeFileSync(path, text.slice(0, mutant.from) + mutant.text + text.slice(mutant.to))
    const killed = await tests.fails(mutant.file)
    writeFileSync(path, text)
    const comesToTheSame = !killed && mutant.key in SAME
    if (!killed) (comesToTheSame ? same : survivors).push(mutant)
    process.stdout.write(`${killed ? 'killed  ' : comesToTheSame ? 'the same' : 'SURVIVED'} ${mutant.what}\n`)
  }
  tests.close()
}
await Promise.all(Array.from({ length: Number(asked.workers) }, (_, worker) => work(worker)))
rmSync(COPIES, { recursive: true, force: true })
const killed = drawn.length - survivors.length - same.length
process.stdout.write(
  `${killed} of ${drawn.length} killed, ${same.length} come to the same, ` +
    `drawn from ${all.length} in ${files.length} files\n`,
)
for (const { what, key } of same) process.stdout.write(`  the same: ${what}: ${SAME[key] ?? ''}\n`)
for (const { what, key } of survivors.sort((a, b) => a.what.localeCompare(b.what)))
  process.stdout.write(`  survived: ${what}\n            ${key}\n`)
