import type { Standing } from '../figure/figure'
import type { Panel } from './schema'

/** A field is assumed by its own name, or as part of an assumed recess, edge or other feature. */
export const measureStanding = (panel: Panel, field: string): Standing =>
  panel.assumed.includes(field) || panel.assumed.includes(field.split('.').slice(0, 2).join('.'))
    ? 'assumed'
    : 'measured'
