import type { HeatPoint } from '../engines/heat/heat-points'
import type { LogRow } from '../model/log/schema'
import type { Plan } from '../model/plan/schema'
import type { FilmLayout } from '../engines/roll/film-layout'
import type { Piece } from '../engines/pieces/pieces'
import type { Step } from '../engines/run-sheet/steps'
import { STAGES, type Finding, type Stage } from '../model/finding/finding'

/**
 * settled: nothing left to do · open: begun or ready to begin · missing: lacks something · broken: spoilt by a later
 * change or a stop.
 */
export interface StageState {
  stage: Stage
  state: 'settled' | 'open' | 'missing' | 'broken'
  /** Why, as a code of the words; with counts. */
  why: string
  facts: Record<string, string | number>
}

interface Context {
  plan: Plan
  pieces: readonly Piece[]
  layouts: readonly FilmLayout[]
  steps: readonly Step[]
  findings: readonly Finding[]
  ledger: readonly LogRow[]
  points: readonly HeatPoint[]
}

export function stageStates(c: Context): StageState[] {
  return STAGES.map((stage) => {
    const stops = c.findings.filter((f) => f.stage === stage && f.level === 'stop')
    const [state, why, facts] = judge[stage](c)
    const missing = state === 'missing'
    return stops.length > 0 && !missing
      ? { stage, state: 'broken', why: 'stops', facts: { count: stops.length, first: stops[0]?.code ?? '' } }
      : { stage, state, why, facts }
  })
}

type Verdict = [StageState['state'], string, Record<string, string | number>]
const judge: Record<Stage, (c: Context) => Verdict> = {
  walkaround: ({ plan }) =>
    plan.walkaround.paint.origin === 'unknown' || plan.walkaround.paint.condition === 'unknown'
      ? ['missing', 'paint_not_looked_at', {}]
      : ['settled', 'looked_at', { damage: plan.walkaround.damage.length }],
  film: ({ plan }) => (plan.film.mainId ? ['settled', 'film_chosen', {}] : ['missing', 'film_not_chosen', {}]),
  tape: ({ plan }) => {
    const assumed = plan.panels.filter((p) => p.assumed.length > 0).length
    if (plan.panels.length === 0) return ['missing', 'nothing_taped', {}]
    return assumed > 0
      ? ['open', 'some_assumed', { count: assumed }]
      : ['settled', 'all_taped', { count: plan.panels.length }]
  },
  pieces: ({ pieces }) =>
    pieces.length === 0 ? ['missing', 'no_pieces', {}] : ['settled', 'pieces_ready', { count: pieces.length }],
  roll: ({ layouts }) => {
    if (layouts.length === 0) return ['missing', 'nothing_to_lay', {}]
    if (layouts.some((l) => l.kept === 'stale')) return ['broken', 'layout_stale', {}]
    return layouts.every((l) => l.kept === 'current') ? ['settled', 'layout_kept', {}] : ['open', 'layout_not_kept', {}]
  },
  'run-sheet': ({ plan, pieces }) =>
    pieces.length === 0
      ? ['missing', 'no_pieces', {}]
      : plan.runSheet.startAt
        ? ['settled', 'start_set', { at: plan.runSheet.startAt }]
        : ['open', 'no_start', {}],
  bay: ({ steps, points, ledger }) => {
    const work = steps.filter(
      (s) => !['recheck', 'hardware_on', 'hand_over', 'rest'].includes(s.code) && s.state !== 'skipped',
    )
    const done = work.filter((s) => s.state === 'done').length
    const due = points.filter((p) => p.state === 'due').length
    if (ledger.length === 0) return ['missing', 'not_begun', {}]
    return done === work.length && due === 0
      ? ['settled', 'bay_done', {}]
      : ['open', 'in_bay', { done, of: work.length, due }]
  },
  handover: ({ steps, findings }) => {
    const recheck = findings.find((f) => f.code === 'recheck_overdue' || f.code === 'recheck_waits')
    if (steps.find((s) => s.code === 'hand_over')?.state === 'done') return ['settled', 'handed_over', {}]
    return recheck ? ['open', recheck.code, recheck.facts] : ['missing', 'not_ready', {}]
  },
}

/**
 * The stage a job stands at: the first that is not settled (work in the bay counts before a start date that nobody
 * set).
 */
export function standsAt(stages: readonly StageState[]): StageState {
  const of = (s: Stage) => stages.find((x) => x.stage === s)
  const bay = of('bay')
  const handover = of('handover')
  if (
    bay?.state === 'settled' ||
    handover?.state === 'settled' ||
    (handover?.state === 'open' && handover.why.startsWith('recheck'))
  )
    return handover ?? (stages[0] as StageState)
  if (bay?.state === 'open') return bay
  return stages.find((s) => s.state !== 'settled') ?? (stages[stages.length - 1] as StageState)
}
