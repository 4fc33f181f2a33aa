import { testDatabase } from '../../scripts/test-db.mjs'

/** A fresh, migrated database for the tests that need one. */
export default async function setup() {
  const env = (await testDatabase('cuirass_unit')) as Record<string, string>
  Object.assign(process.env, env, { APP_URL: 'http://127.0.0.1:3999', AUTH_ATTEMPTS: '5' })
}
