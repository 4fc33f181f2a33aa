import { civilToMinutes, minutesToCivil } from '../../kit/civil'
import type { FilmSheet } from '../../model/film/schema'
import type { LogRow } from '../../model/log/schema'
import type { HeatPoint } from './heat-points'

/** `due`: may be done now. Over: hotter than the film bears; between the band and that it is done, and noted. */
export type PointState = 'waiting' | 'due' | 'done' | 'over' | 'under' | 'expired'

/**
 * When a point may be heated, counted from the laying of its piece, and where it stands. UTC; null until it is laid,
 * `until` too where the film's window never closes.
 */
export function pointWindow(
  point: HeatPoint,
  film: Pick<FilmSheet, 'postHeatFromMin' | 'postHeatUntilMin'> | undefined,
  ledger: readonly LogRow[],
  now: string,
): { from: string | null; until: string | null; state: PointState } {
  // A panel of several pieces was one step before.
  const laying = [`lay:${point.pieceId}`, `lay:${point.panelId}`]
  const laid = [...ledger].reverse().find((e) => e.payload.kind === 'step_done' && laying.includes(e.payload.stepId))
  const at = laid ? civilToMinutes(laid.at.slice(0, 16)) : null
  const utc = (minutes: number) => `${minutesToCivil(minutes)}:00Z`
  const from = at === null || !film ? null : at + film.postHeatFromMin
  const until = at === null || !film || film.postHeatUntilMin === null ? null : at + film.postHeatUntilMin
  const clock = civilToMinutes(now) ?? 0
  const last = point.readings.at(-1)
  const state = (): PointState => {
    if (last?.verdict === 'too_hot') return 'over'
    if (point.state === 'done') return 'done'
    if (until !== null && clock > until) return 'expired'
    if (last?.verdict === 'under') return 'under'
    return from !== null && clock >= from ? 'due' : 'waiting'
  }
  return { from: from === null ? null : utc(from), until: until === null ? null : utc(until), state: state() }
}
