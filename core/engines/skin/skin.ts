import { keptFor } from '../../kit/kept'
import { nth } from '../../kit/known'
import { boxOf, type Box, type Point } from '../../kit/plane'
import { outlineOf } from '../../model/vehicle/outline'
import type { Panel } from '../../model/vehicle/schema'
import { arrange, back, partOverlaps } from './rows'
import { shifted, SkinEdge, SkinPanel, Turn, zoneOf } from './skin-panel'
import { components, settle, tiesOf } from './ties'

export interface Skin {
  panels: SkinPanel[]
  box: Box
}

/** Parts smaller than this share of the panel they name sit on it. */
const PART_SHARE = 0.2
/**
 * How a panel lies on the map, the vehicle's front to the left: the middle as seen from above, its left side folded
 * down below it, its right side folded up above it, front and rear folded out at the ends. The roof line is the fold.
 */
export function turnOf(p: Panel): Turn {
  if (p.side === 'left') return 0
  if (p.side === 'right') return 180
  return p.side === 'front' && !['bonnet', 'roof'].includes(p.kind) ? 90 : 270
}

function turned(point: Point, turn: Turn, w: number, h: number): Point {
  if (turn === 90) return { x: h - point.y, y: point.x }
  if (turn === 180) return { x: w - point.x, y: h - point.y }
  return turn === 270 ? { x: point.y, y: w - point.x } : point
}

/** A panel by itself, turned as it lies on the map: what is on the map is this, shifted. */
export const panelShape = keptFor((p: Panel): SkinPanel => {
  const outline = outlineOf(p)
  const turn = turnOf(p)
  const place = (q: Point): Point => turned(q, turn, outline.widthMm, outline.heightMm)
  const path = outline.path.map(place)
  const edges = outline.edges.map(({ edge, from, to }): SkinEdge => {
    const [a, b] = [place(from), place(to)]
    const length = Math.hypot(b.x - a.x, b.y - a.y) || 1
    return {
      id: edge.id,
      meets: edge.meets,
      neighbour: edge.neighbour,
      lengthMm: edge.lengthMm,
      from: a,
      to: b,
      normal: { x: (b.y - a.y) / length, y: -(b.x - a.x) / length },
    }
  })
  return { id: p.id, turnDeg: turn, box: boxOf(path), path, edges, on: null }
})

/**
 * The unrolled map of a vehicle from its own panels: each lies where the edges that it shares put it, in the
 * least-squares sense.
 */
export function skinOf(panels: readonly Panel[]): Skin {
  const raw = panels.map((p) => panelShape(p))
  const index = new Map(panels.map((p, i) => [p.id, i]))
  const host = panels.map((p) => hostOf(p, panels, index))
  const ties = tiesOf(panels, raw, index, host)
  const group = components(panels.length, ties)
  const x = settle(panels.length, ties, 'dx', 'wx')
  const y = settle(panels.length, ties, 'dy', 'wy')
  const placed = raw.map((s, i) => shifted(s, x[i] ?? 0, y[i] ?? 0))
  const groups = new Map<number, number[]>()
  group.forEach((g, i) => {
    if (host[i] === null) groups.set(g, [...(groups.get(g) ?? []), i])
  })
  for (const members of groups.values()) partOverlaps(placed, members, (i) => zoneOf(nth(panels, i)) === 'strip')
  arrange(panels, placed, [...groups.values()])
  panels.forEach((p, i) => {
    const on = host[i]
    if (on !== null && on !== undefined) placed[i] = sitOn(p, nth(placed, i), nth(panels, on), nth(placed, on))
  })
  return {
    panels: placed,
    box:
      placed.length === 0
        ? { left: 0, top: 0, right: 1000, bottom: 600 }
        : boxOf(
            placed.flatMap((s) => [
              { x: s.box.left, y: s.box.top },
              { x: s.box.right, y: s.box.bottom },
            ]),
          ),
  }
}

/** Small parts, and the raised object of their panel in whose place they are drawn. */
const PART_ON: Partial<Record<Panel['kind'], Panel['raised'][number]['kind'] | null>> = {
  handle: 'handle',
  fuel_flap: 'fuel_cap',
  aerial: 'aerial',
  mirror: null,
}

/** The panel that a small part names and sits on. */
function hostOf(p: Panel, panels: readonly Panel[], index: ReadonlyMap<string, number>): number | null {
  if (!(p.kind in PART_ON)) return null
  const at = p.edges.map((e) => (e.neighbour ? index.get(e.neighbour) : undefined)).find((i) => i !== undefined)
  const other = at === undefined ? undefined : panels[at]
  return other && p.widthMm * p.heightMm < PART_SHARE * other.widthMm * other.heightMm ? (at ?? null) : null
}

/** A mirror stands at the front foot of its door's window, so far in from the corner and above the sheet. */
const MIRROR_AT = { inMm: 30, overMm: 15 }
function placeOfMirror(p: Panel, host: Panel): Point {
  const outline = outlineOf(p)
  const inwards = MIRROR_AT.inMm + outline.widthMm / 2
  const x = p.side === 'right' ? host.widthMm - inwards : inwards
  return { x, y: -MIRROR_AT.overMm - outline.heightMm / 2 }
}

/** An aerial whose place was not taken stands in the middle of a roof's rear. Shares of its size. */
const REAR_MIDDLE = { x: 0.5, y: 0.85 }

function sitOn(p: Panel, part: SkinPanel, host: Panel, at: SkinPanel): SkinPanel {
  const place = host.raised.find((r) => r.kind === PART_ON[p.kind] && r.xMm !== null) ?? host.recesses[0]
  const beside = p.kind === 'mirror' ? placeOfMirror(p, host) : null
  const usual = p.kind === 'aerial' ? REAR_MIDDLE : { x: p.side === 'right' ? 0.2 : 0.8, y: 0.25 }
  const own = beside ?? {
    x: place?.xMm ?? host.widthMm * usual.x,
    y: place?.yMm ?? host.heightMm * usual.y,
  }
  const outline = outlineOf(host)
  const to = turned(own, at.turnDeg, outline.widthMm, outline.heightMm)
  const [w, h] = [part.box.right - part.box.left, part.box.bottom - part.box.top]
  return {
    ...shifted(part, at.box.left + to.x - w / 2 - part.box.left, at.box.top + to.y - h / 2 - part.box.top),
    on: host.id,
  }
}

/** A place on a panel (mm from its top left, along the surface) as a place on the map. */
export function toSkin(at: SkinPanel, panel: Panel, xMm: number, yMm: number): Point {
  const { widthMm: w, heightMm: h } = outlineOf(panel)
  const p = turned({ x: (xMm * w) / panel.widthMm, y: (yMm * h) / panel.heightMm }, at.turnDeg, w, h)
  return { x: at.box.left + p.x, y: at.box.top + p.y }
}

/** The other way: a place on the map as a place on a panel, kept on the panel. */
export function fromSkin(at: SkinPanel, panel: Panel, point: Point): { xMm: number; yMm: number } {
  const { widthMm: w, heightMm: h } = outlineOf(panel)
  const p = back({ x: point.x - at.box.left, y: point.y - at.box.top }, at.turnDeg, w, h)
  const within = (v: number, most: number): number => Math.round(Math.max(0, Math.min(most, v)))
  return {
    xMm: within((p.x * panel.widthMm) / w, panel.widthMm),
    yMm: within((p.y * panel.heightMm) / h, panel.heightMm),
  }
}
