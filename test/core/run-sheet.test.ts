import { describe, expect, it } from 'vitest'
import { paceSeconds, solvedPace } from '@/core/engines/heat/pace'
import { solvedHeat } from '@/core/engines/heat/edge-heat'
import { GUN_PACE } from '@/core/model/heat/heat-data'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { civilToMinutes } from '@/core/kit/civil'
import { localMinutes } from '@/core/kit/time-zone'
import type { LogRow } from '@/core/model/log/schema'
import { Plan } from '@/core/model/plan/schema'
import { DEFAULT_SHOP, hoursOf } from '@/core/model/shop/default-shop'
import { MATERIALS } from '@/core/model/vehicle/kinds'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_FILMS } from '@/db/demo/films'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { catalogue, row } from '../fixtures/plans'

const demo = (i: number): Plan => Plan.parse(DEMO_JOBS[i]?.make())
const hatch = demo(0)
const at = (plan: Plan, over: Partial<Plan['runSheet']> = {}, ledger: LogRow[] = []) =>
  reckon({ ...plan, runSheet: { ...plan.runSheet, startAt: '2026-11-23T08:00', ...over } }, CATALOGUE, ledger)
const CATALOGUE = { ...catalogue, hours: hoursOf(DEFAULT_SHOP) }
const minutes = (text: string | undefined): number => civilToMinutes(text ?? '') ?? NaN

describe('steps made from the plan', () => {
  it('the gun’s pace by what is under the film is the heat engine’s, within a third', () => {
    // A gun that shows 350 °C, 105 W/m²K over a footprint of 30 mm; cast film from 90 to 100 °C.
    const film = { ...(DEMO_FILMS[0] ?? ({} as never)), postHeatC: { min: 90, max: 100 }, heatLimitC: 120 }
    const gun = { id: 'g', name: 'Gun', displayC: 350, airC: 350, coefficient: 105, sigmaMm: 30 }
    for (const material of MATERIALS) {
      const panel = { surface: { material, thicknessMm: null } }
      const plan = solvedHeat({ panel, film, guns: [gun] })
      if (plan?.kind !== 'plan') throw new Error(plan?.code)
      const solved = paceSeconds(solvedPace(plan, 1000))
      const { holdS, mmS, passes, gapS } = GUN_PACE[material]
      const seconds = passes * (holdS + 1000 / mmS) + (passes - 1) * gapS
      expect(seconds / solved, material).toBeGreaterThan(2 / 3)
      expect(seconds / solved, material).toBeLessThan(3 / 2)
    }
  }, 120_000)

  it('a pick-up with some 19 m of points is heated in 25 to 45 minutes, not in two minutes a place', () => {
    const pickup = DEMO_JOBS.map((j) => Plan.parse(j.make())).find((p) => p.vehicle.kind === 'pickup')
    if (!pickup) throw new Error('no pick-up in the demo')
    const heat = at(pickup).steps.filter((s) => s.code === 'post_heat')
    const metres = heat.reduce((sum, s) => sum + Number(s.facts.length_mm), 0) / 1000
    const perMetre = heat.reduce((sum, s) => sum + s.minutes, 0) / metres
    expect(perMetre).toBeGreaterThan(25 / 19)
    expect(perMetre).toBeLessThan(6)
  })

  it('what takes longer: an edge more turned in, a corner that is cut, a recess, a seam', () => {
    const work = (plan: Plan, id: string) => at(plan).steps.find((s) => s.id === id)?.minutes ?? NaN
    const withPanel = (over: (p: Plan['panels'][0]) => Plan['panels'][0]): Plan => ({
      ...hatch,
      panels: hatch.panels.map((p) => (p.id === 'bonnet' ? over(p) : p)),
    })
    const free = withPanel((p) => ({ ...p, edges: p.edges.map((e) => ({ ...e, lengthMm: e.lengthMm + 400 })) }))
    expect(work(free, 'trim:bonnet')).toBeGreaterThan(work(hatch, 'trim:bonnet'))
    expect(work(free, 'post_heat:bonnet')).toBeGreaterThan(work(hatch, 'post_heat:bonnet'))
    const plastic = withPanel((p) => ({ ...p, surface: { material: 'plastic', thicknessMm: null } }))
    expect(work(plastic, 'post_heat:bonnet')).toBeLessThan(work(hatch, 'post_heat:bonnet'))
    const split = {
      ...hatch,
      pieces: [
        {
          panelId: 'bonnet',
          parts: 2,
          along: 'width' as const,
          preStretch: 0,
          bleedMm: null,
          seamsAtMm: [],
          slits: [],
          flat: null,
        },
      ],
    }
    const ofBonnet = (plan: Plan) =>
      at(plan).steps.reduce((sum, s) => (s.panelId === 'bonnet' && /lay|seam/.test(s.code) ? sum + s.minutes : sum), 0)
    expect(ofBonnet(split)).toBeGreaterThan(ofBonnet(hatch))
  })

  it('old film comes off before the wash, by area and age; a coarse hull is scuffed after it stood', () => {
    const mark = { ...hatch.walkaround.damage[0], kind: 'previous_film' as const, id: 'old', panelId: 'bonnet' }
    const old = (years: number): Plan => ({
      ...hatch,
      walkaround: {
        ...hatch.walkaround,
        damage: [mark] as never,
        paint: { ...hatch.walkaround.paint, ageYears: years },
      },
    })
    const steps = at(old(2)).steps.map((s) => s.code)
    expect(steps.slice(0, 3)).toEqual(['removal_trial', 'removal', 'wash'])
    const work = (years: number) => at(old(years)).steps.find((s) => s.code === 'removal')?.minutes ?? 0
    expect(work(6)).toBeGreaterThan(work(2))
    expect(at(hatch).steps.some((s) => s.code === 'removal')).toBe(false)
  })

  it('typed minutes and own steps stand, and the rule’s minutes are still known', () => {
    const own = [{ id: 'own:photo', name: 'Photos for the customer', minutes: 12, people: 1, after: 'wash' }]
    const { steps } = at(hatch, { minutes: { 'lay:bonnet': 33 }, own })
    expect(steps.find((s) => s.id === 'lay:bonnet')).toMatchObject({ minutes: 33 })
    expect(steps.find((s) => s.id === 'lay:bonnet')?.minutesByRule).toBeLessThan(33)
    expect(steps[steps.findIndex((s) => s.id === 'wash') + 1]).toMatchObject({ code: 'own', minutes: 12 })
  })

  it('what was logged before post-heat was a step of each panel still counts', () => {
    const done = (stepId: string, when: string) => row({ kind: 'step_done', stepId }, when)
    const before = [
      done('lay:bonnet', '2026-11-24T10:00:00.000Z'),
      done('post_heat:fen-satin', '2026-11-24T15:00:00.000Z'),
    ]
    const { steps } = at(hatch, {}, before)
    const state = (id: string) => steps.find((s) => s.id === id)?.state
    expect(state('post_heat:bonnet')).toBe('done')
    expect(state('post_heat:roof')).toBe('done')
    expect([state('degrease:bonnet'), state('degrease:roof')]).toEqual(['done', 'to_do'])
    const skipped = at(hatch, { skip: ['post_heat:fen-satin'] }).steps
    expect(skipped.filter((s) => s.code === 'post_heat').every((s) => s.state === 'skipped')).toBe(true)
  })
})

describe('a schedule that follows the day', () => {
  it('post-heat lies in its film’s window, counted from the laying', () => {
    const chrome = demo(1)
    const { steps, schedule } = at(chrome, { crew: 3 })
    expect(schedule?.missesWindow).toBe(false)
    const heat = steps.filter((s) => s.code === 'post_heat')
    expect(heat.length).toBeGreaterThan(3)
    const lastLaid = (panelId: string | null) => {
      const ends = steps
        .filter((s) => s.code === 'lay' && s.panelId === panelId)
        .map((s) => schedule?.times.get(s.id)?.to)
      return ends.sort().at(-1)
    }
    for (const s of heat) {
      const [laid, begun] = [lastLaid(s.panelId), schedule?.times.get(s.id)?.from].map(minutes)
      expect(Number(begun) - Number(laid)).toBeGreaterThanOrEqual(30)
      expect(Number(begun) - Number(laid)).toBeLessThanOrEqual(1440)
    }
  })

  it('print is gassed out and laminated before the vehicle is washed', () => {
    const { steps, schedule } = at(demo(2), { crew: 2 })
    const laminate = steps.find((s) => s.code === 'laminate')
    expect(minutes(schedule?.times.get('wash')?.from)).toBeGreaterThanOrEqual(
      minutes(schedule?.times.get(laminate?.id ?? '')?.to),
    )
  })

  it('what is done stands where it was done; the rest begins no earlier than the last thing that happened', () => {
    const ledger = [
      row({ kind: 'step_started', stepId: 'wash' }, '2026-11-24T08:30:00.000Z'),
      row({ kind: 'step_done', stepId: 'wash' }, '2026-11-24T11:07:00.000Z'),
    ]
    const { schedule } = at(hatch, {}, ledger)
    expect(schedule?.times.get('wash')).toEqual({ from: '2026-11-24T08:30', to: '2026-11-24T11:07' })
    expect(schedule?.times.get('dry')?.from).toBe('2026-11-24T11:15')
    expect(minutes(schedule?.readyAt)).toBeGreaterThan(minutes(at(hatch).schedule?.readyAt))
  })

  it('a promise that cannot be kept says what would rescue it, and what it says is so', () => {
    const free = at(hatch, { crew: 1 }).schedule
    const pair = at(hatch, { crew: 2 }).schedule
    const promisedAt = pair?.readyAt ?? ''
    expect(minutes(free?.readyAt)).toBeGreaterThan(minutes(promisedAt))
    const late = at(hatch, { crew: 1, promisedAt }).findings.find((f) => f.code === 'promise_late')
    const way = late?.waysOut.find((w) => w.code === 'more_people')
    expect(way?.facts).toEqual({ crew: 2, ready: promisedAt })
    expect(at(hatch, { crew: 2, promisedAt }).findings.some((f) => f.code === 'promise_late')).toBe(false)
  })

  it('a small car in easy film: one to two days of work on it for one, less for a pair, three times that for a beginner', () => {
    const onCar = (over: Partial<Plan['runSheet']>) => {
      const { steps, schedule } = at(hatch, over)
      const ids = new Set(plannedSteps(steps).map((s) => s.id))
      const days = new Set(
        [...(schedule?.times ?? [])]
          .filter(([id]) => ids.has(id) && /^(lay|trim|post_heat):/.test(id))
          .map(([, t]) => t.from.slice(0, 10)),
      )
      return days.size
    }
    const [alone, pair, beginner] = [onCar({ crew: 1 }), onCar({ crew: 2 }), onCar({ crew: 1, paceFactor: 3.5 })]
    expect(alone).toBeGreaterThanOrEqual(1)
    expect(alone).toBeLessThanOrEqual(3)
    expect(pair).toBeLessThan(alone + 1)
    expect(beginner).toBeGreaterThanOrEqual(3 * (alone - 1))
  })

  it('the shop’s clock over the change to summer time', () => {
    const wall = (utc: string) => localMinutes(utc, 'Europe/Dublin')
    expect(wall('2026-03-29T00:59:00Z')).toBe(civilToMinutes('2026-03-29T00:59'))
    expect(wall('2026-03-29T01:00:00Z')).toBe(civilToMinutes('2026-03-29T02:00'))
    expect(wall('2026-10-25T01:00')).toBe(civilToMinutes('2026-10-25T01:00'))
    expect(wall('never')).toBeNull()
  })
})
