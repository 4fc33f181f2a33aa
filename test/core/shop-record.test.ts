import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { jobRecord } from '@/core/engines/run-sheet/job-record'
import { riskOf } from '@/core/engines/roll/risk'
import { stepOf, type Step } from '@/core/engines/run-sheet/step'
import {
  ENOUGH_PLACES,
  ENOUGH_STEPS,
  learnedPace,
  learnedRedo,
  NO_RECORD,
  shopRecord,
  type JobRecord,
} from '@/core/model/log/learned'
import { readCatalogue, writeCatalogue } from '@/core/model/catalogue/files'
import type { LogRow } from '@/core/model/log/schema'
import { Plan } from '@/core/model/plan/schema'
import { placesOf } from '@/core/reckon/places'
import { reckon } from '@/core/reckon/reckon'
import { yardColumnsOf } from '@/core/reckon/yard'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { catalogue, film, row } from '../fixtures/plans'

const hatch = Plan.parse(DEMO_JOBS[0]?.make())
const steps = (ratios: readonly number[], code = 'wash'): JobRecord => ({
  steps: ratios.map((r) => ({ code, plannedMin: 40, actualMin: 40 * r })),
  places: [],
})
const done = (over: Partial<Step>): Step => ({
  ...stepOf({ id: 's', code: 'wash', minutes: 45 }),
  state: 'done',
  ...over,
})

describe('what finished jobs teach', () => {
  it('is the middle of all cases: one forgotten tick does not move it; the slow way over all of them agrees', () => {
    expect(shopRecord([steps([1, 1.1, 1.2, 1.1, 40])]).steps.wash).toEqual({ cases: 5, factor: 1.1 })
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 20, max: 500 }), { minLength: 1, maxLength: 30 }), (list) => {
        const ratios = list.map((n) => n / 100)
        const { factor, cases } = shopRecord(ratios.map((r) => steps([r]))).steps.wash ?? { factor: NaN, cases: 0 }
        expect(cases).toBe(ratios.length)
        // As many lie over it as under it.
        const under = ratios.filter((r) => r < factor - 0.006).length
        const over = ratios.filter((r) => r > factor + 0.006).length
        expect(under).toBeLessThanOrEqual(ratios.length / 2)
        expect(over).toBeLessThanOrEqual(ratios.length / 2)
      }),
    )
  })

  it('nothing is learned from three', () => {
    expect(learnedPace(shopRecord([steps([1.4, 1.4, 1.4])]), 'wash')).toBeNull()
    expect(learnedPace(shopRecord([steps(Array<number>(ENOUGH_STEPS).fill(1.4))]), 'wash')).toEqual({
      cases: ENOUGH_STEPS,
      factor: 1.4,
    })
    expect(learnedPace(NO_RECORD, 'wash')).toBeNull()
    const places = (n: number) => ({
      steps: [],
      places: Array.from({ length: n }, () => ({ why: 'recess', result: 'redo' as const })),
    })
    expect(learnedRedo(shopRecord([places(3)]), 'recess')).toBeNull()
    expect(learnedRedo(shopRecord([places(ENOUGH_PLACES)]), 'recess')).toEqual({ cases: ENOUGH_PLACES, share: 1 })
  })

  it('a step counts by its begin and end, held to the rules’ minutes and never to what was learned or typed', () => {
    const at = (over: Partial<Step>) =>
      jobRecord([done({ startedAt: '2026-11-24T08:00:00Z', doneAt: '2026-11-24T09:00:00Z', ...over })], []).steps
    expect(at({})).toEqual([{ code: 'wash', plannedMin: 45, actualMin: 60 }])
    expect(at({ minutes: 90, minutesByRule: 45 })).toMatchObject([{ plannedMin: 45 }])
    expect(at({ minutes: 63, learned: { cases: 9, factor: 1.4, ruleMin: 45 } })).toMatchObject([{ plannedMin: 45 }])
    // Ticked in passing, forgotten overnight, never begun: these teach nothing.
    expect(at({ doneAt: '2026-11-24T08:01:00Z' })).toEqual([])
    expect(at({ doneAt: '2026-11-25T08:00:00Z' })).toEqual([])
    expect(at({ startedAt: null })).toEqual([])
    expect(at({ minutes: 0 })).toEqual([])
  })
})

describe('what a shop’s record does', () => {
  const learned = shopRecord([steps(Array<number>(ENOUGH_STEPS).fill(1.5), 'mask')])
  const at = (record: typeof learned, plan = hatch) => reckon(plan, { ...catalogue, record }, [])
  const mask = (r: ReturnType<typeof at>) => r.steps.find((s) => s.code === 'mask')

  it('the minutes of that step are its own, with what they were; typed ones stand over it; others stay', () => {
    const [before, after] = [at(NO_RECORD), at(learned)]
    expect(mask(after)?.minutes).toBe(Math.ceil((mask(before)?.minutes ?? 0) * 1.5))
    expect(mask(after)?.learned).toEqual({ cases: ENOUGH_STEPS, factor: 1.5, ruleMin: mask(before)?.minutes })
    const rest = (r: ReturnType<typeof at>) => r.steps.filter((s) => s.code !== 'mask').map((s) => s.minutes)
    expect(rest(after)).toEqual(rest(before))
    const typed = { ...hatch, runSheet: { ...hatch.runSheet, minutes: { mask: 7 } } }
    expect(mask(at(learned, typed))?.minutes).toBe(7)
  })

  it('near the limit the chance of laying a piece twice is this shop’s own, once it has cases enough', () => {
    const sheet = film('fen-satin')
    const near = sheet.stretchLimit * 0.9
    const places = (redo: number, n: number) =>
      shopRecord([
        {
          steps: [],
          places: Array.from({ length: n }, (_, i) => ({
            why: 'over_ten_percent',
            result: i < redo ? 'redo' : 'holds',
          })),
        },
      ])
    const usual = riskOf(hatch, sheet, near)
    expect(riskOf(hatch, sheet, near, places(3, 3))).toBe(usual)
    expect(riskOf(hatch, sheet, near, places(8, 20))).toBeCloseTo((usual / 0.15) * 0.4, 9)
    // Far from the limit, and past it, the record says nothing.
    expect(riskOf(hatch, sheet, near / 3, places(8, 20))).toBe(riskOf(hatch, sheet, near / 3))
    expect(riskOf(hatch, sheet, near * 2, places(8, 20))).toBe(riskOf(hatch, sheet, near * 2))
  })

  it('a job is a record once it is handed over, with its places as they stood at the recheck', () => {
    const first = placesOf(hatch, reckon(hatch, catalogue, []), [])[0]
    if (!first) throw new Error('no place')
    const ledger: LogRow[] = [
      row({ kind: 'step_started', stepId: 'wash' }, '2026-11-24T08:00:00.000Z'),
      row({ kind: 'step_done', stepId: 'wash' }, '2026-11-24T08:50:00.000Z'),
      row(
        { kind: 'place_checked', round: 'recheck', placeId: first.id, panelId: first.panelId, result: 'pressed' },
        '2026-11-26T08:00:00.000Z',
      ),
    ]
    expect(yardColumnsOf(hatch, catalogue, ledger).record).toBeNull()
    const over = [...ledger, row({ kind: 'step_done', stepId: 'hand_over' }, '2026-11-26T09:00:00.000Z')]
    const { record } = yardColumnsOf(hatch, catalogue, over)
    expect(record?.steps).toContainEqual({ code: 'wash', plannedMin: 45, actualMin: 50 })
    expect(record?.places).toEqual(first.why.map((why) => ({ why, result: 'pressed' })))
  })

  it('goes with the catalogue’s file', () => {
    const read = readCatalogue(writeCatalogue({ ...catalogue, record: learned }, []))
    expect(read.ok && read.value.record).toEqual(learned)
  })
})
