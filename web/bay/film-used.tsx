'use client'

import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import { useState } from 'react'
import { withoutUndoneCuts } from '@/core/model/log/cut-pieces'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { faultText } from '@/web/words/faults'

/** Film cut from a roll or rest; the rack falls by it. */
export function FilmUsed() {
  const { catalogue, ledger, reckoning, plan, fmt, log } = useJob(
    'catalogue',
    'ledger',
    'reckoning',
    'plan',
    'fmt',
    'log',
  )
  const films = new Set(plan.film.sheets.map((s) => s.id))
  const usedNow = new Map<string, number>()
  const real = withoutUndoneCuts(ledger)
  for (const { payload } of real)
    if (payload.kind === 'film_used')
      usedNow.set(payload.stockId, (usedNow.get(payload.stockId) ?? 0) + payload.lengthMm)
  const stock = catalogue.stock.filter((s) => films.has(s.filmId))
  const planned = reckoning.layouts[0]
  // The roll that the layout lies on, else one of its film that holds it: what is not on a roll cannot be cut from it.
  const onShelf = planned?.rolls.find((r) => r.stock !== null)
  const wantedMm = Math.ceil((onShelf?.usedMm ?? planned?.usedMm ?? 0) / 10) * 10
  const holds = (s: (typeof stock)[number]) => s.filmId === planned?.film.id && s.leftMm >= wantedMm
  const first = stock.find((s) => s.id === onShelf?.id) ?? stock.find(holds) ?? stock[0]
  const [stockId, setStock] = useState(first?.id ?? '')
  const [mm, setMm] = useState<number | null>(
    first && wantedMm > 0 && holds(first) && usedNow.size === 0 ? wantedMm : null,
  )
  const item = stock.find((s) => s.id === stockId)
  const isShort = item !== undefined && mm !== null && mm > item.leftMm
  const rows = real.filter((r) => r.payload.kind === 'film_used')
  return (
    <div className="plate">
      <h2>Film used</h2>
      {planned && (
        <p>
          Planned: <b>{fmt.text(fmt.longLength(planned.usedMm))}</b> of {planned.film.name}
        </p>
      )}
      {stock.length === 0 ? (
        <p>No roll of this job&apos;s film is on the rack.</p>
      ) : (
        <div className="row g-2 align-items-end">
          <div className="col-md-6">
            <label className="label" htmlFor="cut-from">
              Cut from
            </label>
            <Form.Select id="cut-from" value={stockId} onChange={(e) => setStock(e.target.value)}>
              {stock.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}, lot {s.lot}, {fmt.text(fmt.longLength(s.leftMm))} left
                </option>
              ))}
            </Form.Select>
          </div>
          <div className="col-md-3">
            <label className="label" htmlFor="cut-length">
              Length
            </label>
            <LengthInput
              id="cut-length"
              aria-label="Length cut"
              mm={mm}
              optional
              unit={fmt.units.lengthUnit}
              format={(v) => fmt.length(v).text}
              min={0.1}
              max={100000}
              onValue={setMm}
            />
          </div>
          <div className="col-md-3">
            <Button
              variant="go"
              className="w-100"
              disabled={!item || !mm}
              onClick={() => {
                if (item && mm) log({ kind: 'film_used', stockId: item.id, lengthMm: Math.round(mm * 10) / 10 })
                setMm(null)
              }}
            >
              Cut from {item?.label}
            </Button>
          </div>
        </div>
      )}
      {isShort && <p className="caution mt-2 mb-0">{faultText({ code: 'not_enough_film' })}</p>}
      {rows.length > 0 && (
        <ul className="mt-3 mb-0 fs-5">
          {rows.map((r) => {
            const from =
              r.payload.kind === 'film_used'
                ? catalogue.stock.find((s) => s.id === (r.payload as { stockId: string }).stockId)
                : undefined
            return (
              <li key={r.id}>
                {r.payload.kind === 'film_used' && fmt.text(fmt.longLength(r.payload.lengthMm))} from{' '}
                {from?.label ?? 'a roll'}, lot {from?.lot ?? '?'} ({r.by})
              </li>
            )
          })}
        </ul>
      )}
    </div>
  )
}
