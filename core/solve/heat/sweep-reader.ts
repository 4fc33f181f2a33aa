import { History, parabola } from './history'
import { lineSummary } from './line-summary'
import type { SweepResult, SweepRun } from './sweep-model'
import { wavesAt, type Side } from './waves'

/** What is read while a sweep goes on: probes, and the line along the edge. Rows are surface and depths, by wave. */
export class SweepReader {
  private readonly histories: History[]
  private readonly places: { row: number; along: Float64Array; across: Float64Array }[]
  private readonly lineAcross: Float64Array
  private readonly lineRow: number
  private readonly peaks: Float64Array
  private readonly above: Float64Array
  private lineNow: Float64Array
  private readonly kept = new Map<number, number[]>()

  constructor(
    private readonly run: SweepRun,
    private readonly x: Side,
    y: Side,
    depths: readonly number[],
  ) {
    const { startC, probes } = run
    this.histories = probes.map(() => new History(startC, run.thresholdsC))
    this.places = probes.map((p) => ({
      row: depths.indexOf(p.depthM),
      along: wavesAt(x, p.xM),
      across: wavesAt(y, p.yM),
    }))
    this.lineAcross = wavesAt(y, run.sweep.yM)
    this.lineRow = depths.indexOf(run.windowDepthM)
    this.peaks = new Float64Array(x.cells).fill(startC)
    this.above = new Float64Array(x.cells)
    this.lineNow = new Float64Array(x.cells).fill(startC)
  }

  /** One more step, by its rows at begin, middle and end. */
  step(atS: number, seconds: number, rows: readonly (readonly Float64Array[])[]): void {
    const { run, x, peaks } = this
    this.places.forEach((p, i) => {
      const [a, b, c] = rows.map((row) => run.startC + valueOf(row[p.row], p.along, p.across))
      this.histories[i].add(atS, seconds, parabola(a, b, c))
    })
    const a = this.lineNow
    const [b, c] = [rows[1], rows[2]].map((row) => this.line(row[this.lineRow]))
    for (let i = 0; i < x.cells; i++) peaks[i] = Math.max(peaks[i], c[i], b[i], crest(a[i], b[i], c[i]))
    if (run.windowC) {
      const low = run.windowC[0]
      for (let i = 0; i < x.cells; i++)
        this.above[i] += (seconds / 2) * (shareOver(a[i], b[i], low) + shareOver(b[i], c[i], low))
    }
    this.lineNow = c
  }

  /** Keeps what the probes read now. */
  keep(atS: number): void {
    this.kept.set(
      atS,
      this.histories.map((h) => h.finalC),
    )
  }

  result(): Pick<SweepResult, 'peaks' | 'aboveS' | 'probes' | 'edge'> {
    return {
      peaks: this.peaks,
      aboveS: this.above,
      probes: this.histories.map((h, i) => ({
        tempsC: this.run.timesS.map((t) => nearest(this.kept, t)[i]),
        peakC: h.peakC,
        peakS: h.peakS,
        finalC: h.finalC,
        crossings: h.crossings,
      })),
      edge: lineSummary(this.x, this.peaks, this.run.windowC),
    }
  }

  /** Temperatures of the nodes along the edge. */
  private line(row: Float64Array): Float64Array {
    const { cells, cosines } = this.x
    const out = new Float64Array(cells).fill(this.run.startC)
    for (let m = 0; m < cells; m++) {
      let wave = 0
      for (let n = 0; n < this.lineAcross.length; n++) wave += row[n * cells + m] * this.lineAcross[n]
      for (let i = 0; i < cells; i++) out[i] += wave * cosines[m * cells + i]
    }
    return out
  }
}

function valueOf(row: Float64Array, along: Float64Array, across: Float64Array): number {
  let sum = 0
  for (let n = 0; n < across.length; n++) {
    let wave = 0
    for (let m = 0; m < along.length; m++) wave += row[n * along.length + m] * along[m]
    sum += wave * across[n]
  }
  return sum
}

/** The share of a straight line from a to b at `low` or over it. */
const shareOver = (a: number, b: number, low: number): number =>
  a >= low && b >= low ? 1 : a < low && b < low ? 0 : (Math.max(a, b) - low) / Math.abs(b - a)

/** The top of the parabola through begin, middle and end, where it lies within; else the begin. */
function crest(a: number, b: number, c: number): number {
  const bend = a - 2 * b + c
  if (bend >= 0) return a
  const share = (a - c) / (4 * bend)
  return Math.abs(share) < 0.5 ? b - (c - a) ** 2 / (8 * bend) : a
}

function nearest(kept: ReadonlyMap<number, number[]>, timeS: number): number[] {
  const exact = kept.get(timeS)
  if (exact) return exact
  let best: [number, number[]] = [Infinity, []]
  for (const [t, values] of kept) if (Math.abs(t - timeS) < best[0]) best = [Math.abs(t - timeS), values]
  return best[1]
}
