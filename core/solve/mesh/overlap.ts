/**
 * Whether film lies on itself: edges of the flat map that cross. `edges`: ends of each edge of the film's rim,
 * x1 y1 x2 y2; two that share an end do not count. Answers the first place found, or null.
 */
export function overlaps(edges: Float64Array): { x: number; y: number } | null {
  const count = edges.length / 4
  if (count === 0) return null
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity]
  let length = 0
  for (let e = 0; e < count; e++) {
    const [ax, ay, bx, by] = edges.subarray(4 * e, 4 * e + 4) as unknown as [number, number, number, number]
    x0 = Math.min(x0, ax, bx)
    y0 = Math.min(y0, ay, by)
    x1 = Math.max(x1, ax, bx)
    y1 = Math.max(y1, ay, by)
    length += Math.hypot(bx - ax, by - ay)
  }
  const cell = Math.max(length / count, (x1 - x0) / 400, (y1 - y0) / 400, 1e-9)
  const wide = Math.floor((x1 - x0) / cell) + 1
  const grid = new Map<number, number[]>()
  const at = (e: number, i: number) => edges[4 * e + i]
  for (let e = 0; e < count; e++) {
    const cols = [at(e, 0), at(e, 2)].map((x) => Math.floor((x - x0) / cell)).sort((a, b) => a - b) as [number, number]
    const rows = [at(e, 1), at(e, 3)].map((y) => Math.floor((y - y0) / cell)).sort((a, b) => a - b) as [number, number]
    for (let r = rows[0]; r <= rows[1]; r++)
      for (let c = cols[0]; c <= cols[1]; c++) {
        const key = r * wide + c
        const list = grid.get(key)
        if (!list) grid.set(key, [e])
        else {
          for (const f of list) {
            const place = cross(edges, e, f, cell * 1e-9)
            if (place) return place
          }
          list.push(e)
        }
      }
  }
  return null
}

function cross(edges: Float64Array, e: number, f: number, near: number): { x: number; y: number } | null {
  const [ax, ay, bx, by] = edges.subarray(4 * e, 4 * e + 4) as unknown as [number, number, number, number]
  const [cx, cy, dx, dy] = edges.subarray(4 * f, 4 * f + 4) as unknown as [number, number, number, number]
  const same = (px: number, py: number, qx: number, qy: number) =>
    Math.abs(px - qx) <= near && Math.abs(py - qy) <= near
  if (same(ax, ay, cx, cy) || same(ax, ay, dx, dy) || same(bx, by, cx, cy) || same(bx, by, dx, dy)) return null
  const det = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx)
  if (det === 0) return null
  const s = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / det
  const r = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / det
  return s > 1e-9 && s < 1 - 1e-9 && r > 1e-9 && r < 1 - 1e-9 ? { x: ax + s * (bx - ax), y: ay + s * (by - ay) } : null
}
