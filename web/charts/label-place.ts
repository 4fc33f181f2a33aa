import polylabel from 'polylabel'
import type { Point } from '@/core/kit/plane'

/** Where lettering stands within an outline, and how large it may be. Units of the outline. */
export interface LabelPlace extends Point {
  /** Turned a quarter where the outline gives more room in that direction. */
  upright: boolean
  /** Room along the lettering and across it. */
  along: number
  across: number
}

/** A quarter turn is taken only where it gives this much more room. */
const WORTH_TURNING = 1.3
/** Share of the free circle within which lettering keeps, across its line. */
const ACROSS_SHARE = 0.55

/**
 * The place furthest from every side of an outline (pole of inaccessibility) and the room round it, so that lettering
 * crosses no arch and reaches into no neighbour. Errors: none; an outline of under three points gives no room.
 */
export function labelPlace(outline: readonly Point[]): LabelPlace {
  const [first] = outline
  if (!first || outline.length < 3) return { x: first?.x ?? 0, y: first?.y ?? 0, upright: false, along: 0, across: 0 }
  const size = Math.max(...outline.map((p) => Math.abs(p.x - first.x)), ...outline.map((p) => Math.abs(p.y - first.y)))
  const pole = polylabel([outline.map((p): [number, number] => [p.x, p.y])], Math.max(1, size / 200))
  const [x, y] = [pole[0] ?? first.x, pole[1] ?? first.y]
  const free = pole.distance
  const level = roomAlong(outline, { x, y }, free * ACROSS_SHARE)
  const plumb = roomAlong(
    outline.map((p) => ({ x: p.y, y: p.x })),
    { x: y, y: x },
    free * ACROSS_SHARE,
  )
  const upright = plumb.room > level.room * WORTH_TURNING
  const taken = upright ? plumb : level
  return {
    x: upright ? x : taken.middle,
    y: upright ? taken.middle : y,
    upright,
    along: taken.room,
    across: 2 * free,
  }
}

/** Free length along x through a point, as a band of this half height sees it, and its middle. */
function roomAlong(outline: readonly Point[], at: Point, half: number): { room: number; middle: number } {
  let [low, high] = [-Infinity, Infinity]
  for (const y of [at.y - half, at.y, at.y + half])
    outline.forEach((a, i) => {
      const b = outline[(i + 1) % outline.length] ?? a
      if (a.y > y === b.y > y) return
      const x = a.x + ((y - a.y) / (b.y - a.y)) * (b.x - a.x)
      if (x <= at.x) low = Math.max(low, x)
      else high = Math.min(high, x)
    })
  return Number.isFinite(low) && Number.isFinite(high)
    ? { room: high - low, middle: (low + high) / 2 }
    : { room: 0, middle: at.x }
}
