import { once } from 'node:events'
import { Worker } from 'node:worker_threads'
import { log } from '@/db/log'
import { jobToSettle } from '@/db/queries/jobs'
import {
  keepSolutions,
  requestSettleAgain,
  requestSettleEach,
  requestSolves,
  reuseSolution,
} from '@/db/queries/solutions'
import { boardKey } from '@/core/engines/schedule/settled-board'
import { boardToSettle, keepBoard } from '@/db/queries/board'
import type { BoardTask, RackTask, SettleTask, SolveTask } from '@/db/queue'
import type { Solution } from '@/core/model/catalogue/solutions'
import type { SolverAnswers, SolverAsk } from './solver'

/** One piece of work may take this long, ms: less than the queue waits before it hands the task out again. */
const TIME_LIMIT_MS = 150_000

/** Work that was ended because it took too long. */
class TookTooLong extends Error {}

interface Solver {
  worker: Worker
  busy: boolean
}
const solvers: Solver[] = []

/** Asks a thread that is free, or a new one: no more are asked at once than the queue hands out. */
async function ask<K extends SolverAsk['kind']>(what: Extract<SolverAsk, { kind: K }>): Promise<SolverAnswers[K]> {
  let solver = solvers.find((s) => !s.busy)
  if (!solver)
    solvers.push((solver = { worker: new Worker(new URL('./solver-thread.mjs', import.meta.url)), busy: false }))
  const own = solver
  own.busy = true
  // One signal takes every listener off again: a thread answers thousands of times.
  const heard = new AbortController()
  const timer = setTimeout(() => heard.abort(new TookTooLong()), TIME_LIMIT_MS)
  try {
    const answer = once(own.worker, 'message', { signal: heard.signal })
    const end = once(own.worker, 'exit', { signal: heard.signal }).then(() => {
      throw new Error('a solver’s thread ended')
    })
    own.worker.postMessage(what)
    const [out] = await Promise.race([answer, end])
    if (!out.ok) throw new Error(out.message)
    return out.value
  } catch (error) {
    solvers.splice(solvers.indexOf(own), 1)
    await own.worker.terminate()
    throw heard.signal.aborted ? heard.signal.reason : error
  } finally {
    clearTimeout(timer)
    heard.abort()
    own.busy = false
  }
}

/** Looks what a job lacks as it stands now, and hands that on; where the rack changed, every job of the shop. */
export async function settleJob(task: SettleTask | RackTask): Promise<void> {
  if (task.jobId === null) return requestSettleEach(task)
  const job = await jobToSettle(task, null)
  if (!job) return
  const { plan, catalogue, ledger } = job
  await requestSolves(task, await ask({ kind: 'lacks', job: { plan, catalogue, ledger } }))
}

const faultOf = ({ lack }: SolveTask, code: string): Solution => ({
  kind: 'fault',
  key: lack.key,
  fineness: 0,
  value: { code, facts: {} },
})

/** Solves one thing that a job lacked when it was asked for; `by`: the worker. */
export async function solveOne(task: SolveTask, by: string): Promise<void> {
  const { lack } = task
  // Another job, or another worker, came first: what the job lacks now is looked at anew.
  if (await reuseSolution(task)) return
  const job = await jobToSettle(task, lack.of)
  if (!job) return
  const { plan, catalogue, ledger, scan } = job
  const solved = await ask({ kind: 'solve', job: { plan, catalogue, ledger }, lack, scan }).catch((error: unknown) => {
    if (error instanceof TookTooLong) return [faultOf(task, 'took_too_long')]
    throw error
  })
  if (solved.length > 0) return keepSolutions(task, solved, by)
  const still = await ask({ kind: 'lacks', job: { plan, catalogue, ledger } })
  // The plan moved on meanwhile: what it lacks now is looked at anew. What cannot be had is not asked for again.
  if (!still.some((l) => l.key === lack.key)) return requestSettleAgain(task)
  log.error({ part: 'worker', lack }, 'a plan lacks what its solver does not find')
  await keepSolutions(task, [faultOf(task, 'not_solved')], by)
}

/** Lays out the board of a shop, where nobody has for what it hangs on now; `by`: the worker. */
export async function layOutBoard(task: BoardTask, by: string): Promise<void> {
  const input = await boardToSettle(task, new Date())
  if (input) await keepBoard(task, boardKey(input), await ask({ kind: 'board', input }), by)
}

export const endSolvers = async (): Promise<void> =>
  void (await Promise.all(solvers.splice(0).map((s) => s.worker.terminate())))
