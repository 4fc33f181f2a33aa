import { describe, expect, it } from 'vitest'
import { addOpenMinutes, civilToMinutes, minutesToCivil, nextOpen } from '@/core/kit/civil'
import { applyChange } from '@/core/model/plan/plan-change'
import { Plan } from '@/core/model/plan/schema'
import { DEFAULT_SHOP, hoursOf } from '@/core/model/shop/default-shop'
import { plannedSteps, stoppingWait } from '@/core/engines/run-sheet/steps'
import type { Step } from '@/core/engines/run-sheet/step'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { DEMO_SETTINGS } from '@/db/demo/people'
import { catalogue } from '../fixtures/plans'

const at = (text: string): number => civilToMinutes(text) ?? NaN
const hatch = Plan.parse(DEMO_JOBS[0]?.make())
const START = '2026-11-23T08:00'
const of = (crew: number, over: Partial<Plan['runSheet']> = {}, hours = hoursOf(DEMO_SETTINGS)) =>
  reckon({ ...hatch, runSheet: { ...hatch.runSheet, crew, startAt: START, ...over } }, { ...catalogue, hours }, [])
const scheduleOf = (...args: Parameters<typeof of>) => {
  const { schedule, steps } = of(...args)
  if (!schedule) throw new Error('no schedule')
  return { schedule, steps: plannedSteps(steps) }
}

/** Alone a step takes longer where it may be done so. */
const taken = (s: Step, crew: number): number =>
  s.people > crew && s.aloneFactor !== null ? Math.ceil(s.minutes * s.aloneFactor) : s.minutes

describe('locks', () => {
  const free = scheduleOf(2)
  const mask = free.schedule.times.get('mask')?.from ?? ''

  it('a step begins when it is locked to, what waits for it comes after, and the end follows', () => {
    const later = minutesToCivil(nextOpen(at(mask) + 2 * 1440, hoursOf(DEMO_SETTINGS)))
    const { schedule } = scheduleOf(2, { locks: { mask: later } })
    expect(schedule.brokenLocks).toEqual([])
    expect(schedule.times.get('mask')?.from).toBe(later)
    const [first] = free.steps.filter((s) => s.code === 'lay').map((s) => at(schedule.times.get(s.id)?.from ?? ''))
    expect(first).toBeGreaterThanOrEqual(at(schedule.times.get('mask')?.to ?? ''))
    expect(at(schedule.readyAt)).toBeGreaterThan(at(free.schedule.readyAt))
  })

  it('one to where it stands changes nothing', () => {
    const { schedule } = scheduleOf(2, { locks: { mask } })
    expect(schedule.times).toEqual(free.schedule.times)
    expect(schedule.readyAt).toBe(free.schedule.readyAt)
  })

  it('what cannot be (before its own waits, in the night) is told by name, the rest stands, and one click lets it go', () => {
    const night = `${mask.slice(0, 10)}T03:00`
    const r = of(2, { locks: { mask: night, cut: free.schedule.times.get('cut')?.from ?? '' } })
    expect(r.schedule?.brokenLocks).toEqual(['mask'])
    expect(r.schedule?.times.get('cut')?.from).toBe(free.schedule.times.get('cut')?.from)
    const begins = at(r.schedule?.times.get('mask')?.from ?? '')
    expect(nextOpen(begins, hoursOf(DEMO_SETTINGS))).toBe(begins)
    const told = r.findings.find((f) => f.code === 'lock_broken')
    expect(told?.facts).toMatchObject({ count: 1, at: night })
    const change = told?.waysOut[0]?.change
    if (change?.kind !== 'run_sheet') throw new Error('no way out')
    const after = applyChange(
      { ...hatch, runSheet: { ...hatch.runSheet, crew: 2, startAt: START, locks: { mask: night } } },
      change,
    )
    expect(after.runSheet.locks).not.toHaveProperty('mask')
    const again = reckon(after, { ...catalogue, hours: hoursOf(DEMO_SETTINGS) }, [])
    expect(again.findings.some((f) => f.code === 'lock_broken')).toBe(false)
  })

  it('a lock of before now, or of a step that is no more, holds nothing up', () => {
    const { schedule } = scheduleOf(2, { locks: { mask: '2020-01-06T09:00', 'lay:gone': '2026-12-01T09:00' } })
    expect(schedule.brokenLocks).toEqual([])
    expect(schedule.readyAt).toBe(free.schedule.readyAt)
  })
})

describe('the schedule of a job', () => {
  it('a second pair of hands makes it ready earlier; a third is no worse', () => {
    const ready = [1, 2, 3].map((crew) => at(scheduleOf(crew).schedule.readyAt))
    expect(ready[1]).toBeLessThan(ready[0] ?? 0)
    expect(ready[2]).toBeLessThanOrEqual(ready[1] ?? 0)
  })

  it('nobody is at two steps at once, and every step lies where somebody is there', () => {
    const hours = hoursOf(DEMO_SETTINGS)
    for (const crew of [1, 2]) {
      const { schedule, steps } = scheduleOf(crew)
      const busy = steps.flatMap((s) => {
        const t = schedule.times.get(s.id)
        return t && s.minutes > 0
          ? [{ from: at(t.from), to: at(t.to), people: Math.min(crew, s.people), minutes: taken(s, crew) }]
          : []
      })
      for (const b of busy) {
        expect(
          busy.filter((o) => o.from <= b.from && o.to > b.from).reduce((n, o) => n + o.people, 0),
        ).toBeLessThanOrEqual(crew)
        expect(nextOpen(b.from, hours)).toBe(b.from)
        expect(addOpenMinutes(b.from, b.minutes, hours)).toBe(b.to)
      }
    }
  })

  it('film is cut beside the vehicle’s preparation; a panel is trimmed after its wait and heated before the next ones are laid', () => {
    const { schedule, steps } = scheduleOf(2)
    const time = (id: string) => schedule.times.get(id) ?? { from: '', to: '' }
    expect(at(time('cut').from)).toBeLessThan(at(time('mask').from))
    const lays = steps.filter((s) => s.code === 'lay')
    for (const lay of lays) {
      expect(at(time(lay.id).from)).toBeGreaterThanOrEqual(at(time('mask').to))
      expect(at(time(lay.id).from)).toBeGreaterThanOrEqual(at(time('cut').to))
      const trim = time(`trim:${lay.panelId}`)
      expect(at(trim.from)).toBeGreaterThanOrEqual(at(time(lay.id).to) + lay.waitMin)
    }
    const heat = steps.filter((s) => s.code === 'post_heat')
    expect(heat.length).toBeGreaterThan(10)
    for (const s of heat) expect(at(time(s.id).from)).toBeGreaterThanOrEqual(at(time(`trim:${s.panelId}`).to))
    const last = Math.max(...lays.map((s) => at(time(s.id).to)))
    expect(heat.some((s) => at(time(s.id).to) < last)).toBe(true)
    const rest = steps.find((s) => s.code === 'rest')
    expect(at(time('recheck').from)).toBeGreaterThanOrEqual(at(time('rest').to) + stoppingWait(rest ?? { waitMin: 0 }))
  })

  it('the chain that decides can be walked with a pencil: its work in open hours and its waits end when it is ready', () => {
    const hours = hoursOf(DEMO_SETTINGS)
    for (const crew of [1, 2, 3]) {
      const { schedule, steps } = scheduleOf(crew)
      let t = at(START)
      for (const id of schedule.chain) {
        const step = steps.find((s) => s.id === id)
        const time = schedule.times.get(id)
        if (!step || !time) throw new Error(id)
        expect(at(time.from)).toBeGreaterThanOrEqual(t)
        t = addOpenMinutes(at(time.from), taken(step, crew), hours)
      }
      expect(minutesToCivil(t)).toBe(schedule.readyAt)
      expect(schedule.workMin).toBe(
        steps.filter((s) => schedule.chain.includes(s.id)).reduce((sum, s) => sum + taken(s, crew), 0),
      )
    }
  })

  it('breaks, short Fridays and closed days put it off', () => {
    const plain = at(scheduleOf(2, {}, hoursOf(DEFAULT_SHOP)).schedule.readyAt)
    expect(at(scheduleOf(2).schedule.readyAt)).toBeGreaterThan(plain)
    const closed = { ...hoursOf(DEFAULT_SHOP), closed: ['2026-11-24'] }
    expect(at(scheduleOf(2, {}, closed).schedule.readyAt)).toBeGreaterThan(plain)
  })

  it('trimming waits for the vehicle too where somebody left out the laying', () => {
    const lay = 'lay:bonnet'
    const { schedule } = scheduleOf(2, { skip: [lay] })
    expect(schedule.times.has(lay)).toBe(false)
    expect(at(schedule.times.get('trim:bonnet')?.from ?? '')).toBeGreaterThanOrEqual(
      at(schedule.times.get('mask')?.to ?? ''),
    )
  })

  it('without a start or without hours there is none', () => {
    expect(of(2, { startAt: null }).schedule).toBeNull()
    expect(of(2, {}, { week: [], closed: [] }).schedule).toBeNull()
    expect(of(2, {}, { week: [], closed: [] }).figures.get('rail/ready_at')?.value).toBeNull()
  })
})
