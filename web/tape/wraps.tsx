'use client'

import Form from 'react-bootstrap/Form'
import { ATS } from '@/core/model/vehicle/kinds'
import type { Panel } from '@/core/model/vehicle/schema'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

/** The sides at which a panel wraps round beside its nose, as a bumper's ends and a mirror cap's rims do. */
export function Wraps({
  panel,
  fmt,
  onChange,
}: {
  panel: Panel
  fmt: Formatter
  onChange: (wraps: Panel['wraps']) => void
}) {
  const set = (at: (typeof ATS)[number], over: Partial<Panel['wraps'][number]> | null) => {
    const rest = panel.wraps.filter((w) => w.at !== at)
    const was = panel.wraps.find((w) => w.at === at) ?? { at, radiusMm: 60, angleDeg: 45 }
    onChange(over ? [...rest, { ...was, ...over }] : rest)
  }
  return (
    <fieldset className="col-12">
      <legend className="form-label fs-6 mb-1">Ends that wrap round</legend>
      <div className="d-flex flex-wrap gap-3">
        {ATS.filter((at) => panel.nose?.at !== at).map((at) => {
          const own = panel.wraps.find((w) => w.at === at)
          const side = word('at', at, fmt.units.locale)
          return (
            <span key={at} className="d-inline-flex gap-2 align-items-center">
              <label className="d-inline-flex gap-1 align-items-center">
                <Form.Check.Input
                  type="checkbox"
                  className="mt-0"
                  checked={!!own}
                  onChange={(e) => set(at, e.target.checked ? {} : null)}
                />
                {side}
              </label>
              {own && (
                <>
                  <LengthInput
                    className="form-control form-control-sm"
                    style={{ width: 80 }}
                    aria-label={`Radius of the ${side} end`}
                    mm={own.radiusMm}
                    unit={fmt.units.lengthUnit}
                    format={(mm) => fmt.length(mm).text}
                    max={5000}
                    onValue={(mm) => set(at, { radiusMm: mm ?? own.radiusMm })}
                  />
                  <NumberInput
                    className="form-control form-control-sm"
                    style={{ width: 70 }}
                    aria-label={`Angle of the ${side} end`}
                    min={1}
                    max={180}
                    value={own.angleDeg}
                    onValue={(v) => set(at, { angleDeg: v ?? own.angleDeg })}
                  />
                  <span className="label">°</span>
                </>
              )}
            </span>
          )
        })}
      </div>
    </fieldset>
  )
}
