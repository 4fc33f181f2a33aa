import { pointWindow } from '../engines/heat/point-window'
import { plannedSteps } from '../engines/run-sheet/steps'
import { civilToMinutes, minutesToCivil } from '../kit/civil'
import type { Alert } from '../model/finding/alert'
import type { LogRow } from '../model/log/schema'
import { handedOver } from '../model/log/handed-over'
import type { Plan } from '../model/plan/schema'
import type { Reckoning } from './reckon'

/** What somebody in the yard has to know of a job before anything else; moments are UTC wall times. */
export function alertsOf(plan: Plan, r: Reckoning, ledger: readonly LogRow[], now: string): Alert[] {
  if (handedOver(ledger)) return []
  const recheck = r.parts.handover.recheck
  const begun = r.steps.some((s) => s.startedAt !== null)
  const order = Number(r.figures.get('rail/film_order')?.value ?? 0)
  const short = r.findings.filter((f) => f.code === 'supply_short')
  const closes = windowCloses(r, ledger, now)
  const out: Alert[] = []
  if (recheck && !recheck.done) out.push({ code: 'recheck', at: recheck.dueAt, facts: {} })
  if (closes !== null) out.push({ code: 'window_closes', at: closes.at, facts: { places: closes.places } })
  out.push(...runningWaits(r, now))
  if (order > 0 && !begun && plan.runSheet.startAt !== null)
    out.push({ code: 'film_to_order', at: null, facts: { mm: order } })
  if (short.length > 0) out.push({ code: 'supplies_short', at: null, facts: { count: short.length } })
  return out
}

/** When the first window of places that are still to be read closes, and how many close with it. */
function windowCloses(r: Reckoning, ledger: readonly LogRow[], now: string): { at: string; places: number } | null {
  const filmOf = new Map(r.laid.map((p) => [p.id, r.parts.films.get(p.filmId)]))
  const ends = r.points.flatMap((p) => {
    if (p.state !== 'due') return []
    const { until } = pointWindow(p, filmOf.get(p.pieceId), ledger, now)
    return until === null ? [] : [until.slice(0, 16)]
  })
  const at = ends.sort()[0]
  return at === undefined ? null : { at, places: ends.filter((e) => e === at).length }
}

/** Waits after a step that is done, while nothing that waits for it was begun. */
function runningWaits(r: Reckoning, now: string): Alert[] {
  const planned = plannedSteps(r.steps)
  return planned.flatMap((s): Alert[] => {
    const done = s.doneAt === null ? null : civilToMinutes(s.doneAt.slice(0, 16))
    const isUsed = planned.some((x) => x.startedAt !== null && x.waits.some((w) => w.id === s.id))
    if (done === null || s.waitMin === 0 || isUsed || s.code === 'rest') return []
    const at = minutesToCivil(done + s.waitMin)
    return at <= now ? [] : [{ code: 'wait_ends', at, facts: { step: s.id } }]
  })
}
