import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Panel } from '../../model/vehicle/schema'
import type { Piece } from '../pieces/pieces'

/** Rear forward, so that overlaps lie with the airflow; mirrors and handles last. Common practice, no source. */
export const LAY_ORDER: readonly Panel['kind'][] = [
  'rear_bumper',
  'tailgate',
  'hatch',
  'boot_lid',
  'spoiler',
  'bed_side',
  'quarter',
  'van_side',
  'box_side',
  'hull_side',
  'tank_shell',
  'fairing',
  'sill',
  'door',
  'pillar',
  'roof',
  'wing',
  'bonnet',
  'front_bumper',
  'fuel_flap',
  'other',
  'mirror',
  'handle',
  'aerial',
]

export const layRank = (panel: Panel | undefined): number => (panel ? LAY_ORDER.indexOf(panel.kind) : 99)

/**
 * The pieces of one panel in the order in which they are laid: inlays under what covers them, overlays last; sheets as they are
 * numbered, aft to fore and the lowest row first; parts from below, or from the rear, so that each lap faces away from
 * the wind. Common practice, no source.
 */
export function layingOrder(panel: Panel, pieces: readonly Piece[]): Piece[] {
  const inlays = pieces.filter((p) => p.inlay && !p.over)
  const overlays = pieces.filter((p) => p.over)
  const main = pieces.filter((p) => !p.inlay)
  const [first] = main
  if (!first || first.reach) return [...inlays, ...main, ...overlays]
  // Parts are numbered from the top, and from the left as the panel is looked at.
  const lower = first.along === 'height' && PANEL_FACTS[panel.kind].surface === 'vertical'
  const rearIsLast = first.along === 'height' || panel.side === 'left'
  return [...inlays, ...(lower || rearIsLast ? [...main].reverse() : main), ...overlays]
}
