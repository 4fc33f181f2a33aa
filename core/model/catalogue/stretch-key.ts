import { textHash } from '../../kit/random'
import type { FilmSheet } from '../film/schema'
import { choiceFor } from '../plan/piece-choice'
import type { BesidePanels } from '../plan/schema'
import type { Panel } from '../vehicle/schema'

/** Raised whenever the same panel would be solved to another stretch: what was kept before then no longer counts. */
const STRETCH_VERSION = 4
/** Triangles of the surface that figures settle on. */
export const STRETCH_FINENESS = 3000

const AT_SIDE = ['at', 'radiusMm', 'angleDeg'] as const
/** Fields in the order of their schema: a panel typed just now has the key of the one that is read back. */
export const FIELD_ORDER = {
  panel: [
    'id',
    'name',
    'kind',
    'side',
    'widthMm',
    'heightMm',
    'crownMm',
    'crownOverMm',
    'cornerRadiusMm',
    'edges',
    'recesses',
    'crownDownMm',
    'crownDownOverMm',
    'nose',
    'wraps',
    'bodyLines',
    'raised',
    'holes',
    'zones',
    'surface',
    'paintNote',
    'mirrored',
    'wrap',
    'filmId',
    'assumed',
    'note',
  ],
  recess: [
    'id',
    'name',
    'mouthWidthMm',
    'mouthHeightMm',
    'depthMm',
    'wallDeg',
    'open',
    'way',
    'gapMm',
    'bendRadiusMm',
    'openAt',
    'xMm',
    'yMm',
  ],
  nose: AT_SIDE,
  wrap: AT_SIDE,
  bodyLine: ['id', 'name', 'along', 'atMm', 'radiusMm', 'seam', 'foldDeg'],
  // How film lies behind an object changes nothing of the panel's own.
  raised: ['id', 'name', 'kind', 'widthMm', 'heightMm', 'xMm', 'yMm', 'removable', 'minutes', 'riseMm'],
  hole: ['id', 'name', 'widthMm', 'heightMm', 'xMm', 'yMm'],
  slit: ['fromXMm', 'fromYMm', 'toXMm', 'toYMm'],
} as const

/** These fields of a thing, in this order. */
const inOrder = <T extends object>(thing: T, fields: readonly (keyof T & string)[]): Record<string, unknown> =>
  Object.fromEntries(fields.map((field) => [field, thing[field]]))

const shapes = new WeakMap<Panel, Record<string, unknown>>()
/** What of a panel bends its surface. */
function shapeOf(panel: Panel): Record<string, unknown> {
  const known = shapes.get(panel)
  if (known) return known
  // Names, notes, neighbours, gaps and what is assumed do not bend a surface.
  const shape = {
    ...inOrder(panel, FIELD_ORDER.panel),
    edges: panel.edges.map((e) => [e.id, e.at, e.lengthMm, e.meets, e.riseMm, e.cornerDeg, e.cornerRadiusMm]),
    recesses: panel.recesses.map((r) => inOrder(r, FIELD_ORDER.recess)),
    nose: panel.nose && inOrder(panel.nose, FIELD_ORDER.nose),
    wraps: panel.wraps.map((w) => inOrder(w, FIELD_ORDER.wrap)),
    bodyLines: panel.bodyLines.map((l) => inOrder(l, FIELD_ORDER.bodyLine)),
    raised: panel.raised.map((r) => inOrder(r, FIELD_ORDER.raised)),
    holes: panel.holes.map((h) => inOrder(h, FIELD_ORDER.hole)),
    id: '',
    name: '',
    note: '',
    paintNote: '',
    assumed: [],
    filmId: null,
    wrap: true,
    mirrored: true,
    surface: null,
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
      slits.map((s) => inOrder(s, FIELD_ORDER.slit)),
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
