import { nth } from '../../kit/known'
import { edgesInOrder } from './outline'
import type { Edge, Panel } from './schema'

/** Ids of mirrored panels end in the side: `wing-left`, `wing-right`. */
export const otherSideId = (id: string): string =>
  id.endsWith('-left') ? `${id.slice(0, -5)}-right` : id.endsWith('-right') ? `${id.slice(0, -6)}-left` : id
const SWAP = { left: 'right', right: 'left', top: 'top', bottom: 'bottom' } as const
const otherName = (name: string): string => name.replace(/\b(left|right)\b/, (w) => (w === 'left' ? 'right' : 'left'))

/**
 * The panel as it is on the other side of the vehicle: everything measured, turned over. Edges stay clockwise, so their
 * order turns round and each takes the corner that was at its start.
 */
export function mirrorPanel(panel: Panel): Panel {
  const edges = edgesInOrder(panel)
  const mirrored: Edge[] = [...edges].reverse().map((e) => {
    const i = edges.indexOf(e)
    const before = nth(edges, (i + edges.length - 1) % edges.length)
    return {
      ...e,
      at: SWAP[e.at],
      neighbour: e.neighbour === null ? null : otherSideId(e.neighbour),
      cornerDeg: before.cornerDeg,
      cornerRadiusMm: before.cornerRadiusMm,
    }
  })
  const flip = <T extends { xMm: number | null }>(x: T): T => ({
    ...x,
    xMm: x.xMm === null ? null : Math.max(0, panel.widthMm - x.xMm),
  })
  return {
    ...panel,
    id: otherSideId(panel.id),
    name: otherName(panel.name),
    side: panel.side === 'left' ? 'right' : panel.side === 'right' ? 'left' : panel.side,
    edges: (['top', 'right', 'bottom', 'left'] as const).flatMap((at) => mirrored.filter((e) => e.at === at)),
    recesses: panel.recesses.map((r) => ({ ...flip(r), openAt: r.openAt && SWAP[r.openAt] })),
    bodyLines: panel.bodyLines.map((l) =>
      l.along === 'height' ? { ...l, atMm: Math.max(0, panel.widthMm - l.atMm) } : l,
    ),
    raised: panel.raised.map(flip),
    holes: panel.holes.map(flip),
    zones: panel.zones.map(flip),
    nose: panel.nose && { ...panel.nose, at: SWAP[panel.nose.at] },
    wraps: panel.wraps.map((w) => ({ ...w, at: SWAP[w.at] })),
  }
}

/** The measures of `from` on the panel across, which keeps its own name, film and choice to be wrapped. */
export const measuresFromOtherSide = (own: Panel, from: Panel): Panel => ({
  ...mirrorPanel(from),
  id: own.id,
  name: own.name,
  side: own.side,
  wrap: own.wrap,
  filmId: own.filmId,
  note: own.note,
  paintNote: own.paintNote,
  mirrored: own.mirrored,
})
