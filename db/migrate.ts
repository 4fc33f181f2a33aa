import { fileURLToPath } from 'node:url'
import { migrate } from 'drizzle-orm/node-postgres/migrator'
import { database } from './client'

/** Applies what is not applied yet, in order. Forward only. */
export const migrateDatabase = (): Promise<void> =>
  migrate(database(), { migrationsFolder: fileURLToPath(new URL('./migrations', import.meta.url)) })
