import { ensureDatabase, secrets, startCluster } from './cluster.mjs'
import { runScript } from './prepare.mjs'

/** A fresh, migrated database on the throwaway test cluster; the environment that points at it. */
export async function testDatabase(name) {
  const cluster = await startCluster({ name: 'test-pg', usualPort: 54811, throwaway: true })
  const env = { ...(await ensureDatabase(cluster, name, { anew: true })), AUTH_SECRET: secrets().authSecret }
  runScript('migrate.ts', env)
  return env
}
