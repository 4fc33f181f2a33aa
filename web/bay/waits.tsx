'use client'

import Button from 'react-bootstrap/Button'
import { runningTimers } from '@/core/model/log/timers'
import { pointWindow } from '@/core/engines/heat/point-window'
import { useJob } from '@/web/job/job-state'
import { useAlarm } from './use-alarm'
import { useNow } from './use-now'

/** Film windows that close within this are shown among the waits, min. */
const SHOWN_MIN = 180

export const clockText = (s: number): string =>
  s >= 3600
    ? `${Math.floor(s / 3600)}:${String(Math.floor((s % 3600) / 60)).padStart(2, '0')} h`
    : `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`

/** Waits that run, by name, and windows of film that close soon; sound and vibration when one is over. */
export function Waits() {
  const { ledger, log } = useJob('ledger', 'log')
  const now = useNow(1000)
  const running = runningTimers(ledger)
  const left = (t: { at: string; minutes: number }) =>
    now === null ? null : Math.ceil((Date.parse(t.at) + t.minutes * 60_000 - now) / 1000)
  useAlarm(running.filter((t) => (left(t) ?? 1) <= 0).map((t) => t.timerId))
  const closing = useClosing(now)
  if (running.length + closing.length === 0) return null
  return (
    <section aria-label="Waits" className="d-flex flex-wrap gap-2">
      {running.map((t) => {
        const s = left(t)
        return (
          <Button
            key={t.timerId}
            variant="plain"
            className="wait"
            data-over={s !== null && s <= 0}
            aria-label={`${t.label}: ${s === null ? '' : s > 0 ? clockText(s) : 'over'}; end it`}
            onClick={() => log({ kind: 'timer_ended', timerId: t.timerId })}
          >
            <span>{t.label}</span>
            <b role="timer">{s === null ? '…' : s > 0 ? clockText(s) : 'over'}</b>
          </Button>
        )
      })}
      {closing.map((c) => (
        <span key={c.panel} className="wait" data-over={c.minutes <= 0}>
          <span>{c.panel}: post-heat</span>
          <b>{c.minutes <= 0 ? 'window closed' : `within ${clockText(c.minutes * 60)}`}</b>
        </span>
      ))}
    </section>
  )
}

/** Panels whose post-heat window closes soon or has closed with places open, the most urgent first. */
function useClosing(now: number | null): { panel: string; minutes: number }[] {
  const { reckoning, plan, ledger } = useJob('reckoning', 'plan', 'ledger')
  if (now === null) return []
  const films = reckoning.parts.films
  const filmOf = new Map(reckoning.laid.map((p) => [p.id, films.get(p.filmId)]))
  const clock = new Date(now).toISOString()
  const byPanel = new Map<string, number>()
  for (const p of reckoning.points.filter((p) => p.state === 'due')) {
    const { until } = pointWindow(p, filmOf.get(p.pieceId), ledger, clock.slice(0, 16))
    if (until === null) continue
    byPanel.set(p.panelId, Math.floor((Date.parse(until) - now) / 60_000))
  }
  return [...byPanel]
    .filter(([, minutes]) => minutes <= SHOWN_MIN)
    .sort((a, b) => a[1] - b[1])
    .map(([id, minutes]) => ({ panel: plan.panels.find((p) => p.id === id)?.name ?? id, minutes }))
}
