'use client'

import Link from 'next/link'
import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import type { Bar } from '@/core/engines/schedule/shop-schedule'
import { DateField } from '@/web/kit/date-field'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

/** One stretch of work that was picked: when, by whom, and set to another moment or let go. */
export function BoardPin({
  bar,
  name,
  fmt,
  mayMove,
  onSet,
}: {
  bar: Bar
  name: string
  fmt: Formatter
  mayMove: boolean
  /** Null: it begins when it comes to it. */
  onSet: (at: string | null) => void
}) {
  const [at, setAt] = useState<string | null>(bar.from)
  const when = (wall: string) => fmt.text(fmt.wallTime(wall))
  return (
    <div className="d-flex gap-2 align-items-center flex-wrap mt-2" role="group" aria-label="Picked work">
      <span>
        <Link href={`/jobs/${bar.jobId}/run-sheet`}>{name}</Link>, <b>{word('block', bar.code)}</b>: {when(bar.from)} to{' '}
        {when(bar.to)}
        {bar.people.length > 0 && `, ${bar.people.join(', ')}`}
        {bar.pinned && <span className="label"> (begin is set)</span>}
        {bar.locked && <span className="label"> (a step is locked to this moment on its run sheet)</span>}
      </span>
      {mayMove && !bar.locked && (
        <>
          <span className="label">Begin</span>
          <span style={{ width: 190 }}>
            <DateField
              label="Begin of the picked work"
              size="sm"
              withTime
              value={at}
              onValue={setAt}
              locale={fmt.units.locale}
              {...(fmt.units.timeZone ? { timeZone: fmt.units.timeZone } : {})}
            />
          </span>
          <Button size="sm" disabled={at === null} onClick={() => onSet(at)}>
            Set
          </Button>
          {bar.pinned && (
            <Button size="sm" variant="outline-primary" onClick={() => onSet(null)}>
              Let it come when it comes
            </Button>
          )}
        </>
      )}
    </div>
  )
}
