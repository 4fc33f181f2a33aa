import { renderToBuffer } from '@react-pdf/renderer'
import { panelTable } from '@/core/vehicle/panel-table'
import { reckon } from '@/core/reckon/reckon'
import { openJob } from '@/db/queries/jobs'
import { photoBytes } from '@/db/queries/photos'
import { writeCsv } from '@/web/kit/csv'
import { MeasureDocument } from '@/web/tape/measure-document'
import { InspectionDocument } from '@/web/walkaround/inspection-document'
import { formatter } from '@/web/words/format'
import { broken } from './answer'
import { currentMember } from './session'

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i

/** A job's file for whoever asks, or the answer that they get instead. */
export async function opened(jobId: string) {
  const member = await currentMember()
  if (!member) return new Response('Sign in first', { status: 401 })
  const now = new Date()
  const file = UUID.test(jobId) ? await openJob(member.who, jobId, now) : null
  if (!file) return new Response('Not found', { status: 404 })
  const fmt = formatter({ ...member.units, currency: member.shop.currency, timeZone: member.shop.timeZone })
  return { member, file, fmt, now }
}

export async function paper(name: string, make: () => Promise<Buffer>): Promise<Response> {
  try {
    return new Response(new Uint8Array(await make()), {
      headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="${name}.pdf"` },
    })
  } catch (error) {
    return new Response(`The paper could not be made. Reference ${broken(error).error.facts?.reference ?? ''}`, {
      status: 500,
    })
  }
}

/** The inspection on one page, for the customer. */
export async function inspectionPdf(jobId: string): Promise<Response> {
  const job = await opened(jobId)
  if (job instanceof Response) return job
  const { member, file, fmt, now } = job
  return paper(`inspection-${jobId.slice(0, 8)}`, async () => {
    const photos: { id: string; data: Buffer }[] = []
    // One page has room for six.
    for (const id of file.plan.walkaround.damage.flatMap((d) => d.photoIds).slice(0, 6)) {
      const bytes = await photoBytes(member.who, id)
      if (bytes) photos.push({ id, data: bytes })
    }
    const { findings } = reckon(file.plan, file.catalogue, [])
    return renderToBuffer(
      <InspectionDocument
        plan={file.plan}
        findings={findings.filter((f) => f.stage === 'walkaround')}
        photos={photos}
        fmt={fmt}
        shop={member.shop.town ? `${member.shop.name}, ${member.shop.town}` : member.shop.name}
        printedAt={fmt.moment(now.toISOString(), { dateStyle: 'medium', timeStyle: 'short' })}
      />,
    )
  })
}

/** The blank measurement sheet: every panel with its arrow and boxes for what the tape says. */
export async function measurePdf(jobId: string): Promise<Response> {
  const job = await opened(jobId)
  if (job instanceof Response) return job
  const { member, file, fmt } = job
  return paper(`measure-${jobId.slice(0, 8)}`, () =>
    renderToBuffer(<MeasureDocument plan={file.plan} fmt={fmt} shop={member.shop.name} />),
  )
}

/** The measured panels as CSV. */
export async function panelsCsv(jobId: string): Promise<Response> {
  const job = await opened(jobId)
  if (job instanceof Response) return job
  return new Response(`\uFEFF${writeCsv(panelTable(job.file.plan.panels))}`, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="panels-${jobId.slice(0, 8)}.csv"`,
    },
  })
}
