'use client'

import Link from 'next/link'
import { stepOfId } from '@/web/words/steps'
import type { Alert, AlertCode } from '@/core/model/finding/alert'
import { useNow } from '@/web/bay/use-now'
import type { Formatter } from '@/web/words/format'

interface Row {
  jobId: string
  name: string
  alert: Alert
}
const STAGE: Record<AlertCode, string> = {
  recheck: 'bay',
  window_closes: 'bay',
  wait_ends: 'bay',
  film_to_order: 'roll',
  supplies_short: 'edges',
}

function said(alert: Alert, isPast: boolean, fmt: Formatter): string {
  const when = alert.at === null ? '' : fmt.moment(alert.at)
  switch (alert.code) {
    case 'recheck':
      return isPast ? `recheck was due ${when}` : `recheck due ${when}`
    case 'window_closes': {
      const places = `${alert.facts.places} ${alert.facts.places === 1 ? 'place' : 'places'} to be heated`
      return isPast ? `${places}: the film’s window closed ${when}` : `${places} by ${when}`
    }
    case 'wait_ends':
      return `${stepOfId(alert.facts.step, () => undefined)}: waits until ${when}`
    case 'film_to_order':
      return `film to order: ${fmt.text(fmt.longLength(alert.facts.mm))}`
    case 'supplies_short':
      return `${alert.facts.count} ${alert.facts.count === 1 ? 'supply' : 'supplies'} short`
  }
}

/** What comes first of all jobs: what is late, what closes or ends soon, what has to be ordered. */
export function Alerts({
  jobs,
  fmt,
}: {
  jobs: readonly { id: string; name: string; alerts: readonly Alert[] }[]
  fmt: Formatter
}) {
  const ms = useNow(60_000)
  const rows = jobs.flatMap((j) => j.alerts.map((alert): Row => ({ jobId: j.id, name: j.name, alert })))
  if (ms === null || rows.length === 0) return null
  const now = new Date(ms).toISOString().slice(0, 16)
  const isPast = (a: Alert) => a.at !== null && a.at <= now
  // A wait that is over is none.
  const shown = rows.filter((r) => r.alert.code !== 'wait_ends' || !isPast(r.alert))
  shown.sort((a, b) => (a.alert.at ?? '9').localeCompare(b.alert.at ?? '9') || a.name.localeCompare(b.name))
  return (
    <section className="plate mb-3" aria-label="First">
      <h2 className="h5 mb-1">First</h2>
      <ul className="yard-first m-0 ps-3">
        {shown.map(({ jobId, name, alert }) => (
          <li key={`${jobId}/${alert.code}/${alert.at ?? ''}`} data-late={isPast(alert) || undefined}>
            <Link href={`/jobs/${jobId}/${STAGE[alert.code]}`}>{name}</Link>: {said(alert, isPast(alert), fmt)}
          </li>
        ))}
      </ul>
    </section>
  )
}
