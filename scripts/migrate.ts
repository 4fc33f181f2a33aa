import { closeDatabase } from '@/db/client'
import { closeFleetQueue, fleetQueue } from '@/db/fleet-queue'
import { migrateDatabase } from '@/db/migrate'

await migrateDatabase()
// The queue makes its own tables.
await fleetQueue()
await closeFleetQueue()
await closeDatabase()
console.log('up to date')
