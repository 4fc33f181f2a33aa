import type { FaultCode } from './fault-code'

/** Outcome of something that bad input can spoil. Core throws only for bugs. */
export type Result<T, E = Fault> = { ok: true; value: T } | { ok: false; error: E }

/** What went wrong, as a code with facts; `web/words` owns the sentence. `at` is the path of the field at fault. */
export interface Fault<Code extends string = FaultCode> {
  code: Code
  at?: string
  facts?: Record<string, string | number>
}

export const ok = <T>(value: T): { ok: true; value: T } => ({ ok: true, value })
export const err = <E = Fault>(error: E): { ok: false; error: E } => ({ ok: false, error })
