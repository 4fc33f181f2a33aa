import type { Point } from '@/core/kit/plane'
import { Outline, outlineOf } from '@/core/model/vehicle/outline'
import type { Panel } from '@/core/model/vehicle/schema'
import { questionsOf, type TapeQuestion } from '@/core/stages/tape/tape-answer'
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

const BY_ITSELF: readonly TapeQuestion['ask'][] = ['gap', 'seal']

/**
 * A panel drawn large with every measure on it, or with the one that is asked for. mm; `unit` is a size that suits its
 * lettering.
 */
export function panelMarks(panel: Panel, only?: string): PanelMarks {
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
  const lines = linesOf(panel, { w, h, kx, ky })
  const nose = noseOf(panel, outline)
  const out = unit * 3.6
  // What an edge meets stands where its length does: it is drawn where it alone is asked for.
  const asked = questionsOf(panel).filter((q) => (only === undefined ? !BY_ITSELF.includes(q.ask) : q.field === only))
  const dimensions = asked.flatMap((q) => {
    const mark = placeMeasure(q, panel, { w, h, unit, out, recesses, lines })
    return mark ? [{ question: q, ...mark }] : []
  })
  const sizes = only === undefined ? sizesOf({ unit, recesses, panel, parts, outline }) : []
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

/** Creases and other lines of a panel, from rim to rim. */
function linesOf(
  panel: Panel,
  { w, h, kx, ky }: { w: number; h: number; kx: number; ky: number },
): PanelMarks['lines'] {
  return panel.bodyLines.map(({ id, name, seam, along, atMm }) => {
    const [x, y] = [atMm * kx, atMm * ky]
    const [from, to] =
      along === 'width'
        ? [
            { x: 0, y },
            { x: w, y },
          ]
        : [
            { x, y: 0 },
            { x, y: h },
          ]
    return { id, name, from, to, seam }
  })
}

/** The edges that a nose turns over, from the begin of the first to the end of the last. */
function noseOf(panel: Panel, outline: Outline): PanelMarks['nose'] {
  const edges = panel.nose ? outline.edges.filter((e) => e.edge.at === panel.nose?.at) : []
  const [first, last] = [edges[0], edges.at(-1)]
  return first && last ? { from: first.from, to: last.to } : null
}

type Named = Omit<PanelMarks['parts'][number], 'kind'>

/** Sizes of what is on the panel and rises of its curved edges, each where it is typed. */
function sizesOf({
  unit,
  recesses,
  panel,
  parts,
  outline,
}: {
  unit: number
  recesses: readonly Named[]
  panel: Panel
  parts: PanelMarks['parts']
  outline: Outline
}) {
  const around = (key: string, { name, x, y, w, h }: Named, fields: [string, string], mm: [number, number]) => [
    size(`${key}.${fields[0]}`, `${name} width`, mm[0], { x: x + w / 2, y: y - unit * 0.3 }),
    size(`${key}.${fields[1]}`, `${name} height`, mm[1], { x: x - unit * 0.3, y: y + h / 2 }, -90),
  ]
  return [
    ...recesses.flatMap((x, i) => {
      const { mouthWidthMm = 0, mouthHeightMm = 0 } = panel.recesses[i] ?? {}
      return around(`recesses.${x.id}`, x, ['mouthWidthMm', 'mouthHeightMm'], [mouthWidthMm, mouthHeightMm])
    }),
    ...parts.flatMap((x) => {
      const list = x.kind === 'raised' ? 'raised' : x.kind === 'hole' ? 'holes' : 'zones'
      const all: readonly { id: string; widthMm: number; heightMm: number }[] = panel[list]
      const own = all.find((r) => r.id === x.id)
      if (!own) return []
      // Below what stands out there is room for one figure only.
      const below = { ...x, y: x.y + (list === 'raised' ? x.h + unit * 2.2 : 0), h: 0 }
      return around(`${list}.${x.id}`, below, ['widthMm', 'heightMm'], [own.widthMm, own.heightMm]).slice(
        0,
        list === 'raised' ? 1 : 2,
      )
    }),
    ...outline.edges.filter((e) => e.edge.riseMm !== 0).map(riseOf),
  ]
}

const size = (key: string, name: string, mm: number, at: Point, turnDeg = 0) => ({ key, name, mm, at, turnDeg })

/** The rise of a curved edge, in the middle between its chord and its arc. */
function riseOf({ edge, from, to }: Outline['edges'][number]) {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1
  const out = edge.riseMm / 2 / length
  const at = { x: (from.x + to.x) / 2 + (to.y - from.y) * out, y: (from.y + to.y) / 2 - (to.x - from.x) * out }
  return size(`edges.${edge.id}.riseMm`, `${edge.id} rise`, edge.riseMm, at)
}
