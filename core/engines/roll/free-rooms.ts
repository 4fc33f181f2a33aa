import type { Offcut } from './cuts'

interface Box {
  x0: number
  x1: number
  y0: number
  y1: number
}
const EPS = 1e-6

/**
 * What a machine leaves over between pieces that no straight cut parts: the largest rectangle that meets no piece's box
 * and no damage, then the largest beside that one, and so on. mm; none whose short side is under `least.short` or long
 * side under `least.long`. `gapMm` is kept clear of the pieces.
 */
export function freeRooms({
  pieces,
  widthMm,
  usedMm,
  gapMm,
  damage,
  least,
}: {
  pieces: readonly Offcut[]
  widthMm: number
  usedMm: number
  gapMm: number
  damage: readonly { from: number; to: number }[]
  least: { short: number; long: number }
}): Offcut[] {
  if (pieces.length === 0) return []
  const worth = (b: Box) => {
    const [w, l] = [b.x1 - b.x0, b.y1 - b.y0]
    return Math.min(w, l) >= least.short && Math.max(w, l) >= least.long
  }
  // All largest free rectangles: each obstacle parts those that it meets in up to four, which overlap.
  let free: Box[] = [{ x0: 0, x1: widthMm, y0: 0, y1: usedMm }]
  const without = (b: Box) => {
    const parted: Box[] = []
    const kept: Box[] = []
    for (const f of free) {
      if (b.x1 <= f.x0 + EPS || b.x0 >= f.x1 - EPS || b.y1 <= f.y0 + EPS || b.y0 >= f.y1 - EPS) kept.push(f)
      else
        parted.push(
          ...[
            { ...f, x1: b.x0 },
            { ...f, x0: b.x1 },
            { ...f, y1: b.y0 },
            { ...f, y0: b.y1 },
          ].filter(worth),
        )
    }
    const within = (a: Box, o: Box) => a !== o && a.x0 >= o.x0 && a.x1 <= o.x1 && a.y0 >= o.y0 && a.y1 <= o.y1
    const own = parted.filter((a, i) => !parted.some((o, j) => within(a, o) && (!within(o, a) || j < i)))
    free = [...kept, ...own.filter((a) => !kept.some((o) => within(a, o)))]
  }
  for (const p of pieces)
    without({ x0: p.xMm - gapMm, x1: p.xMm + p.widthMm + gapMm, y0: p.yMm - gapMm, y1: p.yMm + p.lengthMm + gapMm })
  for (const d of damage) without({ x0: 0, x1: widthMm, y0: d.from, y1: d.to })
  const out: Offcut[] = []
  const area = (b: Box) => (b.x1 - b.x0) * (b.y1 - b.y0)
  while (free.length > 0) {
    const best = free.reduce((a, b) => (area(b) > area(a) + EPS ? b : a))
    out.push({ xMm: best.x0, yMm: best.y0, widthMm: best.x1 - best.x0, lengthMm: best.y1 - best.y0 })
    without(best)
  }
  return out
}
