import { z } from 'zod'
import { FilmSheet } from '../film/schema'
import { WallTime, Note, Name, Id } from '../values/values'
import { Method } from '../method/schema'
import { itemKey } from './item-key'
import { MAX_PANELS } from '../vehicle/kinds'
import { Panel, Vehicle } from '../vehicle/schema'
import { Walkaround } from '../vehicle/walkaround-schema'

export const FORMAT = 'cuirass/job@3'

const FlatRing = z
  .array(z.tuple([z.number().min(-1000).max(30000), z.number().min(-1000).max(30000)]))
  .min(3)
  .max(160)

/** How one panel is broken into pieces. A panel without an entry is one piece by the method's bleed. */
export const PieceChoice = z.strictObject({
  panelId: Id,
  parts: z.number().int().min(1).max(12),
  /** `height`: seams run across, so that the panel's height is divided. */
  along: z.enum(['width', 'height']),
  /** Stretched first by this much, then shrunk on by heat [–]. */
  preStretch: z.number().min(0).max(0.4),
  bleedMm: z.number().min(0).max(300).nullable(),
  /** Where the seams lie along the divided side, mm from its left or top; empty: in equal parts. */
  seamsAtMm: z.array(z.number().gt(0).max(20000)).max(11).default([]),
  /** Relief cuts, straight along the surface, mm from the panel's top left. */
  slits: z
    .array(
      z.strictObject({
        fromXMm: z.number().min(0).max(20000),
        fromYMm: z.number().min(0).max(20000),
        toXMm: z.number().min(0).max(20000),
        toYMm: z.number().min(0).max(20000),
      }),
    )
    .max(12)
    .default([]),
  /**
   * Flat outlines of its pieces as they were solved, without bleed, mm; `mark` tells for which panel and seams they
   * hold.
   */
  flat: z
    .strictObject({
      mark: z.string().max(40),
      parts: z.array(FlatRing).min(1).max(12),
      /** Those of its inlays, each by its recess. */
      inlays: z
        .array(z.strictObject({ recess: z.string().max(80), outline: FlatRing }))
        .max(12)
        .default([]),
    })
    .nullable()
    .default(null),
})

export type PieceChoice = z.infer<typeof PieceChoice>

export const Placement = z.strictObject({
  pieceId: z.string().max(80),
  xMm: z.number().min(0).max(3000),
  yMm: z.number().min(0).max(200000),
  widthMm: z.number().gt(0).max(20000),
  lengthMm: z.number().gt(0).max(20000),
  /** How the piece lies against its arrow: 180 is upside down. */
  turnDeg: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]),
  /** Stays where it is when the rest is laid out anew. */
  locked: z.boolean().default(false),
})

export const KeptLayout = z.strictObject({
  filmId: Id,
  /** Mark of the pieces it was made from; another mark now means that the plan has moved on. */
  mark: z.string().max(40),
  /** Proven least length when it was kept, mm; null where it was not reckoned. */
  boundMm: z.number().min(0).nullable().default(null),
  rolls: z
    .array(
      z.strictObject({
        /** The roll or rest on the rack, or `new-1`, `new-2` … for what is to be bought. */
        id: z.string().max(60),
        widthMm: z.number().gt(0),
        usedMm: z.number().min(0),
        placements: z.array(Placement).max(1000),
      }),
    )
    .max(60),
})

export type KeptLayout = z.infer<typeof KeptLayout>

/** Every item that stands under one id with another of its list, wherever in a document. */
function idsTwice(value: unknown, path: (string | number)[] = []): { path: (string | number)[] }[] {
  if (Array.isArray(value)) {
    const seen = new Set<string>()
    return value.flatMap((item, i) => {
      const key = itemKey(item)
      const twice = key !== null && seen.has(key)
      if (key !== null) seen.add(key)
      return [...(twice ? [{ path: [...path, i, 'id'] }] : []), ...idsTwice(item, [...path, i])]
    })
  }
  if (typeof value !== 'object' || value === null) return []
  return Object.entries(value).flatMap(([key, item]) => idsTwice(item, [...path, key]))
}

/** The plan of a job: one document. Millimetres, °C, minutes, fractions; local wall times without a zone. */
export const Plan = z
  .strictObject({
    format: z.literal(FORMAT),
    name: Name,
    customerRef: z.string().max(120),
    vehicle: Vehicle,
    walkaround: Walkaround,
    /** The main film, and the sheet of each film chosen as it stood when it was chosen. */
    film: z.strictObject({ mainId: Id.nullable(), sheets: z.array(FilmSheet).max(20) }),
    method: Method,
    panels: z.array(Panel).max(MAX_PANELS),
    pieces: z.array(PieceChoice).max(MAX_PANELS),
    layout: z.strictObject({
      gapMm: z.number().min(0).max(100),
      rollWidthMm: z.number().min(100).max(3000).nullable(),
      seed: z.number().int().min(0).max(1e9),
      /** By hand in straight cuts, across the roll first; or by machine, any placement. */
      cutting: z.enum(['crosscut', 'free']).default('crosscut'),
      /** Stages of straight cuts: across, lengthwise, across … */
      stages: z.number().int().min(2).max(6).default(3),
      /** Left unused along both edges of the roll. */
      trimMm: z.number().min(0).max(100).default(0),
      /** Film set aside for pieces that may have to be done twice. */
      reserve: z.boolean().default(true),
      /** Drops of a print over a side. */
      drops: z
        .strictObject({
          /** Null: as wide as the film less its trim. */
          printableMm: z.number().min(100).max(3000).nullable(),
          distanceMm: z.number().min(0).max(500),
          bleedMm: z.number().min(0).max(200),
          airflow: z.enum(['front_over_rear', 'rear_over_front']),
          /** The sides of a printed job are laid as drops, not panel by panel. */
          use: z.boolean().default(true),
          /** Strips standing side by side, lying one over the other, or whichever takes fewer and then less film. */
          run: z.enum(['fewest', 'upright', 'level']).default('fewest'),
          /** Lettering that no seam may cross, on one side of the vehicle, mm from its front and from its top. */
          lettering: z
            .array(
              z.strictObject({
                id: Id,
                name: Name,
                side: z.enum(['left', 'right']),
                fromFrontMm: z.number().min(0).max(20000),
                fromTopMm: z.number().min(0).max(10000),
                widthMm: z.number().gt(0).max(20000),
                heightMm: z.number().gt(0).max(10000),
              }),
            )
            .max(24)
            .default([]),
        })
        .default({
          printableMm: null,
          distanceMm: 50,
          bleedMm: 30,
          airflow: 'front_over_rear',
          use: true,
          run: 'fewest',
          lettering: [],
        }),
      /** Panels whose pieces are cut side by side from one length, as bumpers are. */
      together: z
        .array(z.tuple([Id, Id]))
        .max(40)
        .default([]),
      /** How sheet goods are laid on a hull or side. */
      sheets: z
        .strictObject({
          rips: z.number().int().min(1).max(12),
          overlapMm: z.number().min(0).max(200).nullable(),
          exposed: z.strictObject({ fore: z.boolean(), aft: z.boolean(), top: z.boolean(), bottom: z.boolean() }),
        })
        .default({ rips: 2, overlapMm: null, exposed: { fore: true, aft: true, top: true, bottom: true } }),
      /** Where a film is taken from: `new:<width>`, `lot:<lot>`; what is not named is the cheapest. */
      sources: z
        .array(z.strictObject({ filmId: Id, source: z.string().min(1).max(160) }))
        .max(20)
        .default([]),
      kept: z.array(KeptLayout).max(20),
    }),
    runSheet: z.strictObject({
      crew: z.number().int().min(1).max(12),
      startAt: WallTime.nullable(),
      paceFactor: z.number().min(0.5).max(6),
      skip: z.array(z.string().max(80)).max(400),
      /** Minutes that somebody typed over the shop's rules, by step. */
      minutes: z.record(z.string().max(80), z.number().min(0).max(6000)).default({}),
      /** Steps that begin at a moment that somebody locked them to, and at no other. */
      locks: z.record(z.string().max(80), WallTime).default({}),
      /** Steps of the shop's own, each after another one. */
      own: z
        .array(
          z.strictObject({
            id: z.string().regex(/^own:[a-z0-9-]{1,60}$/),
            name: Name,
            minutes: z.number().min(0).max(6000),
            people: z.number().int().min(1).max(12),
            after: z.string().max(80),
          }),
        )
        .max(60)
        .default([]),
      /** When the customer was promised the vehicle. */
      promisedAt: WallTime.nullable().default(null),
    }),
    /** The room and the vehicle before the work: what warming and drying are reckoned from. */
    conditions: z
      .strictObject({
        vehicleC: z.number().min(-40).max(80).nullable(),
        massKg: z.number().min(5).max(40000).nullable(),
        wet: z.boolean(),
        /** The room as it is expected on the day; null: as the shop's air was last read. */
        airC: z.number().min(-20).max(60).nullable(),
        humidity: z.number().min(0.01).max(1).nullable(),
      })
      .default({ vehicleC: null, massKg: null, wet: true, airC: null, humidity: null }),
    note: Note,
  })
  .superRefine((plan, ctx) => {
    for (const twice of idsTwice(plan)) ctx.addIssue({ code: 'custom', path: twice.path, message: 'duplicate_id' })
    const ids = new Map<string, number>()
    plan.panels.forEach((panel, i) => {
      ids.set(panel.id, i)
      panel.recesses.forEach((r, j) => {
        if (r.mouthWidthMm > panel.widthMm)
          ctx.addIssue({
            code: 'custom',
            path: ['panels', i, 'recesses', j, 'mouthWidthMm'],
            message: 'recess_larger_than_panel',
          })
        else if (r.mouthHeightMm > panel.heightMm)
          ctx.addIssue({
            code: 'custom',
            path: ['panels', i, 'recesses', j, 'mouthHeightMm'],
            message: 'recess_larger_than_panel',
          })
      })
      panel.edges.forEach((edge, j) => {
        if (edge.leaveMm !== null && edge.leaveMm > Math.min(panel.widthMm, panel.heightMm) / 2)
          ctx.addIssue({
            code: 'custom',
            path: ['panels', i, 'edges', j, 'leaveMm'],
            message: 'flange_wider_than_panel',
          })
      })
      if (panel.crownMm > 0 && panel.crownMm > panel.crownOverMm / 2)
        ctx.addIssue({ code: 'custom', path: ['panels', i, 'crownMm'], message: 'crown_deeper_than_half' })
      if ((panel.crownDownMm ?? 0) > panel.crownDownOverMm / 2)
        ctx.addIssue({ code: 'custom', path: ['panels', i, 'crownDownMm'], message: 'crown_deeper_than_half' })
    })
    plan.pieces.forEach((choice, i) => {
      if (!ids.has(choice.panelId))
        ctx.addIssue({ code: 'custom', path: ['pieces', i, 'panelId'], message: 'no_such_panel' })
    })
    const films = new Set(plan.film.sheets.map((s) => s.id))
    if (plan.film.mainId && !films.has(plan.film.mainId))
      ctx.addIssue({ code: 'custom', path: ['film', 'mainId'], message: 'no_such_film' })
    plan.panels.forEach((panel, i) => {
      if (panel.filmId && !films.has(panel.filmId))
        ctx.addIssue({ code: 'custom', path: ['panels', i, 'filmId'], message: 'no_such_film' })
    })
  })
export type Plan = z.infer<typeof Plan>
/** A plan without its panels: what of it every panel hangs on beside itself. */
export type BesidePanels = Omit<Plan, 'panels'>
