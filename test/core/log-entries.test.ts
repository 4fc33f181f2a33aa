import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { momentOf } from '@/core/model/log/arrival'
import { defectsOf } from '@/core/engines/heat/defects'
import { inDeviceOrder } from '@/core/model/log/device-order'
import { handedOver, handoverOf } from '@/core/stages/handover/handover'
import { runningTimers } from '@/core/model/log/timers'
import type { LogPayload, LogRow } from '@/core/model/log/schema'
import { Plan } from '@/core/model/plan/schema'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { reckon } from '@/core/reckon/reckon'
import { may, MAY, planPartsOf, ROLES, savingRight } from '@/core/model/rights/rights'
import { catalogue, film, handCar, row } from '../fixtures/plans'

describe('the order of a device', () => {
  it('is that of its own count, in the places the device has among others; nothing is lost', () => {
    const anyRow = fc.record({ device: fc.option(fc.constantFrom('a', 'b', 'c')), n: fc.option(fc.nat(50)) })
    fc.assert(
      fc.property(fc.array(anyRow, { maxLength: 40 }), (made) => {
        const rows = made.map((r, seq) => ({ ...r, seq }))
        const out = inDeviceOrder(rows)
        expect(out.map((r) => r.device)).toEqual(rows.map((r) => r.device))
        for (const device of ['a', 'b', 'c']) {
          const own = out.filter((r) => r.device === device && r.n !== null).map((r) => r.n as number)
          expect(own).toEqual([...own].sort((x, y) => x - y))
        }
        expect([...out].sort((x, y) => x.seq - y.seq)).toEqual([...rows].sort((x, y) => x.seq - y.seq))
        rows.forEach((r, i) => r.device === null && expect(out[i]).toBe(r))
      }),
    )
  })
})

describe('when an entry happened', () => {
  const HOUR = 3_600_000
  const at = (atMs: number, skewSeconds = 0) => momentOf({ atMs, skewSeconds, nowMs: 100 * HOUR, sinceMs: 50 * HOUR })
  it('is as the device says while its clock is right, however long it waited', () =>
    expect(at(60 * HOUR, 119)).toEqual({ ok: true, value: { ms: 60 * HOUR, skewSeconds: null } }))
  it('is put right by a clock known to be wrong, and says so', () =>
    expect(at(97 * HOUR, 2 * 3600)).toEqual({ ok: true, value: { ms: 99 * HOUR, skewSeconds: 7200 } }))
  it.each([
    [101 * HOUR, 0, 'in_the_future'],
    [20 * HOUR, 0, 'before_the_job'],
    [99 * HOUR, 2 * 3600, 'in_the_future'],
    [NaN, 0, 'in_the_future'],
  ])('%d with a skew of %d: %s', (ms, skew, code) => expect(at(ms, skew)).toMatchObject({ error: { code } }))
})

describe('steps and timers', () => {
  const stateOf = (ledger: LogRow[]) => reckon(handCar(), catalogue, ledger).steps.find((s) => s.id === 'wash')?.state
  it('a step ticked by mistake runs on, and can be done again', () => {
    const step = (kind: 'step_started' | 'step_done' | 'step_done_taken_back') => row({ kind, stepId: 'wash' })
    const log = [step('step_started'), step('step_done')]
    expect(stateOf(log)).toBe('done')
    log.push(step('step_done_taken_back'))
    expect(stateOf(log)).toBe('running')
    log.push(step('step_done'))
    expect(stateOf(log)).toBe('done')
  })
  it('a timer ended and started again runs', () => {
    const start = (): LogRow => row({ kind: 'timer_started', timerId: 't', label: 'Wait', minutes: 30 })
    const end = row({ kind: 'timer_ended', timerId: 't' })
    expect(runningTimers([start(), end])).toEqual([])
    expect(runningTimers([start(), end, start()])).toHaveLength(1)
  })
})

describe('people and hardware', () => {
  const work = (crew: number) => reckon({ ...handCar(), runSheet: { ...handCar().runSheet, crew } }, catalogue, [])
  it('a smaller crew makes it no less work, and is told where it is too small', () => {
    const [one, three] = [work(1), work(3)]
    expect(one.figures.get('rail/crew_minutes')?.value).toBe(three.figures.get('rail/crew_minutes')?.value)
    // Easy film may be laid by one with more time; all chrome may not, however long.
    expect(one.findings.find((f) => f.code === 'crew_alone')?.facts).toMatchObject({ crew: 1, first: 'Bonnet' })
    expect(one.findings.some((f) => f.code === 'crew_short')).toBe(false)
    expect(three.findings.some((f) => f.code.startsWith('crew_'))).toBe(false)
    const chrome = Plan.parse(DEMO_JOBS[1]?.make())
    const alone = reckon({ ...chrome, runSheet: { ...chrome.runSheet, crew: 1 } }, catalogue, [])
    expect(alone.findings.find((f) => f.code === 'crew_short')?.facts).toMatchObject({ crew: 1, need: 2 })
  })
  it('minutes of what stays on count as those of what comes off do', () => {
    const with_ = (way: 'remove' | 'tape' | 'inlay' | 'tuck_and_cut') => {
      const hardware = [{ id: 'h', name: 'Aerial', way, minutes: 30, who: '' }]
      const plan = { ...handCar(), walkaround: { ...handCar().walkaround, hardware } }
      return Number(reckon(plan, catalogue, []).figures.get('rail/crew_minutes')?.value)
    }
    const none = Number(work(3).figures.get('rail/crew_minutes')?.value)
    for (const way of ['tape', 'inlay', 'tuck_and_cut'] as const) expect(with_(way)).toBe(none + 30)
    expect(with_('remove')).toBeGreaterThan(none + 30)
  })
  it('at room temperature no surface temperature is asked for; where it is shaped is a fact of the step', () => {
    const lay = (layWarm: 'room' | 'warm_40') =>
      reckon({ ...handCar(), method: { ...handCar().method, layWarm } }, catalogue, []).steps.find(
        (s) => s.id === 'lay:bonnet',
      )
    expect(lay('room')).toMatchObject({ range: null, facts: { shape_min_c: 40, shape_max_c: 60 } })
    expect(lay('warm_40')?.range).toEqual({ min: 40, max: 60 })
  })
})

describe('defects', () => {
  const point = reckon(handCar(), catalogue, []).points[0]
  if (!point) throw new Error('no point')
  const reading = (tempC: number) =>
    row({ kind: 'reading', pieceId: point.pieceId, pointId: point.id, tempC, gunAway: true })
  it('are open until somebody says what was done; who and how stand with them', () => {
    const found = row({ kind: 'defect', panelId: 'door', defect: 'bubble', note: 'low' })
    const closed = row({ kind: 'defect_closed', defectId: found.id, how: 'pricked and pressed' })
    expect(defectsOf([found], [])).toMatchObject([{ closed: null, by: 'Joss Ferrin' }])
    expect(defectsOf([found, closed], [])).toMatchObject([
      { closed: { how: 'pricked and pressed', by: 'Joss Ferrin' } },
    ])
  })
  it('a reading past the film’s limit is one, a reading past the range alone is not', () => {
    expect(defectsOf([reading(119)], [point])).toEqual([])
    expect(defectsOf([reading(121)], [point])).toMatchObject([{ defect: 'overheated', panelId: point.panelId }])
    const { findings } = reckon(handCar(), catalogue, [reading(121)])
    expect(findings.find((f) => f.code === 'reading_too_hot')?.level).toBe('warn')
    expect(reckon(handCar(), catalogue, [reading(119)]).findings.find((f) => f.code === 'reading_over')?.level).toBe(
      'note',
    )
  })
  it('one that is open keeps the vehicle from being ready', () => {
    const ledger = [row({ kind: 'defect', panelId: 'door', defect: 'bubble', note: '' })]
    expect(handoverOf(handCar(), reckon(handCar(), catalogue, ledger), catalogue.stock, ledger).open).toContain(
      'defects',
    )
  })
})

describe('what was handed over', () => {
  const over = row({ kind: 'step_done', stepId: 'hand_over' })
  const payload = (p: LogPayload) => row(p)
  it('stands with what had happened until then; taken back, it is open again', () => {
    const before = payload({ kind: 'note', text: 'before' })
    const after = payload({ kind: 'note', text: 'after' })
    expect(handedOver([before])).toBeNull()
    expect(handedOver([before, over, after])?.until).toEqual([before, over])
    expect(handedOver([before, over, payload({ kind: 'step_done_taken_back', stepId: 'hand_over' })])).toBeNull()
  })
  it('nothing is left to buy after it, nor once all is cut', () => {
    const plan = handCar()
    const buys = (ledger: LogRow[]) =>
      reckon(plan, { ...catalogue, stock: [] }, ledger).purchases.get('fen-satin')?.cost
    expect(buys([])).toBeGreaterThan(0)
    expect(buys([over])).toBe(0)
  })
})

describe('warranty', () => {
  it('is that of the job’s zone, for these surfaces and for those that a sheet names in its own words', () => {
    const months = (zone: string, surface: string, n: number) => ({ zone, surface, months: n })
    const sheet = {
      ...film('fen-satin'),
      warrantyMonths: [
        months('desert coast', 'vertical', 24),
        months('desert coast', 'roof and bonnet', 12),
        months('alpine', 'vertical', 48),
      ],
    }
    const plan = {
      ...handCar(),
      film: { mainId: sheet.id, sheets: [sheet] },
      walkaround: { ...handCar().walkaround, zone: 'desert coast' },
    }
    const [applied] = handoverOf(plan, reckon(plan, catalogue, []), catalogue.stock, []).films
    expect(applied?.warranty.map((w) => w.months)).toEqual([24, 12])
  })
})

describe('rights', () => {
  it('one table: what a role may save is what it may change', () => {
    expect(ROLES.map((r) => planPartsOf(r)?.join() ?? 'all')).toEqual([
      'all',
      'all',
      'panels,conditions',
      'walkaround,name,customerRef,vehicle,note',
    ])
    for (const role of ROLES) expect(may(role, savingRight(role)), role).toBe(true)
    expect(may('nobody', 'read')).toBe(false)
    expect(MAY.scan).not.toContain('desk')
  })
})
