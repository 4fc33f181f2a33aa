import { root } from './cluster.mjs'
import { answers, build, runScript, serve } from './prepare.mjs'
import { testDatabase } from './test-db.mjs'

/** The production build over a fresh database with demo data, for browser tests; sign-in attempts are not held back here. */
const port = Number(process.env.E2E_PORT ?? 3199)
build()
const env = {
  ...(await testDatabase('cuirass_e2e')),
  APP_URL: `http://127.0.0.1:${port}`,
  AUTH_ATTEMPTS: '1000',
  CUIRASS_ROOT: root,
}
runScript('load-demo.ts', env)
const server = serve(port, env)
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill('SIGTERM'))
server.on('exit', (code) => process.exit(code ?? 0))
if (!(await answers(`http://127.0.0.1:${port}/sign-in`))) process.exit(1)
