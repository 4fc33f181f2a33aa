import { defineConfig } from '@playwright/test'
import { CHROMIUM } from './test/fixtures/chromium'

const port = Number(process.env.E2E_PORT ?? 3199)

export default defineConfig({
  testDir: 'test/e2e',
  timeout: 420_000,
  expect: { timeout: 30_000 },
  fullyParallel: false,
  workers: 1,
  retries: 0,
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_FILE ? [['list'], ['json']] : [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    trace: 'retain-on-failure',
    // Pages come from the server, but where a test is about working without one.
    serviceWorkers: 'block',
    launchOptions: CHROMIUM,
  },
  webServer: {
    command: 'node scripts/e2e-server.mjs',
    url: `http://127.0.0.1:${port}/sign-in`,
    timeout: 420_000,
    reuseExistingServer: false,
    gracefulShutdown: { signal: 'SIGTERM', timeout: 5000 },
  },
})
