'use client'

import { DateField } from '@/web/kit/date-field'
import { ZONES } from '@/core/model/film/kinds'
import type { FilmSheet } from '@/core/model/film/schema'
import Form from 'react-bootstrap/Form'
import { useJob } from '@/web/job/job-state'
import { NumberInput } from '@/web/kit/quantity-input'
import { word } from '@/web/words/names'
import { Walk } from '@/web/walkaround/walkaround-lists'
import { WordSelect } from '@/web/kit/fields'

/** The paint as found, and where the car will stand. */
export function PaintFields() {
  const { fmt, plan, catalogue, edit } = useJob('fmt', 'plan', 'catalogue', 'edit')
  const { walkaround: w } = plan
  const set = (part: Partial<Walk>) => edit((p) => ({ ...p, walkaround: { ...p.walkaround, ...part } }))
  const paint = (part: Partial<Walk['paint']>) =>
    edit((p) => ({ ...p, walkaround: { ...p.walkaround, paint: { ...p.walkaround.paint, ...part } } }))
  const choose = <T extends string>(id: string, label: string, list: string, value: T, onChange: (v: T) => void) => (
    <div className="col-6 col-lg-3">
      <label className="form-label" htmlFor={id}>
        {label}
      </label>
      <WordSelect list={list} id={id} className="form-select" value={value} onCode={(code) => onChange(code)} />
    </div>
  )
  return (
    <section className="plate mb-3">
      <h2>Paint</h2>
      <div className="row g-3">
        {choose('paint-origin', 'Paint', 'origin', w.paint.origin, (origin) => paint({ origin }))}
        {choose('paint-condition', 'Condition', 'condition', w.paint.condition, (condition) => paint({ condition }))}
        <div className="col-6 col-lg-3">
          <label className="form-label" htmlFor="paint-age">
            Age in years
          </label>
          <NumberInput
            id="paint-age"
            className="form-control"
            aria-label="Paint age in years"
            optional
            value={w.paint.ageYears}
            max={120}
            onValue={(ageYears) => paint({ ageYears })}
          />
        </div>
        {w.paint.origin === 'repaint' && (
          <div className="col-6 col-lg-3">
            <label className="form-label" htmlFor="repainted-on">
              Repainted on
            </label>
            <DateField
              id="repainted-on"
              value={w.paint.repaintedOn}
              locale={fmt.units.locale}
              timeZone={fmt.units.timeZone}
              onValue={(repaintedOn) => paint({ repaintedOn })}
            />
          </div>
        )}
        <div className="col-6 col-lg-3">
          <label className="form-label" htmlFor="zone">
            Climate zone
          </label>
          <Form.Select id="zone" value={w.zone} onChange={(e) => set({ zone: e.target.value })}>
            {zonesNamed([...plan.film.sheets, ...catalogue.films], w.zone).map((zone) => (
              <option key={zone} value={zone}>
                {word('zone', zone)}
              </option>
            ))}
          </Form.Select>
        </div>
      </div>
    </section>
  )
}

/** Climate zones to choose from: the usual two, those that any sheet names, and the one chosen. */
const zonesNamed = (sheets: readonly FilmSheet[], chosen: string): string[] => [
  ...new Set([...ZONES, ...sheets.flatMap((f) => f.warrantyMonths.map((w) => w.zone)), chosen]),
]
