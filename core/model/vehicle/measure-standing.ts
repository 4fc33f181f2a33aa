import { keptFor } from '../../kit/kept'
import { weakest, type Standing } from '../figure/figure'
import { outlineOf } from './outline'
import type { Panel } from './schema'

const assumedOf = keptFor((panel: Panel): ReadonlySet<string> => new Set(panel.assumed))

/** A field is assumed by its own name, or as part of an assumed recess, edge or other feature. */
export function measureStanding(panel: Panel, field: string): Standing {
  if (panel.assumed.length === 0) return 'measured'
  const assumed = assumedOf(panel)
  return assumed.has(field) || assumed.has(field.split('.').slice(0, 2).join('.')) ? 'assumed' : 'measured'
}

/** How well a panel's area is known: no better than its sizes, and than its edges where they make its outline. */
export const areaStanding = keptFor((panel: Panel): Standing =>
  weakest([
    measureStanding(panel, 'widthMm'),
    measureStanding(panel, 'heightMm'),
    ...(outlineOf(panel).measured ? panel.edges.map((e) => measureStanding(panel, `edges.${e.id}`)) : []),
  ]),
)
