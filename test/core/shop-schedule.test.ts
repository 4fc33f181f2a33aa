import { describe, expect, it } from 'vitest'
import { jobOutline, type JobOutline } from '@/core/engines/schedule/job-outline'
import { shopSchedule, type Board } from '@/core/engines/schedule/shop-schedule'
import { addOpenMinutes, civilToMinutes, nextOpen } from '@/core/kit/civil'
import { Plan } from '@/core/model/plan/schema'
import { hoursOf } from '@/core/model/shop/shop'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { DEMO_SETTINGS } from '@/db/demo/people'
import { boardMarks } from '@/web/charts/board-marks'
import { catalogue } from '../fixtures/plans'

const NOW = '2031-03-03T07:00'
const at = (text: string): number => civilToMinutes(text) ?? NaN
const hatch = Plan.parse(DEMO_JOBS[0]?.make())
const outline = (over: Partial<Plan['runSheet']> = {}): JobOutline => {
  const plan = { ...hatch, runSheet: { ...hatch.runSheet, startAt: '2031-03-03T08:00', ...over } }
  return jobOutline(plan, reckon(plan, catalogue, []).steps)
}
const one = outline()
const shop = { ...DEMO_SETTINGS, closed: [] }
const laid = (outlines: readonly JobOutline[], settings = shop): Board => {
  const out = shopSchedule(
    outlines.map((o, i) => ({ id: `j${i}`, outline: o })),
    settings,
    NOW,
  )
  if ('code' in out) throw new Error(out.code)
  return out
}

describe('the board of a shop', () => {
  it('every bar lies in open hours with its people there, and nobody is at two of them at once', () => {
    const board = laid([one, outline({ crew: 1 }), outline({ crew: 3 })])
    const hours = hoursOf(shop)
    for (const b of board.bars) {
      expect(nextOpen(at(b.from), hours)).toBe(at(b.from))
      expect(addOpenMinutes(at(b.from), 0, hours)).toBe(at(b.from))
      expect(b.people.length).toBeGreaterThan(0)
      for (const other of board.bars)
        if (other !== b && other.from < b.to && b.from < other.to)
          expect(other.people.filter((p) => b.people.includes(p))).toEqual([])
    }
  })

  it('never more vehicles at once than there are bays, each in one bay', () => {
    const board = laid(Array.from({ length: 6 }, () => one))
    expect(board.stays).toHaveLength(6)
    expect(Math.max(...board.stays.map((s) => s.bay))).toBeLessThan(shop.bays.length)
    for (const a of board.stays)
      for (const b of board.stays) if (a !== b && a.bay === b.bay) expect(a.to <= b.from || b.to <= a.from).toBe(true)
    expect(new Set(board.ready.values()).size).toBeGreaterThan(1)
  })

  it('a job stands a night inside before it is prepared, and a day before it is looked at again', () => {
    const { bars } = laid([one])
    const bar = (code: string) => bars.find((b) => b.code === code)
    expect(at(bar('prepare')?.from ?? '') - at(bar('arrive')?.to ?? '')).toBeGreaterThanOrEqual(720)
    expect(at(bar('handover')?.from ?? '') - at(bar('finish')?.to ?? '')).toBeGreaterThanOrEqual(1440)
    expect(at(bar('wrap')?.from ?? '')).toBeGreaterThanOrEqual(at(bar('cut')?.to ?? ''))
  })

  it('who is away does nothing then', () => {
    const away = {
      ...shop,
      people: shop.people.map((p) =>
        p.id === 'imre' ? { ...p, away: [{ from: '2031-03-03', to: '2031-03-14' }] } : p,
      ),
    }
    const board = laid([one], away)
    const his = board.bars.filter((b) => b.people.includes('Imre Saltwell'))
    expect(his.every((b) => b.from >= '2031-03-15')).toBe(true)
  })

  it('a promise that cannot be kept is named with what would keep it, and that is so', () => {
    const solo = { ...shop, bays: shop.bays.slice(0, 1) }
    const alone = laid([one, one], solo)
    const second = [...alone.ready.values()].sort()[1] ?? ''
    const first = [...alone.ready.values()].sort()[0] ?? ''
    expect(second > first).toBe(true)
    // Both are promised for when the first is ready: one bay keeps only one of them.
    const promised = { ...one, promisedAt: first }
    const late = laid([promised, promised], solo)
    expect(late.late).toHaveLength(1)
    const twoBays = laid([promised, promised], shop)
    expect(late.rescues.includes('one_more_bay')).toBe(twoBays.late.length === 0)
  })

  it('what cannot be laid out is said: no hours, nothing left, no start', () => {
    const ask = (o: JobOutline, s = shop) => shopSchedule([{ id: 'j', outline: o }], s, NOW)
    expect(ask(one, { ...shop, week: [] })).toMatchObject({ code: 'no_hours' })
    expect(ask({ ...one, startAt: null })).toMatchObject({ code: 'nothing_left' })
    expect(ask({ ...one, blocks: [] })).toMatchObject({ code: 'nothing_left' })
  })

  it('the drawing keeps to its frame, and the day on which nobody comes is closed', () => {
    const board = laid([one, one])
    const marks = boardMarks({
      board,
      hours: hoursOf(shop),
      from: NOW,
      days: 7,
      width: 1000,
      by: 'bay',
      bays: 2,
      people: [],
      now: NOW,
    })
    expect(marks.days.map((d) => d.closed)).toEqual([false, false, false, false, false, true, true])
    for (const b of marks.bars) {
      expect(b.x).toBeGreaterThanOrEqual(0)
      expect(b.x + b.width).toBeLessThanOrEqual(1003)
      expect(b.row).toBeLessThan(marks.rows.length)
    }
    expect(marks.bars.filter((b) => b.bar.code === 'cut').every((b) => b.row === 2)).toBe(true)
  })
})

describe('what is left of a job', () => {
  it('shrinks by what is done, and its panel work is shared by the crew', () => {
    const minutes = (o: JobOutline) => o.blocks.reduce((sum, b) => sum + b.minutes, 0)
    const done = {
      id: 'a',
      at: '2031-03-03T10:00:00.000Z',
      by: 'x',
      payload: { kind: 'step_done' as const, stepId: 'wash' },
    }
    const plan = { ...hatch, runSheet: { ...hatch.runSheet, startAt: '2031-03-03T08:00' } }
    expect(minutes(jobOutline(plan, reckon(plan, catalogue, [done]).steps))).toBe(minutes(one) - 45)
    const wrap = (crew: number) => outline({ crew }).blocks.find((b) => b.code === 'wrap')?.minutes ?? 0
    expect(wrap(2)).toBeLessThan(wrap(1))
    expect(wrap(2)).toBeGreaterThanOrEqual(wrap(1) / 2 - 1)
  })
})
