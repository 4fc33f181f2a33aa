import { decomposeInto, type Assembly, type Decomposition } from './assemble'

/** Film takes stretch and hardly any squeeze: squeeze weighs this much more in the mean square. Assumed. */
const SQUEEZE_COUNTS = 4

/**
 * Of one triangle: slopes (g) and bends (h) along the two singular directions, bends of flip and twist across them (hf,
 * ht), and how the slopes change with the bound on the stretch (c).
 */
type Bend = Record<'g1' | 'g2' | 'h1' | 'h2' | 'hf' | 'ht' | 'c1' | 'c2', number>

/** The energy, its slope and its bend over all triangles. */
export class Work {
  private readonly weight: Float64Array
  private readonly d: Decomposition = { s1: 0, s2: 0, cu: 1, su: 0, cv: 1, sv: 0 }
  private readonly gradient: Float64Array
  private readonly cross: Float64Array
  private readonly q = new Float64Array(6)
  /** The upper bound on log σ is mid + ease · t; the lower is −t. */
  private mid = 0
  private ease = 1
  constructor(
    private readonly as: Assembly,
    /** Triangles that are not looked at. */
    private readonly skip: Uint8Array | null = null,
  ) {
    // Half by area, half by triangle: slivers do not stall, large triangles are not lost.
    this.weight = Float64Array.from(as.area, (a, i) => (skip?.[i] ? 0 : 0.5 / as.count + (0.5 * a) / as.totalArea))
    this.gradient = new Float64Array(2 * as.n)
    this.cross = new Float64Array(2 * as.n)
  }
  hold(mid: number, ease: number): void {
    this.mid = mid
    this.ease = ease
  }
  /** Singular values of the map surface → film of triangle t into `d`. */
  private at(u: Float64Array, t: number): void {
    const { slopes, mesh } = this.as
    const tri = mesh.triangles
    let f00 = 0
    let f01 = 0
    let f10 = 0
    let f11 = 0
    for (let k = 0; k < 3; k++) {
      const v = 2 * tri[3 * t + k]
      const x = u[v]
      const y = u[v + 1]
      const gx = slopes[6 * t + 2 * k]
      const gy = slopes[6 * t + 2 * k + 1]
      f00 += x * gx
      f01 += x * gy
      f10 += y * gx
      f11 += y * gy
    }
    decomposeInto(this.d, f00, f01, f10, f11)
  }
  flipped(u: Float64Array): number {
    let count = 0
    for (let t = 0; t < this.as.count; t++) {
      if (this.skip?.[t]) continue
      this.at(u, t)
      if (!(this.d.s2 > 0)) count++
    }
    return count
  }
  /** Least and greatest singular value. */
  extremes(u: Float64Array): [number, number] {
    let [least, most] = [Infinity, 0]
    for (let t = 0; t < this.as.count; t++) {
      if (this.skip?.[t]) continue
      this.at(u, t)
      if (this.d.s2 < least) least = this.d.s2
      if (this.d.s1 > most) most = this.d.s1
    }
    return [least, most]
  }
  worst(u: Float64Array): number {
    const [least, most] = this.extremes(u)
    return most / least
  }
  spread(u: Float64Array): number {
    const [least, most] = this.extremes(u)
    return Math.max(Math.abs(Math.log(least)), Math.abs(Math.log(most)))
  }
  /** Scales so that least and greatest stand alike from 1. */
  centre(u: Float64Array): void {
    const [least, most] = this.extremes(u)
    const scale = 1 / Math.sqrt(least * most)
    for (let i = 0; i < u.length; i++) u[i] = u[i] * scale
  }
  /** How hard the bound is pushed where the barrier alone would hold it at t. */
  pushAt(u: Float64Array, t: number): number {
    let sum = 0
    for (let i = 0; i < this.as.count; i++) {
      const w = this.weight[i]
      if (w === 0) continue
      this.at(u, i)
      for (const s of [this.d.s1, this.d.s2]) {
        const a = Math.log(s)
        sum += w * (this.ease / (this.mid + this.ease * t - a) + 1 / (a + t))
      }
    }
    return sum
  }
  private barrier(u: Float64Array, t: number): number {
    const top = this.mid + this.ease * t
    let sum = 0
    for (let i = 0; i < this.as.count; i++) {
      const w = this.weight[i]
      if (w === 0) continue
      this.at(u, i)
      if (!(this.d.s2 > 0)) return Infinity
      const a = Math.log(this.d.s1)
      const b = Math.log(this.d.s2)
      const p = (top - a) * (a + t)
      const q = (top - b) * (b + t)
      if (!(top > a && p > 0 && q > 0)) return Infinity
      sum -= w * Math.log(p * q)
    }
    return sum
  }

  /**
   * Adds a triangle's bend by its four modes, and its slope: h1, h2 along the singular directions, hf and ht across.
   */
  private bend(t: number, { g1, g2, h1, h2, hf, ht, c1, c2 }: Bend): void {
    const { as, q, gradient, cross } = this
    const { cu, su, cv, sv } = this.d
    const { slopes } = as
    const tri = as.mesh.triangles
    for (let mode = 0; mode < 4; mode++) {
      const weight = mode === 0 ? h1 : mode === 1 ? h2 : mode === 2 ? hf : ht
      // Those without weight and slope add nothing.
      if (weight <= 0 && mode > 1) continue
      for (let k = 0; k < 3; k++) {
        const gx = slopes[6 * t + 2 * k]
        const gy = slopes[6 * t + 2 * k + 1]
        // The slope along the film's two singular directions on the surface's side.
        const a = cv * gx + sv * gy
        const b = cv * gy - sv * gx
        // D1 = u1 v1ᵀ, D2 = u2 v2ᵀ, flip = (u1 v2ᵀ + u2 v1ᵀ)/√2, twist = (u2 v1ᵀ − u1 v2ᵀ)/√2.
        const along = mode === 0 ? a : mode === 1 ? 0 : mode === 2 ? b * Math.SQRT1_2 : -b * Math.SQRT1_2
        const over = mode === 0 ? 0 : mode === 1 ? b : a * Math.SQRT1_2
        q[2 * k] = cu * along - su * over
        q[2 * k + 1] = su * along + cu * over
      }
      if (weight > 0) as.add(t, weight, q)
      if (mode > 1) continue
      const g = mode === 0 ? g1 : g2
      const c = mode === 0 ? c1 : c2
      for (let k = 0; k < 3; k++) {
        const v = tri[3 * t + k]
        if (as.fixed[v]) continue
        gradient[2 * v] = gradient[2 * v] + g * q[2 * k]
        gradient[2 * v + 1] = gradient[2 * v + 1] + g * q[2 * k + 1]
        if (c === 0) continue
        cross[2 * v] = cross[2 * v] + c * q[2 * k]
        cross[2 * v + 1] = cross[2 * v + 1] + c * q[2 * k + 1]
      }
    }
  }

  /** One damped Newton step of push·t + barrier over film places and t; null where there is none. */
  step(u: Float64Array, t: number, push: number): { u: Float64Array; t: number; decrement: number } | null {
    const { as, d } = this
    as.clear()
    this.gradient.fill(0)
    this.cross.fill(0)
    let gt = push
    let htt = 0
    const { mid, ease } = this
    const top = mid + ease * t
    /** Slope and bend of −log(top − a) − log(a + t) by a, by t and across. */
    const of = (a: number): [number, number, number, number, number] => {
      const [p, q] = [1 / (top - a), 1 / (a + t)]
      return [p - q, p * p + q * q, -ease * p - q, ease * ease * p * p + q * q, q * q - ease * p * p]
    }
    for (let i = 0; i < as.count; i++) {
      const w = this.weight[i]
      if (w === 0) continue
      this.at(u, i)
      const [ga, haa, ta, tta, ca] = of(Math.log(d.s1))
      const [gb, hbb, tb, ttb, cb] = of(Math.log(d.s2))
      gt += w * (ta + tb)
      htt += w * (tta + ttb)
      const [g1, g2] = [ga / d.s1, gb / d.s2]
      const [h1, h2] = [haa / (d.s1 * d.s1), hbb / (d.s2 * d.s2)]
      const gap = d.s1 - d.s2
      const flip = gap > 1e-6 * d.s1 ? (g1 - g2) / gap : h1
      const twist = (g1 + g2) / (d.s1 + d.s2)
      this.bend(i, {
        g1: w * g1,
        g2: w * g2,
        h1: w * h1,
        h2: w * h2,
        hf: w * Math.max(0, flip),
        ht: w * Math.max(0, twist),
        c1: (w * ca) / d.s1,
        c2: (w * cb) / d.s2,
      })
    }
    if (!as.factor()) return null
    const [y, z] = as.cholesky.solveBoth(this.cross, this.gradient)
    const rest = htt - dot(this.cross, y)
    const dt = rest > 1e-12 * htt ? (-gt + dot(this.cross, z)) / rest : -gt / htt
    const direction = new Float64Array(u.length)
    for (let i = 0; i < u.length; i++) direction[i] = -z[i] - dt * y[i]
    const slope = dot(this.gradient, direction) + gt * dt
    if (!(slope < 0)) return null
    const now = push * t + this.barrier(u, t)
    return this.search(u, direction, slope, now, (v, alpha) => {
      const bound = t + alpha * dt
      return bound > 0 ? { value: push * bound + this.barrier(v, bound), t: bound } : { value: Infinity, t }
    })
  }

  /**
   * Mean square of film strain, for a map centred so that log σ lies between −bound and bound: film is stretched by
   * `least`·e^bound / σ, never less than `least`. Squeeze counts `SQUEEZE_COUNTS` times.
   */
  meanSquare(u: Float64Array, bound: number, least = 1): number {
    const scale = Math.exp(bound) * least
    const of = (s: number) => (scale / s - 1) ** 2 * (scale < s ? SQUEEZE_COUNTS : 1)
    let sum = 0
    for (let i = 0; i < this.as.count; i++) {
      this.at(u, i)
      sum += (this.as.area[i] / this.as.totalArea) * (of(this.d.s1) + of(this.d.s2))
    }
    return sum
  }
  /** One Newton step of the mean square and a barrier at the bound. */
  relax(
    u: Float64Array,
    bound: number,
    weight: number,
    least = 1,
  ): { u: Float64Array; t: number; decrement: number } | null {
    const { as, d } = this
    const scale = Math.exp(bound) * least
    as.clear()
    this.gradient.fill(0)
    for (let i = 0; i < as.count; i++) {
      this.at(u, i)
      const share = as.area[i] / as.totalArea
      const w = weight * this.weight[i]
      const of = (s: number): [number, number] => {
        const l = scale / s
        const m = l < 1 ? share * SQUEEZE_COUNTS : share
        const a = Math.log(s)
        const p = bound * bound - a * a
        const g = (-2 * m * (l - 1) * l) / s + (w * 2 * a) / (p * s)
        const h =
          (m * (2 * l * l + 4 * Math.max(0, l - 1) * l)) / (s * s) + (w * 2 * (bound * bound + a * a)) / (p * p * s * s)
        return [g, h]
      }
      const [g1, h1] = of(d.s1)
      const [g2, h2] = of(d.s2)
      const gap = d.s1 - d.s2
      const flip = gap > 1e-6 * d.s1 ? (g1 - g2) / gap : h1
      const [hf, ht] = [Math.max(0, flip), Math.max(0, (g1 + g2) / (d.s1 + d.s2))]
      this.bend(i, { g1, g2, h1, h2, hf, ht, c1: 0, c2: 0 })
    }
    if (!as.factor()) return null
    const z = as.cholesky.solve(this.gradient)
    const direction = z.map((x) => -x)
    const slope = dot(direction, this.gradient)
    if (!(slope < 0)) return null
    const energy = (v: Float64Array) => this.meanSquare(v, bound, least) + weight * this.barrier(v, bound)
    return this.search(u, direction, slope, energy(u), (v) => ({ value: energy(v), t: bound }))
  }

  /** Backs off until nothing flips, no bound is crossed and the energy falls. */
  private search(
    u: Float64Array,
    direction: Float64Array,
    slope: number,
    now: number,
    value: (v: Float64Array, alpha: number) => { value: number; t: number },
  ): { u: Float64Array; t: number; decrement: number } | null {
    const next = new Float64Array(u.length)
    for (let alpha = 1; alpha > 1e-7; alpha *= alpha > 0.3 ? 0.7 : 0.4) {
      for (let i = 0; i < u.length; i++) next[i] = u[i] + alpha * direction[i]
      const there = value(next, alpha)
      if (there.value <= now + 1e-4 * alpha * slope) return { u: next, t: there.t, decrement: -slope }
    }
    return null
  }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i] * b[i]
  return sum
}
