import type { ReadyWith } from '../../model/shop/shop'
import type { Plan } from '../../model/plan/schema'
import { isOnPanel, PRINT } from '../run-sheet/waits'
import type { Skill, Step } from '../run-sheet/step'
import { plannedSteps } from '../run-sheet/steps'

export const BLOCKS = ['print', 'cut', 'arrive', 'prepare', 'wrap', 'finish', 'handover'] as const
export type BlockCode = (typeof BLOCKS)[number]

/** Work of a job that is left, of one kind: minutes for those people together. */
export interface Block {
  code: BlockCode
  minutes: number
  people: number
  skills: readonly Skill[]
  /** After it nobody goes on with this job for so long: a night, a rest. */
  waitMin: number
  /** It begins with a step that is locked to this moment on the job's run sheet. Local wall time. */
  lockedAt?: string
}

/** What is left of a job, in the order of the work, as the board lays it out among the others. */
export interface JobOutline {
  startAt: string | null
  promisedAt: string | null
  crew: number
  blocks: readonly Block[]
  /** Minutes of work that come after the vehicle counts as ready. */
  afterReadyMin?: number
}

const CUT: readonly string[] = ['film_in', 'cut']
const ARRIVE: readonly string[] = ['removal_trial', 'removal', 'wash', 'dry', 'bring_in']
const AT_THE_END: readonly string[] = ['recheck', 'hand_over']
const FINISH: readonly string[] = ['hardware_on', 'last_wipe', 'check_round', 'rest']

function blockOf(step: Step): BlockCode {
  if (isOnPanel(step)) return 'wrap'
  const { code } = step
  if (PRINT.includes(code)) return 'print'
  if (CUT.includes(code)) return 'cut'
  if (ARRIVE.includes(code)) return 'arrive'
  if (AT_THE_END.includes(code)) return 'handover'
  return FINISH.includes(code) ? 'finish' : 'prepare'
}

/**
 * The steps that are not done, in blocks. The work on the panels is shared by the crew. A step that is locked to a moment
 * begins a block of its own.
 */
export function jobOutline(plan: Plan, steps: readonly Step[], ready: ReadyWith): JobOutline {
  const { crew, startAt, promisedAt, locks } = plan.runSheet
  const open = plannedSteps(steps).filter((s) => s.state !== 'done')
  const lockOf = (s: Step): string | undefined => (s.state === 'to_do' ? locks[s.id] : undefined)
  const blocks = BLOCKS.flatMap((code): Block[] => {
    const runs: Step[][] = []
    for (const s of open.filter((x) => blockOf(x) === code)) {
      const run = runs.at(-1)
      if (run && lockOf(s) === undefined) run.push(s)
      else runs.push([s])
    }
    return runs.map((own) => blockFor(code, own, crew, own[0] && lockOf(own[0])))
  })
  const at = open.findIndex((s) => s.code === ready)
  const afterReadyMin = at < 0 ? 0 : open.slice(at + 1).reduce((sum, s) => sum + s.minutes, 0)
  return { startAt, promisedAt, crew, blocks, afterReadyMin }
}

function blockFor(code: BlockCode, own: readonly Step[], crew: number, lockedAt: string | undefined): Block {
  const isShared = code === 'wrap'
  const work = own.reduce((sum, s) => sum + s.minutes * (isShared ? Math.min(crew, s.people) / crew : 1), 0)
  return {
    code,
    minutes: Math.ceil(work),
    people: isShared ? crew : Math.min(crew, Math.max(...own.map((s) => s.people))),
    skills: [...new Set(own.flatMap((s) => s.skills))],
    waitMin: Math.max(0, ...own.map((s) => (isOnPanel(s) ? 0 : s.waitMin))),
    ...(lockedAt === undefined ? {} : { lockedAt }),
  }
}
