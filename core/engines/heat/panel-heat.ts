import { boxOf, type Point } from '../../kit/plane'

/** A panel in its own plane as hot as its planned passes make it: °C at even places of its box, row by row. */
export interface PanelHeat {
  columns: number
  rows: number
  box: { left: number; top: number; right: number; bottom: number }
  peakC: number[]
}

/** Fine enough to show the strip that the gun heats, mm; a long panel is looked at a little coarser. */
const CELL_MM = 9
const MOST_COLUMNS = 200

/**
 * What the passes along the edges of a panel make of all of it: each place becomes as hot as the pass nearest to it
 * makes a place at that distance. `profile`: the hottest by distance from the gun's line, mm and °C, the nearest first.
 */
export function panelHeat(
  path: readonly Point[],
  heated: readonly (readonly Point[])[],
  profile: { distanceMm: readonly number[]; peakC: readonly number[] },
  startC: number,
): PanelHeat {
  const box = boxOf(path)
  const [width, height] = [box.right - box.left, box.bottom - box.top]
  const columns = Math.max(8, Math.min(MOST_COLUMNS, Math.round(width / CELL_MM)))
  const rows = Math.max(8, Math.round((columns * height) / width))
  const lines = heated.flatMap((line) => line.slice(1).map((to, i) => ({ from: line[i] ?? to, to })))
  const peakC = Array.from({ length: columns * rows }, (_, i) => {
    const at = {
      x: box.left + (width * ((i % columns) + 0.5)) / columns,
      y: box.top + (height * (Math.floor(i / columns) + 0.5)) / rows,
    }
    const nearest = Math.min(Infinity, ...lines.map((l) => distance(at, l.from, l.to)))
    return profileAt(profile, nearest, startC)
  })
  return { columns, rows, box, peakC }
}

function distance(p: Point, a: Point, b: Point): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y]
  const long = dx * dx + dy * dy
  const share = long === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / long))
  return Math.hypot(p.x - a.x - share * dx, p.y - a.y - share * dy)
}

/** Straight between the distances that were solved; past the last one it stays as it began. */
function profileAt(
  { distanceMm, peakC }: { distanceMm: readonly number[]; peakC: readonly number[] },
  d: number,
  startC: number,
): number {
  const k = distanceMm.findIndex((x) => x >= d)
  if (k < 0) return startC
  const [x1 = 0, c1 = startC] = [distanceMm[k], peakC[k]]
  if (k === 0) return c1
  const [x0 = 0, c0 = c1] = [distanceMm[k - 1], peakC[k - 1]]
  return c0 + ((c1 - c0) * (d - x0)) / (x1 - x0)
}
