import type { Assembly } from './assemble'
import type { Topology, TriMesh } from './mesh'

/** Least squares conformal map, its two farthest edge vertices held. Source: docs/sources.md#levy-2002. */
export function conformal(assembly: Assembly, topology: Topology): Float64Array | null {
  const { mesh } = assembly
  const n = mesh.positions.length / 3
  const rim = topology.loops.flat()
  if (rim.length < 3) return null
  const far = (from: number): number =>
    rim.reduce((best, v) => (apart(mesh, from, v) > apart(mesh, from, best) ? v : best), rim[0])
  const a = far(rim[0])
  const b = far(a)
  const fixed = new Uint8Array(n)
  fixed[a] = 1
  fixed[b] = 1
  const as = assembly.holding(fixed)
  as.clear()
  const held = new Float64Array(2 * n)
  held[2 * b] = apart(mesh, a, b)
  const q = new Float64Array(6)
  const right = new Float64Array(2 * n)
  for (let t = 0; t < as.count; t++) {
    const weight = as.area[t]
    // What is not conformal in the map: f00 − f11 and f01 + f10.
    for (const mode of [0, 1]) {
      let given = 0
      for (let k = 0; k < 3; k++) {
        const [gx, gy] = [as.slopes[6 * t + 2 * k], as.slopes[6 * t + 2 * k + 1]]
        q[2 * k] = mode === 0 ? gx : gy
        q[2 * k + 1] = mode === 0 ? -gy : gx
        const v = mesh.triangles[3 * t + k]
        if (fixed[v]) given += q[2 * k] * held[2 * v] + q[2 * k + 1] * held[2 * v + 1]
      }
      as.add(t, weight, q)
      if (given !== 0)
        for (let k = 0; k < 3; k++) {
          const v = mesh.triangles[3 * t + k]
          if (fixed[v]) continue
          right[2 * v] = right[2 * v] - weight * given * q[2 * k]
          right[2 * v + 1] = right[2 * v + 1] - weight * given * q[2 * k + 1]
        }
    }
  }
  if (!as.factor()) return null
  const u = as.cholesky.solve(right)
  for (const v of [a, b]) {
    u[2 * v] = held[2 * v]
    u[2 * v + 1] = held[2 * v + 1]
  }
  return u.every(Number.isFinite) ? u : null
}
const apart = (mesh: TriMesh, a: number, b: number): number =>
  Math.hypot(
    mesh.positions[3 * a] - mesh.positions[3 * b],
    mesh.positions[3 * a + 1] - mesh.positions[3 * b + 1],
    mesh.positions[3 * a + 2] - mesh.positions[3 * b + 2],
  )

const SWEEPS = 4000

/**
 * Every inner vertex in the middle of its neighbours, the longest edge loop on a circle: no triangle flips, whatever
 * the surface; holes are closed by a point each for it. Source: docs/sources.md#tutte-1963.
 */
export function tutte(mesh: TriMesh, topology: Topology): Float64Array | null {
  const n = mesh.positions.length / 3
  const length = (loop: readonly number[]) =>
    loop.reduce((s, v, i) => s + apart(mesh, v, loop[(i + 1) % loop.length]), 0)
  const loops = [...topology.loops].sort((a, b) => length(b) - length(a))
  const outer = loops[0]
  if (!outer || outer.length < 3) return null
  const near: number[][] = Array.from({ length: n + loops.length - 1 }, () => [])
  const link = (a: number, b: number) => {
    near[a].push(b)
    near[b].push(a)
  }
  const seen = new Set<number>()
  for (let c = 0; c < mesh.triangles.length; c++) {
    const t = Math.floor(c / 3)
    const [a, b] = [mesh.triangles[c], mesh.triangles[3 * t + ((c + 1) % 3)]]
    const key = Math.min(a, b) * n + Math.max(a, b)
    if (seen.has(key)) continue
    seen.add(key)
    link(a, b)
  }
  loops.slice(1).forEach((loop, i) => loop.forEach((v) => link(v, n + i)))
  const rim = new Uint8Array(near.length)
  const u = new Float64Array(2 * near.length)
  const around = length(outer)
  const area = Math.sqrt(areaTotal(mesh) / Math.PI)
  let run = 0
  outer.forEach((v, i) => {
    rim[v] = 1
    const angle = (2 * Math.PI * run) / around
    u[2 * v] = area * Math.cos(angle)
    u[2 * v + 1] = area * Math.sin(angle)
    run += apart(mesh, v, outer[(i + 1) % outer.length])
  })
  // Over-relaxed sweeps: only a start is wanted.
  for (let sweep = 0; sweep < SWEEPS; sweep++) {
    let moved = 0
    for (let v = 0; v < near.length; v++) {
      const list = near[v]
      if (rim[v] || list.length === 0) continue
      let [x, y] = [0, 0]
      for (const w of list) {
        x += u[2 * w]
        y += u[2 * w + 1]
      }
      const dx = 1.9 * (x / list.length - u[2 * v])
      const dy = 1.9 * (y / list.length - u[2 * v + 1])
      u[2 * v] = u[2 * v] + dx
      u[2 * v + 1] = u[2 * v + 1] + dy
      moved = Math.max(moved, Math.abs(dx), Math.abs(dy))
    }
    if (moved < 1e-10 * area) break
  }
  return u.slice(0, 2 * n)
}
function areaTotal(mesh: TriMesh): number {
  let sum = 0
  const p = mesh.positions
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const [a, b, c] = [0, 1, 2].map((k) => 3 * mesh.triangles[3 * t + k]) as [number, number, number]
    const e = [0, 1, 2].map((i) => p[b + i] - p[a + i]) as [number, number, number]
    const f = [0, 1, 2].map((i) => p[c + i] - p[a + i]) as [number, number, number]
    sum += Math.hypot(e[1] * f[2] - e[2] * f[1], e[2] * f[0] - e[0] * f[2], e[0] * f[1] - e[1] * f[0]) / 2
  }
  return sum
}
