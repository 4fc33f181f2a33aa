import { z } from 'zod'
import { Hex, Note, Name, Id } from '../values/values'
import {
  MAX_PANEL_MM,
  ATS,
  EDGE_MEETS,
  WIDEST_GAP_MM,
  GRABS,
  TIGHTNESS,
  OPENS,
  CUT_SIDES,
  PANEL_KINDS,
  SIDES,
  RAISED_KINDS,
  BEHIND,
  MATERIALS,
  VEHICLE_KINDS,
} from './kinds'

const size = z.number().gt(0).max(MAX_PANEL_MM)

/** Where something lies on its panel: its centre from the panel's top left, mm; null until it is taken. */
export const place = {
  xMm: z.number().min(0).max(MAX_PANEL_MM).nullable().default(null),
  yMm: z.number().min(0).max(MAX_PANEL_MM).nullable().default(null),
}
const extent = { widthMm: size, heightMm: size, ...place }

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
  /** Inside radius of its bends; null where it was not taken. */
  bendRadiusMm: z.number().min(0).max(500).nullable().default(null),
  /** The side that is open, where one is. */
  openAt: z.enum(ATS).nullable().default(null),
  ...place,
})

export type Recess = z.infer<typeof Recess>

/** One run of the outline. Edges stand clockwise as the panel is looked at: top from the left, right, bottom, left. */
export const Edge = z.strictObject({
  id: Id,
  at: z.enum(ATS),
  /** Along the edge, round its curve where it has one. */
  lengthMm: size,
  meets: z.enum(EDGE_MEETS),
  neighbour: Id.nullable(),
  /** Rise of a curved edge over its chord: outward positive, hollow (a wheel arch) negative, 0 straight. */
  riseMm: z.number().min(-MAX_PANEL_MM).max(MAX_PANEL_MM).default(0),
  /** Width of the gap or seal between this panel and its neighbour. Null: the usual for its kind. */
  gapMm: z.number().min(0).max(WIDEST_GAP_MM, { error: 'a_span_is_no_gap' }).nullable().default(null),
  /** How far away the next panel is where a window, a wheel or nothing lies between; null where it was not taken. */
  spanMm: z.number().gt(WIDEST_GAP_MM).max(5000).nullable().default(null),
  /** Inside angle at this edge's end, where the next one begins; null until it is taken. */
  cornerDeg: z.number().gt(0).lt(360).nullable().default(null),
  cornerRadiusMm: z.number().min(0).max(5000).nullable().default(null),
  /** How often hands and weather take hold of it. */
  grab: z.enum(GRABS).default('usual'),
  /** How a seal sits; null: as its width says. Brittle ones tear when they are lifted. */
  tightness: z.enum(TIGHTNESS).nullable().default(null),
  /** What can be opened so that hands reach this edge; null: as its kind says. */
  opens: z.enum(OPENS).nullable().default(null),
  /** Somebody's own choice for this edge, over the rules: where it is cut, and how much is left. Null: by the rules. */
  cutAs: z.enum(CUT_SIDES).nullable().default(null),
  leaveMm: z.number().min(0).max(120).nullable().default(null),
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
  /** Crown the other way, along the height; null: not taken, so the panel is held to be crowned alike both ways. */
  crownDownMm: z.number().min(0).max(1500).nullable().default(null),
  crownDownOverMm: z.number().min(0).max(MAX_PANEL_MM).default(0),
  /** A nose or roll-over at one side. */
  nose: z
    .strictObject({ at: z.enum(ATS), radiusMm: z.number().gt(0).max(5000), angleDeg: z.number().gt(0).max(270) })
    .nullable()
    .default(null),
  /** Sides at which the panel wraps round, as a bumper's ends do, beside its nose. */
  wraps: z
    .array(
      z.strictObject({ at: z.enum(ATS), radiusMm: z.number().gt(0).max(5000), angleDeg: z.number().gt(0).max(180) }),
    )
    .max(4)
    .default([])
    .refine((w) => new Set(w.map((x) => x.at)).size === w.length, { error: 'duplicate_side' }),
  bodyLines: z
    .array(
      z.strictObject({
        id: Id,
        name: Name,
        along: z.enum(['width', 'height']),
        atMm: z.number().min(0).max(MAX_PANEL_MM),
        radiusMm: z.number().min(0).max(500),
        seam: z.boolean(),
        /** By how much the panel is folded along this line, outward positive; 0: not at all, or not taken. */
        foldDeg: z.number().min(-120).max(120).default(0),
      }),
    )
    .max(12)
    .default([]),
  raised: z
    .array(
      z.strictObject({
        id: Id,
        name: Name,
        kind: z.enum(RAISED_KINDS),
        ...extent,
        removable: z.boolean(),
        minutes: z.number().min(0).max(600),
        /** How far it stands out of the panel; null where it was not taken. */
        riseMm: z.number().min(0).max(500).nullable().default(null),
        /** Where it stays on: film tucked and cut round it, or a small piece of its own behind it, under or over. */
        behind: z.enum(BEHIND).default('tucked'),
      }),
    )
    .max(24)
    .default([]),
  holes: z
    .array(z.strictObject({ id: Id, name: Name, ...extent }))
    .max(24)
    .default([]),
  zones: z
    .array(z.strictObject({ id: Id, name: Name, kind: z.enum(['convex', 'concave']), ...extent }))
    .max(24)
    .default([]),
  surface: z
    .strictObject({ material: z.enum(MATERIALS), thicknessMm: z.number().gt(0).max(100).nullable() })
    .default({ material: 'unknown', thicknessMm: null }),
  paintNote: Note.default(''),
  /** False where this panel is not the mirror of its fellow on the other side. */
  mirrored: z.boolean().default(true),
  wrap: z.boolean(),
  /** A film other than the job's main one. */
  filmId: Id.nullable(),
  /** Fields not taken by tape yet. */
  assumed: z.array(z.string().max(140)).max(120),
  note: Note,
})

export type Panel = z.infer<typeof Panel>

export const Vehicle = z.strictObject({
  name: Name,
  kind: z.enum(VEHICLE_KINDS),
  colour: z.strictObject({ name: Name, hex: Hex }),
  /**
   * The key lengths its panels were started from, mm (and counts), by name; and which of them are still the style's
   * own.
   */
  keys: z.record(z.string().max(40), z.number().min(0).max(30000)).default({}),
  keysAssumed: z.array(z.string().max(40)).max(40).default([]),
  /** Facing edges, mirrored panels and closing outlines may differ by this much. */
  toleranceMm: z.number().min(1).max(200).default(15),
  /** The vehicle of the library it was started from. */
  libraryId: z.uuid().nullable().default(null),
})

export type Vehicle = z.infer<typeof Vehicle>
