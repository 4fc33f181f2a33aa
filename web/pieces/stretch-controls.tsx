'use client'

import Form from 'react-bootstrap/Form'
import type { Method } from '@/core/model/method/schema'
import type { Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'

/** How the film is laid and what is shown of it. */
export function StretchControls({
  pull,
  setPull,
  panel,
  atOnce,
  setAtOnce,
  method,
  limit,
  setLimit,
  grid,
  setGrid,
  overMm,
  turned,
  setTurned,
  flat,
  setFlat,
}: {
  pull: 'tightest' | 'even'
  setPull: (value: 'tightest' | 'even') => void
  panel: Panel
  atOnce: boolean
  setAtOnce: (value: boolean) => void
  method: Method
  limit: number
  setLimit: (value: number) => void
  grid: boolean
  setGrid: (value: boolean) => void
  overMm: number
  turned: boolean
  setTurned: (value: boolean) => void
  flat: boolean
  setFlat: (value: boolean) => void
}) {
  const { fmt } = useJob('fmt')
  return (
    <div className="d-flex gap-3 flex-wrap align-items-center mb-2">
      <label className="d-flex gap-2 align-items-center">
        <span className="label">Pull</span>
        <Form.Select
          size="sm"
          className="w-auto"
          aria-label="Pull"
          value={pull}
          onChange={(e) => setPull(e.target.value as typeof pull)}
        >
          <option value="even">even, as by hand</option>
          <option value="tightest">the least worst there is</option>
        </Form.Select>
      </label>
      {panel.recesses.length > 0 && (
        <label className="d-flex gap-2 align-items-center">
          <span className="label">Laid</span>
          <Form.Select
            size="sm"
            className="w-auto"
            aria-label="Laid"
            value={atOnce ? 'once' : 'method'}
            onChange={(e) => setAtOnce(e.target.value === 'once')}
          >
            <option value="method">
              {method.order === 'flats_first' ? 'flats first, by the method' : 'recesses first, by the method'}
            </option>
            <option value="once">all at once: no order is better</option>
          </Form.Select>
        </label>
      )}
      <label className="d-flex gap-2 align-items-center">
        <span className="label">Limit</span>
        <Form.Range
          min={0.005}
          max={0.4}
          step={0.005}
          value={limit}
          aria-label="Limit of stretch"
          onChange={(e) => setLimit(Number(e.target.value))}
        />
        <b>{fmt.text(fmt.percent(limit))}</b>
      </label>
      <label className="d-flex gap-2 align-items-center">
        <Form.Check.Input type="checkbox" className="mt-0" checked={grid} onChange={(e) => setGrid(e.target.checked)} />
        film’s grid, every {fmt.text(fmt.length(100))}
      </label>
      {overMm > 0 && (
        <label className="d-flex gap-2 align-items-center">
          <Form.Check.Input
            type="checkbox"
            className="mt-0"
            checked={turned}
            onChange={(e) => setTurned(e.target.checked)}
          />
          turned {fmt.text(fmt.length(overMm))} over the edges, heat shrinking what it can
        </label>
      )}
      <label className="d-flex gap-2 align-items-center">
        <Form.Check.Input type="checkbox" className="mt-0" checked={flat} onChange={(e) => setFlat(e.target.checked)} />
        flat view
      </label>
    </div>
  )
}
