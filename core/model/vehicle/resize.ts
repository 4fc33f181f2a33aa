import { nth } from '../../kit/known'
import type { Point } from '../../kit/plane'
import { edgesInOrder, outlineOf } from './outline'
import { arcLengthMm } from '../../kit/plane'
import type { Edge, Panel } from './schema'

/** A field as taped: no longer assumed. */
export const taped = (panel: Panel, ...fields: string[]): Panel => ({
  ...panel,
  assumed: panel.assumed.filter((f) => !fields.includes(f)),
})

/**
 * Width or height typed. Edges that are still assumed go with it: an outline drawn by its family is stretched to the
 * new size, and edges as long as the panel was grow with it. Edges that were taped keep their lengths.
 */
export function setSize(panel: Panel, field: 'widthMm' | 'heightMm', mm: number): Panel {
  const was = panel[field]
  const sized = taped({ ...panel, [field]: mm }, field)
  const outline = outlineOf(panel)
  if (!outline.measured || was <= 0) {
    const ends = field === 'widthMm' ? ['top', 'bottom'] : ['left', 'right']
    return {
      ...sized,
      edges: panel.edges.map((e) => (ends.includes(e.at) && e.lengthMm === was ? { ...e, lengthMm: mm } : e)),
    }
  }
  const [kx, ky] = field === 'widthMm' ? [mm / was, 1] : [1, mm / was]
  const corner = (p: Point): Point => ({ x: p.x * kx, y: p.y * ky })
  const corners = outline.edges.map((e) => corner(e.from))
  const n = corners.length
  const heading = (i: number): number => {
    const [a, b] = [nth(corners, i % n), nth(corners, (i + 1) % n)]
    return Math.atan2(b.y - a.y, b.x - a.x)
  }
  const loose = (e: Edge): boolean => panel.assumed.includes(`edges.${e.id}`)
  const edges = edgesInOrder(panel).map((e, i): Edge => {
    if (!loose(e)) return e
    const [a, b] = [nth(corners, i), nth(corners, (i + 1) % n)]
    const chord = Math.hypot(b.x - a.x, b.y - a.y)
    // A hollow that no longer fits its shorter chord is kept below the half circle.
    const riseMm = Math.sign(e.riseMm) * Math.min(Math.abs(e.riseMm), chord / 2)
    const turn = ((((heading(i + 1) - heading(i)) % (2 * Math.PI)) + 3 * Math.PI) % (2 * Math.PI)) - Math.PI
    return { ...e, riseMm, lengthMm: arcLengthMm(chord, riseMm), cornerDeg: 180 - (turn * 180) / Math.PI }
  })
  const scale = (v: number | null, k: number): number | null => (v === null ? null : v * k)
  const move = <T extends { xMm: number | null; yMm: number | null }>(x: T): T => ({
    ...x,
    xMm: scale(x.xMm, kx),
    yMm: scale(x.yMm, ky),
  })
  return {
    ...sized,
    edges,
    recesses: sized.recesses.map(move),
    raised: sized.raised.map(move),
    holes: sized.holes.map(move),
    zones: sized.zones.map(move),
    bodyLines: sized.bodyLines.map((l) => ({ ...l, atMm: l.atMm * (l.along === 'width' ? ky : kx) })),
  }
}
