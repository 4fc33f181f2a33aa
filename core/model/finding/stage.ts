import type { NoFacts } from './finding-facts'

/** The stages of a job in their order. */
export const STAGES = ['walkaround', 'film', 'tape', 'pieces', 'roll', 'edges', 'run-sheet', 'bay', 'handover'] as const
export type Stage = (typeof STAGES)[number]

/** Why a stage is where it is, with its facts; `web/words/stages.ts` has a sentence for each. */
export interface StageWhyFacts {
  paint_not_looked_at: NoFacts
  looked_at: { damage: number }
  film_chosen: NoFacts
  film_not_chosen: NoFacts
  nothing_taped: NoFacts
  some_assumed: { count: number }
  all_taped: { count: number }
  no_pieces: NoFacts
  pieces_ready: { count: number }
  nothing_to_lay: NoFacts
  layout_stale: NoFacts
  layout_kept: NoFacts
  layout_not_kept: NoFacts
  edges_decided: { count: number; corners: number }
  start_set: { at: string }
  no_start: NoFacts
  not_begun: NoFacts
  in_bay: { done: number; of: number; due: number }
  bay_done: NoFacts
  handed_over: NoFacts
  not_ready: NoFacts
  recheck_overdue: { due: string }
  recheck_waits: { due: string }
  /** Any stage with a stop in it; `first` is the code of the first. */
  stops: { count: number; first: string }
  /** Of the yard: the job is reckoned in a moment. */
  settling: NoFacts
}

export type StageWhy = keyof StageWhyFacts

/**
 * settled: nothing left to do · open: begun or ready to begin · missing: lacks something · broken: spoilt by a later
 * change or a stop.
 */
export type StageStanding = 'settled' | 'open' | 'missing' | 'broken'

/** What a stage says of itself: a union over the reasons, each with its own facts. */
export type StageVerdict = {
  [W in StageWhy]: { state: StageStanding; why: W; facts: StageWhyFacts[W] }
}[StageWhy]

export type StageState = StageVerdict & { stage: Stage }
