import type { Point } from '../../kit/plane'
import type { Figure } from '../../model/figure/figure'
import type { FilmSheet } from '../../model/film/schema'
import type { Panel } from '../../model/vehicle/schema'
import type { Piece } from './piece'

/** How the pieces of a panel lie on the roll. */
export interface OnRoll {
  film: FilmSheet
  /** All the same way up the roll. */
  fixed: boolean
  widthAlong: boolean
}

/** A small piece beside a panel's own: in a recess, or behind an object. */
export function smallPiece(
  panel: Panel,
  { film, fixed, widthAlong }: OnRoll,
  own: { id: string; name: string; width: Figure; height: Figure; seamMm: number; outline: Point[] | null },
): Piece {
  const { id, name, width, height, seamMm, outline } = own
  const [w, h] = [Number(width.value), Number(height.value)]
  return {
    id,
    panelId: panel.id,
    part: 1,
    parts: 1,
    along: 'height',
    filmId: film.id,
    name,
    cutWidthMm: w,
    cutHeightMm: h,
    acrossMm: widthAlong ? h : w,
    alongMm: widthAlong ? w : h,
    top: widthAlong ? 'across' : 'along',
    turn: fixed ? 'fixed' : 'quarter',
    upsideDown: !(fixed && film.directional),
    seamMm,
    figures: { width, height },
    inlay: true,
    outline,
  }
}
