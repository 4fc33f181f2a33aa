'use client'

import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { useState } from 'react'
import { runningTimers } from '@/core/model/log/timers'
import { useJob } from '@/web/job/job-state'
import { newId } from '@/web/kit/call'
import { useNow } from './use-now'

/** Waits that run: started by a finished step or by hand, ended by hand. */
export function RunningTimers() {
  const { ledger, log } = useJob()
  const now = useNow(1000)
  const running = runningTimers(ledger)
  if (running.length === 0) return null
  return (
    <section aria-label="Timers" className="d-flex gap-2 flex-wrap align-items-stretch">
      {running.map((t) => {
        const left = now === null ? null : Math.ceil((Date.parse(t.at) + t.minutes * 60_000 - now) / 1000)
        const clock = (s: number) =>
          s >= 3600
            ? `${Math.floor(s / 3600)}:${String(Math.floor((s % 3600) / 60)).padStart(2, '0')} h`
            : `${Math.floor(s / 60)}:${String(s % 60).padStart(2, '0')}`
        return (
          <div key={t.timerId} className="plate d-flex gap-3 align-items-center" role="timer">
            <span>
              <span className="label d-block">{t.label}</span>
              <span className="fs-3 fw-bold verdict" data-verdict={left !== null && left <= 0 ? 'good' : 'under'}>
                {left === null ? '…' : left > 0 ? clock(left) : 'over'}
              </span>
            </span>
            <Button variant="plain" onClick={() => log({ kind: 'timer_ended', timerId: t.timerId })}>
              End
            </Button>
          </div>
        )
      })}
    </section>
  )
}

export function StartTimer() {
  const { log } = useJob()
  const [minutes, setMinutes] = useState(30)
  return (
    <div className="plate d-flex gap-2 align-items-center mt-3">
      <label className="label" htmlFor="timer-minutes">
        Timer
      </label>
      <Form.Select
        id="timer-minutes"
        value={minutes}
        onChange={(e) => setMinutes(Number(e.target.value))}
        style={{ width: 110 }}
      >
        {[1, 5, 10, 15, 30, 60, 120].map((m) => (
          <option key={m} value={m}>
            {m} min
          </option>
        ))}
      </Form.Select>
      <Button
        variant="plain"
        onClick={() => log({ kind: 'timer_started', timerId: newId(), label: `${minutes} min`, minutes })}
      >
        Start timer
      </Button>
    </div>
  )
}
