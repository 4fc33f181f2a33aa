import { describe, expect, it } from 'vitest'
import type { JobOutline } from '@/core/engines/schedule/job-outline'
import {
  boardFrom,
  boardInput,
  boardKey,
  boardNow,
  SettledBoard,
  settleBoard,
} from '@/core/engines/schedule/settled-board'
import { shopSchedule } from '@/core/engines/schedule/shop-schedule'
import { DEMO_SETTINGS } from '@/db/demo/people'

const shop = { ...DEMO_SETTINGS, closed: [] }
const NOW = '2031-03-03T08:00'
/** Work of some jobs: minutes of preparing and wrapping, and when it is promised. */
const job = (id: string, [prepare, wrap, promised]: [number, number, number]) => ({
  id,
  pins: [],
  outline: {
    startAt: NOW,
    promisedAt: `2031-03-${String(promised).padStart(2, '0')}T12:00`,
    crew: 2,
    blocks: [
      { code: 'prepare', minutes: prepare, people: 1, skills: [], waitMin: 0 },
      { code: 'wrap', minutes: wrap, people: 2, skills: [], waitMin: 720 },
      { code: 'finish', minutes: 60, people: 1, skills: [], waitMin: 0 },
    ],
  } satisfies JobOutline,
})
const some = [job('a', [120, 700, 5]), job('b', [60, 900, 4]), job('c', [240, 300, 6]), job('d', [30, 1200, 7])]
const finish = (board: SettledBoard): { late: number; last: string } => {
  if ('code' in board) throw new Error(board.code)
  return { late: board.late.length, last: Object.values(board.ready).sort().at(-1) ?? '' }
}

describe('the board of a shop, settled behind the screens', () => {
  it('hangs on the jobs, whatever order they were read in, and on nothing that it does not use', () => {
    const key = boardKey(boardInput(some, shop, NOW))
    expect(boardKey(boardInput([...some].reverse(), shop, NOW))).toBe(key)
    expect(boardKey(boardInput(some, { ...shop, margin: 0.9, currency: 'EUR', winter: !shop.winter }, NOW))).toBe(key)
    const others = [
      boardInput(some.slice(1), shop, NOW),
      boardInput(some, { ...shop, bays: shop.bays.slice(0, 1) }, NOW),
      boardInput(some, { ...shop, people: shop.people.slice(1) }, NOW),
      boardInput(some, { ...shop, week: shop.week.slice(1) }, NOW),
      boardInput(some, { ...shop, closed: [{ date: '2031-03-04', name: '' }] }, NOW),
      boardInput(some, shop, '2031-03-03T08:15'),
      boardInput([{ ...some[0]!, pins: [{ code: 'wrap', at: '2031-03-05T09:00' }] }, ...some.slice(1)], shop, NOW),
    ]
    expect(new Set([key, ...others.map(boardKey)]).size).toBe(others.length + 1)
  })
  it('jobs that have no outline yet are left out', () =>
    expect(boardInput([...some, { id: 'e', outline: null }], shop, NOW).jobs.map((j) => j.id)).toEqual([
      'a',
      'b',
      'c',
      'd',
    ]))
  it('begins with the next quarter of an hour of the shop’s own clock', () => {
    expect(boardNow('2031-03-03T08:00:00.000Z', 'Europe/Dublin')).toBe('2031-03-03T08:00')
    expect(boardNow('2031-03-03T08:01:00.000Z', 'UTC')).toBe('2031-03-03T08:15')
    expect(boardNow('2031-07-03T08:07:00.000Z', 'Europe/Dublin')).toBe('2031-07-03T09:15')
  })
  it('what is kept reads back as the board that was laid out', () => {
    const { rounds, board } = settleBoard(boardInput(some, shop, NOW), 1)
    const again = SettledBoard.parse(JSON.parse(JSON.stringify(board)))
    const direct = shopSchedule(boardInput(some, shop, NOW).jobs, shop, NOW, { rounds })
    expect(boardFrom(again)).toEqual(direct)
  })
  it('a shop without hours or work says why there is none', () => {
    expect(settleBoard(boardInput([], shop, NOW)).board).toEqual({ code: 'nothing_left', jobs: [] })
    expect(settleBoard(boardInput(some, { ...shop, week: [] }, NOW)).board).toEqual({ code: 'no_hours', jobs: [] })
  })
  it('looked for longer it is never worse: no more late, and then no later', () => {
    // Two jobs promised at once for one bay, and a third beside them.
    const tight = [job('a', [60, 500, 4]), job('b', [60, 500, 4]), job('c', [200, 240, 5])]
    const input = boardInput(tight, { ...shop, bays: shop.bays.slice(0, 1) }, NOW)
    const boards = [1, 2, 3].map((rounds) => finish(settleBoard(input, rounds).board))
    for (const [i, longer] of boards.slice(1).entries()) {
      const before = boards[i]!
      expect(longer.late).toBeLessThanOrEqual(before.late)
      if (longer.late === before.late) expect(longer.last <= before.last).toBe(true)
    }
  })
  it.each([
    ['of another shape', { bars: 'none' }],
    ['with work of no kind', { bars: [{ jobId: 'a', code: 'paint', from: NOW, to: NOW, people: [] }] }],
    ['with a moment that is none', { code: 'nothing_left', jobs: ['UP'] }],
  ])('a row %s does not read', (_, row) => expect(SettledBoard.safeParse(row).success).toBe(false))
})
