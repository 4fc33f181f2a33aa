import { z } from 'zod'
import { Hex, Id, IsoDate, Name, Note } from '../film/schema'

export const PANEL_KINDS = [
  'bonnet', 'roof', 'door', 'wing', 'quarter', 'front_bumper', 'rear_bumper', 'boot_lid', 'hatch', 'tailgate', 'bed_side',
  'mirror', 'handle', 'pillar', 'sill', 'spoiler', 'van_side', 'box_side', 'fuel_flap', 'other',
] as const // prettier-ignore
export const SIDES = ['left', 'right', 'centre', 'front', 'rear'] as const
export const EDGE_MEETS = [
  'opening', 'fixed_gap', 'rubber_seal', 'window_trim', 'wheel_arch', 'drip_rail', 'bumper_underside', 'lamp', 'free', 'bead',
] as const // prettier-ignore
export const VEHICLE_KINDS = ['city_car', 'saloon', 'estate', 'roadster', 'suv', 'pickup', 'small_van', 'high_van', 'minibus', 'box_body', 'trailer', 'motorcycle', 'boat', 'other'] as const // prettier-ignore

/** No body part is longer than this; a larger figure is a slip of the pen (assumed). */
export const MAX_PANEL_MM = 15000
export const MAX_PANELS = 500

const size = z.number().gt(0).max(MAX_PANEL_MM)

export const Recess = z.strictObject({
  id: Id,
  name: Name,
  mouthWidthMm: size,
  mouthHeightMm: size,
  depthMm: z.number().gt(0).max(1000),
  /** Slope of the walls against the panel, 90 = upright. */
  wallDeg: z.number().min(5).max(90),
  /** One side is open, so film can be brought in from there. */
  open: z.boolean(),
  way: z.enum(['bridge', 'feed', 'inlay']),
  /** Free film kept on each side of a bridged recess. */
  gapMm: z.number().min(0).max(1000),
})
export type Recess = z.infer<typeof Recess>

export const Edge = z.strictObject({
  id: Id,
  at: z.enum(['top', 'right', 'bottom', 'left']),
  lengthMm: size,
  meets: z.enum(EDGE_MEETS),
  neighbour: Id.nullable(),
})
export type Edge = z.infer<typeof Edge>

/** A body part. Width and height along the surface, over the highest point, in mm. */
export const Panel = z.strictObject({
  id: Id,
  name: Name,
  kind: z.enum(PANEL_KINDS),
  side: z.enum(SIDES),
  widthMm: size,
  heightMm: size,
  /** Gap under a straightedge of `crownOverMm`; both 0 for a flat panel or one not taken yet. */
  crownMm: z.number().min(0).max(1500),
  crownOverMm: z.number().min(0).max(MAX_PANEL_MM),
  cornerRadiusMm: z.number().min(0).max(2000).nullable(),
  edges: z.array(Edge).min(4).max(24),
  recesses: z.array(Recess).max(24),
  wrap: z.boolean(),
  /** A film other than the job's main one. */
  filmId: Id.nullable(),
  /** Fields not taken by tape yet. */
  assumed: z.array(z.string().max(40)).max(40),
  note: Note,
})
export type Panel = z.infer<typeof Panel>

export const Vehicle = z.strictObject({
  name: Name,
  kind: z.enum(VEHICLE_KINDS),
  colour: z.strictObject({ name: Name, hex: Hex }),
})
export type Vehicle = z.infer<typeof Vehicle>

export const DAMAGE_KINDS = ['chip', 'dent', 'scratch', 'rust', 'peeling_clear', 'previous_film', 'other'] as const
export const Walkaround = z.strictObject({
  paint: z.strictObject({
    origin: z.enum(['unknown', 'factory', 'repaint']),
    ageYears: z.number().min(0).max(120).nullable(),
    repaintedOn: IsoDate.nullable(),
    condition: z.enum(['unknown', 'sound', 'dull', 'peeling', 'rust']),
  }),
  damage: z.array(z.strictObject({ id: Id, panelId: Id.nullable(), kind: z.enum(DAMAGE_KINDS), note: Note })).max(200),
  hardware: z
    .array(
      z.strictObject({
        id: Id,
        name: Name,
        way: z.enum(['remove', 'tape', 'inlay', 'tuck_and_cut']),
        minutes: z.number().min(0).max(600),
      }),
    )
    .max(200),
  zone: z.enum(['mild', 'hot']),
  note: Note,
})
export type Walkaround = z.infer<typeof Walkaround>
