import { yardJobs } from '@/web/actions/yard'
import { may } from '@/core/model/rights/rights'
import { settledBoard } from '@/db/queries/board'
import { shopOf } from '@/db/queries/shop'
import { LiveRefresh } from '@/web/live/live-refresh'
import { requireMember } from '@/web/actions/session'
import { Yard } from '@/web/yard/yard'

export const metadata = { title: 'Yard' }

export default async function YardPage() {
  const { who, units, shop } = await requireMember()
  return (
    <>
      <LiveRefresh kinds={['plan', 'entries', 'solution', 'yard']} />
      <Yard
        jobs={await yardJobs(who)}
        units={{ ...units, currency: shop.currency, timeZone: shop.timeZone }}
        mayAdd={may(who.role, 'newJob')}
        mayMove={may(who.role, 'plan')}
        settings={(await shopOf(who)).settings}
        settled={await settledBoard(who, new Date())}
      />
    </>
  )
}
