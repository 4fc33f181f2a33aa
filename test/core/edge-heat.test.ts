import { describe, expect, it } from 'vitest'
import { edgeTask, solvedHeat, type EdgeHeatAsk } from '@/core/engines/heat/edge-heat'
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
