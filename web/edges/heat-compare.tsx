'use client'

import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import type { PictureAsk } from '@/core/engines/heat/heat-picture'
import { type OtherSource } from '@/core/model/heat/heat-data'
import type { ShopSettings } from '@/core/model/shop/shop'
import { MATERIALS } from '@/core/model/vehicle/kinds'
import { TempField } from '@/web/conditions/temp-field'
import { NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

type Guns = ShopSettings['guns']
const OTHER_WORDS: Record<OtherSource, string> = {
  infra_red: 'infra-red heater (assumed)',
  steamer: 'hand steamer (assumed)',
}

export interface Other extends Pick<PictureAsk, 'films' | 'startC' | 'sweep'> {
  source: string
  material: PictureAsk['surface']['material']
}

const NUMBERS = [
  ['paceMmS', 'Pace, mm/s', 1, 200],
  ['holdS', 'Hold, s', 0, 30],
  ['passes', 'Passes', 1, 6],
  ['gapS', 'Between, s', 0, 120],
] as const

/** Another source, pace, car or film to set beside what was planned. */
export function Compare({
  other,
  guns,
  fmt,
  onChange,
  onEnd,
}: {
  other: Other
  guns: Guns
  fmt: Formatter
  onChange: (next: Other) => void
  onEnd: () => void
}) {
  const measured = guns.filter((g) => g.airC !== null)
  return (
    <div className="d-flex gap-2 flex-wrap align-items-end mb-2" role="group" aria-label="Compared with">
      <label>
        <span className="label d-block">Source</span>
        <Form.Select size="sm" value={other.source} onChange={(e) => onChange({ ...other, source: e.target.value })}>
          {measured.map((g) => (
            <option key={g.id} value={g.id}>
              {g.name}
            </option>
          ))}
          {Object.entries(OTHER_WORDS).map(([id, text]) => (
            <option key={id} value={id}>
              {text}
            </option>
          ))}
        </Form.Select>
      </label>
      <label>
        <span className="label d-block">Under the film</span>
        <Form.Select
          size="sm"
          value={other.material}
          onChange={(e) => onChange({ ...other, material: e.target.value as Other['material'] })}
        >
          {MATERIALS.map((m) => (
            <option key={m} value={m}>
              {word('material', m, fmt.units.locale)}
            </option>
          ))}
        </Form.Select>
      </label>
      <label>
        <span className="label d-block">Film</span>
        <Form.Select
          size="sm"
          value={other.films}
          onChange={(e) => onChange({ ...other, films: e.target.value === '2' ? 2 : 1 })}
        >
          <option value={1}>one layer</option>
          <option value={2}>two, at a lap</option>
        </Form.Select>
      </label>
      <label style={{ width: 84 }}>
        <span className="label d-block">Car at</span>
        <TempField
          id="compared-car"
          label="Car at"
          value={other.startC}
          onValue={(c) => c !== null && onChange({ ...other, startC: c })}
        />
      </label>
      {NUMBERS.map(([field, label, min, most]) => (
        <label key={field}>
          <span className="label d-block">{label}</span>
          <NumberInput
            className="form-control form-control-sm"
            style={{ width: 76 }}
            aria-label={label}
            digits={field === 'passes' ? 0 : 1}
            value={other.sweep[field]}
            min={min}
            max={most}
            onValue={(v) =>
              v !== null &&
              onChange({
                ...other,
                sweep: { ...other.sweep, [field]: field === 'passes' ? Math.max(1, Math.round(v)) : v },
              })
            }
          />
        </label>
      ))}
      <Button variant="link" size="sm" onClick={onEnd}>
        No comparison
      </Button>
    </div>
  )
}
