import { jobs } from '@/db/queries/jobs'
import { MAY } from '@/db/client'
import { memberOrDoor } from '@/web/actions/session'
import { Yard } from '@/web/yard/yard'

export const metadata = { title: 'Yard' }

export default async function YardPage() {
  const { who, units, shop } = await memberOrDoor()
  return (
    <Yard
      jobs={await jobs(who)}
      units={{ ...units, currency: shop.currency, timeZone: shop.timeZone }}
      mayAdd={(MAY.newJob as readonly string[]).includes(who.role)}
    />
  )
}
