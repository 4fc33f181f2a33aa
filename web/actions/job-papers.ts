import { readingTable } from '@/core/stages/bay/reading-table'
import { panelTable } from '@/core/stages/tape/panel-table'
import { environment } from '@/db/environment'
import { openJob } from '@/db/queries/jobs'
import { photoBytes } from '@/db/queries/photos'
import { writeCsv } from '@/web/kit/csv'
import type { MadeFile, PaperInput } from '@/web/threads/jobs'
import { fileResponse, gives, isUuid, type Member } from './routes'
import { threads } from './threads'

/** All that a paper of a job is made from; null where this member has no such job. */
async function paperInput({ who, shop, units }: Member, jobId: string): Promise<PaperInput | null> {
  const now = new Date()
  const file = isUuid(jobId) ? await openJob(who, jobId, now) : null
  if (!file) return null
  return {
    jobId,
    plan: file.plan,
    handedOver: file.handedOver,
    catalogue: file.catalogue,
    ledger: file.ledger,
    units: { ...units, currency: shop.currency, timeZone: shop.timeZone },
    shop: { name: shop.name, town: shop.town },
    now: now.toISOString(),
    appUrl: environment().APP_URL ?? '',
  }
}

const asResponse = (made: MadeFile): Response =>
  made.kind === 'file' ? fileResponse(made.body, made) : new Response(made.said, { status: made.status })

const paper = (jobId: string, make: (input: PaperInput, member: Member) => Promise<MadeFile>): Promise<Response> =>
  gives(async (member) => {
    const input = await paperInput(member, jobId)
    return input && asResponse(await make(input, member))
  })

/** The handover paper of a job. */
export const handoverPdf = (jobId: string) => paper(jobId, (input) => threads().run('handover', input))

/** The inspection on one page, for the customer. */
export const inspectionPdf = (jobId: string) =>
  paper(jobId, async (input, { who }) => {
    const photos: { id: string; data: Uint8Array }[] = []
    // One page has room for six.
    for (const id of input.plan.walkaround.damage.flatMap((d) => d.photoIds).slice(0, 6)) {
      const data = await photoBytes(who, id)
      if (data) photos.push({ id, data: new Uint8Array(data) })
    }
    return threads().run('inspection', { ...input, photos })
  })

/** The blank measurement sheet. */
export const measurePdf = (jobId: string) => paper(jobId, (input) => threads().run('measure', input))

/** What each heat point reached, and what is missing. */
export const heatRecordPdf = (jobId: string) => paper(jobId, (input) => threads().run('heatRecord', input))

/** Edges and corners, panel by panel. */
export const trimPlanPdf = (jobId: string) => paper(jobId, (input) => threads().run('trimPlan', input))

/** How each panel is laid. */
export const layingCardsPdf = (jobId: string) => paper(jobId, (input) => threads().run('layingCards', input))

/** One of the files of a job's layout of one film: drawings, tables, cut sheet, labels. */
export const layoutFile = (jobId: string, name: string, query: URLSearchParams) =>
  paper(jobId, (input) =>
    threads().run('layoutFile', { ...input, name, filmId: query.get('film'), size: query.get('size') }),
  )

/** The measured panels as CSV. */
export const panelsCsv = (jobId: string): Promise<Response> =>
  gives(async ({ who }) => {
    const file = isUuid(jobId) ? await openJob(who, jobId, new Date()) : null
    if (!file) return null
    return fileResponse(`\uFEFF${writeCsv(panelTable(file.plan.panels))}`, {
      type: 'text/csv; charset=utf-8',
      name: `panels-${jobId.slice(0, 8)}.csv`,
    })
  })

/** The readings as CSV, with places that were never read. */
export const readingsCsv = (jobId: string): Promise<Response> =>
  gives(async ({ who }) => {
    const file = isUuid(jobId) ? await openJob(who, jobId, new Date()) : null
    if (!file) return null
    const { plan, catalogue, ledger } = file
    const points = await threads().run('points', { plan, catalogue, ledger })
    const panelName = (id: string) => plan.panels.find((p) => p.id === id)?.name ?? id
    return fileResponse(`\uFEFF${writeCsv(readingTable(points, ledger, panelName))}`, {
      type: 'text/csv; charset=utf-8',
      name: `readings-${jobId.slice(0, 8)}.csv`,
    })
  })
