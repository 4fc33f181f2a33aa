import { EDGE_RULES } from '../../model/edge/edge-data'
import { figure, input, type Figure } from '../../model/figure/figure'
import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel } from '../../model/vehicle/schema'
import { cornerSqueeze180, cornerSqueeze90 } from './closed-forms'
import { GEOMETRY } from './sources'

/** Squeeze of the film that is turned in round a panel's corners, by the edge that takes most of it. */
export function cornerFigures(panel: Panel, film: FilmSheet): Figure[] {
  const radius = panel.cornerRadiusMm
  if (radius === null) return []
  const rules = panel.edges.map((e) => EDGE_RULES[e.meets]).filter((r) => r.wrapUnderMm > 0)
  const deepest = rules.sort((a, b) => b.wrapUnderMm * (b.under ? 2 : 1) - a.wrapUnderMm * (a.under ? 2 : 1))[0]
  if (!deepest) return []
  const value = (deepest.under ? cornerSqueeze180 : cornerSqueeze90)(deepest.wrapUnderMm, radius)
  return [
    figure(
      `squeeze/${panel.id}/corner`,
      value,
      'fraction',
      deepest.under ? '2 × {flange} ÷ ({radius} + {flange})' : '{flange} ÷ ({radius} + {flange})',
      [
        input('flange', deepest.wrapUnderMm, 'mm', 'common_practice', `panels/${panel.id}/edges`),
        input('radius', radius, 'mm', measureStanding(panel, 'cornerRadiusMm'), `panels/${panel.id}/cornerRadiusMm`),
      ],
      {
        source: GEOMETRY,
        limit: {
          value: film.heatShrink,
          unit: 'fraction',
          kind: 'max',
          standing: filmStanding(film, 'heatShrink'),
          at: `film/${film.id}/heatShrink`,
        },
      },
    ),
  ]
}
