import { renderToBuffer } from '@react-pdf/renderer'
import { handoverOf } from '@/core/log/handover'
import { reckon } from '@/core/reckon/reckon'
import { openJob } from '@/db/queries/jobs'
import { HandoverDocument } from '@/web/handover/handover-document'
import { OPEN_WORDS, pointName } from '@/web/handover/point-name'
import { formatter } from '@/web/words/format'
import { broken } from './answer'
import { currentMember } from './session'

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i

/** The handover paper of a job, in the units of the member who prints it. */
export async function handoverPdf(jobId: string): Promise<Response> {
  const member = await currentMember()
  if (!member) return new Response('Sign in first', { status: 401 })
  const now = new Date()
  const file = UUID.test(jobId) ? await openJob(member.who, jobId, now) : null
  if (!file) return new Response('Not found', { status: 404 })
  try {
    const fmt = formatter({ ...member.units, currency: member.shop.currency, timeZone: member.shop.timeZone })
    const handover = handoverOf(
      file.plan,
      reckon(file.plan, file.catalogue, file.ledger),
      file.catalogue.stock,
      file.ledger,
    )
    const printedAt = fmt.moment(now.toISOString(), { dateStyle: 'medium' })
    const shop = member.shop.town ? `${member.shop.name}, ${member.shop.town}` : member.shop.name
    const pdf = await renderToBuffer(
      <HandoverDocument
        plan={file.plan}
        handover={handover}
        fmt={fmt}
        shop={shop}
        printedAt={printedAt}
        openWords={handover.open.map((o) => OPEN_WORDS[o])}
        pointName={pointName}
      />,
    )
    return new Response(new Uint8Array(pdf), {
      headers: {
        'content-type': 'application/pdf',
        'content-disposition': `inline; filename="handover-${jobId.slice(0, 8)}.pdf"`,
      },
    })
  } catch (error) {
    return new Response(`The paper could not be made. Reference ${broken(error).error.facts?.reference ?? ''}`, {
      status: 500,
    })
  }
}
