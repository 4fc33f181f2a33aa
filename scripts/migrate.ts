import { closeDatabase } from '@/db/client'
import { migrateDatabase } from '@/db/migrate'

await migrateDatabase()
await closeDatabase()
console.log('up to date')
