import { root } from './cluster.mjs'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { answers, build, runScript, serve, startTable, startWorker } from './prepare.mjs'
import { supervise } from './supervise.mjs'
import { testDatabase } from './test-db.mjs'

/**
 * The production build over a fresh database with demo data, for browser tests; sign-in attempts are not held back
 * here.
 */
const port = Number(process.env.E2E_PORT ?? 3199)
build()
const table = mkdtempSync(join(tmpdir(), 'cuirass-table-'))
const env = {
  CUTTING_TABLE_DIR: table,
  THERMOMETER: 'simulated',
  ...(await testDatabase('cuirass_e2e')),
  APP_URL: `http://127.0.0.1:${port}`,
  AUTH_ATTEMPTS: '1000',
  // A core stays free for the browser and the server.
  SOLVERS: '1',
  CUIRASS_ROOT: root,
}
runScript('load-demo.ts', env)
/** A test kills the server by this number; it is started again as in a shop. */
const pidFile = join(root, '.data', 'e2e-server.pid')
const server = supervise(
  'server',
  () => {
    const child = serve(port, env)
    writeFileSync(pidFile, String(child.pid))
    return child
  },
  { givenUp: (code) => end(code) },
)
const helpers = [startTable(join(table, '5a170000-0000-4000-8000-000000000001'))]
// Where a browser alone is measured, nothing is solved beside it.
if (process.env.E2E_WORKER !== 'off') helpers.push(startWorker(env))
function end(code) {
  for (const p of [server, ...helpers]) p.kill('SIGTERM')
  process.exit(code)
}
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => end(0))
if (!(await answers(`http://127.0.0.1:${port}/sign-in`))) end(1)
