import type { Offcut } from './cuts'

/** More pieces than this on one roll are not looked between. */
const MOST_PIECES = 150

/**
 * What a machine leaves over between pieces that no straight cut parts: the largest rectangle that meets no piece's box,
 * then the largest beside that one, and so on. mm; none whose short side is under `least.short` or long side under
 * `least.long`. `gapMm` is kept clear of the pieces.
 */
export function freeRooms(pieces: readonly Offcut[], widthMm: number, usedMm: number, gapMm: number, least: { short: number; long: number }): Offcut[] {
  if (pieces.length === 0 || pieces.length > MOST_PIECES) return []
  const taken = pieces.map((p) => ({ x0: p.xMm - gapMm, x1: p.xMm + p.widthMm + gapMm, y0: p.yMm - gapMm, y1: p.yMm + p.lengthMm + gapMm }))
  const out: Offcut[] = []
  for (;;) {
    const best = largest(taken, widthMm, usedMm, least)
    if (!best) return out
    out.push(best)
    taken.push({ x0: best.xMm, x1: best.xMm + best.widthMm, y0: best.yMm, y1: best.yMm + best.lengthMm })
  }
} // prettier-ignore

interface Box {
  x0: number
  x1: number
  y0: number
  y1: number
}
function largest(taken: readonly Box[], width: number, used: number, least: { short: number; long: number }): Offcut | null {
  const lefts = [...new Set([0, ...taken.map((b) => b.x1)])].filter((x) => x >= 0 && x < width)
  const rights = [...new Set([width, ...taken.map((b) => b.x0)])].filter((x) => x > 0 && x <= width)
  const byStart = [...taken].sort((a, b) => a.y0 - b.y0)
  let best: Offcut | null = null
  let most = 0
  for (const x0 of lefts)
    for (const x1 of rights) {
      const w = x1 - x0
      if (w < least.short || w * used <= most) continue
      // Free stretches along the roll between what meets this strip.
      let at = 0
      const offer = (to: number) => {
        const l = to - at
        if (Math.min(w, l) < least.short || Math.max(w, l) < least.long || w * l <= most + 1e-6) return
        most = w * l
        best = { xMm: x0, yMm: at, widthMm: w, lengthMm: l }
      }
      for (const b of byStart) {
        if (b.x1 <= x0 + 1e-6 || b.x0 >= x1 - 1e-6) continue
        offer(Math.min(b.y0, used))
        at = Math.max(at, b.y1)
      }
      offer(used)
    }
  return best
} // prettier-ignore
