import type { Piece } from '../../engines/pieces/pieces'
import type { StageVerdict } from '../../model/finding/stage'

export const piecesState = (pieces: readonly Piece[]): StageVerdict =>
  pieces.length === 0
    ? { state: 'missing', why: 'no_pieces', facts: {} }
    : { state: 'settled', why: 'pieces_ready', facts: { count: pieces.length } }
