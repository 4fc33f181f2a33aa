import { z } from 'zod'
import { MAX_PANEL_MM } from './kinds'
import { place } from './schema'
import { IsoDate, Id, Note, Name } from '../values/values'

export const DAMAGE_KINDS = ['chip', 'dent', 'scratch', 'rust', 'peeling_clear', 'previous_film', 'other'] as const
export const NEVER_COVER_KINDS = [
  'lamp',
  'sensor',
  'camera',
  'plate',
  'reflector',
  'exit_mark',
  'cap_label',
  'other',
] as const

/** Strokes of a drawn name: x, y in thousandths of the box, pen lifted between strokes. */
export const Strokes = z
  .array(z.array(z.tuple([z.number().min(0).max(1000), z.number().min(0).max(1000)])).max(600))
  .max(60)
export const Walkaround = z.strictObject({
  paint: z.strictObject({
    origin: z.enum(['unknown', 'factory', 'repaint']),
    ageYears: z.number().min(0).max(120).nullable(),
    repaintedOn: IsoDate.nullable(),
    condition: z.enum(['unknown', 'sound', 'dull', 'peeling', 'rust']),
  }),
  /** Single panels that were painted again, and when. */
  repaints: z
    .array(z.strictObject({ id: Id, panelId: Id.nullable(), on: IsoDate.nullable(), note: Note }))
    .max(60)
    .default([]),
  damage: z
    .array(
      z.strictObject({
        id: Id,
        panelId: Id.nullable(),
        kind: z.enum(DAMAGE_KINDS),
        note: Note,
        sizeMm: z.number().min(0).max(MAX_PANEL_MM).nullable().default(null),
        ...place,
        photoIds: z.array(z.uuid()).max(12).default([]),
        /** Rust and loose clear coat block a panel until somebody takes it on themselves, with a reason. */
        waived: z
          .strictObject({ reason: z.string().trim().min(3).max(500), by: Name, at: z.string().max(40) })
          .nullable()
          .default(null),
      }),
    )
    .max(200),
  hardware: z
    .array(
      z.strictObject({
        id: Id,
        name: Name,
        way: z.enum(['remove', 'tape', 'inlay', 'tuck_and_cut']),
        minutes: z.number().min(0).max(600),
        who: z.string().max(120).default(''),
      }),
    )
    .max(200),
  /** Places that stay free of film, whatever is wrapped round them. */
  neverCover: z
    .array(z.strictObject({ id: Id, kind: z.enum(NEVER_COVER_KINDS), panelId: Id.nullable(), note: Note }))
    .max(100)
    .default([]),
  /** The customer's name under what stood here then; `mark` tells whether it still does. */
  signature: z
    .strictObject({
      name: Name,
      how: z.enum(['typed', 'drawn']),
      strokes: Strokes,
      at: z.string().max(40),
      takenBy: Name,
      mark: z.string().max(40),
    })
    .nullable()
    .default(null),
  /** The climate zone that warranties go by, as the films' sheets name theirs. */
  zone: z.string().trim().min(1).max(60),
  note: Note,
})

export type Walkaround = z.infer<typeof Walkaround>
