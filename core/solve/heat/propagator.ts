import { depthModes } from './depth-modes'
import type { DepthMesh } from './layers'
import { waveNumber, type Side } from './waves'

/** The modes of all waves of a panel: they hang on the wall, its sides and the calm exchange, not on what is blown at it. */
export interface WaveModes {
  mesh: DepthMesh
  exchange: { front: number; back: number }
  waves: number
  offsets: Int32Array
  rates: Float64Array
  /** By row, then by mode. */
  weights: Float64Array[]
  /** By row, then by wave. */
  atOnce: Float64Array[]
}

/** Waves are those of the two sides, at n·nx + m. Rows: what is to be read, per node of the depth. */
export function waveModes(
  mesh: DepthMesh,
  { x, y }: { x: Side; y: Side },
  exchange: WaveModes['exchange'],
  rows: readonly Float64Array[],
): WaveModes {
  const waves = x.cells * y.cells
  const offsets = new Int32Array(waves + 1)
  const atOnce = rows.map(() => new Float64Array(waves))
  const rates: number[] = []
  const weights: number[][] = rows.map(() => [])
  for (let wave = 0; wave < waves; wave++) {
    const [m, n] = [wave % x.cells, Math.floor(wave / x.cells)]
    const modes = depthModes(mesh, waveNumber(x, m) ** 2 + waveNumber(y, n) ** 2, exchange, { rows })
    for (const rate of modes.rates) rates.push(rate)
    modes.weights.forEach((w, r) => weights[r].push(...w))
    modes.atOnce.forEach((a, r) => (atOnce[r][wave] = a))
    offsets[wave + 1] = rates.length
  }
  return {
    mesh,
    exchange,
    waves,
    offsets,
    rates: Float64Array.from(rates),
    weights: weights.map((w) => Float64Array.from(w)),
    atOnce,
  }
}

/**
 * Carries the heat of every wave over a step exactly, for a flux that is a parabola in time. Temperatures are over the
 * start.
 */
export class Propagator {
  readonly waves: number
  private readonly offsets: Int32Array
  private readonly amplitudes: Float64Array
  private readonly tables: Map<string, StepTable>

  constructor(private readonly modes: WaveModes) {
    this.waves = modes.waves
    this.tables = tablesOf.get(modes) ?? new Map<string, StepTable>()
    tablesOf.set(modes, this.tables)
    this.offsets = modes.offsets
    this.amplitudes = new Float64Array(modes.rates.length)
  }

  table(seconds: number): StepTable {
    const name = seconds.toPrecision(10)
    const known = this.tables.get(name)
    if (known) {
      // What was used last goes last.
      this.tables.delete(name)
      this.tables.set(name, known)
      return known
    }
    const first = this.tables.keys().next().value
    if (this.tables.size >= TABLES_KEPT && first !== undefined) this.tables.delete(first)
    const made = new StepTable(seconds, this.modes)
    this.tables.set(name, made)
    return made
  }

  /** What is left of a row at the middle and at the end of the step, without new heat. */
  decayInto(row: number, table: StepTable, middle: Float64Array, end: Float64Array): void {
    const [atMiddle, atEnd] = [table.middle[row], table.end[row]]
    for (let w = 0; w < this.waves; w++) {
      let [a, b] = [0, 0]
      for (let j = this.offsets[w]; j < this.offsets[w + 1]; j++) {
        a += atMiddle[j] * this.amplitudes[j]
        b += atEnd[j] * this.amplitudes[j]
      }
      middle[w] = a
      end[w] = b
    }
  }

  /** One step on; the flux by its waves at begin, middle and end, or none. */
  advance(table: StepTable, flux: readonly Float64Array[] | null): void {
    const { amplitudes, offsets } = this
    for (let w = 0; w < this.waves; w++)
      for (let j = offsets[w]; j < offsets[w + 1]; j++) {
        amplitudes[j] *= table.keeps[j]
        if (flux)
          amplitudes[j] +=
            table.gains[0][j] * flux[0][w] + table.gains[1][j] * flux[1][w] + table.gains[2][j] * flux[2][w]
      }
  }

  /** What another row reads of the level wave. */
  levelReader(row: Float64Array): (flux: number) => number {
    const modes = depthModes(this.modes.mesh, 0, this.modes.exchange, { rows: [row] })
    return (flux) => modes.weights[0].reduce((sum, w, j) => sum + w * this.amplitudes[j], 0) + modes.atOnce[0] * flux
  }
}

const TABLES_KEPT = 16
/** Runs on one panel share the steps that they have in common: the short ones at the beginning of each stretch. */
const tablesOf = new WeakMap<WaveModes, Map<string, StepTable>>()

/** Everything of a step that hangs on its length alone. */
export class StepTable {
  readonly keeps: Float64Array
  /** What a flux of 1 at begin, middle or end leaves in each mode. */
  readonly gains: Float64Array[]
  /** By row and mode: what is read at the middle and end of what there was. */
  readonly middle: Float64Array[]
  readonly end: Float64Array[]
  /** By row, by begin, middle, end, by wave: what is read of new flux at the middle and at the end. */
  readonly newAtMiddle: Float64Array[][]
  readonly newAtEnd: Float64Array[][]
  /** What a node feels of its own flux at the middle and at the end: the mean over the waves of the surface row. */
  readonly own: { middle: number; end: number }

  constructor(seconds: number, { offsets, rates, weights, atOnce, waves }: WaveModes) {
    const modes = rates.length
    const three = (size: number) => [0, 1, 2].map(() => new Float64Array(size))
    this.keeps = new Float64Array(modes)
    this.gains = three(modes)
    const halfGains = three(modes)
    const halfKeeps = new Float64Array(modes)
    for (let j = 0; j < modes; j++) {
      const x = rates[j] * seconds
      const half = Math.exp(-x / 2)
      this.keeps[j] = half * half
      halfKeeps[j] = half
      const [a, b, c] = moments(x, half * half)
      this.gains[0][j] = seconds * (a - 3 * b + 2 * c)
      this.gains[1][j] = seconds * (4 * b - 4 * c)
      this.gains[2][j] = seconds * (2 * c - b)
      const [p, q, r] = moments(x / 2, half)
      halfGains[0][j] = (seconds / 2) * (p - 1.5 * q + 0.5 * r)
      halfGains[1][j] = (seconds / 2) * (2 * q - r)
      halfGains[2][j] = (seconds / 4) * (r - q)
    }
    this.middle = weights.map((w) => w.map((v, j) => v * halfKeeps[j]))
    this.end = weights.map((w) => w.map((v, j) => v * this.keeps[j]))
    const gathered = (row: Float64Array, gains: Float64Array): Float64Array => {
      const out = new Float64Array(waves)
      for (let w = 0; w < waves; w++) for (let j = offsets[w]; j < offsets[w + 1]; j++) out[w] += row[j] * gains[j]
      return out
    }
    const plus = (a: Float64Array, b: Float64Array) => a.map((v, i) => v + b[i])
    this.newAtMiddle = weights.map((row, r) => {
      const [a, b, c] = halfGains.map((g) => gathered(row, g))
      return [a, plus(b, atOnce[r]), c]
    })
    this.newAtEnd = weights.map((row, r) => {
      const [a, b, c] = this.gains.map((g) => gathered(row, g))
      return [a, b, plus(c, atOnce[r])]
    })
    const mean = (v: Float64Array) => v.reduce((sum, x) => sum + x, 0) / waves
    this.own = { middle: mean(this.newAtMiddle[0][1]), end: mean(this.newAtEnd[0][2]) }
  }
}

/**
 * ∫₀¹ uᵏ e^(−x(1−u)) du for k = 0, 1, 2, of which each gives the next by parts: 1 = k·Mₖ₋₁ + x·Mₖ. `kept`: e^(−x). Upward
 * where x is large; where that would cancel out, downward from the last, which is a series.
 */
function moments(x: number, kept: number): [number, number, number] {
  if (x > 1) {
    const a = (1 - kept) / x
    const b = (1 - a) / x
    return [a, b, (1 - 2 * b) / x]
  }
  let [last, term] = [0, 1 / 3]
  for (let i = 4; Math.abs(term) > 1e-17; i++) {
    last += term
    term *= -x / i
  }
  const b = (1 - x * last) / 2
  return [1 - x * b, b, last]
}
