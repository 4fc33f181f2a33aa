import type { Point } from '../../kit/plane'
import type { Figure } from '../../model/figure/figure'
import type { Edge } from '../../model/vehicle/schema'

/**
 * One cut of film. Cut sizes in mm as the panel stands; `across`/`along` as the piece lies on the roll before any
 * turn.
 */
export interface Piece {
  id: string
  panelId: string
  /** Panels that it covers, where it is a drop over several. */
  covers?: string[]
  /** Of a drop: the share of each side of each panel that lies on it [–]. */
  shares?: Record<string, Record<Edge['at'], number>>
  part: number
  parts: number
  name: string
  /** Which way the panel is divided, where it is. */
  along: 'width' | 'height'
  filmId: string
  cutWidthMm: number
  cutHeightMm: number
  acrossMm: number
  alongMm: number
  /** Where the panel's top (or front) edge lies before any turn: the arrow on the liner. */
  top: 'along' | 'across'
  turn: 'fixed' | 'quarter'
  /** Whether it may lie with its arrow turned round. */
  upsideDown: boolean
  seamMm: number
  /**
   * Its outline within the cut rectangle, from the top left, as the panel is looked at; null where it was not taken.
   */
  outline: Point[] | null
  /** Sides of its panel that it reaches, where pieces lie in rows; and how many share a side. */
  reach?: Record<Edge['at'], boolean> & { columns: number; rows: number }
  /** Lies under another piece, in a recess of its panel. */
  inlay?: boolean
  /** A small piece that lies over its neighbour instead of under it. */
  over?: boolean
  figures: { width: Figure; height: Figure }
}
