import type { Point } from '../../kit/plane'
import { outlineOf } from '../../model/vehicle/outline'
import type { Edge, Panel } from '../../model/vehicle/schema'

/** Where hands open film that will not turn a corner. Common practice, no source. */
export const RELIEF_AT = ['arch_ends', 'lamp_ends', 'pillars', 'door_front'] as const
export type ReliefAt = (typeof RELIEF_AT)[number]

/** A corner of the outline and the direction into the panel that halves it, of length 1. Panel's surface, mm. */
export interface ReliefPlace {
  at: Point
  inward: Point
}

/** At the ends of edges that meet these. */
const ENDS_OF: Record<Exclude<ReliefAt, 'door_front'>, readonly Edge['meets'][]> = {
  arch_ends: ['wheel_arch'],
  lamp_ends: ['lamp'],
  pillars: ['glass', 'window_trim'],
}

/**
 * The corners of a panel at which film is cut open rather than pulled: both ends of a wheel arch, of a lamp, the feet of
 * a pillar beside glass, the front corners of a door; from its measured edges.
 */
export function reliefPlaces(panel: Panel): { where: ReliefAt; places: ReliefPlace[] }[] {
  const { edges, widthMm, heightMm } = outlineOf(panel)
  // Sizes along the surface are longer than those of the outline in its plane.
  const onSurface = (p: Point): Point => ({
    x: (p.x * panel.widthMm) / widthMm,
    y: (p.y * panel.heightMm) / heightMm,
  })
  /** The corner at the begin of edge i. */
  const corner = (i: number): ReliefPlace | null => {
    const [before, after] = [edges[(i + edges.length - 1) % edges.length], edges[i % edges.length]]
    if (!before || !after) return null
    const [a, b] = [inwardOf(before), inwardOf(after)]
    const [x, y] = [a.x + b.x, a.y + b.y]
    const long = Math.hypot(x, y)
    // Two edges that turn back on each other leave no room for a cut.
    return long < LEAST_TURN ? null : { at: onSurface(after.from), inward: { x: x / long, y: y / long } }
  }
  const found = (indices: readonly number[]): ReliefPlace[] =>
    [...new Set(indices.map((i) => i % edges.length))].flatMap((i) => corner(i) ?? [])
  const ends = (meets: readonly Edge['meets'][]): ReliefPlace[] =>
    found(edges.flatMap(({ edge }, i) => (meets.includes(edge.meets) ? [i, i + 1] : [])))
  const front = panel.side === 'left' ? 'left' : panel.side === 'right' ? 'right' : null
  const isDoor = panel.kind === 'door' && front !== null
  return [
    ...Object.entries(ENDS_OF).map(([where, meets]) => ({ where: where as ReliefAt, places: ends(meets) })),
    {
      where: 'door_front' as const,
      places: isDoor ? found(edges.flatMap(({ edge }, i) => (edge.at === front ? [i, i + 1] : []))) : [],
    },
  ].filter((group) => group.places.length > 0)
}
const LEAST_TURN = 0.2

/** Edges run clockwise, y down: inside lies to the right of them. */
function inwardOf({ from, to }: { from: Point; to: Point }): Point {
  const long = Math.hypot(to.x - from.x, to.y - from.y) || 1
  return { x: -(to.y - from.y) / long, y: (to.x - from.x) / long }
}
