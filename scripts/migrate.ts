import { migrateDatabase } from '@/db/migrate'

try {
  await migrateDatabase()
  console.log('up to date')
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error))
  process.exitCode = 1
}
