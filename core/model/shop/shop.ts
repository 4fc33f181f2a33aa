import { z } from 'zod'
import { civilToMinutes } from '../../kit/civil'
import { Id, Name } from '../values/values'
import { USED_KINDS } from '../log/kinds'
import { cutFaults } from '../edge/cut-goes'
import { CUT_SIDES, EDGE_MEETS } from '../vehicle/kinds'
import { READY_WITH, SKILLS } from './kinds'

export type ReadyWith = (typeof READY_WITH)[number]

const date = z
  .string()
  .regex(/^\d{4}-\d{2}-\d{2}$/)
  .refine((d) => civilToMinutes(`${d}T00:00`) !== null, { error: 'no_such_moment' })

const Stretch = z
  .strictObject({
    /** 0 = Monday. */
    day: z.number().int().min(0).max(6),
    fromMinute: z.number().int().min(0).max(1439),
    toMinute: z.number().int().min(1).max(1440),
  })
  .refine((s) => s.fromMinute < s.toMinute, { error: 'upside_down', path: ['toMinute'] })

/** Opening hours of a week, each day in as many stretches as it has breaks; and the days on which nobody comes. */
export const Week = z
  .array(Stretch)
  .max(42)
  .superRefine((week, ctx) => {
    week.forEach((a, i) => {
      const clash = week.findIndex(
        (b, k) => k < i && b.day === a.day && b.fromMinute < a.toMinute && a.fromMinute < b.toMinute,
      )
      if (clash >= 0) ctx.addIssue({ code: 'custom', path: [i, 'fromMinute'], message: 'hours_overlap' })
    })
  })
export const ClosedDays = z.array(z.strictObject({ date, name: z.string().trim().max(120) })).max(400)

const Away = z
  .strictObject({ from: date, to: date })
  .refine((a) => a.from <= a.to, { error: 'upside_down', path: ['to'] })

export const ShopPerson = z.strictObject({
  id: Id,
  name: Name,
  skills: z.array(z.enum(SKILLS)).max(SKILLS.length),
  /** Minutes taken for each minute of an experienced wrapper. */
  pace: z.number().min(0.5).max(6),
  /** Per hour, in the shop's currency. */
  rate: z.number().min(0).max(10_000),
  away: z.array(Away).max(100),
})

/** A hot-air gun: what its display says is not the air at the film. Null: not measured. */
export const Gun = z.strictObject({
  id: Id,
  name: Name,
  displayC: z.number().min(50).max(800),
  airC: z.number().min(30).max(800).nullable(),
  coefficient: z.number().min(5).max(1000).nullable(),
  sigmaMm: z.number().min(3).max(200).nullable(),
})

const unique = (list: readonly { id: string }[]): boolean => new Set(list.map((x) => x.id)).size === list.length

/** What a shop says of itself: everything that reckons with hours, hands or money takes it from here. */
export const ShopSettings = z.strictObject({
  timeZone: z.string().min(1).max(60),
  currency: z.string().regex(/^[A-Z]{3}$/),
  /** Share of the price. */
  tax: z.strictObject({ rate: z.number().min(0).max(1), included: z.boolean() }),
  week: Week,
  closed: ClosedDays,
  bays: z
    .array(z.strictObject({ id: Id, name: Name }))
    .max(40)
    .refine(unique, { error: 'duplicate_id' }),
  people: z.array(ShopPerson).max(200).refine(unique, { error: 'duplicate_id' }),
  guns: z.array(Gun).max(40).refine(unique, { error: 'duplicate_id' }),
  climate: z.enum(['mild', 'hot']),
  /** Front edges go deeper while roads are salted. */
  winter: z.boolean(),
  /** Share put on material and hours in a quote. */
  margin: z.number().min(0).max(5),
  /** Film left at an edge by what it meets, mm, and the cut side of a row of the decision table, where the shop has its own. */
  edgeLeave: z.partialRecord(z.enum(EDGE_MEETS), z.number().min(0).max(60)).default({}),
  edgeCut: z.record(z.string().max(40), z.enum(CUT_SIDES)).default({}),
  /** A tablet in the bay locks after so many minutes without a touch; 0: never. */
  lockAfterMin: z.number().int().min(0).max(240).default(0),
  /** How supplies are bought: what a pack holds (m of tape, or pieces), its price, and how much is kept at least. */
  supplies: z
    .partialRecord(
      z.enum(USED_KINDS),
      z.strictObject({
        pack: z.number().gt(0).max(100_000),
        price: z.number().min(0).max(100_000),
        least: z.number().min(0).max(100_000),
      }),
    )
    .default({}),
  /** With which step a vehicle counts as ready: what a customer is told, and a promise is held to. */
  ready: z.enum(READY_WITH).default('recheck'),
  /** What a new member's figures are shown in, until they choose. */
  units: z
    .strictObject({
      lengthUnit: z.enum(['mm', 'cm', 'in']),
      tempUnit: z.enum(['C', 'F']),
      locale: z.enum(['en-GB', 'en-US']),
    })
    .default({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB' }),
})
export type ShopSettings = z.infer<typeof ShopSettings>

/** Settings that may be saved: also no cut of the shop's own where there is nothing to cut. */
export const SavedShop = ShopSettings.superRefine((shop, ctx) => {
  for (const { rule, code } of cutFaults(shop.edgeCut))
    ctx.addIssue({ code: 'custom', path: ['edgeCut', rule], message: code })
})
