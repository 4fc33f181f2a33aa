import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const alias = { '@': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '') }
const esbuild = { jsx: 'automatic' as const }

export default defineConfig({
  resolve: { alias },
  test: {
    coverage: {
      provider: 'v8',
      include: ['{core,web,db,cli,outside}/**/*.{ts,tsx}'],
      exclude: ['db/migrations/**'],
      reporter: ['text-summary', 'html'],
      reportsDirectory: 'coverage',
    },
    projects: [
      {
        resolve: { alias },
        esbuild,
        test: { name: 'core', include: ['test/core/**/*.test.ts', 'test/cli/**/*.test.ts'], testTimeout: 120_000 },
      },
      {
        resolve: { alias },
        esbuild,
        test: {
          name: 'web',
          include: ['test/web/**/*.test.ts?(x)'],
          environment: 'jsdom',
          setupFiles: 'test/fixtures/loaded-page.ts',
          testTimeout: 120_000,
        },
      },
      {
        resolve: { alias },
        esbuild,
        test: {
          name: 'db',
          include: ['test/db/**/*.test.ts?(x)'],
          globalSetup: 'test/db/setup.ts',
          fileParallelism: false,
          testTimeout: 120_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
})
