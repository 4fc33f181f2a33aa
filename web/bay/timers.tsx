'use client'

import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { useState } from 'react'
import { useJob } from '@/web/job/job-state'
import { newId } from '@/web/kit/call'

export function StartTimer() {
  const { log } = useJob('log')
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
