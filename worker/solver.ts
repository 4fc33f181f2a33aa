import { settleBoard, type BoardInput } from '@/core/engines/schedule/settled-board'
import { unpackScan } from '@/core/engines/stretch/scan-file'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import type { Lack, Solution } from '@/core/model/catalogue/solutions'
import type { LogRow } from '@/core/model/log/schema'
import type { Plan } from '@/core/model/plan/schema'
import { lacksOf, solveLack } from '@/core/reckon/solve-lack'

export interface SolverJob {
  plan: Plan
  catalogue: Catalogue
  ledger: readonly LogRow[]
}
export type SolverAsk =
  | { kind: 'lacks'; job: SolverJob }
  /** `scan`: the panel's kept scan, packed. */
  | { kind: 'board'; input: BoardInput }
  | { kind: 'solve'; job: SolverJob; lack: Lack; scan: Uint8Array | null }
export interface SolverAnswers {
  lacks: readonly Lack[]
  solve: Solution[]
  board: ReturnType<typeof settleBoard>
}

/** What a solver's thread is asked: what a job lacks, to solve one thing of it, or the shop's board. */
export function answer(ask: SolverAsk): SolverAnswers[SolverAsk['kind']] {
  if (ask.kind === 'board') return settleBoard(ask.input)
  const { plan, catalogue, ledger } = ask.job
  if (ask.kind === 'lacks') return lacksOf({ plan, catalogue, ledger })
  const scan = ask.scan ? unpackScan(ask.scan) : null
  return solveLack({ plan, catalogue, ledger, scanOf: () => (scan?.ok ? scan.value : null) }, ask.lack)
}
