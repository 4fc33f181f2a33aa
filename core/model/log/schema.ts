import { z } from 'zod'
import { Note } from '../values/values'
import { DEFECT_KINDS, GUARDS, PLACE_RESULTS, USED_KINDS } from './kinds'

const ref = z.string().min(1).max(120)

/** What happened, by kind. Temperatures °C, lengths mm. */
export const LogPayload = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('reading'),
    pieceId: ref,
    pointId: ref,
    tempC: z.number().min(-40).max(400),
    gunAway: z.boolean(),
  }),
  z.strictObject({ kind: z.literal('step_started'), stepId: ref }),
  z.strictObject({ kind: z.literal('step_done'), stepId: ref }),
  /** Ticked by mistake: the step runs on. */
  z.strictObject({ kind: z.literal('step_done_taken_back'), stepId: ref }),
  z.strictObject({
    kind: z.literal('timer_started'),
    timerId: ref,
    label: z.string().min(1).max(120),
    minutes: z.number().gt(0).max(20160),
  }),
  z.strictObject({ kind: z.literal('timer_ended'), timerId: ref }),
  z.strictObject({
    kind: z.literal('defect'),
    panelId: ref,
    defect: z.enum(DEFECT_KINDS),
    note: Note,
    /** Photos that the device makes the ids of; they follow when the network is back. */
    photoIds: z.array(z.uuid()).max(6).optional(),
  }),
  /** What was done about a defect, or about a reading past the film's limit: by the id of its entry. */
  z.strictObject({
    kind: z.literal('defect_closed'),
    defectId: z.uuid(),
    how: z.string().trim().min(1).max(2000),
    outcome: z.enum(['mended', 'redone', 'accepted']).optional(),
    /** Pieces that go back to the roll: they are cut and laid once more. */
    pieceIds: z.array(ref).max(40).optional(),
  }),
  /** Somebody went on although something was open, and said why. */
  z.strictObject({
    kind: z.literal('guard_passed'),
    guard: z.enum(GUARDS),
    stepId: ref,
    reason: z.string().trim().min(2).max(500),
  }),
  /** One place looked at: all round before the rest, or at the recheck. */
  z.strictObject({
    kind: z.literal('place_checked'),
    round: z.enum(['check', 'recheck']),
    placeId: ref,
    panelId: ref,
    result: z.enum(PLACE_RESULTS),
    note: Note.optional(),
    photoIds: z.array(z.uuid()).max(6).optional(),
  }),
  /** Metres of a tape, or how many of a thing. */
  z.strictObject({ kind: z.literal('consumable_used'), of: z.enum(USED_KINDS), amount: z.number().gt(0).max(10000) }),
  z.strictObject({
    kind: z.literal('film_used'),
    stockId: ref,
    lengthMm: z.number().min(0.1).max(100000),
    /** Pieces that this cut made real, with their sizes on the roll before any turn. */
    pieces: z
      .array(z.strictObject({ id: ref, acrossMm: z.number().gt(0).max(20000), alongMm: z.number().gt(0).max(20000) }))
      .max(400)
      .optional(),
    /** Which cut of a layout it was. */
    cutKey: ref.optional(),
  }),
  /** A cut within a part that is off the roll already. */
  z.strictObject({ kind: z.literal('cut_made'), cutKey: ref }),
  /** A cut ticked by mistake: its film goes back on the roll and its pieces are not cut. */
  z.strictObject({ kind: z.literal('cut_taken_back'), cutKey: ref }),
  z.strictObject({ kind: z.literal('note'), text: z.string().trim().min(1).max(2000) }),
])

export type LogPayload = z.infer<typeof LogPayload>

/** One row of the ledger: who did what, when by the server's clock. */
export interface LogRow {
  id: string
  /** UTC, ISO 8601. */
  at: string
  by: string
  payload: LogPayload
  /** The plan's revision that stood when the server took it; null where that was not kept. */
  revision?: number | null
  /** How far the device's clock stood behind, s, where it was found wrong and `at` was put right by it. */
  skewSeconds?: number
  /** Place in which the server took it; the device that made it, and its count there. Missing while it is on its way. */
  seq?: number
  device?: string | null
  n?: number | null
}
