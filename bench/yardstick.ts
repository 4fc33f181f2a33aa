import { Assembly } from '@/core/solve/mesh/assemble'
import type { TriMesh } from '@/core/solve/mesh'

/** The conformal map of a mesh as a sparse matrix, row by row. */
function conformal(mesh: TriMesh): { size: number; rows: Int32Array; cols: Int32Array; vals: Float64Array } {
  const n = mesh.positions.length / 3
  const as = new Assembly(mesh, new Uint8Array(n))
  const q = new Float64Array(6)
  const entries = new Map<number, number>()
  const add = (i: number, j: number, v: number) => entries.set(i * 2 * n + j, (entries.get(i * 2 * n + j) ?? 0) + v)
  for (let t = 0; t < as.count; t++)
    for (const mode of [0, 1]) {
      for (let k = 0; k < 3; k++) {
        const [gx, gy] = [as.slopes[6 * t + 2 * k] as number, as.slopes[6 * t + 2 * k + 1] as number]
        q[2 * k] = mode === 0 ? gx : gy
        q[2 * k + 1] = mode === 0 ? -gy : gx
      }
      for (let a = 0; a < 6; a++)
        for (let b = 0; b < 6; b++)
          add(
            2 * (mesh.triangles[3 * t + (a >> 1)] as number) + (a & 1),
            2 * (mesh.triangles[3 * t + (b >> 1)] as number) + (b & 1),
            (as.area[t] as number) * (q[a] as number) * (q[b] as number),
          )
    }
  const rows = new Int32Array(2 * n + 1)
  const keys = [...entries.keys()].sort((a, b) => a - b)
  const cols = new Int32Array(keys.length)
  const vals = new Float64Array(keys.length)
  keys.forEach((key, i) => {
    const row = Math.floor(key / (2 * n))
    rows[row + 1] = (rows[row + 1] as number) + 1
    cols[i] = key % (2 * n)
    vals[i] = entries.get(key) as number
  })
  for (let i = 0; i < 2 * n; i++) rows[i + 1] = (rows[i + 1] as number) + (rows[i] as number)
  return { size: 2 * n, rows, cols, vals }
}

/**
 * The yardstick: so many steps of conjugate gradients on the conformal map of a mesh, a dot product and a matrix
 * times a vector each.
 */
export function conjugateGradients(mesh: TriMesh, steps: number): number {
  const { size, rows, cols, vals } = conformal(mesh)
  const times = (x: Float64Array, y: Float64Array) => {
    for (let i = 0; i < size; i++) {
      let s = 0
      for (let p = rows[i] as number; p < (rows[i + 1] as number); p++)
        s += (vals[p] as number) * (x[cols[p] as number] as number)
      y[i] = s
    }
  }
  const r = Float64Array.from({ length: size }, (_, i) => Math.sin(i))
  const d = r.slice()
  const x = new Float64Array(size)
  const y = new Float64Array(size)
  const dot = (a: Float64Array, b: Float64Array) => {
    let s = 0
    for (let i = 0; i < a.length; i++) s += (a[i] as number) * (b[i] as number)
    return s
  }
  const began = performance.now()
  let rr = dot(r, r)
  for (let k = 0; k < steps; k++) {
    times(d, y)
    const alpha = rr / Math.max(1e-30, dot(d, y))
    for (let i = 0; i < x.length; i++) {
      x[i] = (x[i] as number) + alpha * (d[i] as number)
      r[i] = (r[i] as number) - alpha * (y[i] as number)
    }
    const next = dot(r, r)
    for (let i = 0; i < d.length; i++) d[i] = (r[i] as number) + (next / rr) * (d[i] as number)
    rr = next
  }
  return performance.now() - began
}
