'use client'

import { faultCode } from '@/core/kit/fault-code'
import Button from 'react-bootstrap/Button'
import { useState } from 'react'
import { cancelFleet } from '@/web/actions/fleet'
import type { FleetHead } from '@/web/actions/reads'
import { call } from '@/web/kit/call'
import { type Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/faults'

export const busy = (r: { state: FleetRow['state'] }): boolean => r.state === 'queued' || r.state === 'running'

export const STATES: Record<FleetRow['state'], string> = {
  queued: 'waits for a worker',
  running: 'being laid out',
  done: 'done',
  failed: 'failed',
  cancelled: 'cancelled',
}

/** The bound is that of one endless roll; rolls each with an end of their own stand a little above it. */
export const gapText = (r: { usedMm: number | null; boundMm: number | null }, fmt: Formatter): string =>
  r.usedMm !== null && r.boundMm ? fmt.text(fmt.percent(Math.max(0, r.usedMm / r.boundMm - 1))) : '–'

export function Progress({ row }: { row: FleetRow }) {
  return (
    <span role="status">
      {row.cancelAsked && busy(row) ? 'stopping' : STATES[row.state]}
      {row.silent ? ', no word from its worker' : ''}
      {row.attempt > 1 && busy(row) ? `, taken up again (${row.attempt})` : ''}
      {row.state === 'running' && (
        <progress
          className="ms-2"
          value={row.share}
          max={1}
          aria-label={`${row.name}, progress`}
          style={{ width: 90 }}
        />
      )}
      {row.fault && <span className="text-danger d-block">{faultText({ code: faultCode(row.fault) })}</span>}
    </span>
  )
}

export function Cancel({ row, may, onAsked }: { row: FleetRow; may: boolean; onAsked: () => void }) {
  const [said, setSaid] = useState('')
  if (!busy(row) || !may) return null
  const ask = async () => {
    const out = await call(cancelFleet, { id: row.id })
    setSaid(out.ok ? '' : faultText(out.error))
    onAsked()
  }
  return (
    <>
      <Button
        variant="outline-primary"
        size="sm"
        disabled={row.cancelAsked}
        aria-label={`Cancel ${row.name}`}
        onClick={() => void ask()}
      >
        Cancel
      </Button>
      {said !== '' && <span className="text-danger">{said}</span>}
    </>
  )
}

/** How one layout of a fleet stands. */
export type FleetRow = FleetHead
