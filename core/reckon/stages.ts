import type { HeatPoint } from '../engines/heat/heat-points'
import type { Piece } from '../engines/pieces/pieces'
import type { FilmLayout } from '../engines/roll/film-layout'
import type { Step } from '../engines/run-sheet/step'
import type { Finding } from '../model/finding/finding'
import { STAGES, type Stage, type StageState, type StageVerdict } from '../model/finding/stage'
import type { LogRow } from '../model/log/schema'
import type { Plan } from '../model/plan/schema'
import { bayState } from '../stages/bay/state'
import { filmState } from '../stages/film/state'
import type { Recheck } from '../stages/handover/recheck'
import type { EdgesOfJob } from '../engines/edge/edges-of-job'
import { edgesState } from '../stages/edges/state'
import { handoverState } from '../stages/handover/state'
import { piecesState } from '../stages/pieces/state'
import { rollState } from '../stages/roll/state'
import { runSheetState } from '../stages/run-sheet/state'
import { tapeState } from '../stages/tape/state'
import { walkaroundState } from '../stages/walkaround/state'

export interface StageContext {
  plan: Plan
  pieces: readonly Piece[]
  layouts: readonly FilmLayout[]
  steps: readonly Step[]
  findings: readonly Finding[]
  ledger: readonly LogRow[]
  points: readonly HeatPoint[]
  recheck: Recheck | null
  edges: EdgesOfJob
}

/** Each stage's own verdict; a stop in a stage that lacks nothing breaks it. */
export function stageStates(c: StageContext): StageState[] {
  const verdicts: Record<Stage, StageVerdict> = {
    walkaround: walkaroundState(c.plan),
    film: filmState(c.plan),
    tape: tapeState(c.plan),
    pieces: piecesState(c.pieces),
    roll: rollState(c.layouts),
    edges: edgesState(c.pieces, c.edges),
    'run-sheet': runSheetState(c.plan, c.pieces),
    bay: bayState(c.steps, c.points, c.ledger),
    handover: handoverState(c.steps, c.recheck),
  }
  return STAGES.map((stage): StageState => {
    const stops = c.findings.filter((f) => f.stage === stage && f.level === 'stop')
    const [first] = stops
    if (!first || verdicts[stage].state === 'missing') return { stage, ...verdicts[stage] }
    return { stage, state: 'broken', why: 'stops', facts: { count: stops.length, first: first.code } }
  })
}

/**
 * The stage a job stands at: the first that is not settled (work in the bay counts before a start date that nobody
 * set).
 */
export function standsAt(stages: readonly StageState[]): StageState {
  const of = (stage: Stage): StageState => stages.find((s) => s.stage === stage) ?? missingStage(stage)
  const [bay, handover] = [of('bay'), of('handover')]
  const rechecks = handover.state === 'open' && handover.why.startsWith('recheck')
  if (bay.state === 'settled' || handover.state === 'settled' || rechecks) return handover
  if (bay.state === 'open') return bay
  return stages.find((s) => s.state !== 'settled') ?? handover
}

const missingStage = (stage: Stage): StageState => ({ stage, state: 'missing', why: 'not_begun', facts: {} })
