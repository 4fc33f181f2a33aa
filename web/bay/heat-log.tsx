'use client'

import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import { useState } from 'react'
import { heatVerdict, isDone, type Verdict } from '@/core/engines/heat/verdict'
import { parseTemp } from '@/core/kit/units'
import type { HeatPoint } from '@/core/engines/heat/heat-points'
import { useJob } from '@/web/job/job-state'
import { pointName } from '@/web/handover/point-name'
import { word } from '@/web/words/names'
import { faultText } from '@/web/words/faults'

/** Surface temperatures against piece and place: pick the place, type what the thermometer shows, see the verdict. */
export function HeatLog() {
  const { reckoning, fmt, log } = useJob()
  const [picked, setPicked] = useState<string | null>(null)
  const [text, setText] = useState('')
  const [last, setLast] = useState<{ c: number; verdict: Verdict } | null>(null)
  const { points, pieces } = reckoning
  const point = points.find((p) => p.id === picked) ?? points.find((p) => p.state === 'due') ?? points[0]
  if (!point) return <p className="fs-5">No place needs a reading.</p>
  const piece = (p: HeatPoint) => pieces.find((x) => x.id === p.pieceId)?.name ?? p.pieceId
  const read = parseTemp(text, fmt.units.tempUnit)
  const c = read.ok ? read.value : null
  const valid = c !== null && c >= -40 && c <= 400
  const enter = () => {
    if (c === null || !valid) return
    const verdict = heatVerdict(c, point.range, point.limitC)
    log({ kind: 'reading', pieceId: point.pieceId, pointId: point.id, tempC: Math.round(c * 10) / 10, gunAway: true })
    setLast({ c, verdict })
    setText('')
    // A reading that counts moves on to the next place; too cool or too hot stays here.
    if (isDone(verdict)) setPicked(points.find((p) => p.state === 'due' && p.id !== point.id)?.id ?? point.id)
    else setPicked(point.id)
  }
  const range = (p: HeatPoint) => `${fmt.temp(p.range.min).text}–${fmt.text(fmt.temp(p.range.max))}`
  return (
    <div className="row g-3">
      <div className="col-md-6">
        <div className="plate">
          <span className="label">Read after the gun is taken away</span>
          <h2 className="mt-1">
            {piece(point)}: {pointName(point)}
          </h2>
          <p className="mb-1">
            Wanted: <b>{range(point)}</b>, never over <b>{fmt.text(fmt.temp(point.limitC))}</b>
          </p>
          <label className="label" htmlFor="heat-typed">
            Thermometer, °{fmt.units.tempUnit} (or type 194F, 90C)
          </label>
          <Form.Control
            id="heat-typed"
            className="big mb-2"
            inputMode="none"
            autoComplete="off"
            maxLength={8}
            value={text}
            aria-invalid={text !== '' && !valid ? true : undefined}
            onChange={(e) => setText(e.target.value)}
            onKeyDown={(e) => e.key === 'Enter' && enter()}
          />
          {text !== '' && !valid && (
            <p className="verdict mb-2" data-verdict="too_hot" role="alert">
              {read.ok ? 'Between −40 and 400 °C.' : faultText(read.error, fmt)}
            </p>
          )}
          <div className="keypad" role="group" aria-label="Keypad">
            {['1', '2', '3', '4', '5', '6', '7', '8', '9'].map((d) => (
              <Button variant="plain" key={d} onClick={() => setText((t) => (t.length < 5 ? t + d : t))}>
                {d}
              </Button>
            ))}
            <Button variant="plain" aria-label="Delete" onClick={() => setText((t) => t.slice(0, -1))}>
              ⌫
            </Button>
            <Button variant="plain" onClick={() => setText((t) => (t.length < 5 ? `${t}0` : t))}>
              0
            </Button>
            <Button variant="plain" onClick={() => setText('')}>
              Clear
            </Button>
          </div>
          <Button variant="go" className="w-100 mt-2" disabled={!valid} onClick={enter}>
            {valid && c !== null ? `Log ${fmt.text(fmt.temp(c))}` : 'Log'}
          </Button>
          {last && (
            <p className="fs-3 mt-2 mb-0 verdict" role="status" data-verdict={last.verdict}>
              {fmt.text(fmt.temp(last.c))}: {word('verdict', last.verdict)}
            </p>
          )}
        </div>
      </div>
      <div className="col-md-6">
        <ol
          className="list-unstyled mb-0"
          style={{ maxHeight: 640, overflowY: 'auto' }}
          tabIndex={0}
          aria-label="Places to read"
        >
          {points.map((p) => {
            const newest = p.readings.at(-1)
            return (
              <li key={p.id}>
                <Button
                  variant="plain"
                  className="w-100 text-start mb-1 d-flex gap-2 align-items-center"
                  aria-pressed={p.id === point.id}
                  onClick={() => setPicked(p.id)}
                >
                  <span className="rivet" data-state={p.state === 'done' ? 'settled' : 'missing'} />
                  <span className="flex-fill">
                    {piece(p)}: {pointName(p)}
                  </span>
                  {newest && (
                    <span className="verdict" data-verdict={newest.verdict}>
                      {fmt.text(fmt.temp(newest.tempC))} {word('verdict', newest.verdict)}
                    </span>
                  )}
                </Button>
              </li>
            )
          })}
        </ol>
      </div>
    </div>
  )
}
