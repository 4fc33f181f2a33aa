import { describe, expect, it } from 'vitest'
import { alertsOf } from '@/core/reckon/alerts'
import { reckon } from '@/core/reckon/reckon'
import type { LogRow } from '@/core/model/log/schema'
import { Plan } from '@/core/model/plan/schema'
import { DEMO_SETTINGS } from '@/db/demo/people'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { catalogue, row } from '../fixtures/plans'

const NOW = '2026-11-24T12:00'
const hatch: Plan = Plan.parse(DEMO_JOBS[0]?.make())
const started: Plan = { ...hatch, runSheet: { ...hatch.runSheet, startAt: '2026-11-25T08:00' } }
const multi: Plan = {
  ...started,
  film: {
    ...started.film,
    sheets: started.film.sheets.map((s) => ({ ...s, postHeatFromMin: 30, postHeatUntilMin: 600 })),
  },
}
const alerts = (plan: Plan, ledger: LogRow[] = [], over: object = {}, now = NOW) =>
  alertsOf(plan, reckon(plan, { ...catalogue, ...over, now }, ledger), ledger, now)
const done = (stepId: string, at: string) => row({ kind: 'step_done', stepId }, at)
const of = (list: ReturnType<typeof alerts>, code: string) => list.filter((a) => a.code === code)

describe('what the yard tells first', () => {
  it('film to order for a job that has a start and is not begun; none once it is', () => {
    const bare = { stock: [] }
    const [order] = of(alerts(started, [], bare), 'film_to_order')
    expect(order?.facts).toEqual({
      mm: reckon(started, { ...catalogue, stock: [] }, []).figures.get('rail/film_order')?.value,
    })
    expect(of(alerts({ ...hatch, runSheet: { ...hatch.runSheet, startAt: null } }, [], bare), 'film_to_order')).toEqual(
      [],
    )
    const begun = [row({ kind: 'step_started', stepId: 'wash' }, '2026-11-24T08:00:00.000Z')]
    expect(of(alerts(started, begun, bare), 'film_to_order')).toEqual([])
  })

  it('a wait that runs, until what waits for it is begun, or it is over', () => {
    const inside = [done('bring_in', '2026-11-24T08:00:00.000Z')]
    const [wait] = of(alerts(started, inside), 'wait_ends')
    const step = reckon(started, catalogue, []).steps.find((s) => s.code === 'bring_in')
    expect(wait).toMatchObject({ facts: { step: 'bring_in' } })
    expect(wait?.at).toBe(`2026-11-24T${String(8 + (step?.waitMin ?? 0) / 60).padStart(2, '0')}:00`)
    const after = [...inside, row({ kind: 'step_started', stepId: 'hardware_off' }, '2026-11-24T10:00:00.000Z')]
    expect(of(alerts(started, after), 'wait_ends')).toEqual([])
    expect(of(alerts(started, inside, {}, '2026-11-26T12:00'), 'wait_ends')).toEqual([])
  })

  it('the window of a laid panel’s places, the first that closes; none once they are read', () => {
    const panel = reckon(multi, catalogue, []).points[0]?.panelId ?? ''
    const laid = [done(`lay:${panel}`, '2026-11-24T10:00:00.000Z')]
    const points = reckon(multi, catalogue, laid).points.filter((p) => p.panelId === panel)
    const [window] = of(alerts(multi, laid), 'window_closes')
    expect(window).toEqual({ code: 'window_closes', at: '2026-11-24T20:00', facts: { places: points.length } })
    const read = points.map((p) =>
      row(
        { kind: 'reading', pieceId: p.pieceId, pointId: p.id, tempC: p.range.min + 2, gunAway: true },
        '2026-11-24T11:00:00.000Z',
      ),
    )
    expect(of(alerts(multi, [...laid, ...read]), 'window_closes')).toEqual([])
  })

  it('a recheck from the rest on until it is done; nothing at all of a job handed over', () => {
    const rested = [done('check_round', '2026-11-23T09:00:00.000Z'), done('rest', '2026-11-23T10:00:00.000Z')]
    expect(of(alerts(started, rested), 'recheck')).toMatchObject([{ at: '2026-11-24T10:00' }])
    const rechecked = [...rested, done('recheck', '2026-11-24T10:30:00.000Z')]
    expect(of(alerts(started, rechecked), 'recheck')).toEqual([])
    expect(alerts(started, [...rechecked, done('hand_over', '2026-11-24T11:00:00.000Z')])).toEqual([])
  })

  it('supplies that are short, counted', () => {
    const shop = { ...DEMO_SETTINGS }
    expect(
      of(alerts(started, [], { shop, supplies: { masking: 0, sealing: 0, blades: 900 } }), 'supplies_short'),
    ).toEqual([{ code: 'supplies_short', at: null, facts: { count: 2 } }])
    expect(of(alerts(started, [], { shop, supplies: {} }), 'supplies_short')).toEqual([])
  })
})
