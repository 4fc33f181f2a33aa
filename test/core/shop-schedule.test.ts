import { describe, expect, it } from 'vitest'
import { jobOutline, type JobOutline } from '@/core/engines/schedule/job-outline'
import { tryPin } from '@/core/engines/schedule/pins'
import { shopSchedule, type Board, type BoardJob } from '@/core/engines/schedule/shop-schedule'
import { addOpenMinutes, civilToMinutes, nextOpen } from '@/core/kit/civil'
import { Plan } from '@/core/model/plan/schema'
import { hoursOf } from '@/core/model/shop/default-shop'
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
  return jobOutline(plan, reckon(plan, catalogue, []).steps, 'hand_over')
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
    expect(late.rescues?.includes('one_more_bay')).toBe(twoBays.late.length === 0)
  })

  it('a job that starts too late for its promise is rescued by beginning it at once, where that is so', () => {
    const free = laid([one]).ready.get('j0') ?? ''
    const later = { ...one, startAt: '2031-03-10T08:00', promisedAt: free }
    const board = laid([later])
    expect(board.late).toHaveLength(1)
    expect(board.rescues).toContain('begin_now')
    // Promised before anybody could have it ready, nothing rescues it.
    expect(laid([{ ...later, promisedAt: '2031-03-04T10:00' }]).rescues).toEqual([])
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
    expect(minutes(jobOutline(plan, reckon(plan, catalogue, [done]).steps, 'hand_over'))).toBe(minutes(one) - 45)
    const wrap = (crew: number) => outline({ crew }).blocks.find((b) => b.code === 'wrap')?.minutes ?? 0
    expect(wrap(2)).toBeLessThan(wrap(1))
    expect(wrap(2)).toBeGreaterThanOrEqual(wrap(1) / 2 - 1)
  })
})

describe('work set to a moment', () => {
  const jobs = (...outlines: JobOutline[]): BoardJob[] => outlines.map((o, i) => ({ id: `j${i}`, outline: o }))
  const board = (list: readonly BoardJob[], settings = shop): Board => {
    const out = shopSchedule(list, settings, NOW)
    if ('code' in out) throw new Error(out.code)
    return out
  }
  const begins = (b: Board, code: string, jobId = 'j0') =>
    b.bars.filter((bar) => bar.jobId === jobId && bar.code === code).map((bar) => bar.from)[0]
  const attempt = (list: readonly BoardJob[], code: 'arrive' | 'prepare' | 'wrap', at: string, settings = shop) =>
    tryPin(list, { shop: settings, now: NOW, jobId: 'j0', pin: { code, at } })

  it('begins then, not before; what comes after it follows; it is marked on the board', () => {
    const free = board(jobs(one))
    const later = '2031-03-06T09:30'
    expect((begins(free, 'wrap') ?? '') < later).toBe(true)
    const out = attempt(jobs(one), 'wrap', later)
    if (!out.ok) throw new Error(out.why)
    expect(begins(out.board, 'wrap')).toBe(later)
    expect((begins(out.board, 'finish') ?? '') > later).toBe(true)
    expect(out.board.bars.filter((b) => b.pinned).every((b) => b.code === 'wrap')).toBe(true)
    expect(out.board.bars.some((b) => b.pinned)).toBe(true)
    // What comes before it stays where it was.
    expect(begins(out.board, 'arrive')).toBe(begins(free, 'arrive'))
  })

  it('says why it cannot: passed, before the start, closed, a wait of its own, other work that is set', () => {
    const why = (out: ReturnType<typeof attempt>) => (out.ok ? 'taken' : out.why)
    expect(why(attempt(jobs(one), 'wrap', '2031-03-03T06:00'))).toBe('before_now')
    const starts = { ...one, startAt: '2031-03-05T08:00' }
    expect(why(attempt(jobs(starts), 'arrive', '2031-03-04T09:00'))).toBe('before_start')
    expect(why(attempt(jobs(one), 'wrap', '2031-03-06T12:30'))).toBe('closed_then')
    expect(why(attempt(jobs(one), 'wrap', '2031-03-08T09:00'))).toBe('closed_then')
    // It stands a night inside before it is prepared.
    expect(why(attempt(jobs(one), 'prepare', '2031-03-03T11:00'))).toBe('waits_before')
    // One bay: the other vehicle is set to be there all that time.
    const solo = { ...shop, bays: shop.bays.slice(0, 1) }
    const other: BoardJob = { id: 'j1', outline: one, pins: [{ code: 'arrive', at: '2031-03-03T08:00' }] }
    expect(why(attempt([...jobs(one), other], 'arrive', '2031-03-03T09:00', solo))).toBe('others_then')
    expect(why(attempt([...jobs(one), other], 'arrive', '2031-03-03T09:00'))).toBe('taken')
  })

  it('a drag is answered by a board that keeps it, with its late promises and without what would rescue them', () => {
    const many = Array.from({ length: 6 }, (_, i) => ({
      id: `j${i}`,
      outline: { ...one, promisedAt: '2031-03-05T17:00' },
    }))
    const out = attempt(many, 'wrap', '2031-03-13T10:00')
    if (!out.ok) throw new Error(out.why)
    expect(begins(out.board, 'wrap')).toBe('2031-03-13T10:00')
    expect(out.board.late.length).toBeGreaterThan(0)
    // Those are solved with the whole board, once the work is dropped.
    expect(out.board.rescues).toBeNull()
    const whole = shopSchedule(many, shop, NOW)
    expect('code' in whole ? null : whole.rescues).not.toBeNull()
    // Each is laid out whole, in open hours, as ever.
    for (const job of many) expect(out.board.bars.some((b) => b.jobId === job.id)).toBe(true)
  })

  it('a pin that no longer goes is let go and told; those that go stay; one that has passed holds nothing', () => {
    const pinned: BoardJob[] = [
      { id: 'j0', outline: one, pins: [{ code: 'wrap', at: '2031-03-08T09:00' }] },
      { id: 'j1', outline: one, pins: [{ code: 'wrap', at: '2031-03-07T10:00' }] },
      { id: 'j2', outline: one, pins: [{ code: 'arrive', at: '2031-03-02T10:00' }] },
    ]
    const out = board(pinned)
    expect(out.broken).toEqual([{ jobId: 'j0', code: 'wrap', at: '2031-03-08T09:00', locked: false }])
    expect(begins(out, 'wrap', 'j1')).toBe('2031-03-07T10:00')
    expect(out.bars.filter((b) => b.pinned).every((b) => b.jobId === 'j1')).toBe(true)
  })

  it('a place on the board stands for the quarter of an hour that is drawn there', () => {
    const asked = {
      hours: hoursOf(shop),
      from: NOW,
      days: 7,
      width: 1180,
      by: 'bay' as const,
      bays: 2,
      people: [],
      now: NOW,
    }
    const b = board(jobs(one))
    const marks = boardMarks({ ...asked, board: b })
    for (const m of marks.bars.slice(0, 4)) {
      const quarter = Math.round(at(m.bar.from) / 15) * 15
      expect(Math.abs(at(marks.momentAt(m.x)) - quarter)).toBeLessThanOrEqual(15)
    }
    expect(marks.momentAt(-50).slice(0, 10)).toBe('2031-03-03')
    expect(marks.momentAt(99_999).slice(0, 10)).toBe('2031-03-09')
  })
})

describe('when a vehicle is ready', () => {
  const plan = { ...hatch, runSheet: { ...hatch.runSheet, startAt: '2031-03-03T08:00' } }
  const ready = (setting: 'check_round' | 'recheck' | 'hand_over') =>
    reckon(plan, { ...catalogue, hours: hoursOf(shop), shop: { ...shop, ready: setting } }, [])

  it('is what the shop says: looked at all round, rechecked, or handed over', () => {
    const steps = (code: string) => {
      const { schedule, steps: all } = ready('recheck')
      return schedule?.times.get(all.find((s) => s.code === code)?.id ?? '')?.to
    }
    for (const setting of ['check_round', 'recheck', 'hand_over'] as const) {
      expect(ready(setting).figures.get('rail/ready_at')?.value).toBe(steps(setting))
      const { chain } = ready(setting).schedule ?? { chain: [] }
      expect(chain.at(-1)).toBe(setting)
    }
    expect((steps('check_round') ?? '') < (steps('recheck') ?? '')).toBe(true)
    expect((steps('recheck') ?? '') < (steps('hand_over') ?? '')).toBe(true)
  })

  it('and a promise is held to that, on the run sheet and on the board alike', () => {
    const at2 = (setting: 'recheck' | 'hand_over') => String(ready(setting).figures.get('rail/ready_at')?.value)
    const promised = { ...plan, runSheet: { ...plan.runSheet, promisedAt: at2('recheck') } }
    const late = (setting: 'recheck' | 'hand_over') => {
      const mine = { ...shop, ready: setting }
      return reckon(promised, { ...catalogue, hours: hoursOf(mine), shop: mine }, []).findings.some(
        (f) => f.code === 'promise_late',
      )
    }
    expect(late('recheck')).toBe(false)
    expect(late('hand_over')).toBe(true)
    const outlines = (['recheck', 'hand_over'] as const).map((s) => jobOutline(plan, ready(s).steps, s))
    const [a, b] = outlines.map((o) => laid([o]).ready.get('j0') ?? '')
    expect(at(b ?? '') - at(a ?? '')).toBe(outlines[0]?.afterReadyMin)
    expect(outlines[0]?.afterReadyMin).toBe(20)
    expect(outlines[1]?.afterReadyMin).toBe(0)
  })
})

describe('steps that are locked on a run sheet', () => {
  const locked = (locks: Record<string, string>) => outline({ locks })
  const barAt = (board: Board, from: string) => board.bars.find((b) => b.from === from)
  const late = '2031-03-06T10:30'

  it('begin at their moment on the board too, with what comes before them before and the rest after', () => {
    const board = laid([locked({ mask: late })])
    expect(barAt(board, late)).toMatchObject({ code: 'prepare', locked: true, pinned: false })
    const prepare = board.bars.filter((b) => b.code === 'prepare')
    expect(prepare.length).toBeGreaterThan(1)
    for (const b of prepare) expect(b.from < late ? b.to <= late : b.from >= late).toBe(true)
    expect(board.bars.filter((b) => b.code === 'wrap').every((b) => b.from > late)).toBe(true)
    expect(board.broken).toEqual([])
  })
  it('take nothing of the work and add none', () => {
    const minutes = (o: JobOutline) => o.blocks.reduce((sum, b) => sum + b.minutes, 0)
    const divided = locked({ mask: late, 'trim:bonnet': '2031-03-07T09:00' })
    expect(divided.blocks.length).toBe(one.blocks.length + 2)
    // Each block is rounded up to the minute by itself.
    expect(Math.abs(minutes(divided) - minutes(one))).toBeLessThanOrEqual(2)
  })
  it('are told where they cannot be kept, and the board is laid out without them', () => {
    // Before the car is dry.
    const board = laid([locked({ mask: '2031-03-03T08:10' })])
    expect(board.broken).toEqual([{ jobId: 'j0', code: 'prepare', at: '2031-03-03T08:10', locked: true }])
    expect(board.bars.some((b) => b.locked)).toBe(false)
    expect(board.ready.get('j0')).toBe(laid([locked({})]).ready.get('j0'))
  })
  it('hold nothing once their moment has passed', () => {
    const board = laid([locked({ mask: '2031-03-02T10:00' })])
    expect([board.broken, board.bars.some((b) => b.locked)]).toEqual([[], false])
  })
  it('refuse a drag that would break them; a lock that is lost anyhow refuses none', () => {
    const drag = (o: JobOutline, at: string) =>
      tryPin([{ id: 'a', outline: o }], { shop, now: NOW, jobId: 'a', pin: { code: 'arrive', at } })
    expect(drag(locked({ mask: late }), '2031-03-05T08:00').ok).toBe(true)
    expect(drag(locked({ mask: late }), '2031-03-06T10:00')).toEqual({ ok: false, why: 'waits_before' })
    expect(drag(locked({ mask: '2031-03-03T08:10' }), '2031-03-05T08:00').ok).toBe(true)
  })
})

describe('work that is dragged among others', () => {
  it('goes whenever it goes by itself: jobs with nothing set give way', () => {
    const jobs = Array.from({ length: 6 }, (_, i) => ({ id: `j${i}`, outline: one }))
    let went = 0
    for (let day = 4; day <= 24; day += 2) {
      const pin = { code: 'wrap' as const, at: `2031-03-${String(day).padStart(2, '0')}T10:00` }
      const drag = (list: BoardJob[]) => tryPin(list, { shop, now: NOW, jobId: 'j3', pin })
      const [alone, among] = [drag(jobs.filter((j) => j.id === 'j3')), drag(jobs)]
      expect([pin.at, among.ok ? 'ok' : among.why]).toEqual([pin.at, alone.ok ? 'ok' : alone.why])
      if (among.ok) went++
      if (among.ok) expect(among.board.bars.find((b) => b.jobId === 'j3' && b.code === 'wrap')?.from).toBe(pin.at)
    }
    expect(went).toBeGreaterThan(4)
  })
})
