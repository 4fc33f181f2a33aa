import { vehicles } from '@/db/queries/vehicles'
import { memberOrDoor } from '@/web/actions/session'
import { Vehicles } from '@/web/vehicles/vehicles'

export const metadata = { title: 'Vehicles' }

export default async function VehiclesPage() {
  const { who, units, shop } = await memberOrDoor()
  return (
    <Vehicles vehicles={await vehicles(who)} units={{ ...units, currency: shop.currency, timeZone: shop.timeZone }} />
  )
}
