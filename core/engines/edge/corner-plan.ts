import { ASSUMED_CORNER_MM, CORNER_LEAVE_MM, THICK_FILM_UM, TIGHT_CORNER_MM } from '../../model/edge/cut-rules'
import { EDGE_RULES } from '../../model/edge/edge-data'
import { figure, input, type Figure } from '../../model/figure/figure'
import { filmStanding } from '../../model/film/film-data'
import { keptFor } from '../../kit/kept'
import type { FilmSheet } from '../../model/film/schema'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Edge, Panel } from '../../model/vehicle/schema'
import { cornerSqueeze180, cornerSqueeze90 } from '../stretch/closed-forms'
import { GEOMETRY } from '../stretch/sources'
import { filmClass } from '../../model/edge/edge-leave'
import type { EdgeDecision } from './edge-plan'

export const CORNER_METHODS = ['cold_hook', 'shaped', 'shrunk', 'relief', 'seam'] as const
export type CornerMethod = (typeof CORNER_METHODS)[number]

export type CornerWhy =
  | 'heat_is_enough'
  | 'film_bears_pull'
  | 'bears_pull_warm'
  | 'thick_or_tight'
  | 'mirror_never_pulled'
  | 'stiff_never_pulled'
  | 'cut_is_hidden'
  | 'nothing_is_hidden'
  | 'more_than_it_bears'
  | 'radius_assumed'

/** How the film gets round one corner between two turned edges. Lengths mm, the rest fractions. */
export interface CornerDecision {
  /** Piece and the edge at whose end it lies; on a piece over several panels the panel's edge, `door.top`. */
  id: `${string}/${string}`
  pieceId: string
  panelId: string
  between: [string, string]
  radiusMm: number
  angleDeg: number
  leaveMm: number
  method: CornerMethod
  squeeze: number
  shrinks: number
  pull: number
  limit: number
  why: CornerWhy[]
  figures: Figure[]
}

/** The corners of one piece: where two of its edges that are turned in follow each other on one panel. */
export const cornersOfPiece = keptFor(
  (edges: readonly EdgeDecision[], film: FilmSheet, ...panels: Panel[]): readonly CornerDecision[] => {
    const turned = edges.filter((e) => e.cut === 'own_underside')
    return panels.flatMap((panel) => {
      const decided = new Map(turned.filter((e) => e.panelId === panel.id).map((e) => [e.edgeId, e]))
      return panel.edges.flatMap((edge, i) => {
        const after = panel.edges[(i + 1) % panel.edges.length]
        const [a, b] = [edge, after].map((e) => (e ? decided.get(e.id) : undefined))
        return after && a && b
          ? [corner(panel, film, { pieceId: a.pieceId, several: panels.length > 1 }, edge, after)]
          : []
      })
    })
  },
)

function corner(
  panel: Panel,
  film: FilmSheet,
  { pieceId, several }: { pieceId: string; several: boolean },
  ...[edge, after]: [Edge, Edge]
): CornerDecision {
  const taken = edge.cornerRadiusMm ?? panel.cornerRadiusMm
  const radiusMm = taken ?? ASSUMED_CORNER_MM
  const under = EDGE_RULES[edge.meets].under && EDGE_RULES[after.meets].under
  const squeeze = (under ? cornerSqueeze180 : cornerSqueeze90)(CORNER_LEAVE_MM, radiusMm)
  const pull = Math.max(0, (1 + squeeze) * (1 - film.heatShrink) - 1)
  const limit = Math.min(film.preStretchMax.cold, film.stretchLimit)
  const chosen = choose({ film, squeeze, pull, limit, radiusMm, hidden: under })
  const id = `${pieceId}/${several ? `${panel.id}.` : ''}${edge.id}` as const
  return {
    id,
    pieceId,
    panelId: panel.id,
    between: [edge.id, after.id],
    radiusMm,
    angleDeg: edge.cornerDeg ?? 90,
    leaveMm: CORNER_LEAVE_MM,
    method: chosen.method,
    squeeze,
    shrinks: film.heatShrink,
    pull,
    limit,
    why: [...chosen.why, ...(taken === null ? (['radius_assumed'] as const) : [])],
    figures: cornerWorking({ id, panel, film, edge, under, radiusMm, squeeze, pull, limit, isTaken: taken !== null }),
  }
}

/**
 * Method of a corner. What heat cannot shrink the pull has to give; stiff and mirror films are never pulled; a cut is
 * made on the hidden side only. Common practice, no source.
 */
export function choose(c: {
  film: Pick<FilmSheet, 'kind' | 'heatShrink' | 'preStretchMax' | 'stretchLimit' | 'thicknessUm'>
  squeeze: number
  pull: number
  limit: number
  radiusMm: number
  hidden: boolean
}): { method: CornerMethod; why: CornerWhy[] } {
  const kind = filmClass(c.film)
  if (c.squeeze <= c.film.heatShrink) return { method: 'shrunk', why: ['heat_is_enough'] }
  const cutOrSeam = (why: CornerWhy): { method: CornerMethod; why: CornerWhy[] } =>
    c.hidden ? { method: 'relief', why: [why, 'cut_is_hidden'] } : { method: 'seam', why: [why, 'nothing_is_hidden'] }
  if (kind === 'mirror') return cutOrSeam('mirror_never_pulled')
  if (kind === 'stiff') return cutOrSeam('stiff_never_pulled')
  const warm = Math.min(c.film.preStretchMax.warm, c.film.stretchLimit)
  const isHard = c.film.thicknessUm > THICK_FILM_UM || c.radiusMm < TIGHT_CORNER_MM
  if (isHard && c.pull <= warm) return { method: 'shaped', why: ['thick_or_tight'] }
  if (c.pull <= c.limit) return { method: 'cold_hook', why: ['film_bears_pull'] }
  if (c.pull <= warm) return { method: 'shaped', why: ['bears_pull_warm'] }
  return cutOrSeam('more_than_it_bears')
}

function cornerWorking(c: {
  id: `${string}/${string}`
  panel: Panel
  film: FilmSheet
  edge: Edge
  under: boolean
  radiusMm: number
  squeeze: number
  pull: number
  limit: number
  isTaken: boolean
}): Figure[] {
  const { id, panel, film, edge } = c
  const at = edge.cornerRadiusMm === null ? 'cornerRadiusMm' : `edges/${edge.id}/cornerRadiusMm`
  const standing = !c.isTaken
    ? 'assumed'
    : edge.cornerRadiusMm === null
      ? measureStanding(panel, 'cornerRadiusMm')
      : measureStanding(panel, `edges.${edge.id}`)
  const squeeze = figure({
    id: `corner/${id}/squeeze`,
    value: c.squeeze,
    unit: 'fraction',
    formula: c.under ? '2 × {flange} ÷ ({radius} + {flange})' : '{flange} ÷ ({radius} + {flange})',
    inputs: [
      input('flange', CORNER_LEAVE_MM, 'mm', 'common_practice', `panels/${panel.id}/edges`),
      input('radius', c.radiusMm, 'mm', standing, `panels/${panel.id}/${at}`),
    ],
    source: GEOMETRY,
  })
  const pull = figure({
    id: `corner/${id}/pull`,
    value: c.pull,
    unit: 'fraction',
    formula: '(1 + {squeeze}) × (1 − {shrinks}) − 1',
    inputs: [
      input('squeeze', c.squeeze, 'fraction', squeeze.standing, `figure:corner/${id}/squeeze`),
      input('shrinks', film.heatShrink, 'fraction', filmStanding(film, 'heatShrink'), `film/${film.id}/heatShrink`),
    ],
    standing: 'assumed',
    limit: {
      value: c.limit,
      unit: 'fraction',
      kind: 'max',
      standing: filmStanding(film, 'preStretchMax'),
      at: `film/${film.id}/preStretchMax`,
    },
  })
  return [squeeze, pull]
}
