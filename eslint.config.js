import js from '@eslint/js'
import tseslint from 'typescript-eslint'
import importX from 'eslint-plugin-import-x'
import reactHooks from 'eslint-plugin-react-hooks'
import { createTypeScriptImportResolver } from 'eslint-import-resolver-typescript'

/** The floors of core, lowest first: a folder may import from itself and from folders listed before it. */
const floors = [
  'lists',
  'inference',
  'changes',
  'installation',
  'catalogue',
  'departures',
  'pipework',
  'circuit',
  'water',
  'heat',
  'simulation',
  'inputs',
  'instruments',
  'hypotheses',
  'trace',
  'looks',
  'week',
  'states',
  'checks',
  'planning',
  'moves',
  'survey',
  'termination',
  'bench',
  'hunt',
  'commission',
  'diagnosis',
  'formats',
  'examples',
  'kit',
  'wording',
]

/** The houses: what each workspace may not see. */
const houses = {
  core: ['contract', 'cli', 'server', 'web', 'e2e'],
  contract: ['cli', 'server', 'web', 'e2e'],
  cli: ['contract', 'web', 'e2e'],
  server: ['cli', 'web', 'e2e'],
  web: ['cli', 'server', 'e2e'],
  e2e: ['cli', 'web'],
}

const zones = [
  ...floors.map((floor, i) => ({
    target: `./core/src/${floor}`,
    from: floors.slice(i + 1).map((above) => `./core/src/${above}`),
    message: `core/${floor} stands below that floor: imports only point down.`,
  })),
  ...Object.entries(houses).map(([house, hidden]) => ({
    target: `./${house}`,
    from: hidden.map((other) => `./${other}`),
    message: `${house} does not know that workspace.`,
  })),
].filter((zone) => zone.from.length > 0)

export default tseslint.config(
  { ignores: ['**/dist/**', '**/node_modules/**', 'data/**'] },
  js.configs.recommended,
  ...tseslint.configs.recommendedTypeChecked,
  { languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } } },
  {
    rules: {
      // Objects here are made of closures or are called by their name: none is taken apart from its own state.
      '@typescript-eslint/unbound-method': 'off',
      // What stands in for a slow thing promises as the slow thing does, without having to wait.
      '@typescript-eslint/require-await': 'off',
    },
  },
  {
    plugins: { 'import-x': importX },
    settings: {
      'import-x/resolver-next': [
        createTypeScriptImportResolver({
          project: ['core', 'contract', 'cli', 'server', 'web', 'e2e'].map((w) => `${w}/tsconfig.json`),
        }),
      ],
    },
    rules: {
      'import-x/no-restricted-paths': ['error', { zones }],
      '@typescript-eslint/consistent-type-imports': 'error',
      eqeqeq: 'error',
      'max-lines': ['error', { max: 420, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    // The core computes and nothing else: no clock, no chance, no machine, no screen.
    files: ['core/src/**'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        'window',
        'document',
        'process',
        'fetch',
        'localStorage',
        'setTimeout',
        'console',
      ],
      'no-restricted-syntax': [
        'error',
        { selector: "NewExpression[callee.name='Date']", message: 'The core has no clock.' },
        {
          selector: "CallExpression[callee.object.name='Math'][callee.property.name='random']",
          message: 'Only a seed.',
        },
      ],
      'no-restricted-imports': ['error', { patterns: ['node:*', 'react', 'react-*', 'koa', '@mikro-orm/*'] }],
    },
  },
  {
    // A test may look at its floor from above: from examples, or with the words people read.
    files: ['core/src/**/*.test.ts'],
    rules: { 'import-x/no-restricted-paths': 'off' },
  },
  {
    // What a test reads back from JSON is held against what is expected, not against a type.
    files: ['**/*.test.ts', '**/*.test.tsx', '*/testing/**', 'e2e/src/**'],
    rules: {
      '@typescript-eslint/no-unsafe-assignment': 'off',
      '@typescript-eslint/no-unsafe-member-access': 'off',
      '@typescript-eslint/no-unsafe-call': 'off',
      '@typescript-eslint/no-unsafe-return': 'off',
      '@typescript-eslint/no-unsafe-argument': 'off',
    },
  },
  { files: ['web/**/*.tsx', 'web/**/*.ts'], ...reactHooks.configs.flat.recommended },
  {
    files: ['**/*.cjs'],
    languageOptions: { globals: { require: 'readonly' } },
    rules: { '@typescript-eslint/no-require-imports': 'off' },
  },
  {
    files: ['**/*.mjs', '**/*.js'],
    languageOptions: { globals: { process: 'readonly', console: 'readonly', URL: 'readonly', Buffer: 'readonly' } },
  },
  { files: ['**/*.mjs', '**/*.js', '**/*.cjs', '**/vite.config.ts'], ...tseslint.configs.disableTypeChecked },
)
