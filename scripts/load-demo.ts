import { closeDatabase } from '@/db/client'
import { loadDemo } from '@/db/demo/load'
import { DEMO_PASSWORD, DEMO_PEOPLE } from '@/db/demo/people'

const outcome = await loadDemo(new Date())
await closeDatabase()
console.log(
  `${outcome === 'already' ? 'already: ' : ''}${DEMO_PEOPLE[1]?.email} / ${DEMO_PASSWORD} (or one click on the sign-in page)`,
)
