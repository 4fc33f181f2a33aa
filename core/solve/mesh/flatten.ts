import { err, ok, type Result } from '../../kit/result'
import { Assembly } from './assemble'
import { Work } from './energy'
import { conformal, tutte } from './start'
import type { Topology, TriMesh } from './mesh'

export interface FlattenOptions {
  /** How much the film may be squeezed [–]: λ2 ≥ 1 − shrink. */
  shrink?: number
  /**
   * `tightest`: the least worst stretch. `even`: the least mean square, the worst no more than `EVEN` above the
   * least.
   */
  pull?: 'tightest' | 'even'
  /** Fewer steps: within a few per cent of the least, for previews and for many maps to be compared. */
  quick?: boolean
  /** Many more steps than there is time for: what benches measure the others against. */
  thorough?: boolean
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
/** What an even pull may have more of worst stretch than there need be, as a share of it. Assumed. */
const EVEN = 0.15
const EVEN_GAP = 0.03
/** A stage ends where a step promises less than this: the middle of the next one lies elsewhere anyway. */
const CENTRED = 2
/** The same of the mean square, in shares of the barrier's weight. */
const STILL = 0.3
/** How much harder the bound is pushed each stage. */
const HARDER = 8
/**
 * Newton steps in one stage at most, and of the second phase: stages, and steps in each. Fewer where a step costs
 * more.
 */
interface Effort {
  perStage: number
  stages: number
  steps: number
}
const QUICK: Effort = { perStage: 3, stages: 2, steps: 5 }
const THOROUGH: Effort = { perStage: 30, stages: 4, steps: 500 }
const EFFORTS: [triangles: number, effort: Effort][] = [
  [12_000, { perStage: 5, stages: 3, steps: 60 }],
  [40_000, { perStage: 4, stages: 2, steps: 16 }],
  [150_000, { perStage: 3, stages: 2, steps: 4 }],
  [Infinity, { perStage: 2, stages: 1, steps: 4 }],
]
const effortFor = (triangles: number): Effort => (EFFORTS.find(([most]) => triangles <= most) as [number, Effort])[1]

/**
 * Flat film for one part of a surface, with the least worst stretch: a start without flipped triangles, then Newton's
 * method on a barrier over both singular values of every triangle, which brings the greatest over the least of them
 * down; then, at that worst (and a little), the least mean-square stretch. Scaled so that nothing is squeezed past
 * `shrink`. Smooth where a triangle is stretched alike all ways: each singular value is held between both bounds.
 * Source: docs/sources.md#boyd-2004, docs/sources.md#smith-2019. Errors: cannot_flatten.
 */
export function flatten(mesh: TriMesh, topology: Topology, options: FlattenOptions = {}): Result<Flat> {
  const { shrink = 0, pull = 'tightest', quick = false, thorough = false, spent = () => false, progress } = options
  const n = mesh.positions.length / 3
  const assembly = new Assembly(mesh, new Uint8Array(n))
  const work = new Work(assembly)
  let u = sound(work, conformal(assembly, topology)) ?? sound(work, tutte(mesh, topology))
  if (!u) return err({ code: 'cannot_flatten' })
  work.centre(u)
  const effort = thorough ? THOROUGH : quick ? QUICK : effortFor(mesh.triangles.length / 3)
  const still = thorough ? 1e-7 : STILL
  const { perStage } = effort
  const stages = effort.stages + (pull === 'even' ? 1 : 0)
  let steps = 0
  let whole = true
  const out = () => {
    // Never shrunk for nothing: where the whole capacity is not wanted, the worst stretch is none.
    const worst = work.worst(u as Float64Array)
    scaleTo(work, u as Float64Array, Math.max(1 - shrink, 1 / worst))
    return ok({ places: u as Float64Array, steps, whole })
  }
  if (work.spread(u) < NOTHING) return out()
  // Phase one: the least bound t with −t ≤ log σ ≤ t.
  const tight = tighten(work, u, work.spread(u) * 1.25 + 1e-9, {
    perStage,
    spent,
    ...(pull === 'even' ? { gap: EVEN_GAP } : {}),
    ...(progress ? { progress } : {}),
  })
  u = tight.u
  steps = tight.steps
  whole = tight.whole
  if (!whole || work.spread(u) < NOTHING) return out()
  // Phase two: the same worst, and a little; the least mean square.
  const worst = work.worst(u)
  const bound = Math.log(1 + (worst - 1) * (1 + (pull === 'even' ? EVEN : SLACK))) / 2 + 1e-9
  // Only an even pull squeezes where that is easier; the tightest map is scaled at the end.
  const least = pull === 'even' ? 1 - shrink : 1
  work.centre(u)
  let weight = 0.02 * work.meanSquare(u, bound, least)
  for (let stage = 0; stage < stages; stage++, weight *= 0.1)
    for (let k = 0; k < effort.steps; k++) {
      if (spent()) {
        whole = false
        return out()
      }
      const next = work.relax(u, bound, weight, least)
      steps++
      progress?.(0.8 + 0.2 * ((stage * effort.steps + k) / (stages * effort.steps)))
      if (!next) break
      u = next.u
      if (next.decrement < still * weight) break
    }
  if (pull === 'even') {
    const scale = 1 / (Math.exp(bound) * least)
    return ok({ places: u.map((x) => x * scale), steps, whole })
  }
  return out()
}

/** Brings t down along the middle of the barrier, until what it may still be above the least is a small share of it. */
function tighten(
  work: Work,
  from: Float64Array,
  fromT: number,
  {
    perStage,
    spent,
    progress,
    gap = GAP,
  }: { perStage: number; spent: () => boolean; progress?: (share: number) => void; gap?: number },
): { u: Float64Array; t: number; steps: number; whole: boolean } {
  let [u, t, steps] = [from, fromT, 0]
  let push = work.pushAt(u, t)
  const total = Math.ceil(Math.log(4 / gap / Math.max(1e-9, push * t)) / Math.log(HARDER)) + 4
  for (let stage = 0; steps < MOST_STEPS; stage++) {
    for (let k = 0; k < perStage && steps < MOST_STEPS; k++) {
      if (spent()) return { u, t, steps, whole: false }
      const next = work.step(u, t, push)
      steps++
      progress?.(Math.min(0.8, (0.8 * stage) / total))
      if (!next) break
      u = next.u
      t = next.t
      if (next.decrement < CENTRED) break
    }
    if (4 / push < gap * t || t < NOTHING) break
    push *= HARDER
  }
  return { u, t, steps, whole: true }
}

/**
 * How much of the bound on stretch the bound on squeeze may give way by: less and less, at last far less than can be
 * measured.
 */
const EASES = [0.5, 0.15, 0.04, 0.012, 0.004]
/** How near its least each but the last is brought. */
const ROUGH_GAP = 0.05
/**
 * Where holding the squeeze down makes the worst stretch grow by more than this, there is no film without: it
 * wrinkles, and the milder map is kept.
 */
const GROWS = { share: 1.25, by: 0.005 }
/** Steps in which what is laid is brought to its place, at the least. */
const LEAST_MOVE = 1 / 256

/**
 * Film for the rest of a surface where a part of it is stuck already and moves no more: `laid` are film places of those
 * vertices, `fixed` marks them (1, 2 … for parts that are stuck apart from one another), `stuck` marks triangles that
 * are wholly so. Begins with the film of the whole, whose stuck part is moved to where it is, little by little; then
 * the least worst stretch of the rest with nothing squeezed past `shrink`. Errors: cannot_flatten.
 */
export function flattenRest(
  mesh: TriMesh,
  whole: Float64Array,
  stuck: { places: Float64Array; fixed: Uint8Array; triangles: Uint8Array },
  options: FlattenOptions = {},
): Result<Flat> {
  const { shrink = 0, spent = () => false, progress } = options
  const work = new Work(new Assembly(mesh, stuck.fixed), stuck.triangles)
  const target = aligned(whole, stuck)
  let u: Float64Array = whole.slice()
  let steps = 0
  for (let moved = 0, move = 0.5; moved < 1;) {
    const to = Math.min(1, moved + move)
    const next = u.slice()
    for (let i = 0; i < next.length; i++) if (stuck.fixed[i >> 1]) next[i] = whole[i] * (1 - to) + target[i] * to
    if (work.flipped(next) > 0) {
      move /= 2
      if (move < LEAST_MOVE) return err({ code: 'cannot_flatten' })
      continue
    }
    u = next
    moved = to
    // The rest follows a little, so that the next move finds room.
    for (let k = 0; k < 2; k++) {
      const t = work.spread(u) * 1.25 + 1e-6
      const after = work.step(u, t, work.pushAt(u, t))
      steps++
      if (!after) break
      u = after.u
    }
  }
  const most = -Math.log(1 - shrink)
  let done = true
  let before = Infinity
  for (const [i, ease] of EASES.entries()) {
    const [, widest] = work.extremes(u)
    work.hold(most, ease)
    const t = Math.max(work.spread(u) * 1.05, ((Math.log(widest) - most) / ease) * 1.02) + 1e-6
    const last = i === EASES.length - 1
    const tight = tighten(work, u, t, {
      perStage: QUICK.perStage,
      spent,
      gap: last ? GAP : ROUGH_GAP,
      ...(progress ? { progress: (p: number) => progress((i + p) / EASES.length) } : {}),
    })
    steps += tight.steps
    const [least] = work.extremes(tight.u)
    const worst = 1 / least - 1
    if (worst > before * GROWS.share + GROWS.by) break
    before = worst
    u = tight.u
    done = tight.whole
    if (!done) break
  }
  return ok({ places: u, steps, whole: done })
}

/** Each part that is stuck, turned and moved (not scaled) to lie best on the same vertices of another film. */
function aligned(film: Float64Array, stuck: { places: Float64Array; fixed: Uint8Array }): Float64Array {
  const out = film.slice()
  for (let part = 1; part <= stuck.fixed.reduce((m, x) => Math.max(m, x), 0); part++)
    alignInPlace(out, film, stuck, part)
  return out
}
function alignInPlace(
  out: Float64Array,
  film: Float64Array,
  stuck: { places: Float64Array; fixed: Uint8Array },
  part: number,
): void {
  const own: number[] = []
  stuck.fixed.forEach((f, v) => f === part && own.push(v))
  const mean = (list: Float64Array, d: number) => own.reduce((s, v) => s + list[2 * v + d], 0) / own.length
  const [ax, ay, bx, by] = [mean(stuck.places, 0), mean(stuck.places, 1), mean(film, 0), mean(film, 1)]
  let [dot, cross] = [0, 0]
  for (const v of own) {
    const [x, y] = [stuck.places[2 * v] - ax, stuck.places[2 * v + 1] - ay]
    const [p, q] = [film[2 * v] - bx, film[2 * v + 1] - by]
    dot += x * p + y * q
    cross += x * q - y * p
  }
  const l = Math.hypot(dot, cross) || 1
  for (const v of own) {
    const [x, y] = [stuck.places[2 * v] - ax, stuck.places[2 * v + 1] - ay]
    out[2 * v] = (x * dot - y * cross) / l + bx
    out[2 * v + 1] = (x * cross + y * dot) / l + by
  }
}

const sound = (work: Work, u: Float64Array | null): Float64Array | null => (u && work.flipped(u) === 0 ? u : null)

/** Scales film so that the least of λ2 is exactly `least`. */
function scaleTo(work: Work, u: Float64Array, least: number): void {
  const [, most] = work.extremes(u)
  const scale = 1 / (most * least)
  for (let i = 0; i < u.length; i++) u[i] = u[i] * scale
}
