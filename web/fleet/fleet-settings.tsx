'use client'

import Form from 'react-bootstrap/Form'
import type { FilmSheet, StockItem } from '@/core/model/film/schema'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import { type Formatter } from '@/web/words/format'

/** What is asked of a fleet's layout. `stages`: any number of cuts for null. */
export interface FleetWish {
  shelf: boolean
  newRolls: number
  cutting: 'guillotine' | 'free'
  stages: number | null
  gapMm: number
  seconds: number
}

/** What is asked of a fleet's layout: film, cuts, gap, seconds, rolls. */
export function FleetSettings({
  filmId,
  setFilm,
  films,
  name,
  setName,
  v,
  setV,
  fmt,
  onShelf,
  lotCount,
}: {
  filmId: string
  setFilm: (value: string) => void
  films: FilmSheet[]
  name: string
  setName: (value: string) => void
  v: FleetWish
  setV: (value: FleetWish) => void
  fmt: Formatter
  onShelf: StockItem[]
  lotCount: number
}) {
  return (
    <div className="roll-settings">
      <label>
        <span className="label">Film</span>
        <Form.Select size="sm" aria-label="Film" value={filmId} onChange={(e) => setFilm(e.target.value)}>
          {films.map((f) => (
            <option key={f.id} value={f.id}>
              {f.name}
            </option>
          ))}
        </Form.Select>
      </label>
      <label style={{ width: 200 }}>
        <span className="label">Name</span>
        <Form.Control
          size="sm"
          aria-label="Name"
          maxLength={120}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
      </label>
      <label>
        <span className="label">Cut</span>
        <Form.Select
          size="sm"
          aria-label="Cut"
          value={v.cutting}
          onChange={(e) => setV({ ...v, cutting: e.target.value as 'guillotine' })}
        >
          <option value="guillotine">by hand, straight cuts</option>
          <option value="free">by machine, any placement</option>
        </Form.Select>
      </label>
      {v.cutting === 'guillotine' && (
        <label>
          <span className="label">Stages of cuts</span>
          <Form.Select
            size="sm"
            aria-label="Stages of cuts"
            value={v.stages ?? ''}
            onChange={(e) => setV({ ...v, stages: e.target.value ? Number(e.target.value) : null })}
          >
            {[2, 3, 4, 5, 6].map((n) => (
              <option key={n} value={n}>
                {n}
              </option>
            ))}
            <option value="">any number</option>
          </Form.Select>
        </label>
      )}
      <label style={{ width: 90 }}>
        <span className="label">Gap</span>
        <LengthInput
          id="fleet-gap"
          className="form-control form-control-sm"
          aria-label="Gap between pieces"
          mm={v.gapMm}
          unit={fmt.units.lengthUnit}
          format={(mm) => fmt.length(mm).text}
          max={100}
          onValue={(mm) => setV({ ...v, gapMm: mm ?? 0 })}
          optional
        />
      </label>
      <label style={{ width: 90 }}>
        <span className="label">Seconds</span>
        <NumberInput
          id="fleet-seconds"
          className="form-control form-control-sm"
          aria-label="Seconds to search"
          value={v.seconds}
          min={1}
          max={300}
          onValue={(n) => n !== null && setV({ ...v, seconds: n })}
        />
      </label>
      <label style={{ width: 110 }}>
        <span className="label">New rolls, at most</span>
        <NumberInput
          id="fleet-new"
          className="form-control form-control-sm"
          aria-label="New rolls, at most"
          value={v.newRolls}
          max={300}
          onValue={(n) => n !== null && setV({ ...v, newRolls: Math.round(n) })}
        />
      </label>
      <label className="d-flex gap-2 align-items-center">
        <Form.Check.Input
          type="checkbox"
          className="mt-0"
          checked={v.shelf}
          onChange={(e) => setV({ ...v, shelf: e.target.checked })}
        />
        the shelf first ({onShelf.length} {onShelf.length === 1 ? 'roll or rest' : 'rolls and rests'}, {lotCount}{' '}
        {lotCount === 1 ? 'lot' : 'lots'})
      </label>
    </div>
  )
}
