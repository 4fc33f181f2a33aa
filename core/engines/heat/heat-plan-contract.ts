import { z } from 'zod'
import { firstFault } from '../../kit/first-fault'
import type { NoAnswer } from '../../kit/no-answer'
import { err, ok, type Result } from '../../kit/result'
import type { EdgePlan } from '../../solve/heat/edge-task'
import { planSweep } from '../../solve/heat/plan-sweep'
import {
  AIR_PAIR,
  airWithCoefficient,
  exchangeOf,
  footprintOf,
  gunFields,
  LayersInput,
  layersOf,
  seconds,
  SideInput,
  tempC,
} from './heat-input'

const MM = 1000
const mm = z.number().gt(0).max(20_000)
const speed = z.number().gt(0).max(10_000)

const HeatPlanInput = z
  .strictObject({
    format: z.literal('cuirass/heat-plan@1'),
    start_c: tempC,
    layers: LayersInput,
    edge: z.strictObject({ length_mm: mm, panel_width_mm: mm, y_mm: z.number().min(0).max(20_000) }),
    room: SideInput,
    back: SideInput.optional(),
    guns: z
      .array(z.strictObject({ id: z.string().min(1).max(120), ...gunFields }).refine(airWithCoefficient, AIR_PAIR))
      .min(1)
      .max(20),
    band_c: z.strictObject({ min: tempC, max: tempC }).refine((b) => b.min <= b.max, { error: 'min_over_max' }),
    limit_c: tempC,
    speed_mm_s: z.strictObject({ min: speed, max: speed }).refine((s) => s.min <= s.max, { error: 'min_over_max' }),
    passes_max: z.number().int().min(1).max(20).default(6),
    gap_s_max: seconds.default(60),
    hold_s_max: seconds.default(15),
    reach_mm: z.number().min(0).max(5000).default(120),
  })
  .superRefine((input, ctx) => {
    if (input.edge.y_mm > input.edge.panel_width_mm)
      ctx.addIssue({ code: 'custom', path: ['edge', 'y_mm'], message: 'off_panel' })
    const seen = new Set<string>()
    input.guns.forEach((gun, i) => {
      if (seen.has(gun.id)) ctx.addIssue({ code: 'custom', path: ['guns', i, 'id'], message: 'duplicate_id' })
      seen.add(gun.id)
    })
  })

/** A plan, or why there is none. */
export type HeatPlanAnswer = { plan: unknown } | { none: NoAnswer }

/** `cuirass/heat-plan@1` in, `cuirass/heat-plan-result@1` out. Errors: the first field at fault. */
export function heatPlanByContract(json: unknown): Result<HeatPlanAnswer> {
  const read = HeatPlanInput.safeParse(json)
  if (!read.success) return err(firstFault(read.error))
  const { data } = read
  const plan = planSweep({
    startC: data.start_c,
    layers: layersOf(data.layers),
    panel: { lengthM: data.edge.length_mm / MM, widthM: data.edge.panel_width_mm / MM },
    yM: data.edge.y_mm / MM,
    room: exchangeOf(data.room),
    back: exchangeOf(data.back),
    guns: data.guns.map((g) => ({ id: g.id, ...exchangeOf(g), footprint: footprintOf(g.footprint) })),
    bandC: data.band_c,
    limitC: data.limit_c,
    speedMmS: data.speed_mm_s,
    passesMax: data.passes_max,
    gapMaxS: data.gap_s_max,
    holdMaxS: data.hold_s_max,
    reachMm: data.reach_mm,
  })
  if (!('code' in plan)) return ok({ plan: resultOf(plan) })
  const facts = {
    band_min_c: data.band_c.min,
    limit_c: data.limit_c,
    ...(plan.code === 'cannot_reach' ? { hottest_c: Math.round(plan.hottestC * 10) / 10 } : {}),
    ...(plan.code === 'band_too_narrow'
      ? { in_band: Math.round(plan.best.inBand * 1000) / 1000, best: JSON.stringify(resultOf(plan.best)) }
      : {}),
  }
  return ok({ none: { code: plan.code, facts } })
}

const resultOf = ({ gun, sweep, ...plan }: EdgePlan) => ({
  format: 'cuirass/heat-plan-result@1',
  gun,
  sweep: {
    from_mm: sweep.fromMm,
    to_mm: sweep.toMm,
    speed_mm_s: sweep.speedMmS,
    passes: sweep.passes,
    return: 'alternate',
    hold_s: sweep.holdS,
    gap_s: sweep.gapS,
  },
  in_band: plan.inBand,
  peak_c: { min: plan.minPeakC, max: plan.maxPeakC },
  seconds: plan.seconds,
  holds_above_min_s: plan.holdsAboveMinS,
})
