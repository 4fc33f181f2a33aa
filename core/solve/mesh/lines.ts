import { err, ok, type Result } from '../../kit/result'
import type { Topology, TriMesh } from '.'

/**
 * Sides of the mesh along lines of vertices; between two that are not neighbours, along the shortest path. Errors:
 * no_such_line.
 */
export function pathSides(
  mesh: TriMesh,
  topology: Topology,
  lines: readonly (readonly number[])[],
): Result<Set<number>> {
  const n = mesh.positions.length / 3
  const sideOf = new Map<number, number>()
  const near: { to: number; mm: number }[][] = Array.from({ length: n }, () => [])
  const apart = (a: number, b: number) =>
    Math.hypot(...[0, 1, 2].map((i) => mesh.positions[3 * a + i] - mesh.positions[3 * b + i]))
  mesh.triangles.forEach((a, s) => {
    const t = Math.floor(s / 3)
    const b = mesh.triangles[3 * t + ((s + 1) % 3)]
    sideOf.set(a * n + b, s)
    ;(near[a] as { to: number; mm: number }[]).push({ to: b, mm: apart(a, b) })
    if (topology.opposite[s] < 0) (near[b] as { to: number; mm: number }[]).push({ to: a, mm: apart(a, b) })
  })
  const out = new Set<number>()
  for (const line of lines) {
    if (line.length < 2 || line.some((v) => !Number.isInteger(v) || v < 0 || v >= n))
      return err({ code: 'no_such_line', facts: { vertices: n } })
    for (let i = 1; i < line.length; i++) {
      const path = shortest(near, line[i - 1], line[i])
      if (!path) return err({ code: 'no_such_line', facts: { from: line[i - 1], to: line[i] } })
      for (let k = 1; k < path.length; k++) {
        const [a, b] = [path[k - 1], path[k]]
        const s = sideOf.get(a * n + b) ?? sideOf.get(b * n + a)
        if (s !== undefined) out.add(s)
      }
    }
  }
  return ok(out)
}

/** Shortest path along sides (Dijkstra, a binary heap). */
function shortest(near: readonly (readonly { to: number; mm: number }[])[], from: number, to: number): number[] | null {
  const best = new Float64Array(near.length).fill(Infinity)
  const before = new Int32Array(near.length).fill(-1)
  const heap: { v: number; mm: number }[] = [{ v: from, mm: 0 }]
  best[from] = 0
  const swap = (i: number, j: number) => ([heap[i], heap[j]] = [heap[j], heap[i]])
  while (heap.length > 0) {
    const top = heap[0]
    const last = heap.pop() as { v: number; mm: number }
    if (heap.length > 0) {
      heap[0] = last
      for (let i = 0; ;) {
        const [l, r] = [2 * i + 1, 2 * i + 2]
        let least = i
        for (const c of [l, r])
          if (c < heap.length && (heap[c] as { mm: number }).mm < (heap[least] as { mm: number }).mm) least = c
        if (least === i) break
        swap(i, least)
        i = least
      }
    }
    if (top.mm > best[top.v]) continue
    if (top.v === to) break
    for (const { to: w, mm } of near[top.v] as readonly { to: number; mm: number }[]) {
      const d = top.mm + mm
      if (d >= best[w] - 1e-12) continue
      best[w] = d
      before[w] = top.v
      heap.push({ v: w, mm: d })
      for (let i = heap.length - 1; i > 0;) {
        const up = (i - 1) >> 1
        if ((heap[up] as { mm: number }).mm <= (heap[i] as { mm: number }).mm) break
        swap(i, up)
        i = up
      }
    }
  }
  if (!Number.isFinite(best[to])) return null
  const path = [to]
  while (path[0] !== from) path.unshift(before[path[0]])
  return path
}
