import { describe, expect, it } from 'vitest'
import { edgeTask, solvedHeat, type EdgeHeatAsk } from '@/core/engines/heat/edge-heat'
import type { HeatPart } from '@/core/model/figure/figure-id'
import { NO_SOLUTIONS, type SolutionTables } from '@/core/model/catalogue/solution-tables'
import { reckon } from '@/core/reckon/reckon'
import { catalogue, handCar } from '../fixtures/plans'
import { paceSeconds, solvedPace } from '@/core/engines/heat/pace'
import { DEMO_FILMS } from '@/db/demo/films'
import { DEMO_SETTINGS } from '@/db/demo/people'

const film = DEMO_FILMS.find((f) => f.id === 'fen-satin')
if (!film) throw new Error('no film')
const ask = (over: Partial<EdgeHeatAsk> = {}): EdgeHeatAsk => ({
  panel: { surface: { material: 'steel', thicknessMm: null } },
  film,
  guns: DEMO_SETTINGS.guns,
  ...over,
})
const planOf = (over: Partial<EdgeHeatAsk> = {}) => {
  const out = solvedHeat(ask(over))
  if (out?.kind !== 'plan') throw new Error(out?.code ?? 'not measured')
  return out
}

describe('the gun along an edge of a job', () => {
  it('takes the wall from the panel, the band from the film, and only guns that were measured', () => {
    const task = edgeTask(ask({ panel: { surface: { material: 'plastic', thicknessMm: 2.5 } } }))
    expect(task?.layers.map((l) => l.thicknessM)).toEqual([film.thicknessUm / 1e6, 0.0025])
    expect(task?.bandC).toEqual(film.postHeatC)
    expect(task?.guns.map((g) => g.id)).toEqual(['wide'])
    expect(edgeTask(ask())?.layers[1]?.thicknessM).toBe(0.0008)
  })

  it('brings the edge into the film’s range and nothing over its limit', () => {
    const plan = planOf()
    expect(plan.gun).toBe('wide')
    expect(plan.inBand).toBeGreaterThan(0.98)
    expect(plan.peakC.max).toBeLessThanOrEqual(film.heatLimitC)
    expect(paceSeconds(solvedPace(plan, 700))).toBeGreaterThan(plan.holdS + 700 / plan.paceMmS - 20)
  }, 90_000)

  it('a longer edge takes its time at the same pace', () => {
    const plan = planOf()
    const seconds = (lengthMm: number) => paceSeconds(solvedPace(plan, lengthMm))
    expect(seconds(2500) - seconds(1000)).toBeCloseTo((plan.passes * 1500) / plan.paceMmS, 6)
  }, 90_000)

  it('says why there is no sweep', () => {
    expect(solvedHeat(ask({ guns: [] }))).toBe(null)
    expect(solvedHeat(ask({ film: { ...film, heatLimitC: 60 } }))).toEqual({ kind: 'none', code: 'limit_below_band' })
    const cold = DEMO_SETTINGS.guns.map((g) => ({ ...g, airC: 70 }))
    expect(solvedHeat(ask({ guns: cold.slice(0, 1) }))).toEqual({ kind: 'none', code: 'cannot_reach' })
  })
})

/** A sweep that nothing but its pace takes time of. */
const FAKE = {
  kind: 'plan' as const,
  gun: 'wide',
  holdS: 0,
  paceMmS: 10,
  passes: 1,
  gapS: 0,
  beforeMm: 0,
  pastMm: 0,
  peakC: { min: 80, max: 90 },
  inBand: 1,
}

describe('how the gun goes, behind a plan', () => {
  const shop = { ...catalogue, shop: DEMO_SETTINGS }
  const heatLacks = (solutions: SolutionTables) =>
    reckon(handCar(), { ...shop, solutions }, []).settling.lacks.filter((l) => l.kind === 'heat')
  const [lack] = heatLacks(NO_SOLUTIONS)
  const key = lack?.key ?? ''

  it('is asked for once for all edges that share it, and not by a shop that measured no gun', () => {
    expect(heatLacks(NO_SOLUTIONS)).toHaveLength(1)
    const { settling } = reckon(
      handCar(),
      { ...shop, shop: { ...DEMO_SETTINGS, guns: [] }, solutions: NO_SOLUTIONS },
      [],
    )
    expect(settling.lacks.filter((l) => l.kind === 'heat')).toEqual([])
  })
  it('what could not be solved is not asked for again, or a queue would go round for ever', () => {
    const fault = { [key]: { code: 'took_too_long', facts: {} } }
    expect(heatLacks({ ...NO_SOLUTIONS, fault })).toEqual([])
  })
  it('opens its working: what it was solved from, the film’s limit, and the time of all edges by its own pace', () => {
    const solved = { ...FAKE, holdS: 3.5, paceMmS: 9, passes: 2, gapS: 12, beforeMm: 10, pastMm: 15 }
    const r = reckon(handCar(), { ...shop, solutions: { ...NO_SOLUTIONS, heat: { [key]: solved } } }, [])
    const of = (part: HeatPart) => r.figures.get(`heat/bonnet/${part}`)
    expect(of('pace')).toMatchObject({ value: 9, unit: 'mm_s' })
    expect(of('hold')).toMatchObject({ value: 3.5, unit: 's' })
    expect(of('peak_high')?.limit).toMatchObject({ value: film.heatLimitC, kind: 'max' })
    const given = Object.fromEntries((of('pace')?.inputs ?? []).map((i) => [i.key, i.value]))
    const wide = DEMO_SETTINGS.guns.find((g) => g.id === 'wide')
    expect(given).toMatchObject({ air: wide?.airC, transfer: wide?.coefficient, footprint: wide?.sigmaMm })
    expect([given.low, given.high]).toEqual([film.postHeatC.min, film.postHeatC.max])
    // Nobody named the wall: it is taken for sheet steel, and said to be.
    expect(of('pace')?.inputs.find((i) => i.key === 'wall')).toMatchObject({ value: 0.8, standing: 'assumed' })
    const lengths = r.points.flatMap((p) => (p.panelId === 'bonnet' && p.lengthMm !== null ? [p.lengthMm] : []))
    const seconds = lengths.reduce((sum, mm) => sum + 2 * (3.5 + (mm + 25) / 9) + 12, 0)
    expect(lengths.length).toBeGreaterThan(2)
    expect(of('moving')?.value).toBeCloseTo(seconds, 6)
  })
  it('without a measured gun the time is by the usual pace, and nothing claims to be solved', () => {
    const r = reckon(handCar(), { ...shop, shop: { ...DEMO_SETTINGS, guns: [] }, solutions: NO_SOLUTIONS }, [])
    expect(r.figures.has('heat/bonnet/pace')).toBe(false)
    const lengths = r.points.flatMap((p) => (p.panelId === 'bonnet' && p.lengthMm !== null ? [p.lengthMm] : []))
    // Sheet steel: held 5 s, then 9 mm/s, run 20 mm past the end.
    const seconds = lengths.reduce((sum, mm) => sum + 5 + (mm + 20) / 9, 0)
    expect(r.figures.get('heat/bonnet/moving')?.value).toBeCloseTo(seconds, 6)
  })
  it('where no gun can, there is no pace to open', () => {
    const heat = { [key]: { kind: 'none' as const, code: 'cannot_reach' as const } }
    const r = reckon(handCar(), { ...shop, solutions: { ...NO_SOLUTIONS, heat } }, [])
    expect(r.figures.has('heat/bonnet/pace')).toBe(false)
    expect(r.figures.has('heat/bonnet/moving')).toBe(true)
  })
  it('the minutes of post-heat are worked out part by part, and a panel’s work opens them', () => {
    const plain = handCar()
    const pressed = { ...plain, method: { ...plain.method, plainEdges: 'pressed' as const } }
    for (const plan of [plain, pressed, { ...plain, runSheet: { ...plain.runSheet, paceFactor: 1.3 } }]) {
      const r = reckon(plan, { ...shop, solutions: { ...NO_SOLUTIONS, heat: { [key]: FAKE } } }, [])
      const working = r.figures.get('heat/bonnet/minutes')
      const of = Object.fromEntries((working?.inputs ?? []).map((i) => [i.key, Number(i.value)]))
      const term = (key: string) => of[key] ?? NaN
      // With a pencil: seconds of the gun, places, readings, metres pressed again, metres pressed without a reading.
      const minutes =
        (term('moving') * term('slower') +
          term('places') * term('place') +
          term('readings') * term('read') +
          term('length') / term('press') +
          term('pressed') / term('plain')) /
          60 +
        term('steam')
      expect(working?.value).toBe(Math.ceil(minutes * term('crew_pace')))
      const step = r.steps.find((s) => s.id === 'post_heat:bonnet')
      expect(working?.value).toBe(step?.minutes)
      const work = r.figures.get('panel/bonnet/minutes')?.inputs.find((i) => i.key === 'post_heat:bonnet')
      expect(work).toMatchObject({ value: step?.minutes, at: 'figure:heat/bonnet/minutes' })
    }
    const typed = { ...plain, runSheet: { ...plain.runSheet, minutes: { 'post_heat:bonnet': 77 } } }
    const own = reckon(typed, { ...shop, solutions: NO_SOLUTIONS }, []).figures.get('panel/bonnet/minutes')
    // What somebody typed is nobody's sum.
    expect(own?.inputs.find((i) => i.key === 'post_heat:bonnet')).toMatchObject({
      value: 77,
      at: 'steps/post_heat:bonnet',
    })
  })
  it('whatever hangs on a sweep that is not solved yet says that it settles, and nothing else does', () => {
    const ids = ['heat/bonnet/moving', 'heat/bonnet/minutes', 'panel/bonnet/minutes'] as const
    const settling = (plan: ReturnType<typeof handCar>, solutions: SolutionTables) => {
      const { figures } = reckon(plan, { ...shop, solutions }, [])
      return ids.map((id) => figures.get(id)?.settling === true)
    }
    const plan = handCar()
    const typed = { ...plan, runSheet: { ...plan.runSheet, minutes: { 'post_heat:bonnet': 77 } } }
    expect(settling(plan, NO_SOLUTIONS)).toEqual([true, true, true])
    expect(settling(typed, NO_SOLUTIONS)).toEqual([true, true, false])
    expect(settling(plan, { ...NO_SOLUTIONS, heat: { [key]: FAKE } })).toEqual([false, false, false])
    const fault = { [key]: { code: 'took_too_long', facts: {} } }
    expect(settling(plan, { ...NO_SOLUTIONS, fault })).toEqual([false, false, false])
  })
  it('decides the minutes of post-heat, which settle with it', () => {
    const plan = (paceMmS: number) => ({ ...FAKE, paceMmS })
    const at = (paceMmS: number) =>
      reckon(handCar(), { ...shop, solutions: { ...NO_SOLUTIONS, heat: { [key]: plan(paceMmS) } } }, [])
    const work = (paceMmS: number) => at(paceMmS).steps.find((s) => s.id === 'post_heat:bonnet')?.minutes ?? NaN
    // 4.8 m of places at 4 and at 40 mm/s: 20 min and 2, and each is rounded up.
    expect(Math.abs(work(4) - work(40) - 18)).toBeLessThanOrEqual(1)
    expect(reckon(handCar(), { ...shop, solutions: NO_SOLUTIONS }, []).figures.get('rail/crew_minutes')?.settling).toBe(
      true,
    )
  })
})
