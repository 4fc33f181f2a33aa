import type { Piece } from '../pieces/pieces'
import type { FilmLayout } from './roll-plan'

/** From this chance on a piece gets film for a second try; common practice, no source. */
export const RESERVE_FROM = 0.25
/** Lengths that the pieces likeliest to be done twice take once more: as many as are to be expected, the largest. */
export function reserveBands(
  reserveFor: FilmLayout['reserveFor'],
  pieces: ReadonlyMap<string, Piece>,
  widthMm: number,
  gap: number,
): number[] {
  const least = (p: Piece) =>
    p.turn === 'quarter' && p.alongMm <= widthMm ? Math.min(p.acrossMm, p.alongMm) : p.alongMm
  // Expected number of pieces done twice, rounded up: so many of the largest.
  const expected = Math.ceil(reserveFor.reduce((s, r) => s + r.risk, 0) - 1e-9)
  return reserveFor
    .flatMap((r) => pieces.get(r.pieceId) ?? [])
    .map(least)
    .sort((a, b) => b - a)
    .slice(0, expected)
    .map((l) => l + gap)
}
