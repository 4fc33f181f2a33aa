import type { StageState, StageWhy, StageWhyFacts } from '@/core/model/finding/stage'
import type { Formatter } from './format'

const STAGE_WHY: { [W in StageWhy]: (f: StageWhyFacts[W], fmt: Formatter) => string } = {
  edges_decided: (f) => `${f.count} edges, ${f.corners} corners`,
  paint_not_looked_at: () => 'paint not looked at',
  looked_at: () => 'looked at',
  film_chosen: () => 'film chosen',
  film_not_chosen: () => 'film not chosen',
  nothing_taped: () => 'nothing taped',
  some_assumed: (f) => `${f.count} panels partly assumed`,
  all_taped: (f) => `${f.count} panels taped`,
  no_pieces: () => 'no pieces yet',
  pieces_ready: (f) => `${f.count} pieces`,
  nothing_to_lay: () => 'nothing to lay out',
  layout_stale: () => 'kept layout out of date',
  layout_kept: () => 'layout kept',
  layout_not_kept: () => 'layout not kept yet',
  start_set: (f, fmt) => `starts ${fmt.text(fmt.wallTime(f.at))}`,
  no_start: () => 'no start set',
  not_begun: () => 'not begun',
  in_bay: (f) => `${f.done} of ${f.of} steps, ${f.due} heat points due`,
  bay_done: () => 'work done',
  handed_over: () => 'handed over',
  not_ready: () => 'not ready',
  settling: () => 'being reckoned; open the yard again in a moment',
  recheck_overdue: (f, fmt) => `recheck was due ${fmt.moment(f.due)}`,
  recheck_waits: (f, fmt) => `recheck due ${fmt.moment(f.due)}`,
  stops: (f) => `${f.count} ${f.count === 1 ? 'stop' : 'stops'}`,
}

/** Kept rows of the yard may hold a reason of another version: it is shown as it is. */
export function stageWhy(
  s: { why: string; facts: Record<string, string | number> | StageState['facts'] },
  fmt: Formatter,
) {
  if (!Object.hasOwn(STAGE_WHY, s.why)) return s.why
  // Reason and facts belong together, which a look-up in a table of sentences cannot show.
  return (STAGE_WHY[s.why as StageWhy] as (facts: object, fmt: Formatter) => string)(s.facts, fmt)
}
