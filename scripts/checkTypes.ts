import { spawnSync } from 'node:child_process'
import { mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { parse } from 'vue/compiler-sfc'

/**
 * Checks types and asks the rules that need them, of every TypeScript file and of the script of every component. The
 * linter reads no components, so their scripts are written out first, every line where it stands in the component;
 * what a template passes on is checked by the components' own type check.
 *
 * npm run typecheck
 */
const ROOT = join(import.meta.dirname, '..')
const SOURCE = join(ROOT, 'web/src')
/** Gone again at the end: the linter reads nothing that git ignores. What a run left that was cut short goes first. */
const SCRIPTS = join(ROOT, 'web/.scripts')
rmSync(SCRIPTS, { recursive: true, force: true })

/** The script of a component as a file of its own; a type parameter of it is an alias of what it extends. */
function scriptOf(component: string): string {
  const { script, scriptSetup } = parse(readFileSync(join(SOURCE, component), 'utf8')).descriptor
  let written = ''
  const blocks = [script, scriptSetup].filter((block) => block !== null)
  for (const { attrs, content, loc } of blocks.sort((a, b) => a.loc.start.offset - b.loc.start.offset)) {
    const generic = attrs['generic']
    const [, name, bound] = typeof generic === 'string' ? (/^(\w+) extends ([^,]+)$/.exec(generic) ?? []) : []
    if (generic !== undefined && name === undefined) throw new Error(`${component}: generic="${String(generic)}"`)
    const alias = name === undefined ? '' : `type ${name} = ${bound ?? 'never'};`
    written += '\n'.repeat(loc.start.line - written.split('\n').length) + alias + content
  }
  return `${written};export {}`
}

try {
  const components = readdirSync(SOURCE, { recursive: true, encoding: 'utf8' }).filter((file) => file.endsWith('.vue'))
  const files = components.map((component) => {
    const file = component.replace(/\.vue$/, '.script.ts')
    mkdirSync(dirname(join(SCRIPTS, file)), { recursive: true })
    writeFileSync(join(SCRIPTS, file), scriptOf(component))
    return file
  })
  // Both folders are one to it, so that a component's imports are found. What only its template uses seems unused here.
  const tsconfig = {
    extends: '../tsconfig.json',
    compilerOptions: { rootDirs: ['../src', '.'], noUnusedLocals: false },
    files: ['../src/env.d.ts', ...files],
    include: [],
  }
  writeFileSync(join(SCRIPTS, 'tsconfig.json'), JSON.stringify(tsconfig))

  const { error, status } = spawnSync('oxlint', ['--type-aware', '--type-check', '--deny-warnings'], {
    cwd: ROOT,
    stdio: 'inherit',
  })
  if (error !== undefined) throw error
  process.exitCode = status ?? 1
} finally {
  rmSync(SCRIPTS, { recursive: true, force: true })
}
