import { hermite, History, type Crossing } from './history'
import {
  depthMesh,
  nodeAt,
  radiated,
  radiatedSlope,
  type DepthMesh,
  type Exchange,
  type Layer,
  type Radiation,
} from './layers'
import { RODAS } from './rodas'

/** A time during which nothing changes outside. */
export interface Phase {
  seconds: number
  front: Exchange
}

export interface PointRun {
  startC: number
  layers: readonly Layer[]
  phases: readonly Phase[]
  back: Exchange
  radiation: Radiation | null
  /** In any order, within the run, s. */
  timesS: readonly number[]
  /** Within the wall, m. */
  depthsM: readonly number[]
  thresholdsC: readonly number[]
}

export interface PointResult {
  /** By time, then by depth. */
  tempsC: number[][]
  peakC: number
  peakS: number
  finalC: number
  crossings: readonly Crossing[]
  /** J/m², counted into the wall. */
  energy: { front: number; back: number; stored: number }
}

/** Error allowed in a step, °C: far below what any answer is asked to. */
const STEP_TOLERANCE_C = 2e-4
const SHORTEST_S = 0.02
/** Moments that part by less are one, s. */
const SAME_MOMENT_S = 1e-7
const FINENESS = { growth: 0.03, least: 18 }

/**
 * Heat through a wall of layers at one place: conduction in depth, air or flux in front, air behind, radiation in front.
 * Finite volumes in depth, in time the Rosenbrock method RODAS of order 4 with its own step (Hairer & Wanner, Solving
 * Ordinary Differential Equations II, IV.7).
 */
export function pointHeat(run: PointRun): PointResult {
  const marks = run.depthsM
  const ends = run.phases.map((_, i) => run.phases.slice(0, i + 1).reduce((sum, p) => sum + p.seconds, 0))
  const asked = run.timesS.map((t) => ends.find((e) => Math.abs(e - t) < SAME_MOMENT_S) ?? t)
  const times = [...new Set(asked)].sort((a, b) => a - b)
  const shortest = Math.min(...run.phases.map((p) => p.seconds), ...times.filter((t) => t > 0))
  const mesh = depthMesh(run.layers, marks, { ...FINENESS, shortestS: Math.max(1e-4, Math.min(shortest, SHORTEST_S)) })
  const nodes = run.depthsM.map((d) => nodeAt(mesh, d))
  const temps = new Float64Array(mesh.depths.length).fill(run.startC)
  const history = new History(run.startC, run.thresholdsC)
  const kept = new Map<number, number[]>()
  const keep = (at: number): void => {
    kept.set(
      at,
      nodes.map((i) => temps[i]),
    )
  }
  if (times[0] === 0) keep(0)
  const energy = { front: 0, back: 0, stored: 0 }
  let at = 0
  for (const [index, phase] of run.phases.entries()) {
    const end = ends[index]
    const stepper = new WallStepper(mesh, phase.front, run.back, run.radiation)
    stepper.begin(temps)
    for (const stop of [...times.filter((t) => t > at && t < end), end]) {
      at = stepper.advanceInPlace(temps, at, stop, history, energy)
      keep(stop)
    }
  }
  mesh.capacity.forEach((c, i) => (energy.stored += c * (temps[i] - run.startC)))
  return {
    tempsC: asked.map((t) => kept.get(t) ?? []),
    peakC: history.peakC,
    peakS: history.peakS,
    finalC: history.finalC,
    crossings: history.crossings,
    energy,
  }
}

interface Energy {
  front: number
  back: number
}

/** Steps one wall under one weather; the step's length is kept from call to call. */
class WallStepper {
  private readonly n: number
  private step = 1e-4
  private readonly stages: Float64Array[]
  private readonly trial: Float64Array
  private readonly rates: Float64Array
  private readonly diagonal: Float64Array
  private readonly pivots: Float64Array
  private readonly slopeNow: Float64Array
  constructor(
    private readonly mesh: DepthMesh,
    private readonly front: Exchange,
    private readonly back: Exchange,
    private readonly radiation: Radiation | null,
  ) {
    this.n = mesh.depths.length
    this.stages = RODAS.map(() => new Float64Array(this.n))
    this.trial = new Float64Array(this.n)
    this.rates = new Float64Array(this.n)
    this.diagonal = new Float64Array(this.n)
    this.pivots = new Float64Array(this.n)
    this.slopeNow = new Float64Array(this.n)
  }

  begin(temps: Float64Array): void {
    this.flow(temps, this.slopeNow)
  }

  /** Steps until `stopS`, which is the answer. */
  advanceInPlace(
    temps: Float64Array,
    fromS: number,
    stopS: number,
    ...[history, energy]: [history: History, energy: Energy]
  ): number {
    let at = fromS
    while (at < stopS - 1e-12 * Math.max(1, stopS)) {
      const left = stopS - at
      // Two even steps rather than one long and one crumb.
      const seconds = this.step >= left ? left : this.step > left / 2 ? left / 2 : this.step
      const error = this.tryStep(temps, seconds)
      const factor = Math.min(4, Math.max(0.2, 0.9 * Math.max(error, 1e-12) ** -0.25))
      if (error > 1 && seconds > 1e-9) {
        this.step = seconds * factor
        continue
      }
      const was = { c: temps[0], slope: this.slopeNow[0] / this.mesh.capacity[0] }
      const wasIn = this.into(temps)
      temps.set(this.trial)
      this.flow(temps, this.slopeNow)
      const is = { c: temps[0], slope: this.slopeNow[0] / this.mesh.capacity[0] }
      const curve = hermite(was, is, seconds)
      history.add(at, seconds, curve)
      const isIn = this.into(temps)
      energy.front += (seconds / 6) * (wasIn.front + 4 * this.frontFlux(curve(0.5)) + isIn.front)
      energy.back += (seconds / 2) * (wasIn.back + isIn.back)
      at += seconds
      if (seconds >= this.step || error > 0.1) this.step = seconds * factor
    }
    return stopS
  }

  private frontFlux(c: number): number {
    const { airC, coefficient, flux } = this.front
    return coefficient * (airC - c) + flux + (this.radiation ? radiated(this.radiation, c) : 0)
  }
  private into(temps: Float64Array): Energy {
    const { airC, coefficient, flux } = this.back
    return { front: this.frontFlux(temps[0]), back: coefficient * (airC - temps[this.n - 1]) + flux }
  }

  /** Heat into each volume, W/m². */
  private flow(temps: Float64Array, out: Float64Array): void {
    const { conductance } = this.mesh
    const ends = this.into(temps)
    out.fill(0)
    out[0] = ends.front
    out[this.n - 1] += ends.back
    for (let i = 0; i + 1 < this.n; i++) {
      const through = conductance[i] * (temps[i] - temps[i + 1])
      out[i] -= through
      out[i + 1] += through
    }
  }

  /** One step into `trial`; its error over what is allowed. */
  private tryStep(temps: Float64Array, seconds: number): number {
    this.factor(temps, seconds)
    const { capacity } = this.mesh
    for (const [i, stage] of RODAS.entries()) {
      this.trial.set(temps)
      stage.add.forEach((a, j) => addTimes(this.trial, this.stages[j], a))
      this.flow(this.trial, this.rates)
      const k = this.stages[i]
      k.set(this.rates)
      stage.mix.forEach((c, j) => {
        for (let x = 0; x < this.n; x++) k[x] += ((c * capacity[x]) / seconds) * this.stages[j][x]
      })
      this.solveInPlace(k)
    }
    const last = this.stages[RODAS.length - 1]
    addTimes(this.trial, last, 1)
    let worst = 0
    for (let x = 0; x < this.n; x++) worst = Math.max(worst, Math.abs(last[x]))
    return worst / STEP_TOLERANCE_C
  }

  /** Factors capacity / (γ·step) + conductances, which is tridiagonal (Thomas). */
  private factor(temps: Float64Array, seconds: number): void {
    const { capacity, conductance } = this.mesh
    for (let i = 0; i < this.n; i++) {
      const sides = (i > 0 ? conductance[i - 1] : 0) + (i + 1 < this.n ? conductance[i] : 0)
      this.diagonal[i] = capacity[i] / (GAMMA * seconds) + sides
    }
    this.diagonal[0] += this.front.coefficient + (this.radiation ? radiatedSlope(this.radiation, temps[0]) : 0)
    this.diagonal[this.n - 1] += this.back.coefficient
    this.pivots[0] = this.diagonal[0]
    for (let i = 1; i < this.n; i++)
      this.pivots[i] = this.diagonal[i] - (conductance[i - 1] * conductance[i - 1]) / this.pivots[i - 1]
  }
  private solveInPlace(b: Float64Array): void {
    const { conductance } = this.mesh
    for (let i = 1; i < this.n; i++) b[i] += (conductance[i - 1] / this.pivots[i - 1]) * b[i - 1]
    b[this.n - 1] /= this.pivots[this.n - 1]
    for (let i = this.n - 2; i >= 0; i--) b[i] = (b[i] + conductance[i] * b[i + 1]) / this.pivots[i]
  }
}

const GAMMA = 0.25
const addTimes = (to: Float64Array, from: Float64Array, times: number): void => {
  for (let i = 0; i < to.length; i++) to[i] += times * from[i]
}
