import type { Edge, Panel } from './schema'

/**
 * What a kind of panel usually is. All common practice, no source; minutes are assumed for an experienced wrapper
 * (who lays a bonnet in about 10 minutes) and are multiplied by the job's pace.
 */
export interface PanelFacts {
  surface: 'vertical' | 'horizontal'
  /** Sides and bumpers all lie the same way up a directional roll; bonnet and roof may go either way. */
  sameWayUp: boolean
  people: number
  layMinPerM2: number
  /** What top, right, bottom and left edges usually meet. */
  edges: [Edge['meets'], Edge['meets'], Edge['meets'], Edge['meets']]
  /** The largest side that is believable, mm (assumed). */
  plausibleMm: number
  /** Must shrink lengthwise, so the roll's direction lies along its width. */
  rollAlongWidth?: boolean
  /** Compound by nature, even where no crown was taken. */
  compound?: boolean
}

const gap: PanelFacts['edges'] = ['fixed_gap', 'fixed_gap', 'fixed_gap', 'fixed_gap']
const opening: PanelFacts['edges'] = ['opening', 'opening', 'opening', 'opening']
const flat = (over: Partial<PanelFacts>): PanelFacts => ({
  surface: 'vertical',
  sameWayUp: true,
  people: 1,
  layMinPerM2: 10,
  edges: gap,
  plausibleMm: 2500,
  ...over,
})

// Left unformatted as a table: a row per kind of panel.
// prettier-ignore
export const PANEL_FACTS: Record<Panel['kind'], PanelFacts> = {
  bonnet: flat({ surface: 'horizontal', sameWayUp: false, people: 2, layMinPerM2: 7, edges: opening, plausibleMm: 2200 }),
  roof: flat({ surface: 'horizontal', sameWayUp: false, people: 2, layMinPerM2: 7, edges: ['window_trim', 'drip_rail',
    'window_trim', 'drip_rail'], plausibleMm: 14000 }),
  door: flat({ edges: ['window_trim', 'opening', 'opening', 'opening'], plausibleMm: 3100 }),
  wing: flat({ edges: ['fixed_gap', 'fixed_gap', 'wheel_arch', 'fixed_gap'], plausibleMm: 2000 }),
  quarter: flat({ edges: ['window_trim', 'fixed_gap', 'wheel_arch', 'fixed_gap'], plausibleMm: 3000 }),
  front_bumper: flat({ people: 2, layMinPerM2: 25, edges: ['fixed_gap', 'wheel_arch', 'bumper_underside', 'wheel_arch'],
    compound: true, plausibleMm: 3000 }),
  rear_bumper: flat({ people: 2, layMinPerM2: 25, edges: ['fixed_gap', 'wheel_arch', 'bumper_underside', 'wheel_arch'],
    compound: true, plausibleMm: 3000 }),
  boot_lid: flat({ surface: 'horizontal', edges: opening, layMinPerM2: 14, people: 2, plausibleMm: 1800 }),
  hatch: flat({ edges: ['window_trim', 'opening', 'opening', 'opening'], layMinPerM2: 14, people: 2, plausibleMm: 1900 }),
  tailgate: flat({ edges: opening, plausibleMm: 2000 }),
  bed_side: flat({ edges: ['rubber_seal', 'fixed_gap', 'wheel_arch', 'fixed_gap'], plausibleMm: 3000 }),
  mirror: flat({ layMinPerM2: 120, edges: ['fixed_gap', 'fixed_gap', 'fixed_gap', 'rubber_seal'], compound: true,
    plausibleMm: 600 }),
  handle: flat({ layMinPerM2: 300, edges: ['free', 'free', 'free', 'free'], rollAlongWidth: true, compound: true,
    plausibleMm: 500 }),
  aerial: flat({ surface: 'horizontal', layMinPerM2: 300, edges: ['rubber_seal', 'rubber_seal', 'rubber_seal', 'rubber_seal'],
    compound: true, plausibleMm: 500 }),
  pillar: flat({ layMinPerM2: 40, edges: ['drip_rail', 'window_trim', 'fixed_gap', 'window_trim'], plausibleMm: 1500 }),
  sill: flat({ layMinPerM2: 20, edges: ['opening', 'wheel_arch', 'bumper_underside', 'wheel_arch'], plausibleMm: 14000 }),
  spoiler: flat({ surface: 'horizontal', layMinPerM2: 30, edges: ['free', 'free', 'free', 'free'], compound: true,
    plausibleMm: 1800 }),
  van_side: flat({ people: 2, edges: ['drip_rail', 'fixed_gap', 'wheel_arch', 'opening'], plausibleMm: 8000 }),
  box_side: flat({ people: 2, layMinPerM2: 6, edges: ['bead', 'bead', 'bead', 'bead'], plausibleMm: 14000 }),
  fuel_flap: flat({ layMinPerM2: 100, edges: opening, plausibleMm: 400 }),
  hull_side: flat({ people: 2, layMinPerM2: 12, edges: ['free', 'fixed_gap', 'free', 'free'], plausibleMm: 14000 }),
  fairing: flat({ layMinPerM2: 40, edges: ['free', 'fixed_gap', 'free', 'fixed_gap'], compound: true, plausibleMm: 1500 }),
  tank_shell: flat({ people: 2, layMinPerM2: 8, edges: ['fixed_gap', 'bead', 'fixed_gap', 'bead'], plausibleMm: 14000 }),
  other: flat({ plausibleMm: 8000 }),
}
