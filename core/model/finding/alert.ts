/** Facts of what the yard tells first of a job. */
export interface AlertFacts {
  /** Falls due then. */
  recheck: Record<string, never>
  /** Places that have to be read before their film's window closes. */
  window_closes: { places: number }
  /** A wait after this step. */
  wait_ends: { step: string }
  film_to_order: { mm: number }
  supplies_short: { count: number }
}
export type AlertCode = keyof AlertFacts

/** One thing to know of a job before anything else. `at`: UTC wall time, where it has one. */
export type Alert = { [C in AlertCode]: { code: C; at: string | null; facts: AlertFacts[C] } }[AlertCode]
