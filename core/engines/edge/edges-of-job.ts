import { consumablesOf, tapeUses, type Consumable, type TapeUse } from './consumables'
import { cornersOfPiece, type CornerDecision } from './corner-plan'
import { edgePlan, type EdgeContext, type EdgeDecision } from './edge-plan'

/** Edges and corners of a job with what they use up. */
export interface EdgesOfJob {
  edges: readonly EdgeDecision[]
  corners: readonly CornerDecision[]
  /** The same, piece by piece. */
  byPiece: ReadonlyMap<string, { edges: readonly EdgeDecision[]; corners: readonly CornerDecision[] }>
  tapes: readonly TapeUse[]
  consumables: readonly Consumable[]
}

export function edgesOfJob(c: EdgeContext): EdgesOfJob {
  const ofPieces = edgePlan(c).map(({ piece, film, panels, edges }) => ({
    id: piece.id,
    edges,
    corners: cornersOfPiece(edges, film, ...panels),
  }))
  const edges = ofPieces.flatMap((p) => p.edges)
  const tapes = tapeUses(edges, c.pieces, c.films)
  return {
    edges,
    corners: ofPieces.flatMap((p) => p.corners),
    byPiece: new Map(ofPieces.map((p) => [p.id, p])),
    tapes,
    consumables: consumablesOf(edges, tapes, c.pieces, c.panels),
  }
}
