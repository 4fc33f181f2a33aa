import { nth } from '../../kit/known'
import { boxOf, type Box, type Point } from '../../kit/plane'
import type { Panel } from '../../model/vehicle/schema'
import { zoneOf, shifted, Zone, Turn, ORDER, SkinPanel } from './skin-panel'

export const ROW_GAP_MM = 160
/** How far two boxes run into each other along each axis; null where they do not. */
export function overlap(a: Box, b: Box): { x: number; y: number } | null {
  const x = Math.min(a.right, b.right) - Math.max(a.left, b.left)
  const y = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top)
  return x > 1 && y > 1 ? { x, y } : null
}

/** Panels that run into each other are moved apart in the shorter direction, the one nearer the rim of the map. */
export function partOverlaps(placed: SkinPanel[], members: readonly number[], strip: (i: number) => boolean): void {
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
        const a = nth(placed, i)
        const b = nth(placed, j)
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
export function arrange(panels: readonly Panel[], placed: SkinPanel[], groups: number[][]): void {
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

export const back = (point: Point, turn: Turn, w: number, h: number): Point => {
  if (turn === 90) return { x: point.y, y: h - point.x }
  if (turn === 180) return { x: w - point.x, y: h - point.y }
  return turn === 270 ? { x: w - point.y, y: point.x } : point
}
