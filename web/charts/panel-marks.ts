import type { Point } from '@/core/kit/plane'
import { Outline, outlineOf } from '@/core/model/vehicle/outline'
import type { Panel } from '@/core/model/vehicle/schema'
import { questionsOf } from '@/core/stages/tape/tape-answer'
import { placeMeasure, type DimensionMark } from './measure-place'

export interface PanelMarks {
  d: string
  view: { x: number; y: number; w: number; h: number }
  unit: number
  dimensions: DimensionMark[]
  recesses: {
    id: string
    name: string
    x: number
    y: number
    w: number
    h: number
    open: Panel['recesses'][number]['openAt']
  }[]
  parts: {
    id: string
    name: string
    kind: 'raised' | 'hole' | 'convex' | 'concave'
    x: number
    y: number
    w: number
    h: number
  }[]
  lines: { id: string; name: string; from: Point; to: Point; seam: boolean }[]
  nose: { from: Point; to: Point } | null
  /** Sizes of what is on the panel, and rises of its curved edges: typed in place as well. */
  sizes: { key: string; name: string; mm: number; at: Point; turnDeg: number }[]
}

const p = ({ x, y }: Point): string => `${x.toFixed(1)},${y.toFixed(1)}`

/** A panel drawn large with every measure on it. mm; `unit` is a size that suits its lettering. */
export function panelMarks(panel: Panel): PanelMarks {
  const outline = outlineOf(panel)
  const [w, h] = [outline.widthMm, outline.heightMm]
  const unit = Math.max(w, h, Math.min(w, h) * 2.2) / 26
  const [kx, ky] = [w / panel.widthMm, h / panel.heightMm]
  const placed = <T extends { xMm: number | null; yMm: number | null }>(
    x: T,
    i: number,
    of: number,
    bw: number,
    bh: number,
  ) => ({
    x: (x.xMm === null ? (w * (i + 1)) / (of + 1) : x.xMm * kx) - bw / 2,
    y: (x.yMm === null ? h / 2 : x.yMm * ky) - bh / 2,
  })
  const recesses = panel.recesses.map((r, i) => ({
    id: r.id,
    name: r.name,
    w: r.mouthWidthMm * kx,
    h: r.mouthHeightMm * ky,
    open: r.openAt,
    ...placed(r, i, panel.recesses.length, r.mouthWidthMm * kx, r.mouthHeightMm * ky),
  }))
  const part =
    (kind: PanelMarks['parts'][number]['kind']) => (x: Panel['holes'][number], i: number, all: readonly unknown[]) => ({
      id: x.id,
      name: x.name,
      kind,
      w: x.widthMm * kx,
      h: x.heightMm * ky,
      ...placed(x, i, all.length, x.widthMm * kx, x.heightMm * ky),
    })
  const parts = [
    ...panel.raised.map(part('raised')),
    ...panel.holes.map(part('hole')),
    ...panel.zones.map((z, i, all) => part(z.kind)(z, i, all)),
  ]
  const lines = panel.bodyLines.map((l) => {
    const [from, to] =
      l.along === 'width'
        ? [
            { x: 0, y: l.atMm * ky },
            { x: w, y: l.atMm * ky },
          ]
        : [
            { x: l.atMm * kx, y: 0 },
            { x: l.atMm * kx, y: h },
          ]
    return { id: l.id, name: l.name, from, to, seam: l.seam }
  })
  const noseAt = panel.nose && outline.edges.filter((e) => e.edge.at === panel.nose?.at)
  const nose = noseAt?.length
    ? { from: (noseAt[0] as (typeof noseAt)[0]).from, to: (noseAt.at(-1) as (typeof noseAt)[0]).to }
    : null
  const out = unit * 3.6
  const dimensions = questionsOf(panel).flatMap((q) => {
    const mark = placeMeasure(q, panel, { w, h, unit, out, recesses, lines })
    return mark ? [{ question: q, ...mark }] : []
  })
  const sizes = sizesOf({ unit, recesses, panel, parts, outline })
  const pad = unit * 6.2
  return {
    d: `M${outline.path.map(p).join('L')}Z`,
    view: { x: -pad, y: -pad, w: w + 2 * pad, h: h + 2 * pad },
    unit,
    dimensions,
    recesses,
    parts,
    lines,
    nose,
    sizes,
  }
}

/** Sizes of what is on the panel and rises of its curved edges, each where it is typed. */
function sizesOf({
  unit,
  recesses,
  panel,
  parts,
  outline,
}: {
  unit: number
  recesses: {
    x: number
    y: number
    id: string
    name: string
    w: number
    h: number
    open: 'left' | 'right' | 'top' | 'bottom' | null
  }[]
  panel: Panel
  parts: {
    x: number
    y: number
    id: string
    name: string
    kind: 'raised' | 'convex' | 'concave' | 'hole'
    w: number
    h: number
  }[]
  outline: Outline
}) {
  const size = (key: string, name: string, mm: number, x: number, y: number, turnDeg = 0) => ({
    key,
    name,
    mm,
    at: { x, y },
    turnDeg,
  })
  const around = (
    list: string,
    x: { id: string; name: string; x: number; y: number; w: number; h: number },
    fields: [string, string],
    mm: [number, number],
  ) => [
    size(`${list}.${x.id}.${fields[0]}`, `${x.name} width`, mm[0], x.x + x.w / 2, x.y - unit * 0.3),
    size(`${list}.${x.id}.${fields[1]}`, `${x.name} height`, mm[1], x.x - unit * 0.3, x.y + x.h / 2, -90),
  ]
  const sizes = [
    ...recesses.flatMap((x, i) =>
      around(
        'recesses',
        x,
        ['mouthWidthMm', 'mouthHeightMm'],
        [panel.recesses[i]?.mouthWidthMm ?? 0, panel.recesses[i]?.mouthHeightMm ?? 0],
      ),
    ),
    ...parts.flatMap((x) => {
      const list = x.kind === 'raised' ? 'raised' : x.kind === 'hole' ? 'holes' : 'zones'
      const own = (panel[list] as readonly { id: string; widthMm: number; heightMm: number }[]).find(
        (r) => r.id === x.id,
      )
      return own
        ? around(
            list,
            { ...x, y: x.y + (list === 'raised' ? x.h + unit * 2.2 : 0), h: 0 },
            ['widthMm', 'heightMm'],
            [own.widthMm, own.heightMm],
          ).slice(0, list === 'raised' ? 1 : 2)
        : []
    }),
    ...outline.edges
      .filter((e) => e.edge.riseMm !== 0)
      .map((e) => {
        const m = { x: (e.from.x + e.to.x) / 2, y: (e.from.y + e.to.y) / 2 }
        const length = Math.hypot(e.to.x - e.from.x, e.to.y - e.from.y) || 1
        const [nx, ny] = [(e.to.y - e.from.y) / length, -(e.to.x - e.from.x) / length]
        return size(
          `edges.${e.edge.id}.riseMm`,
          `${e.edge.id} rise`,
          e.edge.riseMm,
          m.x + (nx * e.edge.riseMm) / 2,
          m.y + (ny * e.edge.riseMm) / 2,
        )
      }),
  ]
  return sizes
}
