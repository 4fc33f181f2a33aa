import type { FaultCode } from '../../kit/fault-code'
import { z } from 'zod'
import { firstFault } from '../../kit/first-fault'
import { err, ok, type Result } from '../../kit/result'
import type { Crossing } from '../../solve/heat/history'
import { pointHeat } from '../../solve/heat/point'
import { sweepHeat } from '../../solve/heat/sweep'
import {
  AIR_PAIR,
  airWithCoefficient,
  exchangeFields,
  exchangeOf,
  footprintOf,
  gunFields,
  LayersInput,
  layersOf,
  RadiationInput,
  seconds,
  SideInput,
  tempC,
} from './heat-input'

const FORMAT = 'cuirass/heat@1'
const MM = 1000
const MOST_TIMES = 2000
/** What floating sums may be off a moment or a depth that is meant to be the last one. */
const SLACK = 1e-9

const common = {
  format: z.literal(FORMAT),
  start_c: tempC,
  layers: LayersInput,
  back: SideInput.optional(),
  radiation: RadiationInput.optional(),
  times_s: z.array(seconds).max(MOST_TIMES).default([]),
  thresholds_c: z.array(tempC).max(100).default([]),
}
const depthMm = z.number().min(0).max(1e6)

const PointInput = z
  .strictObject({
    ...common,
    kind: z.literal('point'),
    phases: z
      .array(
        z
          .strictObject({ seconds: z.number().gt(0).max(100_000), ...exchangeFields })
          .refine(airWithCoefficient, AIR_PAIR),
      )
      .min(1)
      .max(500),
    depths_mm: z.array(depthMm).max(500).optional(),
  })
  .superRefine((input, ctx) => {
    const runS = input.phases.reduce((sum, p) => sum + p.seconds, 0)
    outside(ctx, 'times_s', input.times_s, runS)
    outside(ctx, 'depths_mm', input.depths_mm ?? [], thicknessMm(input.layers))
  })

const placeMm = z.number().min(-1e6).max(1e6)
const SweepInput = z
  .strictObject({
    ...common,
    kind: z.literal('sweep'),
    panel: z.strictObject({ length_mm: z.number().gt(0).max(100_000), width_mm: z.number().gt(0).max(100_000) }),
    room: SideInput,
    gun: z.strictObject(gunFields).refine(airWithCoefficient, AIR_PAIR),
    sweep: z.strictObject({
      y_mm: placeMm,
      from_mm: placeMm,
      to_mm: placeMm,
      speed_mm_s: z.number().gt(0).max(10_000).optional(),
      passes: z.number().int().min(1).max(200).default(1),
      return: z.enum(['alternate', 'same']).default('alternate'),
      hold_s: seconds.default(0),
      gap_s: seconds.default(0),
    }),
    cool_s: seconds.default(0),
    probes: z
      .array(z.strictObject({ x_mm: placeMm, y_mm: placeMm, depth_mm: depthMm.default(0) }))
      .max(200)
      .default([]),
    window_c: z.tuple([tempC, tempC]).optional(),
    window_depth_mm: depthMm.default(0),
  })
  .superRefine((input, ctx) => {
    const { sweep, panel } = input
    const say = (path: (string | number)[], message: FaultCode) => ctx.addIssue({ code: 'custom', path, message })
    if (sweep.from_mm !== sweep.to_mm && sweep.speed_mm_s === undefined) say(['sweep', 'speed_mm_s'], 'no_speed')
    if (sweep.y_mm < 0 || sweep.y_mm > panel.width_mm) say(['sweep', 'y_mm'], 'off_panel')
    input.probes.forEach((p, i) => {
      if (p.x_mm < 0 || p.x_mm > panel.length_mm) say(['probes', i, 'x_mm'], 'off_panel')
      if (p.y_mm < 0 || p.y_mm > panel.width_mm) say(['probes', i, 'y_mm'], 'off_panel')
      if (p.depth_mm > thicknessMm(input.layers) + SLACK) say(['probes', i, 'depth_mm'], 'outside_run')
    })
    if (input.window_depth_mm > thicknessMm(input.layers) + SLACK) say(['window_depth_mm'], 'outside_run')
    if (input.window_c && input.window_c[0] > input.window_c[1]) say(['window_c'], 'min_over_max')
    const runS = sweepSeconds(input)
    if (runS > LONGEST_SWEEP_S) say(['sweep'], 'too_long')
    if (runS <= 0) say(['sweep'], 'nothing_to_do')
    outside(ctx, 'times_s', input.times_s, runS)
  })

const HeatInput = z.discriminatedUnion('kind', [PointInput, SweepInput])
/** Longer than this nobody sweeps, s. */
const LONGEST_SWEEP_S = 36_000

const thicknessMm = (layers: z.infer<typeof LayersInput>): number => layers.reduce((sum, l) => sum + l.thickness_mm, 0)

function outside(ctx: z.RefinementCtx, key: string, values: readonly number[], most: number): void {
  values.forEach((v, i) => {
    if (v > most * (1 + SLACK) + SLACK) ctx.addIssue({ code: 'custom', path: [key, i], message: 'outside_run' })
  })
}

function sweepSeconds({ sweep, cool_s }: Pick<z.infer<typeof SweepInput>, 'sweep' | 'cool_s'>): number {
  const pass = sweep.hold_s + (sweep.speed_mm_s ? Math.abs(sweep.to_mm - sweep.from_mm) / sweep.speed_mm_s : 0)
  return sweep.passes * pass + (sweep.passes - 1) * sweep.gap_s + cool_s
}

/** `cuirass/heat@1` in, `cuirass/heat-result@1` out. Errors: the first field at fault. Contract: docs/prompt.md. */
export function heatByContract(json: unknown): Result<unknown> {
  const read = HeatInput.safeParse(json)
  if (!read.success) return err(firstFault(read.error))
  return ok(read.data.kind === 'point' ? pointResult(read.data) : sweepResult(read.data))
}

const crossing = ({ c, firstAboveS, lastAboveS, aboveS }: Crossing) => ({
  c,
  first_above_s: firstAboveS,
  last_above_s: lastAboveS,
  above_s: aboveS,
})

function pointResult(input: z.infer<typeof PointInput>) {
  const layers = layersOf(input.layers)
  const depths = input.depths_mm ?? boundaries(input.layers)
  const result = pointHeat({
    startC: input.start_c,
    layers,
    phases: input.phases.map((p) => ({ seconds: p.seconds, front: exchangeOf(p) })),
    back: exchangeOf(input.back),
    radiation: radiationOf(input.radiation),
    timesS: input.times_s,
    depthsM: depths.map((d) => d / MM),
    thresholdsC: input.thresholds_c,
  })
  return {
    format: 'cuirass/heat-result@1',
    kind: 'point',
    times_s: input.times_s,
    depths_mm: depths,
    temps_c: result.tempsC,
    peak_c: result.peakC,
    peak_s: result.peakS,
    final_c: result.finalC,
    thresholds: result.crossings.map(crossing),
    energy_j_m2: result.energy,
  }
}

function boundaries(layers: z.infer<typeof LayersInput>): number[] {
  const out = [0]
  for (const layer of layers) out.push((out[out.length - 1] ?? 0) + layer.thickness_mm)
  return out
}

const radiationOf = (r: z.infer<typeof RadiationInput> | undefined) =>
  r && r.emissivity > 0 ? { emissivity: r.emissivity, surroundC: r.surround_c } : null

function sweepResult(input: z.infer<typeof SweepInput>) {
  const { sweep } = input
  const result = sweepHeat({
    startC: input.start_c,
    layers: layersOf(input.layers),
    panel: { lengthM: input.panel.length_mm / MM, widthM: input.panel.width_mm / MM },
    room: exchangeOf(input.room),
    back: exchangeOf(input.back),
    radiation: radiationOf(input.radiation),
    gun: { ...exchangeOf(input.gun), footprint: footprintOf(input.gun.footprint) },
    sweep: {
      yM: sweep.y_mm / MM,
      fromMm: sweep.from_mm,
      toMm: sweep.to_mm,
      speedMmS: sweep.speed_mm_s ?? null,
      passes: sweep.passes,
      returns: sweep.return,
      holdS: sweep.hold_s,
      gapS: sweep.gap_s,
    },
    coolS: input.cool_s,
    timesS: input.times_s,
    probes: input.probes.map((p) => ({ xM: p.x_mm / MM, yM: p.y_mm / MM, depthM: p.depth_mm / MM })),
    thresholdsC: input.thresholds_c,
    windowC: input.window_c ?? null,
    windowDepthM: input.window_depth_mm / MM,
  })
  return {
    format: 'cuirass/heat-result@1',
    kind: 'sweep',
    heat_end_s: result.heatEndS,
    end_s: result.endS,
    times_s: input.times_s,
    probes: result.probes.map((p) => ({
      temps_c: p.tempsC,
      peak_c: p.peakC,
      peak_s: p.peakS,
      final_c: p.finalC,
      thresholds: p.crossings.map(crossing),
    })),
    edge: {
      min_peak_c: result.edge.minPeakC,
      min_at_mm: result.edge.minAtMm,
      max_peak_c: result.edge.maxPeakC,
      max_at_mm: result.edge.maxAtMm,
      in_window_fraction: result.edge.inWindowFraction,
    },
    energy_j: result.energy,
  }
}
