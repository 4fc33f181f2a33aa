import { NO_CONTEXT, type LayOutContext, type RollPlan } from '@/core/engines/roll/film-layout'
import { layOutFilm } from '@/core/engines/roll/layout-solver'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import type { KeptLayout, Plan } from '@/core/model/plan/schema'
import type { Piece } from '@/core/engines/pieces/pieces'

export interface LayoutAsk {
  plan: Plan
  filmId: string
  pieces: readonly Piece[]
  context: LayOutContext
  seconds: number
  locked: { rollId: string; placement: RollPlan['placements'][number] }[]
}

export type LayoutNews =
  | { kind: 'better'; usedMm: number; boundMm: number; share: number }
  | { kind: 'tick'; share: number }
  | { kind: 'done'; kept: KeptLayout; usedMm: number; unplaced: number; proven: boolean }

/**
 * The same layout as on the page with seconds to spend, off the main thread; tells of each better plan. Stopped by
 * ending the worker.
 */
self.onmessage = ({ data }: MessageEvent<LayoutAsk>) => {
  const plan = { ...data.plan, layout: { ...data.plan.layout, kept: [] } }
  const film = plan.film.sheets.find((s) => s.id === data.filmId)
  if (!film) return
  const begin = performance.now()
  const share = () => Math.min(1, (performance.now() - begin) / (data.seconds * 1000))
  let told = 0
  const post = (news: LayoutNews) => self.postMessage(news)
  const spent = () => {
    if (share() > told + 0.05) {
      told = share()
      post({ kind: 'tick', share: told })
    }
    return share() >= 1
  }
  const layout = layOutFilm(plan, film, data.pieces, data.context ?? NO_CONTEXT, {
    rounds: Number.MAX_SAFE_INTEGER,
    spent,
    elapsed: share,
    locked: data.locked,
    better: (usedMm, boundMm) => post({ kind: 'better', usedMm, boundMm, share: share() }),
  })
  post({
    kind: 'done',
    kept: keepLayout(layout),
    usedMm: layout.usedMm,
    unplaced: layout.unplaced.length,
    proven: layout.usedMm <= layout.boundMm + 1e-6,
  })
}
