import { vehicles } from '@/db/queries/vehicles'
import { requireMember } from '@/web/actions/session'
import { Vehicles } from '@/web/vehicles/vehicles'

export const metadata = { title: 'Vehicles' }

export default async function VehiclesPage() {
  const { who, units, shop } = await requireMember()
  return (
    <Vehicles vehicles={await vehicles(who)} units={{ ...units, currency: shop.currency, timeZone: shop.timeZone }} />
  )
}
