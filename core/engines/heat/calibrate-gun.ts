import { z } from 'zod'
import { err, ok, type Result } from '../../kit/result'
import { EDGE_STRIP_MM, FILM_MATTER, MATTER, ROOM } from '../../model/heat/heat-data'
import { MATERIALS } from '../../model/vehicle/kinds'
import { leastSquares } from '../../solve/heat/least-squares'
import { sweepHeat } from '../../solve/heat/sweep'
import { MEDIUM } from '../../solve/heat/sweep-model'

const MM = 1000
/** Film on a trial panel where nobody said which, µm. Assumed. */
const TRIAL_FILM_UM = 90
/** Length of a trial sweep that is reckoned, mm: its middle sees no end of it. */
const SWEPT_MM = 500

/** One trial: a sweep at a known pace over a panel, read after the gun is away. */
export const TrialReading = z.strictObject({
  material: z.enum(MATERIALS),
  thicknessMm: z.number().gt(0).max(100).nullable(),
  paceMmS: z.number().min(1).max(100),
  /** Read so long after the gun left the place, s. */
  afterS: z.number().min(0).max(120),
  tempC: z.number().min(0).max(300),
})
export type TrialReading = z.infer<typeof TrialReading>

export interface Calibration {
  airC: number
  coefficient: number
  /** By reading: what the model gives, °C. */
  predictedC: readonly number[]
  /** Root of the mean square of what is left, K. */
  residualC: number
}

/** How far one trusts what is assumed before anything is read: air against the display, K; heat transfer, as a log. */
const PRIOR = { airK: 60, logCoefficient: 0.5, coefficient: 105 }
/** A reading of a hand-held thermometer. Assumed. [K] */
const READING_K = 2
const MOST_ROUNDS = 7
/** Readings that the fit misses by more than this say that something else was different. Assumed. [K] */
const WORST_RESIDUAL_K = 15

/**
 * Air at the film and heat transfer of a gun from two or more readings of trial sweeps: least squares, held by what its
 * display says. Errors: too_few_readings; does_not_fit, with the residual.
 */
export function calibrateGun(
  displayC: number,
  sigmaMm: number,
  readings: readonly TrialReading[],
): Result<Calibration> {
  if (readings.length < 2) return err({ code: 'too_few_readings', facts: { least: 2 } })
  const model = (airC: number, coefficient: number): number[] =>
    readings.map((r) => trialTemp(r, { airC, coefficient, sigmaMm }))
  const offOf = ([airC, log]: readonly [number, number], temps: readonly number[]): number[] => [
    ...temps.map((t, i) => (t - (readings[i]?.tempC ?? 0)) / READING_K),
    (airC - displayC) / PRIOR.airK,
    (log - Math.log(PRIOR.coefficient)) / PRIOR.logCoefficient,
  ]
  let at: [number, number] = [displayC, Math.log(PRIOR.coefficient)]
  let temps = model(at[0], Math.exp(at[1]))
  let damping = 0.001
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const off = offOf(at, temps)
    const [dAir, dLog] = [4, 0.02]
    const slopes = [
      slope(off, offOf([at[0] + dAir, at[1]], model(at[0] + dAir, Math.exp(at[1]))), dAir),
      slope(off, offOf([at[0], at[1] + dLog], model(at[0], Math.exp(at[1] + dLog))), dLog),
    ]
    const [a = 0, b = 0] = leastSquares(slopes, off, damping)
    const next: [number, number] = [Math.max(40, Math.min(800, at[0] + a)), Math.max(2, Math.min(6, at[1] + b))]
    const then = model(next[0], Math.exp(next[1]))
    if (squares(offOf(next, then)) >= squares(off)) {
      damping *= 10
      continue
    }
    const moved = Math.abs(next[0] - at[0]) / displayC + Math.abs(next[1] - at[1])
    at = next
    temps = then
    if (moved < 2e-3) break
  }
  const residualC = Math.sqrt(squares(temps.map((t, i) => t - (readings[i]?.tempC ?? 0))) / readings.length)
  if (residualC > WORST_RESIDUAL_K) return err({ code: 'does_not_fit', facts: { residual: Math.round(residualC) } })
  return ok({ airC: at[0], coefficient: Math.exp(at[1]), predictedC: temps, residualC })
}

const squares = (list: readonly number[]): number => list.reduce((sum, v) => sum + v * v, 0)
const slope = (was: readonly number[], then: readonly number[], by: number): number[] =>
  was.map((v, i) => ((then[i] ?? 0) - v) / by)

/** What the middle of a trial sweep reads so long after the gun passed over the end of it, °C. */
export function trialTemp(
  r: Omit<TrialReading, 'tempC'>,
  gun: { airC: number; coefficient: number; sigmaMm: number },
): number {
  const matter = MATTER[r.material]
  const sweepS = SWEPT_MM / r.paceMmS
  // The gun leaves the middle half a sweep before its end.
  const readS = sweepS / 2 + r.afterS
  const { probes } = sweepHeat(
    {
      startC: ROOM.airC,
      layers: [
        {
          thicknessM: TRIAL_FILM_UM / 1e6,
          conductivity: FILM_MATTER.conductivity,
          heatCapacity: FILM_MATTER.density * FILM_MATTER.specificHeat,
        },
        {
          thicknessM: (r.thicknessMm ?? matter.usualMm) / MM,
          conductivity: matter.conductivity,
          heatCapacity: matter.density * matter.specificHeat,
        },
      ],
      panel: { lengthM: SWEPT_MM / MM, widthM: EDGE_STRIP_MM / MM },
      room: { airC: ROOM.airC, coefficient: ROOM.front, flux: 0 },
      back: { airC: ROOM.airC, coefficient: ROOM.behind, flux: 0 },
      radiation: null,
      gun: {
        airC: gun.airC,
        coefficient: gun.coefficient,
        flux: 0,
        footprint: { shape: 'gaussian', sigmaM: gun.sigmaMm / MM },
      },
      sweep: {
        yM: EDGE_STRIP_MM / 2 / MM,
        fromMm: 0,
        toMm: SWEPT_MM,
        speedMmS: r.paceMmS,
        passes: 1,
        returns: 'same',
        holdS: 0,
        gapS: 0,
      },
      coolS: Math.max(0, r.afterS - sweepS / 2) + 1,
      timesS: [readS],
      probes: [{ xM: SWEPT_MM / 2 / MM, yM: EDGE_STRIP_MM / 2 / MM, depthM: 0 }],
      thresholdsC: [],
      windowC: null,
      windowDepthM: 0,
    },
    MEDIUM,
  )
  return probes[0]?.tempsC[0] ?? NaN
}
