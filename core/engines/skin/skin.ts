import { nth } from '../../kit/known'
import { boxOf, type Box, type Point } from '../../kit/plane'
import { outlineOf } from '../../model/vehicle/outline'
import type { Edge, Panel } from '../../model/vehicle/schema'

type Turn = 0 | 90 | 180 | 270
export interface SkinEdge {
  id: string
  meets: Edge['meets']
  neighbour: string | null
  lengthMm: number
  from: Point
  to: Point
  /** Outward. */
  normal: Point
}
export interface SkinPanel {
  id: string
  turnDeg: Turn
  /** Where the panel's own top left box corner lies after turning: box of the placed outline. */
  box: Box
  path: Point[]
  edges: SkinEdge[]
  /** The panel that it sits on (a handle on its door), or null. */
  on: string | null
}
export interface Skin {
  panels: SkinPanel[]
  box: Box
}

/** The usual width of what lies between two panels where none was given, mm (common practice). */
const GAP_MM: Partial<Record<Edge['meets'], number>> = {
  glass: 500,
  window_trim: 400,
  drip_rail: 20,
  rubber_seal: 15,
  lamp: 60,
}
const DEFAULT_GAP_MM = 6
/** Parts smaller than this share of the panel they name sit on it. */
const PART_SHARE = 0.2
const ROW_GAP_MM = 160
/** Facing runs that differ more than this in length say how far apart their panels lie, hardly where along. */
const ALIKE = 0.7
const WEAK = 0.01

/** Front to rear along the strip, then down a side. */
const ORDER: readonly Panel['kind'][] = [
  'front_bumper',
  'bonnet',
  'roof',
  'spoiler',
  'boot_lid',
  'hatch',
  'tailgate',
  'rear_bumper',
  'wing',
  'door',
  'van_side',
  'box_side',
  'bed_side',
  'quarter',
  'sill',
  'pillar',
  'hull_side',
  'tank_shell',
  'fairing',
  'mirror',
  'handle',
  'fuel_flap',
  'other',
]

type Zone = 'left' | 'right' | 'strip'
const zoneOf = (p: Panel): Zone => (p.side === 'left' || p.side === 'right' ? p.side : 'strip')

/**
 * How a panel lies on the map, the vehicle's front to the left: the middle as seen from above, its left side folded
 * down
 * below it, its right side folded up above it, front and rear folded out at the ends. The roof line is the fold.
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

function rawPanel(p: Panel): SkinPanel {
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
}

const shifted = (s: SkinPanel, dx: number, dy: number): SkinPanel => {
  const move = (p: Point): Point => ({ x: p.x + dx, y: p.y + dy })
  return {
    ...s,
    box: { left: s.box.left + dx, right: s.box.right + dx, top: s.box.top + dy, bottom: s.box.bottom + dy },
    path: s.path.map(move),
    edges: s.edges.map((e) => ({ ...e, from: move(e.from), to: move(e.to) })),
  }
}
const middle = (e: SkinEdge): Point => ({ x: (e.from.x + e.to.x) / 2, y: (e.from.y + e.to.y) / 2 })

interface Tie {
  a: number
  b: number
  /** Wanted offset of b from a, and how much it counts, along x and y. */
  dx: number
  dy: number
  wx: number
  wy: number
}

/**
 * The unrolled map of a vehicle from its own panels: each lies where the edges that it shares put it, in the
 * least-squares sense.
 */
export function skinOf(panels: readonly Panel[]): Skin {
  const raw = panels.map(rawPanel)
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

/** The panel that a small part names and sits on. */
function hostOf(p: Panel, panels: readonly Panel[], index: ReadonlyMap<string, number>): number | null {
  if (p.kind !== 'handle' && p.kind !== 'fuel_flap') return null
  const at = p.edges.map((e) => (e.neighbour ? index.get(e.neighbour) : undefined)).find((i) => i !== undefined)
  const other = at === undefined ? undefined : panels[at]
  return other && p.widthMm * p.heightMm < PART_SHARE * other.widthMm * other.heightMm ? (at ?? null) : null
}

function sitOn(p: Panel, part: SkinPanel, host: Panel, at: SkinPanel): SkinPanel {
  const place =
    host.raised.find((r) => r.kind === (p.kind === 'handle' ? 'handle' : 'fuel_cap') && r.xMm !== null) ??
    host.recesses[0]
  const own = {
    x: place?.xMm ?? host.widthMm * (p.side === 'right' ? 0.2 : 0.8),
    y: place?.yMm ?? host.heightMm * 0.25,
  }
  const outline = outlineOf(host)
  const to = turned(own, at.turnDeg, outline.widthMm, outline.heightMm)
  const [w, h] = [part.box.right - part.box.left, part.box.bottom - part.box.top]
  return {
    ...shifted(part, at.box.left + to.x - w / 2 - part.box.left, at.box.top + to.y - h / 2 - part.box.top),
    on: host.id,
  }
}

function tiesOf(
  panels: readonly Panel[],
  raw: readonly SkinPanel[],
  index: ReadonlyMap<string, number>,
  host: readonly (number | null)[],
): Tie[] {
  const out: Tie[] = []
  panels.forEach((p, a) => {
    const mine = nth(raw, a)
    for (const edge of mine.edges) {
      const b = edge.neighbour ? index.get(edge.neighbour) : undefined
      if (b === undefined || b === a || host[a] !== null || host[b] !== null) continue
      const theirs = nth(raw, b)
      const against = theirs.edges.filter((f) => f.normal.x * edge.normal.x + f.normal.y * edge.normal.y < -0.5)
      const named = against
        .filter((f) => f.neighbour === p.id)
        .sort((f, g) => Math.abs(f.lengthMm - edge.lengthMm) - Math.abs(g.lengthMm - edge.lengthMm))[0]
      if (named && b < a) continue
      // A side that names the roof it hangs from, where the roof's long edge cannot name every side.
      const hangs = edge.meets === 'bead' || edge.meets === 'drip_rail'
      const back = named ?? (hangs ? against.sort((f, g) => g.lengthMm - f.lengthMm)[0] : undefined)
      if (!back) continue
      const gap = p.edges.find((e) => e.id === edge.id)?.gapMm ?? GAP_MM[edge.meets] ?? DEFAULT_GAP_MM
      const [m, n] = [middle(edge), middle(back)]
      const alike = Math.min(edge.lengthMm, back.lengthMm) / Math.max(edge.lengthMm, back.lengthMm) > ALIKE
      const across = Math.abs(edge.normal.x) > Math.abs(edge.normal.y)
      const along = alike ? 1 : WEAK
      out.push({
        a,
        b,
        dx: m.x + edge.normal.x * gap - n.x,
        dy: m.y + edge.normal.y * gap - n.y,
        wx: across ? 1 : along,
        wy: across ? along : 1,
      })
    }
  })
  return out
}

function components(n: number, ties: readonly Tie[]): number[] {
  const parent = Array.from({ length: n }, (_, i) => i)
  const find = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = nth(parent, parent[i] as number)
    return i
  }
  for (const t of ties) parent[find(t.a)] = find(t.b)
  return parent.map((_, i) => find(i))
}

/** Positions along one axis that agree best with every tie: conjugate gradients on the graph's weighted Laplacian. */
function settle(n: number, ties: readonly Tie[], offset: 'dx' | 'dy', weight: 'wx' | 'wy'): Float64Array {
  const x = new Float64Array(n)
  const r = new Float64Array(n)
  for (const t of ties) {
    r[t.b] = (r[t.b] ?? 0) + t[weight] * t[offset]
    r[t.a] = (r[t.a] ?? 0) - t[weight] * t[offset]
  }
  const p = Float64Array.from(r)
  let rr = r.reduce((s, v) => s + v * v, 0)
  for (let step = 0; step < 6 * n + 20 && rr > 1e-9; step++) {
    const q = new Float64Array(n)
    for (const t of ties) {
      const d = t[weight] * ((p[t.b] ?? 0) - (p[t.a] ?? 0))
      q[t.b] = (q[t.b] ?? 0) + d
      q[t.a] = (q[t.a] ?? 0) - d
    }
    const alpha =
      rr /
      Math.max(
        1e-30,
        p.reduce((s, v, i) => s + v * (q[i] ?? 0), 0),
      )
    let next = 0
    for (let i = 0; i < n; i++) {
      x[i] = (x[i] ?? 0) + alpha * (p[i] ?? 0)
      r[i] = (r[i] ?? 0) - alpha * (q[i] ?? 0)
      next += (r[i] ?? 0) ** 2
    }
    for (let i = 0; i < n; i++) p[i] = (r[i] ?? 0) + (next / rr) * (p[i] ?? 0)
    rr = next
  }
  return x
}

/** How far two boxes run into each other along each axis; null where they do not. */
export function overlap(a: Box, b: Box): { x: number; y: number } | null {
  const x = Math.min(a.right, b.right) - Math.max(a.left, b.left)
  const y = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
  return x > 1 && y > 1 ? { x, y } : null
}

/** Panels that run into each other are moved apart along the shorter way, the one nearer the rim of the map. */
function partOverlaps(placed: SkinPanel[], members: readonly number[], strip: (i: number) => boolean): void {
  const box = boxOf(
    members.flatMap((i) => [
      { x: placed[i]?.box.left ?? 0, y: placed[i]?.box.top ?? 0 },
      { x: placed[i]?.box.right ?? 0, y: placed[i]?.box.bottom ?? 0 },
    ]),
  )
  const centre = { x: (box.left + box.right) / 2, y: (box.top + box.bottom) / 2 }
  for (let pass = 0; pass < 40; pass++) {
    let moved = false
    for (const i of members)
      for (const j of members) {
        if (i >= j) continue
        const [a, b] = [nth(placed, i), nth(placed, j)]
        const over = overlap(a.box, b.box)
        // Outlines fit into each other's boxes a little; only a real overlap is parted.
        if (!over || Math.min(over.x, over.y) < 25) continue
        const far = (s: SkinPanel): number =>
          Math.hypot((s.box.left + s.box.right) / 2 - centre.x, (s.box.top + s.box.bottom) / 2 - centre.y)
        // What lies beside the strip makes way for it, outward; among equals the one nearer the rim does.
        const beside = strip(i) !== strip(j)
        const [k, s, o] = (beside ? strip(j) : far(a) >= far(b)) ? [i, a, b] : [j, b, a]
        const along = beside || over.y <= over.x ? 'y' : 'x'
        const [mid, other] =
          along === 'x'
            ? [s.box.left + s.box.right, o.box.left + o.box.right]
            : [s.box.top + s.box.bottom, o.box.top + o.box.bottom]
        const by = (over[along] - 20) * (mid >= other ? 1 : -1)
        placed[k] = shifted(s, along === 'x' ? by : 0, along === 'y' ? by : 0)
        moved = true
      }
    if (!moved) return
  }
}

/**
 * Groups of panels that hang together, set out in three rows: the right side, the strip from front to rear, the left
 * side.
 */
function arrange(panels: readonly Panel[], placed: SkinPanel[], groups: number[][]): void {
  const rank = (i: number): number => ORDER.indexOf(nth(panels, i).kind) * 1000 + i
  const boxes = (g: readonly number[]): Box => boxOf(g.flatMap((i) => nth(placed, i).path))
  const rows: Record<Zone, number[][]> = { left: [], right: [], strip: [] }
  for (const g of groups) {
    g.sort((a, b) => rank(a) - rank(b))
    const zones = new Set(g.map((i) => zoneOf(nth(panels, i))))
    rows[zones.size > 1 || zones.has('strip') ? 'strip' : ([...zones][0] ?? 'strip')].push(g)
  }
  for (const row of Object.values(rows)) row.sort((a, b) => rank(a[0] ?? 0) - rank(b[0] ?? 0))
  const move = (g: readonly number[], dx: number, dy: number) => {
    for (const i of g) placed[i] = shifted(nth(placed, i), dx, dy)
  }
  let at = 0
  let [top, bottom] = [0, 0]
  for (const g of rows.strip) {
    const b = boxes(g)
    move(g, at - b.left, -(b.top + b.bottom) / 2)
    top = Math.min(top, (b.top - b.bottom) / 2)
    bottom = Math.max(bottom, (b.bottom - b.top) / 2)
    at += b.right - b.left + ROW_GAP_MM
  }
  const widest = Math.max(
    at,
    ...(['left', 'right'] as const).map((z) => Math.max(0, ...rows[z].map((g) => boxes(g).right - boxes(g).left))),
  )
  for (const zone of ['left', 'right'] as const) {
    let [x, y, tallest] = [0, zone === 'left' ? bottom + ROW_GAP_MM : top - ROW_GAP_MM, 0]
    for (const g of rows[zone]) {
      const b = boxes(g)
      const [w, h] = [b.right - b.left, b.bottom - b.top]
      if (x > 0 && x + w > widest) {
        x = 0
        y += (tallest + ROW_GAP_MM) * (zone === 'left' ? 1 : -1)
        tallest = 0
      }
      move(g, x - b.left, zone === 'left' ? y - b.top : y - b.bottom)
      tallest = Math.max(tallest, h)
      x += w + ROW_GAP_MM
    }
  }
}

const back = (point: Point, turn: Turn, w: number, h: number): Point => {
  if (turn === 90) return { x: point.y, y: h - point.x }
  if (turn === 180) return { x: w - point.x, y: h - point.y }
  return turn === 270 ? { x: w - point.y, y: point.x } : point
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

export type Way = 'up' | 'down' | 'left' | 'right'
const WAY: Record<Way, Point> = {
  up: { x: 0, y: -1 },
  down: { x: 0, y: 1 },
  left: { x: -1, y: 0 },
  right: { x: 1, y: 0 },
}

/** The panel across the edge on that side: the neighbour that the edge names, else the nearest that way on the map. */
export function panelAcross(skin: Skin, id: string, way: Way): string | null {
  const from = skin.panels.find((p) => p.id === id)
  if (!from) return skin.panels[0]?.id ?? null
  const ids = new Set(skin.panels.map((p) => p.id))
  const d = WAY[way]
  const apart = (other: string | null): number => {
    const to = skin.panels.find((p) => p.id === other)?.box
    if (!to) return Infinity
    const across =
      d.x === 0
        ? d.y > 0
          ? to.top - from.box.bottom
          : from.box.top - to.bottom
        : d.x > 0
          ? to.left - from.box.right
          : from.box.left - to.right
    return Math.max(0, Math.round(across / 80))
  }
  const edge = from.edges
    .filter((e) => e.neighbour && ids.has(e.neighbour) && e.normal.x * d.x + e.normal.y * d.y > 0.7)
    // The one that lies closer first (a pillar before the roof behind it), then the one along the longer run.
    .sort((a, b) => apart(a.neighbour) - apart(b.neighbour) || b.lengthMm - a.lengthMm)[0]
  if (edge?.neighbour) return edge.neighbour
  const c = (p: SkinPanel): Point => ({ x: (p.box.left + p.box.right) / 2, y: (p.box.top + p.box.bottom) / 2 })
  const here = c(from)
  const near = skin.panels
    .filter((p) => p.id !== id)
    .map((p) => {
      const to = c(p)
      const along = (to.x - here.x) * d.x + (to.y - here.y) * d.y
      const aside = Math.abs((to.x - here.x) * d.y) + Math.abs((to.y - here.y) * d.x)
      return { id: p.id, along, cost: along + 2 * aside }
    })
    .filter((p) => p.along > 1 && p.cost < 3.5 * p.along)
    .sort((a, b) => a.cost - b.cost)
  return near[0]?.id ?? null
}
