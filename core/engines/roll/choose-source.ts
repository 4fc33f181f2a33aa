import type { Budget } from '../../kit/budget'
import { lay } from './lay-parts'
import { wantedSource, type ChosenSource, type LayoutTask, type Reserve } from './layout-task'
import { sourcesOf } from './sources'

const TRY_SHELF_ROUNDS = 400
const TRY_SHELF_SHARE = 0.35

/** All that the film might come from, and what it comes from. */
export function chooseSource(task: LayoutTask, reserve: Reserve, standIn: boolean): ChosenSource {
  const { plan, film, context, toLay } = task
  const { spent, elapsed, rounds, ofSource } = task.options
  // A lot that might just cover the plan is tried harder: a little while figures are typed, for a third of a real
  // search.
  const harder: Budget =
    elapsed && rounds !== undefined
      ? {
          rounds,
          spent: () => spent?.() === true || elapsed() > TRY_SHELF_SHARE,
          elapsed: () => Math.min(1, elapsed() / TRY_SHELF_SHARE),
        }
      : { rounds: toLay.length > 30 ? 0 : TRY_SHELF_ROUNDS }
  const wanted = wantedSource(task)
  const sources = sourcesOf({
    film,
    plan,
    pieces: toLay,
    stock: context.stock,
    reserve: reserve.reserveBandsMm,
    standIn: standIn ? { joins: wanted?.startsWith('join:') === true } : null,
    lay: (part, hard) => {
      const budget = ofSource?.() ?? (hard ? harder : null)
      return lay(task, part, budget ? { budget } : {}).packing
    },
  })
  const taken =
    (wanted ? sources.find((w) => w.source.id === wanted) : undefined) ??
    sources.find((w) => w.source.covers && w.source.kind !== 'join') ??
    sources.find((w) => w.source.kind === 'new')
  return { sources, taken }
}
