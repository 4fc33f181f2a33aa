import { renderToBuffer } from '@react-pdf/renderer'
import type { ReactElement } from 'react'
import { handedOver, handoverOf } from '@/core/stages/handover/handover'
import { reckon } from '@/core/reckon/reckon'
import { HandoverDocument } from '@/web/handover/handover-document'
import { OPEN_WORDS, pointName } from '@/web/handover/point-name'
import { TrimPlanDocument } from '@/web/edges/trim-plan-document'
import { HeatRecordDocument } from '@/web/heat/heat-record-document'
import { CardsDocument } from '@/web/run-sheet/cards-document'
import { MeasureDocument } from '@/web/tape/measure-document'
import { InspectionDocument } from '@/web/walkaround/inspection-document'
import { formatter } from '@/web/words/format'
import type { Jobs, MadeFile, PaperInput } from './jobs'

const shopLine = ({ shop }: PaperInput): string => (shop.town ? `${shop.name}, ${shop.town}` : shop.name)

/** A document as a PDF file to look at. */
export async function pdf(name: string, document: ReactElement): Promise<MadeFile> {
  const body = new Uint8Array(await renderToBuffer(document as Parameters<typeof renderToBuffer>[0]))
  return { kind: 'file', body, type: 'application/pdf', name: `${name}.pdf`, inline: true }
}

/** The handover paper of a job, in the units of the member who prints it. */
export function handoverPaper(input: PaperInput): Promise<MadeFile> {
  const { catalogue } = input
  const fmt = formatter(input.units)
  const over = handedOver(input.ledger)
  const plan = (over && input.handedOver) ?? input.plan
  const ledger = over?.until ?? input.ledger
  const handover = handoverOf(plan, reckon(plan, catalogue, ledger), catalogue.stock, ledger)
  return pdf(
    `handover-${input.jobId.slice(0, 8)}`,
    <HandoverDocument
      plan={plan}
      handover={handover}
      fmt={fmt}
      shop={shopLine(input)}
      printedAt={fmt.moment(input.now, { dateStyle: 'medium' })}
      openWords={handover.open.map((o) => OPEN_WORDS[o])}
      pointName={pointName}
    />,
  )
}

/** The inspection on one page, for the customer. */
export function inspectionPaper(input: Jobs['inspection']['input']): Promise<MadeFile> {
  const fmt = formatter(input.units)
  const { findings } = reckon(input.plan, input.catalogue, [])
  return pdf(
    `inspection-${input.jobId.slice(0, 8)}`,
    <InspectionDocument
      plan={input.plan}
      findings={findings.filter((f) => f.stage === 'walkaround')}
      photos={input.photos.map(({ id, data }) => ({ id, data: Buffer.from(data) }))}
      fmt={fmt}
      shop={shopLine(input)}
      printedAt={fmt.moment(input.now, { dateStyle: 'medium', timeStyle: 'short' })}
    />,
  )
}

/** The blank measurement sheet: every panel with its arrow and boxes for what the tape says. */
export const measurePaper = (input: PaperInput): Promise<MadeFile> =>
  pdf(
    `measure-${input.jobId.slice(0, 8)}`,
    <MeasureDocument plan={input.plan} fmt={formatter(input.units)} shop={input.shop.name} />,
  )

/** What each place reached, on the vehicle and in a table, with what is missing. */
export function heatRecordPaper(input: PaperInput): Promise<MadeFile> {
  const { plan, catalogue, ledger } = input
  const fmt = formatter(input.units)
  const { points } = reckon(plan, catalogue, ledger)
  const printedAt = fmt.moment(input.now, { dateStyle: 'medium', timeStyle: 'short' })
  const name = `heat-${input.jobId.slice(0, 8)}`
  return pdf(name, <HeatRecordDocument {...{ plan, points, fmt, printedAt }} shop={shopLine(input)} />)
}

/** Edges and corners panel by panel, section by section. */
export function trimPlanPaper(input: PaperInput): Promise<MadeFile> {
  const { plan, catalogue, ledger } = input
  const fmt = formatter(input.units)
  const { edges, corners } = reckon(plan, catalogue, ledger).edges
  const printedAt = fmt.moment(input.now, { dateStyle: 'medium' })
  const name = `trim-${input.jobId.slice(0, 8)}`
  return pdf(name, <TrimPlanDocument {...{ plan, edges, corners, fmt, printedAt }} shop={shopLine(input)} />)
}

/** How each panel is laid: drawing, order, steps. */
export function layingCardsPaper(input: PaperInput): Promise<MadeFile> {
  const { plan, catalogue, ledger } = input
  const fmt = formatter(input.units)
  const reckoning = reckon(plan, catalogue, ledger)
  const printedAt = fmt.moment(input.now, { dateStyle: 'medium' })
  const name = `cards-${input.jobId.slice(0, 8)}`
  return pdf(name, <CardsDocument {...{ plan, reckoning, fmt, printedAt }} shop={shopLine(input)} />)
}
