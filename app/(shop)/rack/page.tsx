import { may } from '@/core/model/rights/rights'
import { rack } from '@/db/queries/rack'
import { supplies } from '@/db/queries/supplies'
import { LiveRefresh } from '@/web/live/live-refresh'
import { requireMember } from '@/web/actions/session'
import { Rack } from '@/web/rack/rack'

export const metadata = { title: 'Rack' }

export default async function RackPage() {
  const { who, units, shop } = await requireMember()
  const { all, stock } = await rack(who)
  return (
    <>
      <LiveRefresh kinds={['stock', 'films']} />
      <Rack
        all={all}
        stock={stock}
        units={{ ...units, currency: shop.currency, timeZone: shop.timeZone }}
        mayReceive={may(who.role, 'stock')}
        mayTest={may(who.role, 'strip')}
        levels={await supplies(who)}
      />
    </>
  )
}
