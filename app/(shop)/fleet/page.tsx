import { may } from '@/core/model/rights/rights'
import { fleets } from '@/db/queries/fleet'
import { jobs } from '@/db/queries/jobs'
import { rack } from '@/db/queries/rack'
import { requireMember } from '@/web/actions/session'
import { Fleet } from '@/web/fleet/fleet'

export const metadata = { title: 'Fleet' }

export default async function FleetPage() {
  const { who, units, shop } = await requireMember()
  const { films, stock } = await rack(who)
  return (
    <Fleet
      rows={await fleets(who)}
      jobs={(await jobs(who)).map(({ id, name, vehicle }) => ({ id, name, vehicle }))}
      films={films}
      stock={stock}
      units={{ ...units, currency: shop.currency, timeZone: shop.timeZone }}
      mayStart={may(who.role, 'fleet')}
    />
  )
}
