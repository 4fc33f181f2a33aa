import type { Point } from '../../kit/plane'
import type { Figure } from '../../model/figure/figure'
import type { Edge, Panel } from '../../model/vehicle/schema'

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
  /** Along which side the panel is divided, where it is. */
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

/** Film beyond a part of a panel, on each of its sides [mm]. */
export interface Margins {
  left: number
  top: number
  right: number
  bottom: number
}

/** What cuts the outlines of pieces: a page may load it later than the reckoning itself. */
export interface PieceOutlines {
  /**
   * From the panel's measured outline, let out by the film left beyond it; null where none was taken. `part`: where the
   * piece's own part of the panel begins, and its size [mm]; `stretch`: what relaxing takes back, along x and y.
   */
  measured(
    panel: Panel,
    part: { x: number; y: number; width: number; height: number },
    margins: Margins,
    stretch: { x: number; y: number },
  ): Point[] | null
  /** From the solved outline of the flat film, its box at 0, 0. */
  flat(outline: readonly Point[], margins: Margins, stretch: { x: number; y: number }): Point[] | null
}

/** Pieces as their cut rectangles: for whoever asks for sizes alone. */
export const NO_OUTLINES: PieceOutlines = { measured: () => null, flat: () => null }
