import type { PieceOutlines } from '../engines/pieces/piece'
import { PIECE_OUTLINES } from '../engines/pieces/piece-outline'
import { LAYOUT_SOLVER } from '../engines/roll/layout-solver'
import type { LayoutSolver } from '../engines/roll/layout-task'

/**
 * What a reckoning asks for where nothing is solved yet: the packing of film, the clipping of outlines. Large, so a page
 * may load them after itself.
 */
export interface Solvers {
  layout: LayoutSolver
  outlines: PieceOutlines
}
export const SOLVERS: Solvers = { layout: LAYOUT_SOLVER, outlines: PIECE_OUTLINES }
