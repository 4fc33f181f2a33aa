import type { FilmSheet } from '../../model/film/schema'
import type { BesidePanels } from '../../model/plan/schema'
import type { Panel } from '../../model/vehicle/schema'
import { shingles, type Shingle } from './shingles'

/** A sheet of the film, and how far the next one lies over it. mm */
export const sheetSizes = (plan: BesidePanels, film: FilmSheet) => ({
  width: Math.max(...film.widthsMm),
  length: Math.max(...film.rollLengthsMm),
  overlap: plan.layout.sheets.overlapMm ?? film.overlapMm,
})

/** A panel that no sheet covers is laid in shingles: how many stand side by side, and how many rows. */
export function shingledAs(
  plan: BesidePanels,
  panel: Panel,
  film: FilmSheet,
): { laid: Shingle[]; columns: number; rows: number } | null {
  if (film.kind !== 'sheet_goods') return null
  const { width, length, overlap } = sheetSizes(plan, film)
  const [short, long] = [Math.min(panel.widthMm, panel.heightMm), Math.max(panel.widthMm, panel.heightMm)]
  if (short <= width && long <= length) return null
  const { rips, exposed } = plan.layout.sheets
  const out = shingles({
    lengthMm: panel.widthMm,
    heightMm: panel.heightMm,
    sheetMm: { width, length },
    rips,
    overlapMm: overlap,
    exposed,
  })
  if (!out.ok) return null
  const { laid } = out.value
  return {
    laid,
    columns: new Set(laid.map((s) => s.fromAftMm)).size,
    rows: new Set(laid.map((s) => s.fromBottomMm)).size,
  }
}
