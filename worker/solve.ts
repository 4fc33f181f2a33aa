import { parentPort, workerData } from 'node:worker_threads'
import { layoutByContract, type LayoutInput, type LayoutPlan } from '@/core/engines/roll/contract'

export interface SolveAsk {
  request: LayoutInput
  stages: number | null
  /** Not 0: stop. */
  flag: Int32Array
}
export type SolveNews =
  | { kind: 'tick'; share: number }
  | { kind: 'better'; usedMm: number; boundMm: number }
  | { kind: 'done'; plan: LayoutPlan }
  | { kind: 'fault'; code: string }

/**
 * The search itself, on a thread of its own: it never waits, so progress and cancelling go through the thread that
 * does.
 */
const { request, stages, flag } = workerData as SolveAsk
const say = (news: SolveNews) => parentPort?.postMessage(news)
const out = layoutByContract(request, () => performance.now(), {
  cancelled: () => Atomics.load(flag, 0) !== 0,
  tick: (share) => say({ kind: 'tick', share }),
  better: (p) => say({ kind: 'better', usedMm: p.used.reduce((s, u) => s + u.length, 0), boundMm: p.bound }),
  ...(stages === null ? {} : { stages }),
})
say(out.ok ? { kind: 'done', plan: out.value } : { kind: 'fault', code: out.error.code })
