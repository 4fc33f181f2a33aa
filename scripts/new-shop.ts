import { randomUUID } from 'node:crypto'
import { parseArgs } from 'node:util'
import { isPlainText } from '@/core/kit/plain-text'
import { closeDatabase } from '@/db/client'
import { makeShop } from '@/db/demo/load'

/**
 * A real shop with its owner: npm run shop:new -- --name "…" --owner "…" --email … ; the password comes from
 * OWNER_PASSWORD.
 */
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
if (Intl.supportedValuesOf('timeZone').every((zone) => zone !== values['time-zone']) && values['time-zone'] !== 'UTC') {
  console.error(`--time-zone ${values['time-zone']} is no time zone. Give one like Europe/Dublin.`)
  process.exit(2)
}
if (!Intl.supportedValuesOf('currency').includes(values.currency)) {
  console.error(`--currency ${values.currency} is no currency. Give one like EUR.`)
  process.exit(2)
}
for (const [option, most] of [
  ['name', 120],
  ['town', 120],
  ['owner', 120],
  ['email', 200],
] as const)
  if ((values[option] ?? '').length > most || !isPlainText(values[option] ?? '')) {
    console.error(`--${option} is longer than ${most} characters, or holds one that is no text.`)
    process.exit(2)
  }
const id = randomUUID()
try {
  await makeShop(
    {
      id,
      name: values.name,
      town: values.town,
      currency: values.currency,
      timeZone: values['time-zone'],
      isDemo: false,
    },
    [{ name: values.owner, email: values.email, role: 'owner', password }],
  )
  console.log(`${values.name} is set up as ${id}; ${values.email} may sign in.`)
} catch (error) {
  console.error(error instanceof Error ? error.message : String(error))
  process.exitCode = 2
}
await closeDatabase()
