import { z } from 'zod'
import { Id, Name, Note, Hex } from '../values/values'
import { FILM_KINDS, STANDED_FIELDS } from './kinds'

/** A zone or surface as a sheet names it; the marks that part them in a table are not part of a name. */
export const SheetWord = z
  .string()
  .trim()
  .min(1)
  .max(60)
  .regex(/^[^/;]+$/)
const span = (min: number, max: number) =>
  z
    .strictObject({ min: z.number().min(min).max(max), max: z.number().min(min).max(max) })
    .refine((s) => s.min <= s.max, { error: 'min_over_max' })

/** No roll holds more of its winding than this share of its length. Assumed. */
const MAX_RESIDUE = 0.15
const lap = z.number().min(0).max(100)

/** How a film handles, and how far its pieces lap. A sheet that says nothing is taken to say what is usual. */
const HANDLING = {
  /** Low slides and lifts off itself, high grabs. */
  firstTack: z.enum(['low', 'medium', 'high']).default('medium'),
  /** Channels in the adhesive let air go. */
  airRelease: z.enum(['channels', 'none']).default('channels'),
  layers: z.enum(['single', 'multi']).default('single'),
  /** False: a dark body shows through. */
  opaque: z.boolean().default(true),
  adhesiveColour: z.enum(['clear', 'grey', 'black', 'white']).default('grey'),
  adhesiveLife: z.enum(['permanent', 'removable']).default('permanent'),
  lamination: z.enum(['built_in', 'to_be_laminated', 'none']).default('none'),
  /** Shapes that it takes. */
  conforms: z.enum(['flat', 'moderate', 'complex']).default('complex'),
  /** Light scratches go with heat. */
  heals: z.boolean().default(false),
  wax: z.enum(['any', 'no_gloss_wax', 'none']).default('any'),
  /** Lap of two pieces at a seam on a body line, of two long ones elsewhere, and of an inlay under its overlay. */
  seamLapMm: lap.default(3),
  longLapMm: lap.default(3),
  inlayLapMm: lap.default(3),
} as const
/** Handling as a sheet that says nothing of it is taken to say, whatever its kind. Assumed. */
export const USUAL_HANDLING = z.strictObject(HANDLING).parse({})

/** A film as its maker's sheet describes it. Lengths mm, temperatures °C, waits in minutes, stretch as a fraction. */
export const FilmSheet = z.strictObject({
  id: Id,
  name: Name,
  maker: Name,
  kind: z.enum(FILM_KINDS),
  finish: z.enum(['gloss', 'satin', 'matte', 'mirror', 'shift', 'print', 'textured']),
  colour: z.strictObject({ name: Name, hex: Hex }),
  thicknessUm: z.number().min(20).max(1000),
  widthsMm: z.array(z.number().min(100).max(3000)).min(1).max(8),
  rollLengthsMm: z.array(z.number().min(500).max(100000)).min(1).max(8),
  soldBy: z.strictObject({
    unit: z.enum(['metre', 'half_metre', 'roll', 'sheet']),
    minimumMm: z.number().min(0).max(100000),
    /** Price per metre of length, per roll of the first roll length, or per sheet, in the shop's currency. */
    price: z.number().min(0).max(100000),
  }),
  /** How else a width is sold; for a width named here these hold in place of `soldBy`. */
  offers: z
    .array(
      z.strictObject({
        widthMm: z.number().min(100).max(3000),
        unit: z.enum(['metre', 'half_metre', 'roll', 'sheet']),
        /** Length of a whole roll or sheet; null for what is cut to length. */
        lengthMm: z.number().min(500).max(100000).nullable(),
        minimumMm: z.number().min(0).max(100000),
        /** Per metre of length, per roll or per sheet. */
        price: z.number().min(0).max(100000),
      }),
    )
    .max(16)
    .default([]),
  directional: z.boolean(),
  /** Past this stretch [–] an area must be post-heated. */
  postHeatOver: z.number().min(0).max(1),
  /** The most this film bears [–]. */
  stretchLimit: z.number().min(0).max(1),
  /** How much free film shrinks in its own plane under heat [–]. */
  heatShrink: z.number().min(0).max(0.3),
  /** The most that film may be stretched before it is laid [–]: at room temperature, and warmed. 0: not at all. */
  preStretchMax: z
    .strictObject({ cold: z.number().min(0).max(0.6), warm: z.number().min(0).max(0.6) })
    .refine((s) => s.cold <= s.warm, { error: 'cold_over_warm' }),
  /** The share of a stretch that heat takes back [–]. */
  recovers: z.number().min(0).max(1),
  /** Stretch left in the roll's direction from winding [–], which *relax first* takes out. */
  rollResidue: z.number().min(0).max(MAX_RESIDUE),
  shapingC: span(0, 150),
  postHeatC: span(40, 180),
  overlapC: span(40, 180),
  /** A surface hotter than this spoils the film, °C. Past the post-heat range and under this is done, and noted. */
  heatLimitC: z.number().min(40).max(250),
  overlapMm: z.number().min(0).max(100),
  waitBeforeCutMin: z.number().min(0).max(1440),
  postHeatFromMin: z.number().min(0).max(2880),
  postHeatUntilMin: z.number().min(0).max(10080).nullable(),
  cureHours: z.number().min(0).max(336),
  /** Hours that a print stands before it is laminated; null where nothing is printed. */
  gasOutHours: span(0, 336).nullable(),
  capSheet: z.boolean(),
  airC: span(-20, 60),
  surfaceMinC: z.number().min(-20).max(60),
  edgeOrder: z.enum(['press_then_heat', 'heat_then_press']),
  warrantyMonths: z
    .array(z.strictObject({ zone: SheetWord, surface: SheetWord, months: z.number().int().min(0).max(600) }))
    .max(60),
  care: Note,
  ...HANDLING,
  /** How well a field is known where it is not the maker's sheet that says so. */
  standings: z
    .partialRecord(z.enum(STANDED_FIELDS), z.enum(['measured', 'published', 'common_practice', 'assumed']))
    .default({}),
})

export type FilmSheet = z.infer<typeof FilmSheet>

/** A stretch of a roll that cannot be used, mm from its core end, so that cutting at the open end does not move it. */
export const DamageSpan = z
  .strictObject({ fromCoreMm: z.number().min(0).max(100000), lengthMm: z.number().gt(0).max(100000), note: Note })
  .refine((d) => d.fromCoreMm + d.lengthMm <= 100000, { error: 'past_the_end' })
export type DamageSpan = z.infer<typeof DamageSpan>

/**
 * A strip off a roll, cap sheet off, laid back on its own liner and heated evenly: its length before and after, mm, and
 * its width where that was measured too. What it lost is the tension that winding left in it.
 */
export const StripTest = z
  .strictObject({
    id: z.uuid(),
    beforeMm: z.number().min(100).max(5000),
    afterMm: z.number().min(50).max(5000),
    acrossBeforeMm: z.number().min(20).max(3000).nullable(),
    acrossAfterMm: z.number().min(20).max(3000).nullable(),
    /** UTC. */
    at: z.iso.datetime({ offset: true }),
    by: z.string().max(120),
  })
  .refine((s) => s.afterMm <= s.beforeMm, { error: 'strip_grew', path: ['afterMm'] })
  .refine((s) => s.beforeMm - s.afterMm <= s.beforeMm * MAX_RESIDUE, { error: 'strip_past_belief', path: ['afterMm'] })
  .refine((s) => (s.acrossBeforeMm === null) === (s.acrossAfterMm === null), {
    error: 'strip_half_measured',
    path: ['acrossAfterMm'],
  })
export type StripTest = z.infer<typeof StripTest>
/** Strips kept with one roll. */
export const MOST_STRIPS = 20

/** A roll or a rest on the rack. `leftMm` is the sum of its movements. */
export const StockItem = z.strictObject({
  id: z.string().min(1).max(60),
  filmId: Id,
  kind: z.enum(['roll', 'rest']),
  label: Name,
  lot: Name,
  widthMm: z.number().min(50).max(3000),
  leftMm: z.number().min(0).max(100000),
  damage: z.array(DamageSpan).max(20).default([]),
  strips: z.array(StripTest).max(MOST_STRIPS).default([]),
})

export type StockItem = z.infer<typeof StockItem>
