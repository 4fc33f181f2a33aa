import next from 'eslint-config-next'
import tseslint from 'typescript-eslint'

const surroundings = [
  'Date',
  'console',
  'globalThis',
  'window',
  'document',
  'process',
  'setTimeout',
  'performance',
  'crypto',
  'fetch',
]

const rules = [
  { ignores: ['.next/**', '.data/**', 'node_modules/**', 'next-env.d.ts', 'test-results/**', 'coverage/**', '*.cjs'] },
  ...next,
  ...tseslint.configs.recommended,
  {
    rules: {
      '@typescript-eslint/no-explicit-any': 'error',
      '@typescript-eslint/no-unused-vars': ['error', { argsIgnorePattern: '^_', varsIgnorePattern: '^_' }],
      'no-empty': ['error', { allowEmptyCatch: false }],
    },
  },
  {
    files: ['**/*.ts', '**/*.tsx', '**/*.mts'],
    languageOptions: { parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname } },
    rules: {
      '@typescript-eslint/no-floating-promises': 'error',
      '@typescript-eslint/no-unnecessary-type-assertion': 'error',
    },
  },
  {
    files: ['core/**/*.ts'],
    rules: {
      'no-restricted-globals': [
        'error',
        ...surroundings.map((name) => ({ name, message: 'core has no clock, no chance and no surroundings' })),
      ],
      'no-restricted-properties': ['error', { object: 'Math', property: 'random', message: 'a seed comes in' }],
    },
  },
]

export default rules
