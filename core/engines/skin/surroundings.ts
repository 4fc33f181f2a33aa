import { within, type Point } from '../../kit/plane'
import type { SkinEdge, SkinPanel } from './skin-panel'

/** What stands between panels and takes no film. */
export interface Surrounding {
  id: string
  kind: 'glass' | 'lamp'
  /** Clockwise or not, on the map. mm */
  path: Point[]
}

/** The least and the most depth that is drawn, and the step by which the next panel is looked for. mm */
const DEPTH = {
  glass: { usual: 400, least: 60 },
  lamp: { usual: 90, least: 30 },
} as const
const STEP_MM = 10
/** Glass is framed: it stands in from the sheet and narrows away from it. */
const FRAME_MM = 14
const NARROWS = 0.06
const LENS_POINTS = 12

const kindOf = ({ meets }: SkinEdge): Surrounding['kind'] | null =>
  meets === 'glass' || meets === 'window_trim' ? 'glass' : meets === 'lamp' ? 'lamp' : null

/**
 * Glass and lamps as far as the edges that meet them tell: glass from the edge across to the next panel, once where both
 * name each other; a lamp as a lens along its edge. They are drawn, and measured by nobody.
 */
export function surroundingsOf(skin: { panels: readonly SkinPanel[] }): Surrounding[] {
  const byId = new Map(skin.panels.map((p) => [p.id, p]))
  const done = new Set<string>()
  const panes: Surrounding[] = []
  // The longest first: what would lie in its middle on a pane that is there is the same glass seen from another edge.
  const runs = skin.panels.flatMap((panel) => panel.edges.map((edge) => ({ panel, edge })))
  runs.sort((a, b) => b.edge.lengthMm - a.edge.lengthMm)
  for (const { panel, edge } of runs) {
    const kind = kindOf(edge)
    if (!kind || panel.on !== null) continue
    const pair = [panel.id, edge.neighbour ?? edge.id].sort().join('/')
    if (kind === 'glass' && done.has(pair)) continue
    const room = roomBefore(edge, panel, skin.panels, DEPTH[kind].usual * (kind === 'glass' ? 2 : 1))
    const depth = room ?? DEPTH[kind].usual / (kind === 'glass' ? 2 : 1)
    if (depth < DEPTH[kind].least) continue
    done.add(pair)
    const facing = edge.neighbour ? facingEdge(byId.get(edge.neighbour), panel.id) : undefined
    const path = kind === 'lamp' ? lens(edge, depth) : facing ? between(edge, facing) : pane(edge, depth)
    const isThere = panes.some((s) => s.kind === kind && (lies(path, s.path) || lies(s.path, path)))
    if (!isThere) panes.push({ id: `${panel.id}/${edge.id}`, kind, path })
  }
  return panes
}

/** Whether the middle of one lies on the other. */
const lies = (one: readonly Point[], other: readonly Point[]): boolean => {
  const { x, y } = middleOf(one)
  return within(other, x, y)
}
const middleOf = (path: readonly Point[]): Point => ({
  x: path.reduce((sum, p) => sum + p.x, 0) / path.length,
  y: path.reduce((sum, p) => sum + p.y, 0) / path.length,
})

/** The edge of the neighbour that names this panel back across glass. */
const facingEdge = (other: SkinPanel | undefined, id: string): SkinEdge | undefined =>
  other?.edges.find((e) => e.neighbour === id && kindOf(e) === 'glass')

/** How far it is free straight out from the middle of an edge; null where nothing comes within `most`. */
function roomBefore(edge: SkinEdge, own: SkinPanel, panels: readonly SkinPanel[], most: number): number | null {
  const at = along(edge, 0.5)
  const end = { x: at.x + edge.normal.x * most, y: at.y + edge.normal.y * most }
  const ahead = panels.filter((other) => other !== own && isBeside(other, at, end))
  for (let mm = STEP_MM; mm <= most; mm += STEP_MM) {
    const p = { x: at.x + edge.normal.x * mm, y: at.y + edge.normal.y * mm }
    if (ahead.some((other) => isInBox(other, p) && within(other.path, p.x, p.y))) return mm
  }
  return null
}
/** Whether a panel's box and that of the line from a to b have anything in common. */
const isBeside = ({ box }: SkinPanel, a: Point, b: Point): boolean =>
  box.left <= Math.max(a.x, b.x) &&
  box.right >= Math.min(a.x, b.x) &&
  box.top <= Math.max(a.y, b.y) &&
  box.bottom >= Math.min(a.y, b.y)
const isInBox = ({ box }: SkinPanel, p: Point): boolean =>
  p.x >= box.left && p.x <= box.right && p.y >= box.top && p.y <= box.bottom

const along = ({ from, to }: SkinEdge, share: number): Point => ({
  x: from.x + (to.x - from.x) * share,
  y: from.y + (to.y - from.y) * share,
})
/** A place by its share along an edge and its distance out of it. */
const outOf = (edge: SkinEdge, share: number, mm: number): Point => {
  const p = along(edge, share)
  return { x: p.x + edge.normal.x * mm, y: p.y + edge.normal.y * mm }
}

const pane = (edge: SkinEdge, depth: number): Point[] => [
  outOf(edge, NARROWS / 2, FRAME_MM),
  outOf(edge, 1 - NARROWS / 2, FRAME_MM),
  outOf(edge, 1 - 1.5 * NARROWS, depth - FRAME_MM),
  outOf(edge, 1.5 * NARROWS, depth - FRAME_MM),
]
/** Facing edges run against each other: the first one's end lies across from the other's begin. */
const between = (a: SkinEdge, b: SkinEdge): Point[] => [
  outOf(a, NARROWS / 2, FRAME_MM),
  outOf(a, 1 - NARROWS / 2, FRAME_MM),
  outOf(b, NARROWS / 2, FRAME_MM),
  outOf(b, 1 - NARROWS / 2, FRAME_MM),
]
function lens(edge: SkinEdge, room: number): Point[] {
  const long = Math.hypot(edge.to.x - edge.from.x, edge.to.y - edge.from.y)
  const depth = Math.min(room, DEPTH.lamp.usual, 0.45 * long)
  const bow = Array.from({ length: LENS_POINTS + 1 }, (_, i) => {
    const turn = (Math.PI * i) / LENS_POINTS
    return outOf(edge, 0.5 - 0.46 * Math.cos(turn), 4 + (depth - 4) * Math.sin(turn))
  })
  return [...bow, outOf(edge, 0.96, 4), outOf(edge, 0.04, 4)]
}
