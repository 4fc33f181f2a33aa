import { and, eq, ne } from 'drizzle-orm'
import { boardInput, boardKey, boardNow, SettledBoard, type BoardInput } from '@/core/engines/schedule/settled-board'
import { guarded, inShop, type Tx, type Who } from '../client'
import { tell } from '../live'
import { log } from '../log'
import type { BoardTask } from '../queue'
import { job, solution } from '../schema'
import { nextChange, type InShop } from './job-rows'
import { shopIn } from './shop'
import { requestBoard } from './solutions'

/** Kept among the solutions, of which it is a kind of its own: of the whole shop, not of one plan. */
const KIND = 'board'

async function inputIn(tx: Tx, who: InShop, now: Date): Promise<BoardInput> {
  const { settings } = await shopIn(tx, who)
  const rows = await tx
    .select({ id: job.id, outline: job.outline, pins: job.pins })
    .from(job)
    .where(eq(job.shopId, who.shopId))
  return boardInput(rows, settings, boardNow(now.toISOString(), settings.timeZone))
}

async function boardIn(tx: Tx, who: InShop, key: string): Promise<SettledBoard | null> {
  const own = and(eq(solution.shopId, who.shopId), eq(solution.kind, KIND), eq(solution.key, key))
  const [row] = await tx.select({ value: solution.value }).from(solution).where(own)
  if (!row) return null
  const read = SettledBoard.safeParse(row.value)
  if (read.success) return read.data
  log.warn({ part: 'board', key, at: read.error.issues[0]?.path }, 'a board does not read')
  await tx.delete(solution).where(own)
  return null
}

/** The shop's board where it is settled for what it hangs on now; where it is not, it is asked for. */
export const settledBoard = (who: Who, now: Date): Promise<{ key: string; board: SettledBoard } | null> =>
  guarded(who, 'read', async (tx) => {
    const key = boardKey(await inputIn(tx, who, now))
    const board = await boardIn(tx, who, key)
    if (!board) await requestBoard(tx, who)
    return board && { key, board }
  })

/** What a worker lays out; null where it is there already. */
export const boardToSettle = ({ shopId }: BoardTask, now: Date): Promise<BoardInput | null> =>
  inShop(shopId, async (tx) => {
    const input = await inputIn(tx, { shopId }, now)
    return (await boardIn(tx, { shopId }, boardKey(input))) ? null : input
  })

/** Keeps a board that was laid out, in place of those before it, and tells open pages. */
export const keepBoard = (
  { shopId }: BoardTask,
  key: string,
  { rounds, board }: { rounds: number; board: SettledBoard },
  by: string,
): Promise<void> =>
  inShop(shopId, async (tx) => {
    const change = await nextChange(tx, { shopId })
    await tx
      .insert(solution)
      .values({ shopId, kind: KIND, key, fineness: rounds, value: board, jobId: null, by, change })
      .onConflictDoNothing()
    await tx.delete(solution).where(and(eq(solution.shopId, shopId), eq(solution.kind, KIND), ne(solution.key, key)))
    await tell(tx, { shop: shopId, job: null, head: change, kind: 'solution' })
  })
