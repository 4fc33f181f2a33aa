import { describe, expect, test } from 'vitest'
import { heatPlanByContract } from '@/core/engines/heat/heat-plan-contract'
import { heatByContract } from '@/core/engines/heat/heat-contract'

const FILM = { name: 'film', thickness_mm: 0.1, k_w_mk: 0.17, rho_kg_m3: 1350, cp_j_kgk: 1200 }
const WALLS = {
  steel: { name: 'steel', thickness_mm: 0.8, k_w_mk: 50, rho_kg_m3: 7850, cp_j_kgk: 470 },
  aluminium: { name: 'aluminium', thickness_mm: 1.1, k_w_mk: 200, rho_kg_m3: 2700, cp_j_kgk: 900 },
  plastic: { name: 'plastic', thickness_mm: 3, k_w_mk: 0.2, rho_kg_m3: 1000, cp_j_kgk: 1900 },
}
const GUN = { id: '350', air_c: 350, h_w_m2k: 105, footprint: { shape: 'gaussian', sigma_mm: 30 } }
const task = (wall: keyof typeof WALLS, over: object = {}) => ({
  format: 'cuirass/heat-plan@1',
  start_c: 20,
  layers: [FILM, WALLS[wall]],
  edge: { length_mm: 600, panel_width_mm: 200, y_mm: 100 },
  room: { air_c: 20, h_w_m2k: 10 },
  back: { air_c: 20, h_w_m2k: 5 },
  guns: [GUN],
  band_c: { min: 90, max: 100 },
  limit_c: 110,
  speed_mm_s: { min: 2, max: 60 },
  passes_max: 6,
  gap_s_max: 60,
  hold_s_max: 15,
  reach_mm: 120,
  ...over,
})
interface Plan {
  gun: string
  sweep: { from_mm: number; to_mm: number; speed_mm_s: number; passes: number; hold_s: number; gap_s: number }
  in_band: number
  peak_c: { min: number; max: number }
  seconds: number
}
const answer = (input: object): Plan | { code: string; facts: Record<string, string | number> } => {
  const out = heatPlanByContract(input)
  if (!out.ok) throw new Error(out.error.code)
  return 'plan' in out.value ? (out.value.plan as Plan) : out.value.none
}
const planOf = (input: object): Plan => {
  const plan = answer(input)
  if (!('sweep' in plan)) throw new Error(plan.code)
  return plan
}

describe('a sweep of the gun', () => {
  test.each(['steel', 'aluminium', 'plastic'] as const)(
    'brings the whole of an edge of %s into the band, seen by the sweep itself',
    (wall) => {
      const input = task(wall)
      const plan = planOf(input)
      const seen = heatByContract({
        format: 'cuirass/heat@1',
        kind: 'sweep',
        start_c: 20,
        layers: input.layers,
        panel: { length_mm: 600, width_mm: 200 },
        room: input.room,
        back: input.back,
        gun: { air_c: GUN.air_c, h_w_m2k: GUN.h_w_m2k, footprint: GUN.footprint },
        sweep: { ...plan.sweep, y_mm: 100 },
        cool_s: 5,
        window_c: [90, 100],
      })
      if (!seen.ok) throw new Error(seen.error.code)
      const { edge } = seen.value as { edge: { in_window_fraction: number; max_peak_c: number } }
      expect(edge.in_window_fraction).toBeGreaterThanOrEqual(0.98)
      expect(edge.max_peak_c).toBeLessThanOrEqual(110)
      expect(plan.seconds).toBeCloseTo(
        plan.sweep.hold_s + (plan.sweep.to_mm - plan.sweep.from_mm) / plan.sweep.speed_mm_s,
        6,
      )
    },
    90_000,
  )

  test('thick plastic is swept at two to three times the pace of sheet steel', () => {
    const [steel, plastic] = (['steel', 'plastic'] as const).map((wall) => planOf(task(wall)).sweep.speed_mm_s)
    expect((plastic ?? NaN) / (steel ?? NaN)).toBeGreaterThan(2)
    expect((plastic ?? NaN) / (steel ?? NaN)).toBeLessThan(3.6)
  })

  test('of two guns the quicker one is taken, and a steel edge wants a hold at its start', () => {
    const weak = { ...GUN, id: 'weak', h_w_m2k: 70 }
    const plan = planOf(task('steel', { guns: [weak, GUN] }))
    expect(plan.gun).toBe('350')
    expect(plan.sweep.hold_s).toBeGreaterThan(1)
  })

  test('what cannot be done is named', () => {
    expect(answer(task('steel', { limit_c: 80 }))).toMatchObject({ code: 'limit_below_band' })
    const cold = answer(task('steel', { guns: [{ ...GUN, air_c: 85 }] }))
    expect(cold).toMatchObject({ code: 'cannot_reach', facts: { hottest_c: 85 } })
    // So hot that even the quickest pass spoils the film: the best there is is told, and is none.
    const fierce = answer(
      task('plastic', { guns: [{ ...GUN, air_c: 900, h_w_m2k: 400 }], speed_mm_s: { min: 2, max: 10 } }),
    )
    expect(fierce).toMatchObject({ code: 'band_too_narrow' })
    const narrow = answer(
      task('steel', { band_c: { min: 90, max: 90.2 }, limit_c: 95, passes_max: 1, hold_s_max: 0, reach_mm: 0 }),
    )
    expect(narrow).toMatchObject({ code: 'band_too_narrow', facts: { best: expect.stringContaining('in_band') } })
  }, 90_000)

  test('a field at fault is named', () => {
    const at = (over: object) => {
      const out = heatPlanByContract(task('steel', over))
      return out.ok ? 'fine' : `${out.error.code} ${out.error.at}`
    }
    expect(at({ band_c: { min: 100, max: 90 } })).toBe('min_over_max band_c')
    expect(at({ guns: [GUN, GUN] })).toBe('duplicate_id guns[1].id')
    expect(at({ guns: [] })).toBe('too_small guns')
    expect(at({ edge: { length_mm: 600, panel_width_mm: 200, y_mm: 300 } })).toBe('off_panel edge.y_mm')
    expect(at({ hue: 1 })).toBe('unknown_key hue')
  })
})
