import type { Panel } from '../schema'
import { bonnet, frontBumper, wing } from './car-front'
import { CarStyle, lines } from './car-lines'
import { rear, rearBumper, spoiler } from './car-rear'
import { columns, sill } from './car-side'
import { pillars, roof, small } from './car-top'
import { bothSides } from './shape'
import type { Keys } from './styles'

/** Panels of a car, pick-up or van with all their neighbours, in walking order from the front left. */
export function carPanels(style: CarStyle, keys: Keys): Panel[] {
  const l = lines(style, keys)
  const mid = columns(l)
  return [
    frontBumper(l),
    bonnet(l),
    ...bothSides([wing(l), ...mid, sill(l, mid)]),
    roof(l, mid),
    ...rear(l),
    rearBumper(l),
    ...bothSides([...pillars(l), ...small(l)]),
    ...(style === 'city_car' || style === 'suv' ? [spoiler(l)] : []),
  ]
}
