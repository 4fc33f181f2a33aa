import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

const alias = { '@': fileURLToPath(new URL('.', import.meta.url)).replace(/\/$/, '') }
const esbuild = { jsx: 'automatic' as const }

export default defineConfig({
  resolve: { alias },
  test: {
    projects: [
      {
        resolve: { alias },
        esbuild,
        test: { name: 'core', include: ['test/core/**/*.test.ts', 'test/cli/**/*.test.ts'], testTimeout: 30_000 },
      },
      {
        resolve: { alias },
        esbuild,
        test: { name: 'web', include: ['test/web/**/*.test.ts?(x)'], environment: 'jsdom', testTimeout: 30_000 },
      },
      {
        resolve: { alias },
        esbuild,
        test: {
          name: 'db',
          include: ['test/db/**/*.test.ts?(x)'],
          globalSetup: 'test/db/setup.ts',
          fileParallelism: false,
          testTimeout: 30_000,
          hookTimeout: 60_000,
        },
      },
    ],
  },
})
