import type { EdgeSetting } from '../../model/edge/edge-leave'
import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import type { Piece } from '../pieces/pieces'
import { consumablesOf, tapeUses, type Consumable, type TapeUse } from './consumables'
import { cornerPlan, type CornerDecision } from './corner-plan'
import { edgePlan, type EdgeDecision } from './edge-plan'

/** Edges and corners of a job with what they use up. */
export interface EdgesOfJob {
  edges: readonly EdgeDecision[]
  corners: readonly CornerDecision[]
  tapes: readonly TapeUse[]
  consumables: readonly Consumable[]
}

export function edgesOfJob(c: {
  plan: Plan
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  pieces: readonly Piece[]
  setting: EdgeSetting
}): EdgesOfJob {
  const edges = edgePlan(c)
  const corners = cornerPlan(edges, c.panels, c.films, new Map(c.pieces.map((p) => [p.id, p.filmId])))
  const tapes = tapeUses(edges, c.pieces, c.films)
  return { edges, corners, tapes, consumables: consumablesOf(edges, tapes, c.pieces, c.panels) }
}
