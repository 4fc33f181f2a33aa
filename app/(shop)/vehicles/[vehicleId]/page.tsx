import { notFound } from 'next/navigation'
import { may } from '@/core/model/rights/rights'
import { vehicleFile } from '@/db/queries/vehicles'
import { requireMember } from '@/web/actions/session'
import { VehicleSheet } from '@/web/vehicles/vehicle-sheet'

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i
export const metadata = { title: 'Measured vehicle' }

export default async function VehiclePage({ params }: { params: Promise<{ vehicleId: string }> }) {
  const { vehicleId } = await params
  const { who, units, shop } = await requireMember()
  const file = UUID.test(vehicleId) ? await vehicleFile(who, vehicleId) : null
  if (!file) notFound()
  return (
    <VehicleSheet
      key={file.head.head}
      file={file}
      units={{ ...units, currency: shop.currency, timeZone: shop.timeZone }}
      mayCorrect={may(who.role, 'vehicles')}
    />
  )
}
