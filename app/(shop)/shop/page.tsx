import { members } from '@/db/queries/people'
import { requireMember } from '@/web/actions/session'
import { ShopPeople } from '@/web/people/shop-people'

export const metadata = { title: 'Shop' }

export default async function ShopPage() {
  const { who, shop } = await requireMember()
  return <ShopPeople people={await members(who)} shop={shop.name} owner={who.role === 'owner'} />
}
