import { civilToMinutes } from '../../kit/civil'
import type { ShopSettings } from '../../model/shop/shop'
import { calendarOf } from './calendar-of'
import type { BlockCode } from './job-outline'
import { shopSchedule, type Board, type BoardJob } from './shop-schedule'

/** Work of a job that begins then and at no other time: the shop's word, not the plan's. Local wall time. */
export interface BoardPin {
  code: BlockCode
  at: string
}

/** Why work cannot begin at a moment: the first of these that holds. */
export type PinRefusal = 'before_now' | 'before_start' | 'closed_then' | 'waits_before' | 'others_then'

const withPin = (job: BoardJob, pin: BoardPin): BoardJob => ({
  ...job,
  pins: [...(job.pins ?? []).filter((p) => p.code !== pin.code), pin],
})

/**
 * The board with some work of one job begun at a moment, or why it cannot be. A refusal says what holds it: the clock,
 * the job's own start, closed hours, work and waits of the same job before it, or other jobs' people and bays.
 */
export function tryPin(
  jobs: readonly BoardJob[],
  { shop, now, jobId, pin }: { shop: ShopSettings; now: string; jobId: string; pin: BoardPin },
): { ok: true; board: Board } | { ok: false; why: PinRefusal } {
  const job = jobs.find((j) => j.id === jobId)
  const at = civilToMinutes(pin.at)
  if (!job || at === null || pin.at < now) return { ok: false, why: 'before_now' }
  if (pin.at < (job.outline.startAt ?? '')) return { ok: false, why: 'before_start' }
  const hours = calendarOf({ week: shop.week, closed: shop.closed.map((c) => c.date) }, civilToMinutes(now) ?? 0)
  if (hours.nextOpen(at) !== at) return { ok: false, why: 'closed_then' }
  const keeps = (list: readonly BoardJob[], rounds?: number): Board | null => {
    const options = { rescues: false, ...(rounds ? { rounds } : {}) }
    const strict = shopSchedule(list, shop, now, { ...options, letGo: false })
    // Only where other work is set too might one of those be at fault.
    const board = 'code' in strict && countOfSet(list) > 1 ? shopSchedule(list, shop, now, options) : strict
    if ('code' in board) return null
    // A lock of its run sheet that cannot be kept anyhow speaks against nothing.
    const isKnown = (b: Board['broken'][number]) => b.locked && lostLocks().has(b.at)
    return board.broken.some((b) => b.jobId === jobId && !isKnown(b)) ? null : board
  }
  let lost: ReadonlySet<string> | null = null
  const lostLocks = () => (lost ??= locksLost(job, shop, now))
  const wanted = withPin(job, pin)
  // What does not go by itself does not go beside others.
  if (!(keeps([wanted], 1) ?? keeps([wanted]))) return { ok: false, why: 'waits_before' }
  // Whoever drags waits for this: the first board that keeps it will do, and is made better once it is dropped.
  const list = jobs.map((j) => (j.id === jobId ? wanted : j))
  const board = keeps(list, 1) ?? keeps(list)
  if (board) return { ok: true, board }
  return { ok: false, why: 'others_then' }
}

/** Moments of a job's locks that do not go even with nothing else in the shop and nothing set on the board. */
function locksLost(job: BoardJob, shop: ShopSettings, now: string): ReadonlySet<string> {
  const alone = shopSchedule([{ ...job, pins: [] }], shop, now, { rescues: false })
  return new Set('code' in alone ? [] : alone.broken.map((b) => b.at))
}

const countOfSet = (jobs: readonly BoardJob[]): number =>
  jobs.reduce((sum, j) => sum + (j.pins?.length ?? 0) + j.outline.blocks.filter((b) => b.lockedAt).length, 0)
