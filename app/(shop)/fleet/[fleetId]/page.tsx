import { notFound } from 'next/navigation'
import { z } from 'zod'
import { may } from '@/core/model/rights/rights'
import { fleetFile } from '@/db/queries/fleet'
import { requireMember } from '@/web/actions/session'
import { FleetResult } from '@/web/fleet/fleet-result'

export const metadata = { title: 'Fleet' }

export default async function FleetResultPage({ params }: { params: Promise<{ fleetId: string }> }) {
  const { fleetId } = await params
  const { who, units, shop } = await requireMember()
  const file = z.uuid().safeParse(fleetId).success ? await fleetFile(who, fleetId) : null
  if (!file) notFound()
  return (
    <FleetResult
      file={file}
      units={{ ...units, currency: shop.currency, timeZone: shop.timeZone }}
      mayStart={may(who.role, 'fleet')}
    />
  )
}
