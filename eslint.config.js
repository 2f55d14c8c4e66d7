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
}
const WORKSPACES = Object.keys(MAY_IMPORT)

const importRule = (workspace, files, ignores = []) => ({
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
          ...(workspace === 'core' && ignores.length > 0
            ? [{ group: ['node:*', 'vue', 'express', 'drizzle-orm', 'mysql2', 'naive-ui'], message: 'core is pure.' }]
            : []),
        ],
      },
    ],
  },
})

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'server/drizzle/**', 'data/**', 'test-results/**'] },
  ...tseslint.configs.strict,
  ...vue.configs['flat/recommended'],
  {
    files: ['**/*.vue'],
    languageOptions: { parser: vueParser, parserOptions: { parser: tseslint.parser }, globals: globals.browser },
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
      eqeqeq: ['error', 'always', { null: 'ignore' }],
    },
  },
  {
    files: ['core/src/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': ['error', 'window', 'document', 'process', 'fetch', 'localStorage'],
      'no-restricted-properties': [
        'error',
        { object: 'Math', property: 'random', message: 'Randomness is passed in.' },
        { object: 'Date', property: 'now', message: 'Time is passed in.' },
      ],
    },
  },
  ...WORKSPACES.map((workspace) => importRule(workspace, [`${workspace}/**/*.{ts,vue}`])),
  importRule('core', ['core/**/*.ts'], ['**/*.test.ts']),
)
