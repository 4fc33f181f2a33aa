import { may } from '@/core/model/rights/rights'
import { members } from '@/db/queries/people'
import { shopOf } from '@/db/queries/shop'
import { requireMember } from '@/web/actions/session'
import { CalendarLink } from '@/web/people/calendar-link'
import { ShopPeople } from '@/web/people/shop-people'
import { ShopForm } from '@/web/shop/shop-form'
import { ShopHistory } from '@/web/shop/shop-history'

export const metadata = { title: 'Shop' }

export default async function ShopPage() {
  const { who, shop, units } = await requireMember()
  const { number, settings, history } = await shopOf(who)
  const zones = [...new Set(['UTC', settings.timeZone, ...Intl.supportedValuesOf('timeZone')])]
  return (
    <main className="sheet" id="main">
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Shop</h1>
        <span className="label">{shop.name}</span>
      </div>
      <ShopForm key={number} number={number} settings={settings} zones={zones} mayChange={may(who.role, 'shop')} />
      <CalendarLink />
      <ShopPeople people={await members(who)} owner={who.role === 'owner'} />
      <ShopHistory rows={history} units={{ ...units, currency: settings.currency, timeZone: settings.timeZone }} />
    </main>
  )
}
