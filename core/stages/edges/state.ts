import type { EdgesOfJob } from '../../engines/edge/edges-of-job'
import type { Piece } from '../../engines/pieces/pieces'
import type { StageVerdict } from '../../model/finding/stage'

export const edgesState = (pieces: readonly Piece[], { edges, corners }: EdgesOfJob): StageVerdict =>
  pieces.length === 0
    ? { state: 'missing', why: 'no_pieces', facts: {} }
    : { state: 'settled', why: 'edges_decided', facts: { count: edges.length, corners: corners.length } }
