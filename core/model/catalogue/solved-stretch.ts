import { z } from 'zod'
import type { FilmSheet } from '../film/schema'
import { textHash } from '../../kit/random'
import { choiceFor } from '../plan/piece-choice'
import { PieceChoice, type BesidePanels } from '../plan/schema'
import { Panel } from '../vehicle/schema'

/** Raised whenever the same panel would be solved to another stretch: what was kept before then no longer counts. */
const STRETCH_VERSION = 4
/** Triangles of the surface that figures settle on. */
export const STRETCH_FINENESS = 3000

const shapes = new WeakMap<Panel, Record<string, unknown>>()
/** What of a panel bends its surface, in the schema's own order: a panel typed just now is the one that is read back. */
function shapeOf(panel: Panel): Record<string, unknown> {
  const known = shapes.get(panel)
  if (known) return known
  const read = Panel.safeParse(panel)
  // Names, notes, neighbours, gaps and what is assumed do not bend a surface.
  const whole = read.success ? read.data : panel
  const shape = {
    ...whole,
    edges: whole.edges.map((e) => [e.id, e.at, e.lengthMm, e.meets, e.riseMm, e.cornerDeg, e.cornerRadiusMm]),
    id: '',
    name: '',
    note: '',
    paintNote: '',
    assumed: [],
    filmId: null,
    wrap: true,
    mirrored: true,
    surface: null,
    // How film lies behind an object changes nothing of the panel's own.
    raised: whole.raised.map(({ behind: _, ...own }) => own),
    zones: [],
  }
  shapes.set(panel, shape)
  return shape
}

/**
 * What of a plan the stretch of one panel hangs on, as text: as long as it is the same, a solved stretch holds.
 * `scan`: the mark of the panel's scan, empty where it has none.
 */
export function stretchKey(plan: BesidePanels, panel: Panel, film: FilmSheet, scan = ''): string {
  const { parts, along, preStretch, seamsAtMm, slits } = choiceFor(plan, panel, film)
  return textHash(
    JSON.stringify([
      STRETCH_VERSION,
      STRETCH_FINENESS,
      shapeOf(panel),
      parts,
      along,
      preStretch,
      seamsAtMm,
      PieceChoice.shape.slits.safeParse(slits).data ?? slits,
      film.kind,
      film.stretchLimit,
      film.postHeatOver,
      film.heatShrink,
      film.rollResidue,
      plan.method.order,
      // Where the rim is tacked the film is stretched as by triangles: only the slack goes otherwise.
      plan.method.tension === 'relax_first' ? 'relax_first' : 'triangles',
      ...(preStretch > 0 ? [film.recovers] : []),
      ...(scan ? [scan] : []),
    ]),
  )
}

/** Which scan of a panel this is: another one, kept later, has another mark. */
export const scanMark = (scan: { triangles: number; at: string }): string => `${scan.triangles}@${scan.at}`

/** The stretch of one panel as it was solved on its surface, and the best ways found out of it. Fractions, mm². */
export const SolvedStretch = z.strictObject({
  worst: z.number().min(0).max(20),
  toPostHeatMm2: z.number().min(0),
  overMm2: z.number().min(0),
  wrinklesMm2: z.number().min(0),
  areaMm2: z.number().min(0),
  triangles: z.number().int().min(1),
  spot: z
    .strictObject({
      row: z.enum(['top', 'middle', 'bottom']),
      column: z.enum(['left', 'middle', 'right']),
      stretch: z.number(),
    })
    .nullable(),
  /** Outlines of what is stretched past the film's post-heat threshold, on the panel's surface, mm from its top left. */
  toPostHeat: z
    .array(
      z
        .array(z.tuple([z.number(), z.number()]))
        .min(3)
        .max(60),
    )
    .max(6)
    .default([]),
})
export type SolvedStretch = z.infer<typeof SolvedStretch>
/** By `stretchKey`. */
export type SolvedTable = Readonly<Record<string, SolvedStretch>>
