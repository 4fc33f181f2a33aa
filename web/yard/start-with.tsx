'use client'

import { UNIT_NAMES } from '@/web/words/names'
import Form from 'react-bootstrap/Form'
import { useState } from 'react'
import { STYLES, type Keys, type Style } from '@/core/model/vehicle/families'
import type { VehicleHead } from '@/web/actions/vehicles'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import { formatter, type MemberUnits } from '@/web/words/format'
import { word } from '@/web/words/names'
import './yard.scss'

export type Start = { from: 'nothing' } | { from: 'style'; keys: Keys } | { from: 'vehicle'; vehicleId: string }

/**
 * What a new job's measured vehicle starts from: key lengths of its body style, a vehicle of the library, or nothing.
 */
export function StartWith({
  kind,
  start,
  onStart,
  vehicles,
  units,
}: {
  kind: string
  start: Start
  onStart: (start: Start) => void
  vehicles: readonly VehicleHead[]
  units: MemberUnits
}) {
  const [keys, setKeys] = useState<Keys>({})
  const fmt = formatter(units)
  const style = kind in STYLES ? (kind as Style) : null
  const typed = (key: string, value: number | null) => {
    const next = { ...keys }
    if (value === null) delete next[key]
    else next[key] = value
    setKeys(next)
    onStart({ from: 'style', keys: next })
  }
  const own = style
    ? Object.fromEntries(Object.entries(keys).filter(([k]) => STYLES[style].some((s) => s.key === k)))
    : {}
  return (
    <fieldset className="mt-3">
      <legend className="h3">Panels to start with</legend>
      <div className="d-flex gap-3 flex-wrap mb-2">
        {style && (
          <label className="d-flex gap-1 align-items-center">
            <Form.Check.Input
              type="radio"
              name="start"
              checked={start.from === 'style'}
              onChange={() => onStart({ from: 'style', keys: own })}
            />{' '}
            the body’s usual ones
          </label>
        )}
        {vehicles.length > 0 && (
          <label className="d-flex gap-1 align-items-center">
            <Form.Check.Input
              type="radio"
              name="start"
              checked={start.from === 'vehicle'}
              onChange={() => onStart({ from: 'vehicle', vehicleId: vehicles[0]?.id ?? '' })}
            />{' '}
            a vehicle measured before
          </label>
        )}
        <label className="d-flex gap-1 align-items-center">
          <Form.Check.Input
            type="radio"
            name="start"
            checked={start.from === 'nothing'}
            onChange={() => onStart({ from: 'nothing' })}
          />{' '}
          none
        </label>
      </div>
      {start.from === 'vehicle' && (
        <Form.Select
          aria-label="Vehicle measured before"
          value={start.vehicleId}
          onChange={(e) => onStart({ from: 'vehicle', vehicleId: e.target.value })}
        >
          {vehicles.map((v) => (
            <option key={v.id} value={v.id}>
              {v.name}, {v.panels} panels, {v.figures > 0 ? Math.round((100 * v.taped) / v.figures) : 0} % taped
            </option>
          ))}
        </Form.Select>
      )}
      {start.from === 'style' && style && (
        <>
          <div className="key-lengths">
            {STYLES[style].map((k) => (
              <label key={k.key}>
                <span className="label">{word('key', k.key, units.locale)}</span>
                <span style={{ position: 'relative' }}>
                  {k.unit === 'mm' ? (
                    <LengthInput
                      className="form-control form-control-sm"
                      aria-label={word('key', k.key, units.locale)}
                      mm={keys[k.key] ?? null}
                      unit={units.lengthUnit}
                      format={(mm) => fmt.length(mm).text}
                      min={k.min}
                      max={k.max}
                      optional
                      placeholder={`${fmt.length(k.usual).text} ?`}
                      onValue={(v) => typed(k.key, v)}
                    />
                  ) : (
                    <NumberInput
                      className="form-control form-control-sm"
                      aria-label={word('key', k.key, units.locale)}
                      value={keys[k.key] ?? null}
                      min={k.min}
                      max={k.max}
                      optional
                      placeholder={`${k.usual} ?`}
                      onValue={(v) => typed(k.key, v === null ? null : Math.round(v))}
                    />
                  )}
                </span>
              </label>
            ))}
          </div>
          <p className="label mb-0 mt-1">
            Tape what you can; the rest is assumed and marked so. A number without a unit is in{' '}
            {UNIT_NAMES[units.lengthUnit]}.
          </p>
        </>
      )}
    </fieldset>
  )
}
