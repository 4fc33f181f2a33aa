/**
 * Rectangles into a sheet with nothing lost: depth first along the lowest, leftmost place of the skyline, where one of
 * them must stand with its corner. Null where there is no such plan or `nodes` steps found none.
 */
export function perfect(
  rects: readonly { w: number; l: number; turn: boolean }[],
  width: number,
  length: number,
  nodes: number,
  spent: () => boolean,
): { x: number; y: number; turned: boolean }[] | null {
  const n = rects.length
  const SAME = 1e-5
  const places: { x: number; y: number; turned: boolean }[] = Array.from({ length: n }, () => ({
    x: 0,
    y: 0,
    turned: false,
  }))
  const used = new Uint8Array(n)
  const order = rects.map((_, i) => i).sort((a, b) => area(rects, b) - area(rects, a))
  let steps = 0
  const search = (sky: { x: number; y: number; w: number }[], done: number): boolean => {
    if (done === n) return true
    let low = 0
    for (let i = 1; i < sky.length; i++) if ((sky[i] as { y: number }).y < (sky[low] as { y: number }).y - SAME) low = i
    const at = sky[low]
    let least = Infinity
    for (let i = 0; i < n; i++)
      if (!used[i]) {
        const r = rects[i]
        least = Math.min(least, r.turn ? Math.min(r.w, r.l) : r.w)
      }
    let lastW = -1
    let lastL = -1
    for (const i of order) {
      if (used[i]) continue
      const r = rects[i]
      if (r.w === lastW && r.l === lastL) continue
      lastW = r.w
      lastL = r.l
      for (let t = 0; t < (r.turn && Math.abs(r.w - r.l) > SAME ? 2 : 1); t++) {
        const w = t ? r.l : r.w
        const h = t ? r.w : r.l
        const over = at.w - w
        if (over < -SAME || (over > SAME && over < least - SAME && n - done > 1) || at.y + h > length + SAME) continue
        if (over > SAME && n - done === 1) continue
        if ((++steps & 127) === 0 && spent()) steps = Infinity
        if (steps > nodes) return false
        used[i] = 1
        places[i] = { x: at.x, y: at.y, turned: t === 1 }
        if (search(raisedAt(sky, low, w, h, SAME), done + 1)) return true
        used[i] = 0
        if (steps > nodes) return false
      }
    }
    return false
  }
  return search([{ x: 0, y: 0, w: width }], 0) ? places : null
}

const area = (rects: readonly { w: number; l: number }[], i: number): number => {
  const r = rects[i]
  return r.w * r.l
}

function raisedAt(
  sky: { x: number; y: number; w: number }[],
  low: number,
  w: number,
  h: number,
  same: number,
): { x: number; y: number; w: number }[] {
  const at = sky[low]
  const next = sky.slice(0, low)
  next.push({ x: at.x, y: at.y + h, w })
  if (at.w - w > same) next.push({ x: at.x + w, y: at.y, w: at.w - w })
  next.push(...sky.slice(low + 1))
  const merged: { x: number; y: number; w: number }[] = []
  for (const s of next) {
    const last = merged[merged.length - 1]
    if (last && Math.abs(last.y - s.y) <= same) last.w += s.w
    else merged.push({ ...s })
  }
  return merged
}
