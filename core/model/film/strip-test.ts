import type { FilmSheet, StockItem, StripTest } from './schema'

const lost = (before: number, after: number): number => (before - after) / before

/** What a strip lost along the roll, and across it where that was measured [–]. */
export const stripLoss = (s: StripTest): { along: number; across: number | null } => ({
  along: lost(s.beforeMm, s.afterMm),
  across: s.acrossBeforeMm === null || s.acrossAfterMm === null ? null : lost(s.acrossBeforeMm, s.acrossAfterMm),
})

/** Strips are read to the millimetre: a residue is known to a tenth of a per cent, no better. */
const STEPS_OF_RESIDUE = 1000

/** The residue of one lot [–] in the middle of its strips, to a tenth of a per cent; null where none was tested. */
export function lotResidue(
  stock: readonly Pick<StockItem, 'filmId' | 'lot' | 'strips'>[],
  filmId: string,
  lot: string,
): { residue: number; tests: number } | null {
  const losses = stock
    .filter((s) => s.filmId === filmId && s.lot === lot)
    .flatMap((s) => s.strips.map((t) => stripLoss(t).along))
  if (losses.length === 0) return null
  const mean = losses.reduce((sum, x) => sum + x, 0) / losses.length
  return { residue: Math.round(mean * STEPS_OF_RESIDUE) / STEPS_OF_RESIDUE, tests: losses.length }
}

/** A sheet as a job takes it for one lot: the residue is what its strips lost. */
export const sheetOfLot = (film: FilmSheet, residue: number): FilmSheet => ({
  ...film,
  rollResidue: residue,
  standings: { ...film.standings, rollResidue: 'measured' },
})
