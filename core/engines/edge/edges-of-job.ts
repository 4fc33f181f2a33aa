import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import type { Piece } from '../pieces/pieces'
import { consumablesOf, type Consumable } from './consumables'
import { cornerPlan, type CornerDecision } from './corner-plan'
import { edgePlan, type EdgeDecision } from './edge-plan'

/** Edges and corners of a job with what they use up. */
export interface EdgesOfJob {
  edges: readonly EdgeDecision[]
  corners: readonly CornerDecision[]
  consumables: readonly Consumable[]
}

export function edgesOfJob(c: {
  plan: Plan
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  pieces: readonly Piece[]
  strongContrast: boolean
  winter: boolean
}): EdgesOfJob {
  const edges = edgePlan(c)
  const corners = cornerPlan(edges, c.panels, c.films, new Map(c.pieces.map((p) => [p.id, p.filmId])))
  return { edges, corners, consumables: consumablesOf(edges, c.pieces, c.panels, c.films) }
}
