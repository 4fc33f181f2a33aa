import { randomUUID } from 'node:crypto'
import { parseArgs } from 'node:util'
import { closeDatabase } from '@/db/client'
import { makeShop } from '@/db/demo/load'

/** A real shop with its owner: npm run shop:new -- --name "…" --owner "…" --email … ; the password comes from OWNER_PASSWORD. */
const { values } = parseArgs({
  options: {
    name: { type: 'string' },
    town: { type: 'string', default: '' },
    currency: { type: 'string', default: 'EUR' },
    'time-zone': { type: 'string', default: 'UTC' },
    owner: { type: 'string' },
    email: { type: 'string' },
  },
})
const password = process.env.OWNER_PASSWORD ?? ''
if (!values.name || !values.owner || !values.email || password.length < 10) {
  console.error('Needs --name, --owner and --email, and a password of at least 10 characters in OWNER_PASSWORD.')
  process.exit(2)
}
try {
  await makeShop(
    {
      id: randomUUID(),
      name: values.name,
      town: values.town,
      currency: values.currency,
      timeZone: values['time-zone'],
      isDemo: false,
    },
    [{ name: values.owner, email: values.email, role: 'owner', password }],
  )
  console.log(`${values.name} is set up; ${values.email} may sign in.`)
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error))
  process.exitCode = 2
}
await closeDatabase()
