import type { Panel, Vehicle } from '../schema'
import { crownOn } from './shape'
import type { Keys } from './styles'

export type CarStyle = Extract<
  Vehicle['kind'],
  'city_car' | 'saloon' | 'estate' | 'roadster' | 'suv' | 'pickup' | 'small_van' | 'high_van' | 'minibus'
>
export const VANS: readonly CarStyle[] = ['small_van', 'high_van', 'minibus']
export const GAP_MM = 4
/** Runs shorter than this are not told apart from their neighbour's length. */
export const LEAST_RUN_MM = 12
/** Radius round which a bumper's ends turn, mm. Assumed. */
export const END_RADIUS_MM = 180
export const clamp = (v: number, low: number, high: number): number => Math.max(low, Math.min(high, v))
/** The few lines in a body's side and plan that all its panels hang on, from the key lengths; all mm. */
export function lines(style: CarStyle, k: Keys) {
  const g = (key: string): number => k[key] ?? 0
  const arch = g('wheel') * 0.56
  const wheelbase = Math.min(g('wheelbase'), g('length') - 4 * arch - 160)
  const front = Math.min((g('length') - wheelbase) * 0.45, 1150)
  const frontAxle = clamp(front, arch + 110, g('length') - wheelbase - arch - 110)
  const rearAxle = frontAxle + wheelbase
  const wrap = clamp(frontAxle - arch - 40, 60, 190)
  const rearWrap = clamp(g('length') - rearAxle - arch - 40, 60, 190)
  const sillHeight = clamp((g('belt') - g('sill')) * 0.2, 80, 180)
  const doorHeight = g('belt') - g('sill') - sillHeight
  const doorFrom = frontAxle + arch + 90
  const doorTo = rearAxle - arch - 60
  const bumperHeight = (g('belt') - g('sill')) * 0.55
  const window = Math.max(120, (g('height') - g('belt')) * 0.9)
  return {
    g,
    style,
    arch,
    frontAxle,
    rearAxle,
    wrap,
    rearWrap,
    sillHeight,
    doorHeight,
    doorFrom,
    doorTo,
    bumperHeight,
    window,
    van: VANS.includes(style),
    end: g('length'),
    sill: g('sill'),
    belt: g('belt'),
    frontWidth: g('width') * 0.8,
    screenWidth: g('width') * 0.9,
    drop: (g('belt') - g('sill')) * 0.14,
    bonnet: g('bonnet'),
    roof: g('roof'),
    roofWidth: g('roofWidth'),
    boot: g('boot'),
  }
}

export type Lines = ReturnType<typeof lines>
/**
 * How a length is shared with a neighbour: the shared run and what is left over, told apart only where it is worth
 * it.
 */
export function share(own: number, other: number): { shared: number; rest: number } {
  const shared = Math.min(own, other)
  return own - shared < LEAST_RUN_MM ? { shared: own, rest: 0 } : { shared, rest: own - shared }
}

export const wingTop = (l: Lines): number => Math.hypot(l.doorFrom - l.wrap, l.drop)
export const bonnetSide = (l: Lines): number => Math.hypot(l.bonnet, (l.screenWidth - l.frontWidth) / 2)
/** A bumper's ends turn round the corners of the body. Assumed until a gauge has been laid on. */
export function ends(wrapMm: number): Panel['wraps'] {
  const angleDeg = Math.min(65, (wrapMm * 1.3 * 180) / (END_RADIUS_MM * Math.PI))
  return (['left', 'right'] as const).map((at) => ({ at, radiusMm: END_RADIUS_MM, angleDeg: Math.round(angleDeg) }))
}

export const lastColumn = (l: Lines): string => (l.van ? 'side-aft' : l.style === 'pickup' ? 'bed-side' : 'quarter')
export const rearLid = (l: Lines): string =>
  l.style === 'pickup' ? 'tailgate' : l.style === 'saloon' || l.style === 'roadster' ? 'boot-lid' : 'hatch'
export const rearWidth = (l: Lines): number =>
  l.van ? Math.min(l.g('width') * 0.86, l.roofWidth - 40) : l.g('width') * (l.style === 'pickup' ? 0.86 : 0.7)
export const archRise = (l: Lines, height: number): number => Math.min(l.arch * 0.85, height * 0.7)
export const pillarWidth = (l: Lines): number => Math.min(95, (l.doorTo - l.doorFrom) * 0.1)
export const crown200 = (l: Lines) => crownOn(l.van ? 280 : 250, 200, 800, 500)
