import { z } from 'zod'
import { minutesToCivil } from '../../kit/civil'
import { textHash } from '../../kit/random'
import { localMinutes } from '../../kit/time-zone'
import { Id, WallTime } from '../../model/values/values'
import type { ShopSettings } from '../../model/shop/shop'
import { BLOCKS, type JobOutline } from './job-outline'
import type { BoardPin } from './pins'
import { shopSchedule, type Board, type BoardFault, type BoardJob } from './shop-schedule'

/** Raised whenever the same shop would be laid out otherwise. */
const BOARD_VERSION = 1
/** A board moves on by quarters of an hour: until the next one it hangs on the same. */
const QUARTER_MIN = 15
/** Rounds of the search behind the screens, by how many jobs there are: the more, the longer each takes. Assumed. */
const ROUNDS: readonly { upToJobs: number; rounds: number }[] = [
  { upToJobs: 15, rounds: 8 },
  { upToJobs: 40, rounds: 4 },
  { upToJobs: Infinity, rounds: 2 },
]

/** All that a board hangs on, in one order whatever order the jobs were read in. */
export interface BoardInput {
  jobs: BoardJob[]
  shop: ShopSettings
  /** Local wall time. */
  now: string
}

/** The quarter of an hour that a board begins with. `iso`: UTC. */
export const boardNow = (iso: string, timeZone: string): string =>
  minutesToCivil(Math.ceil((localMinutes(iso, timeZone) ?? 0) / QUARTER_MIN) * QUARTER_MIN)

export function boardInput(
  jobs: readonly { id: string; outline: JobOutline | null; pins?: readonly BoardPin[] }[],
  shop: ShopSettings,
  now: string,
): BoardInput {
  const own = jobs.flatMap(({ id, outline, pins = [] }) => (outline ? [{ id, outline, pins }] : []))
  return { jobs: own.sort((a, b) => (a.id < b.id ? -1 : 1)), shop, now }
}

/** What tells boards apart: while it is the same, a settled board holds. */
export const boardKey = ({ jobs, shop: { week, closed, bays, people }, now }: BoardInput): string =>
  textHash(JSON.stringify([BOARD_VERSION, jobs, week, closed.map((c) => c.date), bays.length, people, now]))

const Span = { from: WallTime, to: WallTime }
const code = z.enum(BLOCKS)
/** A board that the shop keeps, or why there is none. */
export const SettledBoard = z.union([
  z.strictObject({
    bars: z
      .array(
        z.strictObject({
          jobId: Id,
          code,
          ...Span,
          people: z.array(z.string().max(120)).max(200),
          pinned: z.boolean(),
          locked: z.boolean(),
        }),
      )
      .max(20_000),
    stays: z.array(z.strictObject({ jobId: Id, bay: z.number().int().min(0), ...Span })).max(5000),
    ready: z.record(Id, z.string().max(20)),
    late: z.array(z.strictObject({ jobId: Id, promisedAt: WallTime, readyAt: WallTime })).max(5000),
    rescues: z.array(z.enum(['one_more_person', 'one_more_bay', 'begin_now'])).nullable(),
    broken: z.array(z.strictObject({ jobId: Id, code, at: WallTime, locked: z.boolean() })).max(5000),
  }),
  z.strictObject({ code: z.enum(['no_hours', 'nothing_left', 'does_not_fit']), jobs: z.array(Id).max(5000) }),
])
export type SettledBoard = z.infer<typeof SettledBoard>

const roundsFor = (jobs: number): number => ROUNDS.find((r) => jobs <= r.upToJobs)?.rounds ?? 1

/** The board searched for longer than a screen would wait. `rounds`: how long it was looked for. */
export function settleBoard(
  { jobs, shop, now }: BoardInput,
  rounds = roundsFor(jobs.length),
): { rounds: number; board: SettledBoard } {
  const board = shopSchedule(jobs, shop, now, { rounds })
  if ('code' in board) return { rounds, board: { code: board.code, jobs: [...board.jobs] } }
  return { rounds, board: SettledBoard.parse({ ...board, ready: Object.fromEntries(board.ready) }) }
}

/** A settled board, for screens to read. */
export const boardFrom = (settled: SettledBoard): Board | BoardFault =>
  'code' in settled ? settled : { ...settled, ready: new Map(Object.entries(settled.ready)) }
