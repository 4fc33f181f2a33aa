import { BlockCholesky, dissection } from './cholesky'
import type { TriMesh } from './mesh'

/**
 * A mesh made ready for flattening: for each triangle the slopes of its three corner functions in its own plane (six
 * numbers: x and y of each corner, 1/length), its share of the area, and the pattern of the matrix over all vertices.
 */
export class Assembly {
  readonly n: number
  readonly count: number
  /** Slopes, length 6t. */
  readonly slopes: Float64Array
  /** Area of each triangle, mm². */
  readonly area: Float64Array
  readonly totalArea: number
  readonly diagonal: Float64Array
  readonly blocks: Float64Array
  readonly cholesky: BlockCholesky
  /** Pair of each triangle's sides 0-1, 1-2, 2-0; whether it runs the other way. */
  private readonly pairOf: Int32Array
  private readonly turned: Uint8Array

  constructor(
    readonly mesh: TriMesh,
    /** Vertices that stay where they are. */
    readonly fixed: Uint8Array,
  ) {
    const { positions: p, triangles } = mesh
    const n = (this.n = p.length / 3)
    const count = (this.count = triangles.length / 3)
    const { slopes, area } = Assembly.slopesOf(mesh)
    this.slopes = slopes
    this.area = area
    const pairs: number[] = []
    const ids = new Map<number, number>()
    const neighbours: number[][] = Array.from({ length: n }, () => [])
    this.pairOf = new Int32Array(3 * count)
    this.turned = new Uint8Array(3 * count)
    for (let t = 0; t < count; t++) {
      const v = [triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]] as [number, number, number]
      for (let k = 0; k < 3; k++) {
        const [i, j] = [v[k], v[(k + 1) % 3]]
        const key = Math.min(i, j) * n + Math.max(i, j)
        let id = ids.get(key)
        if (id === undefined) {
          id = pairs.length / 2
          ids.set(key, id)
          pairs.push(Math.min(i, j), Math.max(i, j))
          neighbours[i].push(j)
          neighbours[j].push(i)
        }
        this.pairOf[3 * t + k] = id
        this.turned[3 * t + k] = i < j ? 0 : 1
      }
    }
    this.totalArea = area.reduce((sum, x) => sum + x, 0)
    this.diagonal = new Float64Array(3 * n)
    this.blocks = new Float64Array(2 * pairs.length)
    this.cholesky = new BlockCholesky(Int32Array.from(pairs), dissection(p, neighbours))
  }

  /** The same mesh and pattern with other vertices held; the two share their matrix, and are used one after the other. */
  holding(fixed: Uint8Array): Assembly {
    return Object.assign(Object.create(Assembly.prototype) as Assembly, this, { fixed })
  }

  /** Slopes of the corner functions of every triangle in its own plane, and its area. */
  static slopesOf({ positions: p, triangles }: TriMesh): { slopes: Float64Array; area: Float64Array } {
    const count = triangles.length / 3
    const slopes = new Float64Array(6 * count)
    const area = new Float64Array(count)
    for (let t = 0; t < count; t++) {
      const [a, b, c] = [triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]] as [number, number, number]
      const e = [0, 1, 2].map((i) => p[3 * b + i] - p[3 * a + i]) as [number, number, number]
      const f = [0, 1, 2].map((i) => p[3 * c + i] - p[3 * a + i]) as [number, number, number]
      // The triangle's own plane: a at 0, b on the x axis.
      const x1 = Math.hypot(...e)
      const x2 = (f[0] * e[0] + f[1] * e[1] + f[2] * e[2]) / x1
      const y2 = Math.hypot(e[1] * f[2] - e[2] * f[1], e[2] * f[0] - e[0] * f[2], e[0] * f[1] - e[1] * f[0]) / x1
      // Those of b and c from the inverse of the sides; a's is what makes them add up to nothing.
      const [bx, by, cx, cy] = [1 / x1, -x2 / (x1 * y2), 0, 1 / y2]
      slopes.set([-bx - cx, -by - cy, bx, by, cx, cy], 6 * t)
      area[t] = (x1 * y2) / 2
    }
    return { slopes, area }
  }

  clear(): void {
    this.diagonal.fill(0)
    this.blocks.fill(0)
  }
  /** Adds weight · q qᵀ for a triangle; q: two numbers a corner. */
  add(t: number, weight: number, q: Float64Array): void {
    const { diagonal, blocks, pairOf, turned, fixed } = this
    const { triangles } = this.mesh
    for (let k = 0; k < 3; k++) {
      const v = triangles[3 * t + k]
      if (fixed[v]) continue
      const qx = weight * q[2 * k]
      const qy = weight * q[2 * k + 1]
      diagonal[3 * v] = diagonal[3 * v] + qx * q[2 * k]
      diagonal[3 * v + 1] = diagonal[3 * v + 1] + qx * q[2 * k + 1]
      diagonal[3 * v + 2] = diagonal[3 * v + 2] + qy * q[2 * k + 1]
      const next = k === 2 ? 0 : k + 1
      const w = triangles[3 * t + next]
      if (fixed[w]) continue
      const rx = q[2 * next]
      const ry = q[2 * next + 1]
      const b = 4 * pairOf[3 * t + k]
      const flip = turned[3 * t + k] === 1
      blocks[b] = blocks[b] + qx * rx
      blocks[b + 1] = blocks[b + 1] + (flip ? qy * rx : qx * ry)
      blocks[b + 2] = blocks[b + 2] + (flip ? qx * ry : qy * rx)
      blocks[b + 3] = blocks[b + 3] + qy * ry
    }
  }
  /**
   * Makes the matrix safe to factor: a little on the diagonal, and one where a vertex stays. False where it still is
   * not.
   */
  factor(): boolean {
    const { n, diagonal, fixed } = this
    let sum = 0
    for (let v = 0; v < n; v++) sum += diagonal[3 * v] + diagonal[3 * v + 2]
    const base = sum / (2 * n)
    for (let little = 1e-9; little < 1; little *= 100) {
      const tried = diagonal.slice()
      for (let v = 0; v < n; v++) {
        tried[3 * v] = fixed[v] ? 1 : tried[3 * v] + little * base
        tried[3 * v + 2] = fixed[v] ? 1 : tried[3 * v + 2] + little * base
      }
      if (this.cholesky.factor(tried, this.blocks)) return true
    }
    return false
  }
}

/** Singular values and directions of the map of a triangle: F = R(φ) · diag(σ1, ±σ2) · R(ψ)ᵀ, by closed form. */
export interface Decomposition {
  s1: number
  s2: number
  /** cos and sin of φ and of ψ. */
  cu: number
  su: number
  cv: number
  sv: number
}
/** f00 f01 / f10 f11 → `into`; the second singular value is negative where the triangle is flipped. */
export function decomposeInto(into: Decomposition, f00: number, f01: number, f10: number, f11: number): void {
  const e = (f00 + f11) / 2
  const f = (f00 - f11) / 2
  const g = (f10 + f01) / 2
  const h = (f10 - f01) / 2
  // Not Math.hypot: it guards against numbers past 1e154, and takes many times as long.
  const q = Math.sqrt(e * e + h * h)
  const r = Math.sqrt(f * f + g * g)
  into.s1 = q + r
  into.s2 = q - r
  // Half of the sum and of the difference of the angles of (e, h) and (f, g), without going through the angles.
  const ce = q > 0 ? e / q : 1
  const se = q > 0 ? h / q : 0
  const cf = r > 0 ? f / r : 1
  const sf = r > 0 ? g / r : 0
  const sumC = ce * cf - se * sf
  const sumS = se * cf + ce * sf
  if (sumC >= 0) {
    into.cu = Math.sqrt((1 + sumC) / 2)
    into.su = sumS / (2 * into.cu)
  } else {
    into.su = Math.sqrt((1 - sumC) / 2)
    into.cu = sumS / (2 * into.su)
  }
  // F = R(φ) · S · R(θ) with 2φ = sum and 2θ = difference; θ = angle(e, h) − φ, so that both halves agree in sign.
  const ct = ce * into.cu + se * into.su
  const st = se * into.cu - ce * into.su
  into.cv = ct
  into.sv = -st
}
