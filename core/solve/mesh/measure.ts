import { Assembly, decomposeInto, type Decomposition } from './assemble'
import type { TriMesh } from './mesh'

/**
 * What film laid as a flat map says of every triangle: λ1 − 1 (stretch) and 1 − λ2 (squeeze), the ratios film →
 * surface.
 */
export interface Strain {
  stretch: Float64Array
  squeeze: Float64Array
  area: Float64Array
  /** Direction in film of the greatest stretch, radians. */
  direction: Float64Array
  flipped: number
}

/** `places`: film place of each corner, xy (length 6t). */
export function strainOf(mesh: TriMesh, corners: Float64Array): Strain {
  const as = Assembly.slopesOf(mesh)
  const d: Decomposition = { s1: 0, s2: 0, cu: 1, su: 0, cv: 1, sv: 0 }
  const count = mesh.triangles.length / 3
  const out: Strain = {
    stretch: new Float64Array(count),
    squeeze: new Float64Array(count),
    area: as.area,
    direction: new Float64Array(count),
    flipped: 0,
  }
  for (let t = 0; t < count; t++) {
    let [f00, f01, f10, f11] = [0, 0, 0, 0]
    for (let k = 0; k < 3; k++) {
      const [x, y] = [corners[6 * t + 2 * k], corners[6 * t + 2 * k + 1]]
      const [gx, gy] = [as.slopes[6 * t + 2 * k], as.slopes[6 * t + 2 * k + 1]]
      f00 += x * gx
      f01 += x * gy
      f10 += y * gx
      f11 += y * gy
    }
    decomposeInto(d, f00, f01, f10, f11)
    if (!(d.s2 > 0)) out.flipped++
    // The map is surface → film: what film → surface stretches most is what it shrinks most.
    out.stretch[t] = 1 / d.s2 - 1
    // What film is shrunk most against the surface lies along the second direction.
    out.direction[t] = Math.atan2(d.cu, -d.su)
    out.squeeze[t] = 1 - 1 / d.s1
  }
  return out
}

/** The value that a share of the area does not pass. */
export function quantile(values: Float64Array, area: Float64Array, share: number): number {
  const order = Array.from(values.keys()).sort((a, b) => values[a] - values[b])
  const total = area.reduce((s, a) => s + a, 0)
  let run = 0
  for (const i of order) {
    run += area[i]
    if (run >= share * total - 1e-12) return values[i]
  }
  return order.length > 0 ? values[order[order.length - 1]] : 0
}
