import { describe, expect, it } from 'vitest'
import { edgeTask, solvedHeat, type EdgeHeatAsk } from '@/core/engines/heat/edge-heat'
import { NO_SOLUTIONS, type SolutionTables } from '@/core/model/catalogue/solutions'
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

  it('says why there is no way', () => {
    expect(solvedHeat(ask({ guns: [] }))).toBe(null)
    expect(solvedHeat(ask({ film: { ...film, heatLimitC: 60 } }))).toEqual({ kind: 'none', code: 'limit_below_band' })
    const cold = DEMO_SETTINGS.guns.map((g) => ({ ...g, airC: 70 }))
    expect(solvedHeat(ask({ guns: cold.slice(0, 1) }))).toEqual({ kind: 'none', code: 'cannot_reach' })
  })
})

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
  it('decides the minutes of post-heat, which settle with it', () => {
    const way = (paceMmS: number) => ({
      kind: 'plan' as const,
      gun: 'wide',
      holdS: 0,
      paceMmS,
      passes: 1,
      gapS: 0,
      beforeMm: 0,
      pastMm: 0,
      peakC: { min: 80, max: 90 },
      inBand: 1,
    })
    const at = (paceMmS: number) =>
      reckon(handCar(), { ...shop, solutions: { ...NO_SOLUTIONS, heat: { [key]: way(paceMmS) } } }, [])
    const work = (paceMmS: number) => at(paceMmS).steps.find((s) => s.id === 'post_heat:bonnet')?.minutes ?? NaN
    // 4.8 m of places at 4 and at 40 mm/s: 20 min and 2, and each is rounded up.
    expect(Math.abs(work(4) - work(40) - 18)).toBeLessThanOrEqual(1)
    expect(reckon(handCar(), { ...shop, solutions: NO_SOLUTIONS }, []).figures.get('rail/crew_minutes')?.settling).toBe(
      true,
    )
  })
})
