import { describe, expect, it } from 'vitest'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { TOLD } from '@/core/reckon/parts'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { Plan } from '@/core/model/plan/schema'
import { areaStanding } from '@/core/model/vehicle/measure-standing'
import { catalogue, handCar, row, withPanel } from '../fixtures/plans'

const plans = DEMO_JOBS.map(({ make }) => Plan.parse(make()))
const input = (f: { inputs: { key: string; value: unknown }[] } | undefined, key: string) =>
  f?.inputs.find((i) => i.key === key)?.value

describe('one number of steps', () => {
  it.each(plans.map((plan) => [plan.vehicle.name, plan] as const))(
    '%s: rail, bay and run sheet count alike',
    (_, plan) => {
      const dated = { ...plan, runSheet: { ...plan.runSheet, startAt: '2026-11-23T08:00' } }
      const first = reckon(dated, catalogue, []).steps[0]
      if (!first) return expect(plan.panels.filter((p) => p.wrap)).toEqual([])
      const skipped = { ...dated, runSheet: { ...dated.runSheet, skip: [first.id] } }
      for (const of of [dated, skipped]) {
        const { steps, figures, stages } = reckon(of, catalogue, [row({ kind: 'note', text: 'begun' })])
        const planned = plannedSteps(steps).length
        expect(planned).toBe(steps.filter((s) => s.state !== 'skipped').length)
        expect(input(figures.get('rail/ready_at'), 'steps')).toBe(planned)
        expect(figures.get('rail/crew_minutes')?.inputs).toHaveLength(planned)
        expect(stages.find((s) => s.stage === 'bay')?.facts).toMatchObject({ of: planned })
      }
    },
  )
})

describe('names', () => {
  it.each(plans.map((plan) => [plan.vehicle.name, plan] as const))(
    '%s: no two figures have one id, and no two inputs of a figure one name',
    (_, plan) => {
      const { parts, figures } = reckon(plan, catalogue, [])
      const ids = TOLD.flatMap((part) => parts[part].figures.map((f) => f.id))
      expect(ids.filter((id, i) => ids.indexOf(id) !== i)).toEqual([])
      for (const f of figures.values()) {
        const keys = f.inputs.map((i) => i.key)
        expect(new Set(keys).size, f.id).toBe(keys.length)
      }
    },
  )
})

describe('standing', () => {
  const plan = handCar()
  it('an area is known no better than the sizes it is made of, and so is the yield', () => {
    const yieldOf = (of: Plan) => reckon(of, catalogue, []).figures.get('rail/yield')?.standing
    const assumed = withPanel(plan, 'door', () => ({ assumed: ['widthMm'] }))
    expect(plan.panels.map(areaStanding)).toEqual(['measured', 'measured', 'measured'])
    expect(assumed.panels.map(areaStanding)).toEqual(['measured', 'assumed', 'measured'])
    expect(yieldOf(assumed)).toBe('assumed')
    expect(yieldOf(plan)).not.toBe('assumed')
  })
  it('a body colour is picked by eye, whatever formula it goes into', () => {
    const contrast = reckon(plan, catalogue, []).figures.get('walkaround/contrast')
    expect(contrast?.inputs.find((i) => i.key === 'body')?.standing).toBe('assumed')
    expect(contrast?.standing).toBe('assumed')
  })
})

describe('a night of drying', () => {
  it('is as long in the run sheet as the conditions ask for', () => {
    const climate = [{ at: '2026-11-20T08:00:00Z', airC: 20, humidity: 0.5, surfaceC: 18, by: 'Other' }]
    const wet = { ...handCar(), conditions: { ...handCar().conditions, vehicleC: 5, wet: true } }
    const { figures, steps } = reckon(Plan.parse(wet), { ...catalogue, climate }, [])
    expect(input(figures.get('conditions/lead'), 'drying')).toBe(steps.find((s) => s.code === 'bring_in')?.waitMin)
  })
})

describe('a job that was handed over', () => {
  it('waits for nothing: it is not ready at any hour any more', () => {
    const plan = { ...handCar(), runSheet: { ...handCar().runSheet, startAt: '2026-11-23T08:00' } }
    const over = [row({ kind: 'step_started', stepId: 'hand_over' }), row({ kind: 'step_done', stepId: 'hand_over' })]
    expect(reckon(plan, catalogue, []).figures.get('rail/ready_at')?.value).toMatch(/^2026-/)
    expect(reckon(plan, catalogue, over).figures.get('rail/ready_at')).toMatchObject({
      value: null,
      formula: 'handed_over()',
    })
  })
})

describe('the source that is taken', () => {
  it.each(plans.map((plan) => [plan.vehicle.name, plan] as const))(
    '%s: its order and cost are those of the rail',
    (_, plan) => {
      const { layouts, purchases, figures } = reckon(plan, catalogue, [])
      for (const l of layouts.filter((l) => l.source?.kind === 'new' && l.kept === 'none')) {
        expect(l.source?.orderMm).toBe(purchases.get(l.film.id)?.orderMm)
        expect(figures.get(`roll/${l.film.id}/order`)?.value).toBe(l.source?.orderMm)
      }
    },
  )
})
