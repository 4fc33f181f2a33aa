'use client'

import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { useRouter } from 'next/navigation'
import { useMemo, useRef, useState } from 'react'
import type { FilmSheet } from '@/core/model/film/schema'
import { receiveStock } from '@/web/actions/shop'
import { call, newId } from '@/web/kit/call'
import { LengthInput } from '@/web/kit/quantity-input'
import { formatter, type MemberUnits } from '@/web/words/format'
import { faultText } from '@/web/words/faults'

export function Receive({ films, units }: { films: FilmSheet[]; units: MemberUnits }) {
  const router = useRouter()
  const fmt = useMemo(() => formatter(units), [units])
  const blank = { filmId: films[0]?.id ?? '', kind: 'roll' as 'roll' | 'rest', label: '', lot: '' }
  const [v, setV] = useState(blank)
  const [width, setWidth] = useState<number | null>(films[0]?.widthsMm[0] ?? null)
  const [length, setLength] = useState<number | null>(films[0]?.rollLengthsMm[0] ?? null)
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null)
  const ids = useRef<{ id: string; movementId: string } | null>(null)
  const pick = (filmId: string) => {
    const film = films.find((f) => f.id === filmId)
    setV({ ...v, filmId })
    setWidth(film?.widthsMm[0] ?? null)
    setLength(film?.rollLengthsMm[0] ?? null)
  }
  const send = async () => {
    ids.current ??= { id: newId(), movementId: newId() }
    const out = await call(receiveStock, {
      ...v,
      ...ids.current,
      label: v.label.trim(),
      lot: v.lot.trim(),
      widthMm: width,
      lengthMm: length,
    })
    if (!out.ok) return setSaid({ text: faultText(out.error), bad: true })
    ids.current = null
    setSaid({ text: `${v.label} is on the rack.`, bad: false })
    setV({ ...blank, filmId: v.filmId })
    router.refresh()
  }
  const ready = v.label.trim() !== '' && v.lot.trim() !== '' && width !== null && length !== null
  return (
    <details className="plate mb-3">
      <summary>
        <b>Put a roll or rest on the rack</b>
      </summary>
      <Form
        className="row g-2 mt-1 align-items-end"
        onSubmit={(e) => {
          e.preventDefault()
          if (ready) void send()
        }}
      >
        <div className="col-md-3">
          <label className="form-label" htmlFor="r-film">
            Film
          </label>
          <Form.Select id="r-film" value={v.filmId} onChange={(e) => pick(e.target.value)}>
            {films.map((f) => (
              <option key={f.id} value={f.id}>
                {f.name}
              </option>
            ))}
          </Form.Select>
        </div>
        <div className="col-md-1">
          <label className="form-label" htmlFor="r-kind">
            Kind
          </label>
          <Form.Select
            id="r-kind"
            value={v.kind}
            onChange={(e) => setV({ ...v, kind: e.target.value as 'roll' | 'rest' })}
          >
            <option value="roll">roll</option>
            <option value="rest">rest</option>
          </Form.Select>
        </div>
        {(['label', 'lot'] as const).map((k) => (
          <div className="col-md-2" key={k}>
            <label className="form-label" htmlFor={`r-${k}`}>
              {k === 'label' ? 'Label' : 'Lot'}
            </label>
            <Form.Control
              id={`r-${k}`}
              maxLength={120}
              value={v[k]}
              onChange={(e) => setV({ ...v, [k]: e.target.value })}
            />
          </div>
        ))}
        <div className="col-md-1">
          <label className="form-label" htmlFor="r-width">
            Width
          </label>
          <LengthInput
            id="r-width"
            className="form-control"
            aria-label="Roll width"
            mm={width}
            unit={units.lengthUnit}
            format={(mm) => fmt.length(mm).text}
            min={50}
            max={3000}
            onValue={setWidth}
          />
        </div>
        <div className="col-md-1">
          <label className="form-label" htmlFor="r-length">
            Length
          </label>
          <LengthInput
            id="r-length"
            className="form-control"
            aria-label="Roll length"
            mm={length}
            unit={units.lengthUnit}
            format={(mm) => fmt.length(mm).text}
            max={100000}
            onValue={setLength}
          />
        </div>
        <div className="col-md-2">
          <Button type="submit" className="w-100" disabled={!ready}>
            Put on the rack
          </Button>
        </div>
        {said && (
          <p className={said.bad ? 'text-danger mb-0' : 'mb-0'} role="status">
            {said.text}
          </p>
        )}
      </Form>
    </details>
  )
}
