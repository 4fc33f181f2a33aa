import { z } from 'zod'
import { err, ok, type Result } from '../../kit/result'
import { LogPayload } from './schema'

/** One entry as a device sends it. `id` is made where it happened, so that a second arrival changes nothing. */
export const BayEntry = z.strictObject({
  id: z.uuid(),
  at: z.iso.datetime(),
  /** The device, and its own count of entries. */
  device: z
    .string()
    .regex(/^[A-Za-z0-9_-]{1,60}$/)
    .nullish(),
  n: z.number().int().min(0).max(1e9).nullish(),
  payload: LogPayload,
})
export type BayEntry = z.infer<typeof BayEntry>

/** A device's clock that is this far off the server's is said to be wrong. */
export const SKEW_FLAG_S = 120
/** Nothing happens to a job before it was taken in; a day is left for what was noted down on paper first. */
const BEFORE_TAKEN_IN_MS = 86_400_000

/** Times as milliseconds since 1970-01-01T00:00Z. */
export interface Arrival {
  /** When it happened, as the device says. */
  atMs: number
  /** When the server received it. */
  nowMs: number
  /** Time received less the time at which the device says it was sent, s: how far its clock stands behind. */
  skewSeconds: number
  /** When the job was taken in. */
  sinceMs: number
}

/**
 * When an entry happened by the server's clock. A clock known to be wrong is put right by what it is off, and the entry
 * carries that; how long an entry waited to be sent says nothing of a clock. Errors: in_the_future, before_the_job.
 */
export function momentOf({
  atMs,
  nowMs,
  skewSeconds,
  sinceMs,
}: Arrival): Result<{ ms: number; skewSeconds: number | null }> {
  const off = Math.abs(skewSeconds) > SKEW_FLAG_S
  const ms = atMs + (off ? skewSeconds * 1000 : 0)
  if (!Number.isFinite(ms) || ms > nowMs + SKEW_FLAG_S * 1000) return err({ code: 'in_the_future' })
  if (ms < sinceMs - BEFORE_TAKEN_IN_MS) return err({ code: 'before_the_job' })
  return ok({ ms, skewSeconds: off ? skewSeconds : null })
}
