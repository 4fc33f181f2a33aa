import { notFound } from 'next/navigation'
import type { ReactNode } from 'react'
import { openJob } from '@/db/queries/jobs'
import { requireMember } from '@/web/actions/session'
import { JobProvider } from '@/web/job/job-state'

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i

export default async function JobLayout({
  children,
  params,
}: {
  children: ReactNode
  params: Promise<{ jobId: string }>
}) {
  const { jobId } = await params
  const { who, units, shop } = await requireMember()
  const file = UUID.test(jobId) ? await openJob(who, jobId, new Date(), 'own') : null
  if (!file) notFound()
  return (
    <JobProvider
      key={jobId}
      start={{
        jobId,
        number: file.head.head,
        shopHead: file.shopHead,
        plan: file.plan,
        handedOver: file.handedOver,
        ledger: file.ledger,
        catalogue: file.catalogue,
        units: { ...units, currency: shop.currency, timeZone: shop.timeZone },
        member: { id: who.memberId, name: who.name, role: who.role },
      }}
    >
      {children}
    </JobProvider>
  )
}
