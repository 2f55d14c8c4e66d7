import { readdirSync } from 'node:fs'
import vue from 'eslint-plugin-vue'
import globals from 'globals'
import tseslint from 'typescript-eslint'
import vueParser from 'vue-eslint-parser'

/** What each workspace may import: web → contract → core, server → contract → core. */
const MAY_IMPORT = {
  core: [],
  contract: ['core'],
  demo: ['core'],
  server: ['core', 'contract', 'demo'],
  web: ['core', 'contract'],
  bench: ['core', 'contract', 'demo', 'server', 'e2e'],
  e2e: ['core', 'contract', 'demo', 'server'],
  prove: ['core', 'demo'],
}
const WORKSPACES = Object.keys(MAY_IMPORT)

/** Folders of core from the ground up: each may import only from those before it. */
const CORE_LAYERS = [
  ...[
    'units',
    'stats',
    'tag',
    'names',
    'damage',
    'loop',
    'profile',
    'geometry',
    'identify',
    'log',
    'belief',
    'state',
    'measure',
    'saw',
  ],
  ...[
    'roles',
    'house',
    'sharpen',
    'wear',
    'signs',
    'kit',
    'fold',
    'jobs',
    'value',
    'verdict',
    'sharpening',
    'fit',
    'admit',
    'card',
    'importing',
    'words',
  ],
]

/** Places of the interface, in the order of the working day. No place imports from another. */
const WEB_PLACES = ['shed', 'wood', 'bench', 'learn', 'house']
/** Folders of web that hold what screens share, with what else of web each may import from. */
const WEB_SHARED = {
  theme: [],
  remote: [],
  parts: ['remote', 'theme'],
  move: ['parts', 'remote', 'theme'],
  frame: ['parts', 'remote', 'theme', 'move'],
}
const SHARED = Object.keys(WEB_SHARED)
const WEB_FOLDERS = [...WEB_PLACES, ...SHARED]
/** Round every screen: no screen takes anything from there. */
const FROM_SHARED = SHARED.filter((folder) => folder !== 'frame')

for (const entry of readdirSync(`${import.meta.dirname}/web/src`, { withFileTypes: true }))
  if (entry.isDirectory() && entry.name !== 'fixtures' && !WEB_FOLDERS.includes(entry.name))
    throw new Error(`web/src/${entry.name} is neither in WEB_PLACES nor in WEB_SHARED`)
for (const entry of readdirSync(`${import.meta.dirname}/core/src`, { withFileTypes: true }))
  if (entry.isDirectory() && entry.name !== 'fixtures' && !CORE_LAYERS.includes(entry.name))
    throw new Error(`core/src/${entry.name} has no place in CORE_LAYERS`)

/** What one workspace keeps out, with further patterns for some of its files. */
const importRule = (workspace, files, further = [], ignores = []) => ({
  files,
  ignores,
  rules: {
    'no-restricted-imports': [
      'error',
      {
        patterns: [
          ...WORKSPACES.filter((other) => other !== workspace && !MAY_IMPORT[workspace].includes(other)).map(
            (other) => ({
              group: [`@undercliff/${other}`, `@undercliff/${other}/*`, `**/../${other}/**`],
              message: `${workspace} must not import from ${other}.`,
            }),
          ),
          ...further,
        ],
      },
    ],
  },
})
const PURE = { group: ['node:*', 'vue', 'express', 'drizzle-orm', 'mysql2', 'naive-ui'], message: 'core is pure.' }
const notFrom = (folders, message) => ({ regex: `^(\\.\\./)+(${folders.join('|')})/`, message })

const coreRules = CORE_LAYERS.map((folder, i) =>
  importRule(
    'core',
    [`core/src/${folder}/**/*.ts`],
    [PURE, notFrom(['fixtures', ...CORE_LAYERS.slice(i + 1)], `${folder} stands below that: see CORE_LAYERS.`)],
    ['**/*.test.ts'],
  ),
)
const webRules = WEB_FOLDERS.map((folder) => {
  const may = [folder, ...(WEB_SHARED[folder] ?? FROM_SHARED)]
  return importRule(
    'web',
    [`web/src/${folder}/**/*.{ts,vue}`],
    [
      notFrom(
        ['fixtures', ...WEB_FOLDERS].filter((other) => !may.includes(other)),
        `${folder} takes nothing from there: see WEB_PLACES and WEB_SHARED.`,
      ),
    ],
    ['**/*.test.ts'],
  )
})

/** What core knows nothing of: clocks, chance, the machine, the browser and the network. */
const NOT_IN_CORE = [
  ...[
    'performance',
    'crypto',
    'process',
    'global',
    'globalThis',
    'self',
    'window',
    'document',
    'navigator',
    'location',
  ],
  ...['fetch', 'XMLHttpRequest', 'WebSocket', 'localStorage', 'sessionStorage', 'indexedDB'],
  ...['setTimeout', 'setInterval', 'setImmediate', 'queueMicrotask', 'requestAnimationFrame', 'console'],
]

export default tseslint.config(
  {
    ignores: [
      ...['**/dist/**', '**/node_modules/**', 'server/drizzle/**', 'data/**', 'test-results/**', '.cache/**'],
      // Comes and goes beside this: see scripts/checkTypes.ts.
      'web/.scripts/**',
    ],
  },
  // The rules that need types are asked by scripts/checkTypes.ts.
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: {
      parser: vueParser,
      parserOptions: { parser: tseslint.parser },
      globals: globals.browser,
    },
  },
  {
    rules: {
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      '@typescript-eslint/consistent-type-imports': ['error', { fixStyle: 'inline-type-imports' }],
      'vue/max-attributes-per-line': 'off',
      'vue/singleline-html-element-content-newline': 'off',
      'vue/html-self-closing': 'off',
      'vue/html-indent': 'off',
      'vue/html-closing-bracket-newline': 'off',
      'vue/multi-word-component-names': 'off',
      'vue/multiline-html-element-content-newline': 'off',
      'vue/require-default-prop': 'off',
      'vue/attributes-order': 'off',
      'no-console': 'error',
      complexity: ['error', 15],
      'max-lines-per-function': ['error', 60],
      'max-len': ['error', { code: 120, ignoreUrls: true }],
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    // A describe is a list of tests, as long as there are cases.
    files: ['**/*.test.ts', '**/*.spec.ts'],
    rules: { 'max-lines-per-function': 'off' },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts', 'core/src/fixtures/**'],
    rules: {
      'no-restricted-globals': ['error', ...NOT_IN_CORE],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Randomness is passed in.' },
        { object: 'Date', property: 'now', message: 'Time is passed in.' },
      ],
      'no-restricted-syntax': [
        'error',
        { selector: 'NewExpression[callee.name="Date"][arguments.length=0]', message: 'Time is passed in.' },
        { selector: 'CallExpression[callee.name="Date"]', message: 'Time is passed in.' },
      ],
    },
  },
  ...WORKSPACES.map((workspace) => importRule(workspace, [`${workspace}/**/*.{ts,vue}`])),
  ...coreRules,
  ...webRules,
)
