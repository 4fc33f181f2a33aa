import { cutFromId } from '@/core/engines/roll/cut-from'
import { labelsOf, type Label } from '@/core/engines/roll/labels'
import { word } from '@/web/words/names'
import { registrationMarks } from '@/core/engines/pieces/drops'
import { inlayTemplates } from '@/core/engines/pieces/behind'
import { templateDrawing } from '@/core/engines/roll/template-drawing'
import { sideDrops } from '@/core/engines/pieces/side-drops'
import { shortCode } from '@/core/engines/roll/short-code'
import { qrCode } from '@/web/roll/qr'
import { safeCell } from '@/core/kit/table'
import { reckon, type Reckoning } from '@/core/reckon/reckon'
import { layoutDrawing, layoutSvg } from '@/core/engines/roll/drawing'
import type { FilmLayout } from '@/core/engines/roll/film-layout'
import { purchase } from '@/core/engines/roll/purchase'
import { writeCsv } from '@/web/kit/csv'
import { CutSheetDocument, LabelsDocument } from '@/web/roll/cut-sheet-document'
import { layoutDxf } from '@/web/roll/layout-dxf'
import { TemplatesDocument } from '@/web/roll/templates-document'
import { formatter } from '@/web/words/format'
import type { Jobs, MadeFile } from './jobs'
import { pdf } from './papers'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import type { FilmSheet } from '@/core/model/film/schema'
import type { LogRow } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'

/** Sizes of labels, mm, as printers of labels take them. */
const LABELS: Record<string, [number, number]> = { '62x29': [62, 29], '100x50': [100, 50], '100x62': [100, 62] }

const file = (body: string, type: string, name: string): MadeFile => ({
  kind: 'file',
  body: new TextEncoder().encode(body),
  type: `${type}; charset=utf-8`,
  name,
  inline: false,
})
const refused = (status: number, said: string): MadeFile => ({ kind: 'refused', status, said })
const text = (v: number) => String(Math.round(v * 10) / 10)

/** One of the files of a job's layout of one film. */
export async function layoutFileOf(input: Jobs['layoutFile']['input']): Promise<MadeFile> {
  const { jobId, name, plan, catalogue, ledger, filmId, units } = input
  const fmt = formatter(units)
  const r = reckon(plan, catalogue, ledger)
  const layout = r.layouts.find((l) => l.film.id === filmId) ?? (filmId === null ? r.layouts[0] : undefined)
  if (!layout) return refused(404, 'No such layout')
  const short = jobId.slice(0, 8)
  const rollName = (id: string) => {
    const i = layout.rolls.findIndex((x) => x.id === id)
    const roll = layout.rolls[i]
    const cutFrom = roll && catalogue.stock.find((s) => s.id === cutFromId(layout, roll, ledger))
    return cutFrom?.label ?? roll?.stock?.label ?? `new roll ${i + 1}`
  }
  const title = plan.customerRef ? `${plan.vehicle.name}, ${plan.customerRef}` : plan.vehicle.name
  const templates = () => inlayTemplates(plan.panels, plan.method, layout.pieces)
  switch (name) {
    case 'layout.svg':
      return file(layoutSvg(layoutDrawing(layout)), 'image/svg+xml', `layout-${short}.svg`)
    case 'layout.dxf':
      return file(layoutDxf(layoutDrawing(layout)), 'application/dxf', `layout-${short}.dxf`)
    case 'pieces.csv':
      return file(`\uFEFF${writeCsv(pieceTable(layout, rollName))}`, 'text/csv', `pieces-${short}.csv`)
    case 'order.csv':
      return file(
        `\uFEFF${writeCsv(orderTable(r, catalogue, ledger, units.currency))}`,
        'text/csv',
        `order-${short}.csv`,
      )
    case 'drops.csv':
      return file(`\uFEFF${writeCsv(dropTable(plan, layout.film))}`, 'text/csv', `drops-${short}.csv`)
    case 'cut-sheet.pdf':
      return pdf(
        `cut-sheet-${short}`,
        <CutSheetDocument layout={layout} fmt={fmt} job={title} shop={input.shop.name} rollName={rollName} />,
      )
    case 'templates.svg':
      return file(layoutSvg(templateDrawing(templates())), 'image/svg+xml', `templates-${short}.svg`)
    case 'templates.dxf':
      return file(layoutDxf(templateDrawing(templates())), 'application/dxf', `templates-${short}.dxf`)
    case 'templates.pdf':
      if (templates().length === 0) return refused(404, 'No piece of this film lies behind an object')
      return pdf(
        `templates-${short}`,
        <TemplatesDocument templates={templates()} job={title} shop={input.shop.name} fmt={fmt} />,
      )
    case 'labels.pdf':
      return labelsFile(input, layout, title)
    default:
      return refused(404, 'Not found')
  }
}

function pieceTable(layout: FilmLayout, rollName: (id: string) => string): string[][] {
  const head = ['piece', 'name', 'roll', 'lot', 'x_mm', 'y_mm', 'width_mm', 'length_mm', 'turn_deg']
  const rows = layout.rolls.flatMap((roll) =>
    roll.placements.map((p) =>
      [
        p.pieceId,
        layout.pieces.find((x) => x.id === p.pieceId)?.name ?? '',
        rollName(roll.id),
        roll.stock?.lot ?? '',
        text(p.xMm),
        text(p.yMm),
        text(p.widthMm),
        text(p.lengthMm),
        String(p.turnDeg),
      ].map(safeCell),
    ),
  )
  const none = layout.unplaced.map((u) =>
    [u.piece.id, u.piece.name, '', '', '', '', text(u.piece.acrossMm), text(u.piece.alongMm), ''].map(safeCell),
  )
  return [head, ...rows, ...none]
}

/** What to order, a line an offer. */
function orderTable(r: Reckoning, catalogue: Catalogue, ledger: readonly LogRow[], currency: string): string[][] {
  const rows = r.layouts.flatMap((l) => {
    const p = purchase(l.film, l, catalogue.stock, ledger)
    const start = [
      l.film.name,
      l.film.maker,
      l.film.colour.name,
      text(l.rollWidthMm),
      text(l.usedMm),
      text(l.reserveMm),
    ]
    const lines = p.lines.length > 0 ? p.lines : [{ offerId: 'nothing', lengthMm: 0, cost: 0 }]
    return lines.map((x) =>
      [
        ...start,
        x.offerId.replace(/-\d+$/, ''),
        text(x.lengthMm),
        String(Math.round(x.cost * 100) / 100),
        currency,
      ].map(safeCell),
    )
  })
  const head = [
    'film',
    'maker',
    'colour',
    'width_mm',
    'used_mm',
    'reserve_mm',
    'sold_by',
    'order_mm',
    'cost',
    'currency',
  ]
  return [head, ...rows]
}

/** The drops of a print, in the order they are laid. */
function dropTable(plan: Plan, film: FilmSheet): string[][] {
  const head = [
    'side',
    'run',
    'drop',
    'laid',
    'from_front_or_top_mm',
    'print_width_mm',
    'print_length_mm',
    'starts_across_mm',
    'marks_mm',
  ]
  const rows = sideDrops(plan, film).flatMap((s) => {
    if (!s.plan.ok) return []
    const { drops } = s.plan.value
    const last = plan.layout.drops.airflow === 'front_over_rear' || s.run === 'level'
    return drops.map((d) =>
      [
        s.side,
        s.run,
        String(d.number),
        String(last ? drops.length - d.number + 1 : d.number),
        text(d.fromMm),
        text(d.widthMm),
        text(d.lengthMm),
        text(d.startMm),
        registrationMarks(d)
          .map((m) => `${text(m.xMm)}/${text(m.yMm)}`)
          .join(' '),
      ].map(safeCell),
    )
  })
  return [head, ...rows]
}

/** Labels of every piece and rest. */
function labelsFile(input: Jobs['layoutFile']['input'], layout: FilmLayout, title: string) {
  const { jobId, catalogue, ledger } = input
  const fmt = formatter(input.units)
  const size = LABELS[input.size ?? '100x50']
  if (!size) return refused(400, `No such label. Sizes: ${Object.keys(LABELS).join(', ')}`)
  const lengths = (l: Label) => `${fmt.text(fmt.length(l.acrossMm))} across × ${fmt.text(fmt.length(l.alongMm))} along`
  const takes = (l: Label) =>
    l.takes.length > 0 ? `, takes a ${l.takes.map((k) => word('panel', k).toLowerCase()).join(', ')}` : ''
  // Opens the piece in the bay, for whoever is signed in there; names nothing that a stranger could use.
  const link = (l: Label) =>
    l.kind === 'piece'
      ? `${input.appUrl}/jobs/${jobId}/bay?piece=${encodeURIComponent(l.id)}`
      : `${input.appUrl}/jobs/${jobId}/cut`
  const labels = labelsOf(layout, catalogue.stock, ledger).map((l) => ({
    name: l.name,
    size: lengths(l),
    film: layout.film.name,
    lot: l.from ? `${l.from.label}, lot ${l.from.lot}` : 'lot ____________',
    job: title,
    code: l.kind === 'piece' ? shortCode(l.id) : '',
    arrow: l.kind === 'piece' ? 'ARROW: top or front of the panel' : `ARROW: the roll’s direction${takes(l)}`,
    qr: qrCode(link(l)),
  }))
  return pdf(
    `labels-${jobId.slice(0, 8)}`,
    <LabelsDocument labels={labels} widthMm={size[0]} heightMm={size[1]} shop={input.shop.name} />,
  )
}
