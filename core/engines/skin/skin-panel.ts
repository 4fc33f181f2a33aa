import type { Box, Point } from '../../kit/plane'
import type { Edge, Panel } from '../../model/vehicle/schema'

export interface SkinPanel {
  id: string
  turnDeg: Turn
  /** Where the panel's own top left box corner lies after turning: box of the placed outline. */
  box: Box
  path: Point[]
  edges: SkinEdge[]
  /** The panel that it sits on (a handle on its door), or null. */
  on: string | null
}

export interface SkinEdge {
  id: string
  meets: Edge['meets']
  neighbour: string | null
  lengthMm: number
  from: Point
  to: Point
  /** Outward. */
  normal: Point
}

/** The usual width of what lies between two panels where none was given, mm (common practice). */
export const GAP_MM: Partial<Record<Edge['meets'], number>> = {
  glass: 500,
  window_trim: 400,
  drip_rail: 20,
  rubber_seal: 15,
  lamp: 60,
}

export const DEFAULT_GAP_MM = 6
export const middle = (e: SkinEdge): Point => ({ x: (e.from.x + e.to.x) / 2, y: (e.from.y + e.to.y) / 2 })
/** Facing runs that differ more than this in length say how far apart their panels lie, hardly where along. */
export const ALIKE = 0.7
/** Front to rear along the strip, then down a side. */
export const ORDER: readonly Panel['kind'][] = [
  'front_bumper',
  'bonnet',
  'roof',
  'spoiler',
  'boot_lid',
  'hatch',
  'tailgate',
  'rear_bumper',
  'wing',
  'door',
  'van_side',
  'box_side',
  'bed_side',
  'quarter',
  'sill',
  'pillar',
  'hull_side',
  'tank_shell',
  'fairing',
  'mirror',
  'handle',
  'aerial',
  'fuel_flap',
  'other',
]

export type Turn = 0 | 90 | 180 | 270
export type Zone = 'left' | 'right' | 'strip'
export const shifted = (s: SkinPanel, dx: number, dy: number): SkinPanel => {
  const move = (p: Point): Point => ({ x: p.x + dx, y: p.y + dy })
  return {
    ...s,
    box: { left: s.box.left + dx, right: s.box.right + dx, top: s.box.top + dy, bottom: s.box.bottom + dy },
    path: s.path.map(move),
    edges: s.edges.map((e) => ({ ...e, from: move(e.from), to: move(e.to) })),
  }
}

export const zoneOf = (p: Panel): Zone => (p.side === 'left' || p.side === 'right' ? p.side : 'strip')
