import { secondsOf, type EdgePlan, type EdgeTask, type GunChoice, type EdgeSweep } from './edge-task'
import { EdgeTrial, PLACES, type Seen } from './edge-trial'
import { footprintScale } from './footprint'
import { leastSquares } from './least-squares'
import { FINE, MEDIUM, ROUGH } from './sweep-model'
import { movedBy, within, type Knob } from './sweep-knobs'

/** Share of the edge that is asked to end in the band, and with a little for what the check itself may be off. */
export const IN_BAND_ASKED = 0.98
const IN_BAND_WANTED = IN_BAND_ASKED + 0.004
/** So far under the limit the hottest place is kept, K. */
const LIMIT_MARGIN_C = 0.3

export const isGood = (plan: EdgePlan): boolean => plan.inBand >= IN_BAND_WANTED
/** Plans that do what is wanted by their time, the others behind them by what they lack. */
export const rank = (plan: EdgePlan): number => (isGood(plan) ? plan.seconds : 1e6 * (2 - plan.inBand))

const ROUNDS = 4
const ATTEMPTS = 3
const SHORT_M = 0.4
const SHORT_SCALES = 14
const HASTE = 0.012
const HASTE_STEPS = 6
/** What the whole time of the first guess weighs against kelvins (squared) outside the band, at each place. */
const TIME_WEIGHT = 0.8

/** The search for one gun: pace, hold, begin, end and gap. */
export class GunSearch {
  private readonly whole: EdgeTrial
  /** The edge without most of its middle, which is alike all along where the gun passes once. */
  private readonly short: EdgeTrial
  private readonly shortM: number
  private passes = 1
  private wholeCheck: EdgeTrial | null = null
  private shortCheck: EdgeTrial | null = null
  hottestC = -Infinity
  private readonly paces = new Map<number, number>()
  private readonly low: number
  private readonly high: number
  /** Of the first guess. */
  private wholeS = 1
  /** What the finer look adds to the rough one, by place. */
  private offsets: number[] = Array.from({ length: PLACES }, () => 0)

  constructor(
    private readonly task: EdgeTask,
    readonly gun: GunChoice,
  ) {
    this.whole = new EdgeTrial(task, gun, ROUGH)
    const scaleM = footprintScale(gun.footprint)
    this.shortM = Math.min(task.panel.lengthM, Math.max(SHORT_M, SHORT_SCALES * scaleM))
    this.short = this.shortM < task.panel.lengthM ? new EdgeTrial(task, gun, ROUGH, this.shortM) : this.whole
    const high = Math.min(task.bandC.max, task.limitC)
    const margin = Math.min(0.4, (high - task.bandC.min) * 0.06)
    this.low = task.bandC.min + margin
    this.high = high - margin
  }
  private get rough(): EdgeTrial {
    return this.passes === 1 ? this.short : this.whole
  }
  /** The finer look, at the whole edge. */
  private get check(): EdgeTrial {
    this.wholeCheck ??= new EdgeTrial(this.task, this.gun, MEDIUM)
    return this.wholeCheck
  }
  /** The finer look while a sweep is put right: at the shorter edge where the middle is alike. */
  private get quickCheck(): EdgeTrial {
    if (this.rough === this.whole) return this.check
    this.shortCheck ??= new EdgeTrial(this.task, this.gun, MEDIUM, this.shortM)
    return this.shortCheck
  }

  /** Whether the gun gets anything hot enough at all: as slow, as often and as long as is allowed. */
  reaches(): boolean {
    const { task } = this
    if (this.gun.flux === 0 && this.gun.airC <= task.bandC.min) {
      this.hottestC = Math.max(task.startC, this.gun.airC)
      return false
    }
    const slowest: EdgeSweep = { ...this.plain(task.speedMmS.min, 1), holdS: task.holdMaxS }
    this.hottestC = this.rough.look(slowest).maxPeakC
    if (this.hottestC >= task.bandC.min) return true
    this.hottestC = this.short.look({ ...slowest, passes: task.passesMax }).maxPeakC
    return this.hottestC >= task.bandC.min
  }

  private plain(speedMmS: number, passes: number): EdgeSweep {
    return {
      fromMm: 0,
      toMm: this.task.panel.lengthM * 1000,
      speedMmS,
      passes,
      holdS: 0,
      gapS: passes > 1 ? Math.min(GAP_TO_BEGIN_S, this.task.gapMaxS) : 0,
    }
  }

  /** The pace that brings the middle of the edge into the lower part of the band (regula falsi on its logarithm). */
  private pace(passes: number): number {
    this.passes = passes
    const known = this.paces.get(passes)
    if (known) return known
    const { speedMmS, panel } = this.task
    const wanted = this.low + 0.3 * (this.high - this.low)
    const at = (v: number) => {
      const peaks = this.rough.look(this.plain(v, passes)).peaks
      return peaks.slice(PLACES / 4, (3 * PLACES) / 4).sort((a, b) => a - b)[PLACES / 8] - wanted
    }
    const clamp = (v: number) => Math.min(speedMmS.max, Math.max(speedMmS.min, v))
    let v = clamp(Math.max(1, (panel.lengthM * 1000) / 100))
    let [slow, fast] = [speedMmS.min, speedMmS.max]
    for (let i = 0; i < 7; i++) {
      const off = at(v)
      if (Math.abs(off) < 0.6) break
      if (off > 0) slow = v
      else fast = v
      if (fast / slow < 1.005) break
      // Heat over the start goes about with the root of the time that the gun is there.
      const guess = v * ((off + wanted - this.task.startC) / (wanted - this.task.startC)) ** 1.6
      v = guess > slow && guess < fast ? guess : Math.sqrt(slow * fast)
    }
    this.paces.set(passes, v)
    return v
  }

  quickest(passes: number): number {
    return 0.8 * secondsOf(this.plain(this.pace(passes), passes))
  }

  search(passes: number): EdgePlan | null {
    const plain = this.plain(this.pace(passes), passes)
    this.passes = passes
    this.wholeS = secondsOf(plain)
    const quick = this.attempts(plain, this.quickCheck)
    if (!quick || this.quickCheck === this.check) return quick?.hastened ?? null
    // What the shorter edge bore out has to hold for the whole one.
    for (const { sweep } of quick.hastened === quick.plan ? [quick.plan] : [quick.hastened, quick.plan]) {
      const whole = this.planOf(this.check.look(sweep))
      if (this.isAllowed(whole) && (isGood(whole) || !isGood(quick.plan))) return whole
    }
    return this.attempts(plain, this.check)?.hastened ?? null
  }

  /** Fits the sweep by the rough look and puts right what a finer one sees, again and again. */
  private attempts(plain: EdgeSweep, check: EdgeTrial): { plan: EdgePlan; hastened: EdgePlan } | null {
    this.offsets = this.offsets.map(() => 0)
    let sweep = within(this.task, plain)
    for (const holdS of HOLDS_TO_BEGIN_S.filter((s) => s <= this.task.holdMaxS)) {
      const held = { ...sweep, holdS }
      if (squares(this.residuals(held)) < squares(this.residuals(sweep))) sweep = held
    }
    let best: EdgePlan | null = null
    for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
      sweep = this.fit(sweep, attempt === 0 ? ROUNDS : 2)
      const exact = check.look(sweep)
      const plan = this.planOf(exact)
      const before: EdgePlan | null = best
      if (this.isAllowed(plan) && (!before || rank(plan) < rank(before))) best = plan
      if (before && best === before) break
      const rough = this.rough.look(sweep)
      this.offsets = exact.peaks.map((c, i) => c - rough.peaks[i])
    }
    return best && { plan: best, hastened: isGood(best) ? this.hasten(best, check) : best }
  }

  private isAllowed(plan: EdgePlan): boolean {
    return plan.maxPeakC <= this.task.limitC - LIMIT_MARGIN_C
  }

  /** A good plan at a quicker pace, as long as the edge bears it; the last one that the finer look bears out. */
  private hasten(plan: EdgePlan, check: EdgeTrial): EdgePlan {
    let faster: EdgeSweep | null = null
    for (let step = 1; step <= HASTE_STEPS; step++) {
      const sweep = within(this.task, { ...plan.sweep, speedMmS: plan.sweep.speedMmS * (1 + HASTE * step) })
      const peaks = this.rough.look(sweep).peaks.map((c, i) => c + this.offsets[i])
      const inside = peaks.filter((c) => c >= this.task.bandC.min && c <= this.task.bandC.max).length
      if (inside < PLACES * IN_BAND_WANTED) break
      faster = sweep
    }
    if (!faster) return plan
    const quicker = this.planOf(check.look(faster))
    return this.isAllowed(quicker) && rank(quicker) < rank(plan) ? quicker : plan
  }

  /** The coolest sweep there is, for where all others spoil the film. */
  coolest(): EdgePlan {
    return this.planOf(this.check.look(this.plain(this.task.speedMmS.max, 1)))
  }

  /** A plan as the fine sweep sees it. */
  confirmed(plan: EdgePlan): EdgePlan {
    return this.planOf(new EdgeTrial(this.task, this.gun, FINE).look(plan.sweep))
  }

  private planOf(seen: Seen): EdgePlan {
    return {
      gun: this.gun.id,
      sweep: seen.sweep,
      inBand: seen.inBand,
      minPeakC: seen.minPeakC,
      maxPeakC: seen.maxPeakC,
      seconds: secondsOf(seen.sweep),
      holdsAboveMinS: seen.holdsAboveMinS,
    }
  }

  /** Kelvin outside the aim at each place, and the time. */
  private residuals(sweep: EdgeSweep): number[] {
    const { low, high } = this
    const peaks = this.rough.look(sweep).peaks.map((c, i) => c + this.offsets[i])
    const out = peaks.map((c) => (c < low ? c - low : c > high ? c - high : 0))
    return [...out, this.timeResidual(sweep)]
  }
  private timeResidual(sweep: EdgeSweep): number {
    return Math.sqrt((TIME_WEIGHT * PLACES * secondsOf(sweep)) / this.wholeS)
  }

  /** Damped least squares (Levenberg 1944, Marquardt 1963) over pace, hold, ends and gap. */
  private fit(start: EdgeSweep, rounds: number): EdgeSweep {
    const names: Knob[] = ['pace', 'from', 'to']
    if (this.task.holdMaxS > 0) names.push('hold')
    if (start.passes > 1 && this.task.gapMaxS > 0) names.push('gap')
    let sweep = within(this.task, start)
    let off = this.residuals(sweep)
    let damping = 0.1
    for (let round = 0; round < rounds; round++) {
      const slopes = this.slopes(sweep, names, off)
      let improved = false
      for (let tries = 0; tries < 4 && !improved; tries++) {
        const by = leastSquares(slopes, off, damping)
        const next = within(this.task, movedBy(sweep, names, by))
        const there = this.residuals(next)
        if (squares(there) < squares(off)) {
          improved = squares(there) < 0.97 * squares(off)
          sweep = next
          off = there
          damping /= 4
          if (!improved) return sweep
        } else damping *= 8
      }
      if (!improved) break
    }
    return sweep
  }

  /**
   * How the residuals follow each number. Begin and end are felt in one look where the gun passes once: what one of them
   * changes, the other does not.
   */
  private slopes(sweep: EdgeSweep, names: readonly Knob[], off: readonly number[]): number[][] {
    const single = (name: Knob): number[] => {
      const { moved, by } = this.feel(sweep, name)
      return this.residuals(moved).map((r, i) => (r - off[i]) / by)
    }
    if (sweep.passes > 1) return names.map(single)
    const [from, to] = [this.feel(sweep, 'from'), this.feel(sweep, 'to')]
    const both = this.residuals({ ...sweep, fromMm: from.moved.fromMm, toMm: to.moved.toMm })
    const half = ({ moved, by }: typeof from, isMine: (i: number) => boolean): number[] =>
      both.map((r, i) => (i < PLACES ? (isMine(i) ? r - off[i] : 0) : this.timeResidual(moved) - off[i]) / by)
    return names.map((name) =>
      name === 'from'
        ? half(from, (i) => i < PLACES / 2)
        : name === 'to'
          ? half(to, (i) => i >= PLACES / 2)
          : single(name),
    )
  }

  /** A small move of one of the numbers, in units of its own step, inwards where it stands at its limit. */
  private feel(sweep: EdgeSweep, name: Knob): { moved: EdgeSweep; by: number } {
    const there = within(this.task, movedBy(sweep, [name], [1]))
    return JSON.stringify(there) === JSON.stringify(sweep)
      ? { moved: within(this.task, movedBy(sweep, [name], [-1])), by: -1 }
      : { moved: there, by: 1 }
  }
}

const GAP_TO_BEGIN_S = 8
const HOLDS_TO_BEGIN_S = [1.5, 4]
const squares = (v: readonly number[]): number => v.reduce((sum, x) => sum + x * x, 0)
