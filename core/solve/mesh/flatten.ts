import { err, ok, type Result } from '../../kit/result'
import { Assembly, decomposeInto, type Decomposition } from './assemble'
import { conformal, tutte } from './start'
import type { Topology, TriMesh } from './mesh'

export interface FlattenOptions {
  /** How much the film may be squeezed [–]: λ2 ≥ 1 − shrink. */
  shrink?: number
  /** Places of vertices that are laid already (length 2n), and which these are. */
  laid?: { places: Float64Array; fixed: Uint8Array } | null
  spent?: () => boolean
  progress?: (share: number) => void
}
export interface Flat {
  /** Film places xy (length 2n), in the units of the mesh. */
  places: Float64Array
  /** Newton steps taken. */
  steps: number
  /** False where the budget ended it. */
  whole: boolean
}

/** How far from the least worst stretch, as a share of it, the barrier may leave the map. */
const GAP = 0.002
/** Below this spread of log stretch a map has none. */
const NOTHING = 1e-5
const MOST_STEPS = 90
/** Worst stretch may rise by this share while the mean square is lowered. */
const SLACK = 0.004
/** How much harder the bound is pushed each stage, and Newton steps in one at most. */
const HARDER = 8
const PER_STAGE = 3
/** Stages and steps of the second phase. */
const RELAX = { stages: 2, steps: 4 }
/** From so many triangles on, fewer steps. */
const LARGE = 150_000

/**
 * Flat film for one part of a surface, with the least worst stretch: a start without flipped triangles, then Newton's
 * method on a barrier over both singular values of every triangle, which brings the greatest over the least of them down;
 * then, at that worst (and a little), the least mean-square stretch. Scaled so that nothing is squeezed past `shrink`.
 * Smooth where a triangle is stretched alike all ways: each singular value is held between both bounds.
 * Source: docs/sources.md#boyd-2004, docs/sources.md#smith-2019. Errors: cannot_flatten.
 */
export function flatten(mesh: TriMesh, topology: Topology, options: FlattenOptions = {}): Result<Flat> {
  const { shrink = 0, laid = null, spent = () => false, progress } = options
  const n = mesh.positions.length / 3
  const fixed = laid?.fixed ?? new Uint8Array(n)
  const work = new Work(new Assembly(mesh, fixed))
  let u = laid ? startFrom(mesh, laid) : (sound(work, conformal(mesh, topology)) ?? sound(work, tutte(mesh, topology)))
  if (!u || !sound(work, u)) return err({ code: 'cannot_flatten' })
  if (!laid) work.centre(u)
  const large = mesh.triangles.length / 3 > LARGE
  const perStage = large ? PER_STAGE - 1 : PER_STAGE
  let steps = 0
  let whole = true
  const out = () => {
    if (!laid) scaleTo(work, u as Float64Array, 1 - shrink)
    return ok({ places: u as Float64Array, steps, whole })
  }
  let spread = work.spread(u)
  if (spread < NOTHING) return out()
  // Phase one: the least bound t with −t ≤ log σ ≤ t.
  let t = spread * 1.25 + 1e-9
  let push = work.pushAt(u, t)
  const total = Math.ceil(Math.log(4 / GAP / Math.max(1e-9, push * t)) / Math.log(HARDER)) + 4
  for (let stage = 0; steps < MOST_STEPS; stage++) {
    for (let k = 0; k < perStage && steps < MOST_STEPS; k++) {
      if (spent()) {
        whole = false
        return out()
      }
      const next = work.step(u, t, push)
      steps++
      progress?.(Math.min(0.8, (0.8 * stage) / total))
      if (!next) break
      u = next.u
      t = next.t
      if (next.decrement < 0.02) break
    }
    if (4 / push < GAP * t || t < NOTHING) break
    push *= HARDER
  }
  spread = work.spread(u)
  if (spread < NOTHING || laid) return out()
  // Phase two: the same worst, and a little; the least mean square.
  const worst = work.worst(u)
  const bound = Math.log(1 + (worst - 1) * (1 + SLACK)) / 2 + 1e-9
  work.centre(u)
  let weight = 0.02 * work.meanSquare(u, bound)
  for (let stage = 0; stage < (large ? 1 : RELAX.stages); stage++, weight *= 0.1)
    for (let k = 0; k < RELAX.steps; k++) {
      if (spent()) {
        whole = false
        return out()
      }
      const next = work.relax(u, bound, weight)
      steps++
      progress?.(0.8 + 0.2 * ((stage * RELAX.steps + k) / (RELAX.stages * RELAX.steps)))
      if (!next) break
      u = next.u
      if (next.decrement < 1e-4 * weight) break
    }
  return out()
}

/** Vertices that are laid stay; the others begin where the smoothest continuation has them. */
function startFrom(mesh: TriMesh, laid: NonNullable<FlattenOptions['laid']>): Float64Array {
  void mesh
  return laid.places.slice()
}

const sound = (work: Work, u: Float64Array | null): Float64Array | null => (u && work.flipped(u) === 0 ? u : null)

/** Scales film so that the least of λ2 is exactly `least`. */
function scaleTo(work: Work, u: Float64Array, least: number): void {
  const [, most] = work.extremes(u)
  const scale = 1 / (most * least)
  for (let i = 0; i < u.length; i++) u[i] = (u[i] as number) * scale
}

/** The energy, its slope and its bend over all triangles. */
class Work {
  private readonly weight: Float64Array
  private readonly d: Decomposition = { s1: 0, s2: 0, cu: 1, su: 0, cv: 1, sv: 0 }
  private readonly gradient: Float64Array
  private readonly cross: Float64Array
  private readonly q = new Float64Array(6)
  constructor(private readonly as: Assembly) {
    // Half by area, half by triangle: slivers do not stall, large triangles are not lost.
    this.weight = Float64Array.from(as.area, (a) => 0.5 / as.count + (0.5 * a) / as.totalArea)
    this.gradient = new Float64Array(2 * as.n)
    this.cross = new Float64Array(2 * as.n)
  }
  /** Singular values of the map surface → film of triangle t into `d`. */
  private at(u: Float64Array, t: number): void {
    const { slopes, mesh } = this.as
    const tri = mesh.triangles
    let [f00, f01, f10, f11] = [0, 0, 0, 0]
    for (let k = 0; k < 3; k++) {
      const v = 2 * (tri[3 * t + k] as number)
      const [x, y] = [u[v] as number, u[v + 1] as number]
      const [gx, gy] = [slopes[6 * t + 2 * k] as number, slopes[6 * t + 2 * k + 1] as number]
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
      this.at(u, t)
      if (!(this.d.s2 > 0)) count++
    }
    return count
  }
  /** Least and greatest singular value. */
  extremes(u: Float64Array): [number, number] {
    let [least, most] = [Infinity, 0]
    for (let t = 0; t < this.as.count; t++) {
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
    for (let i = 0; i < u.length; i++) u[i] = (u[i] as number) * scale
  }
  /** How hard the bound is pushed where the barrier alone would hold it at t. */
  pushAt(u: Float64Array, t: number): number {
    let sum = 0
    for (let i = 0; i < this.as.count; i++) {
      this.at(u, i)
      for (const s of [this.d.s1, this.d.s2]) {
        const a = Math.log(s)
        sum += ((this.weight[i] as number) * 2 * t) / (t * t - a * a)
      }
    }
    return sum
  }
  private barrier(u: Float64Array, t: number): number {
    let sum = 0
    for (let i = 0; i < this.as.count; i++) {
      this.at(u, i)
      if (!(this.d.s2 > 0)) return Infinity
      const [a, b] = [Math.log(this.d.s1), Math.log(this.d.s2)]
      const [p, q] = [t * t - a * a, t * t - b * b]
      if (!(p > 0 && q > 0)) return Infinity
      sum -= (this.weight[i] as number) * (Math.log(p) + Math.log(q))
    }
    return sum
  }

  /** Adds a triangle's bend by its four modes, and its slope: h1, h2 along the singular directions, hf and ht across. */
  private bend(
    t: number,
    g1: number,
    g2: number,
    h1: number,
    h2: number,
    hf: number,
    ht: number,
    c1: number,
    c2: number,
  ): void {
    const { as, d, q, gradient, cross } = this
    const { slopes } = as
    const tri = as.mesh.triangles
    for (let mode = 0; mode < 4; mode++) {
      const weight = mode === 0 ? h1 : mode === 1 ? h2 : mode === 2 ? hf : ht
      for (let k = 0; k < 3; k++) {
        const [gx, gy] = [slopes[6 * t + 2 * k] as number, slopes[6 * t + 2 * k + 1] as number]
        // The slope along the film's two singular directions on the surface's side.
        const a = d.cv * gx + d.sv * gy
        const b = -d.sv * gx + d.cv * gy
        // D1 = u1 v1ᵀ, D2 = u2 v2ᵀ, flip = (u1 v2ᵀ + u2 v1ᵀ)/√2, twist = (u2 v1ᵀ − u1 v2ᵀ)/√2.
        const [along, over] = mode === 0 ? [a, 0] : mode === 1 ? [0, b] : mode === 2 ? [b * Math.SQRT1_2, a * Math.SQRT1_2] : [-b * Math.SQRT1_2, a * Math.SQRT1_2] // prettier-ignore
        q[2 * k] = d.cu * along - d.su * over
        q[2 * k + 1] = d.su * along + d.cu * over
      }
      if (weight > 0) as.add(t, weight, q)
      if (mode > 1) continue
      const [g, c] = mode === 0 ? [g1, c1] : [g2, c2]
      for (let k = 0; k < 3; k++) {
        const v = tri[3 * t + k] as number
        if (as.fixed[v]) continue
        gradient[2 * v] = (gradient[2 * v] as number) + g * (q[2 * k] as number)
        gradient[2 * v + 1] = (gradient[2 * v + 1] as number) + g * (q[2 * k + 1] as number)
        if (c === 0) continue
        cross[2 * v] = (cross[2 * v] as number) + c * (q[2 * k] as number)
        cross[2 * v + 1] = (cross[2 * v + 1] as number) + c * (q[2 * k + 1] as number)
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
    for (let i = 0; i < as.count; i++) {
      this.at(u, i)
      const w = this.weight[i] as number
      const [a, b] = [Math.log(d.s1), Math.log(d.s2)]
      const [p, q] = [t * t - a * a, t * t - b * b]
      const [ga, gb] = [(2 * a) / p, (2 * b) / q]
      const [haa, hbb] = [(2 * (t * t + a * a)) / (p * p), (2 * (t * t + b * b)) / (q * q)]
      gt -= w * 2 * t * (1 / p + 1 / q)
      htt += w * (haa + hbb)
      const [g1, g2] = [ga / d.s1, gb / d.s2]
      const [h1, h2] = [haa / (d.s1 * d.s1), hbb / (d.s2 * d.s2)]
      const gap = d.s1 - d.s2
      const flip = gap > 1e-6 * d.s1 ? (g1 - g2) / gap : h1
      const twist = (g1 + g2) / (d.s1 + d.s2)
      this.bend(i, w * g1, w * g2, w * h1, w * h2, w * Math.max(0, flip), w * Math.max(0, twist), (-w * 4 * t * a) / (p * p * d.s1), (-w * 4 * t * b) / (q * q * d.s2)) // prettier-ignore
    }
    if (!as.factor()) return null
    const y = as.cholesky.solve(this.cross)
    const z = as.cholesky.solve(this.gradient)
    const dot = (a: Float64Array, b: Float64Array) => a.reduce((s, x, i) => s + x * (b[i] as number), 0)
    const rest = htt - dot(this.cross, y)
    const dt = rest > 1e-12 * htt ? (-gt + dot(this.cross, z)) / rest : -gt / htt
    const direction = new Float64Array(u.length)
    for (let i = 0; i < u.length; i++) direction[i] = -(z[i] as number) - dt * (y[i] as number)
    const slope = dot(this.gradient, direction) + gt * dt
    if (!(slope < 0)) return null
    const now = push * t + this.barrier(u, t)
    return this.search(u, direction, slope, now, (v, alpha) => {
      const bound = t + alpha * dt
      return bound > 0 ? { value: push * bound + this.barrier(v, bound), t: bound } : { value: Infinity, t }
    })
  }

  /** Mean square of film stretch, for a map centred so that log σ lies between −bound and bound. */
  meanSquare(u: Float64Array, bound: number): number {
    const scale = Math.exp(bound)
    let sum = 0
    for (let i = 0; i < this.as.count; i++) {
      this.at(u, i)
      sum +=
        ((this.as.area[i] as number) / this.as.totalArea) *
        ((scale / this.d.s1 - 1) ** 2 + (scale / this.d.s2 - 1) ** 2)
    }
    return sum
  }
  /** One Newton step of the mean square and a barrier at the bound. */
  relax(u: Float64Array, bound: number, weight: number): { u: Float64Array; t: number; decrement: number } | null {
    const { as, d } = this
    const scale = Math.exp(bound)
    as.clear()
    this.gradient.fill(0)
    for (let i = 0; i < as.count; i++) {
      this.at(u, i)
      const m = (as.area[i] as number) / as.totalArea
      const w = weight * (this.weight[i] as number)
      const of = (s: number): [number, number] => {
        const l = scale / s
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
      this.bend(i, g1, g2, h1, h2, Math.max(0, flip), Math.max(0, (g1 + g2) / (d.s1 + d.s2)), 0, 0)
    }
    if (!as.factor()) return null
    const z = as.cholesky.solve(this.gradient)
    const direction = z.map((x) => -x)
    const slope = direction.reduce((s, x, i) => s + x * (this.gradient[i] as number), 0)
    if (!(slope < 0)) return null
    const energy = (v: Float64Array) => this.meanSquare(v, bound) + weight * this.barrier(v, bound)
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
      for (let i = 0; i < u.length; i++) next[i] = (u[i] as number) + alpha * (direction[i] as number)
      const there = value(next, alpha)
      if (there.value <= now + 1e-4 * alpha * slope) return { u: next, t: there.t, decrement: -slope }
    }
    return null
  }
}
