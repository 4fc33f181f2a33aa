'use client'

import Form from 'react-bootstrap/Form'
import { Controller, useWatch, type UseFormReturn } from 'react-hook-form'
import { z } from 'zod'
import type { FilmSheet } from '@/core/model/film/schema'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import { type Formatter } from '@/web/words/format'

/** What is asked of a fleet's layout. `stages`: any number of cuts for null. */
export const FleetWish = z.object({
  filmId: z.string().min(1, 'Choose a film.'),
  name: z.string().trim().max(120, 'At most 120 characters.'),
  shelf: z.boolean(),
  newRolls: z.number('Say how many new rolls at most.').int().min(0).max(300),
  cutting: z.enum(['guillotine', 'free']),
  stages: z.number().nullable(),
  gapMm: z.number().min(0).max(100),
  seconds: z.number('Say how long to search.').min(1).max(300),
})
export type FleetWish = z.infer<typeof FleetWish>

/** The fields of what is asked: film, cuts, gap, seconds, rolls; `shelf`: what of the film is on the rack. */
export function FleetSettings({
  form: { register, control, formState },
  films,
  fmt,
  shelf,
}: {
  form: UseFormReturn<FleetWish>
  films: FilmSheet[]
  fmt: Formatter
  shelf: { items: number; lots: number }
}) {
  const cutting = useWatch({ control, name: 'cutting' })
  const fault = (field: keyof FleetWish) =>
    formState.errors[field] && (
      <span className="text-danger d-block small" role="alert">
        {formState.errors[field].message}
      </span>
    )
  const number = (
    field: 'seconds' | 'newRolls',
    label: string,
    width: number,
    limits: { min?: number; max: number },
  ) => (
    <label style={{ width }}>
      <span className="label">{label}</span>
      <Controller
        control={control}
        name={field}
        render={({ field: { value, onChange } }) => (
          <NumberInput
            id={`fleet-${field}`}
            className="form-control form-control-sm"
            aria-label={field === 'seconds' ? 'Seconds to search' : label}
            value={value}
            {...limits}
            onValue={(n) => onChange(n !== null && field === 'newRolls' ? Math.round(n) : n)}
          />
        )}
      />
      {fault(field)}
    </label>
  )
  return (
    <div className="settings-line">
      <label>
        <span className="label">Film</span>
        <Form.Select size="sm" aria-label="Film" {...register('filmId')}>
          {films.map((f) => (
            <option key={f.id} value={f.id}>
              {f.name}
            </option>
          ))}
        </Form.Select>
      </label>
      <label style={{ width: 200 }}>
        <span className="label">Name</span>
        <Form.Control size="sm" aria-label="Name" maxLength={120} {...register('name')} />
        {fault('name')}
      </label>
      <label>
        <span className="label">Cut</span>
        <Form.Select size="sm" aria-label="Cut" {...register('cutting')}>
          <option value="guillotine">by hand, straight cuts</option>
          <option value="free">by machine, any placement</option>
        </Form.Select>
      </label>
      {cutting === 'guillotine' && (
        <label>
          <span className="label">Stages of cuts</span>
          <Form.Select
            size="sm"
            aria-label="Stages of cuts"
            {...register('stages', { setValueAs: (n: string | number | null) => (n ? Number(n) : null) })}
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
        <Controller
          control={control}
          name="gapMm"
          render={({ field: { value, onChange } }) => (
            <LengthInput
              id="fleet-gap"
              className="form-control form-control-sm"
              aria-label="Gap between pieces"
              mm={value}
              unit={fmt.units.lengthUnit}
              format={(mm) => fmt.length(mm).text}
              max={100}
              onValue={(mm) => onChange(mm ?? 0)}
              optional
            />
          )}
        />
      </label>
      {number('seconds', 'Seconds', 90, { min: 1, max: 300 })}
      {number('newRolls', 'New rolls, at most', 110, { max: 300 })}
      <label className="d-flex gap-2 align-items-center">
        <Form.Check.Input type="checkbox" className="mt-0" {...register('shelf')} />
        the shelf first ({shelf.items} {shelf.items === 1 ? 'roll or rest' : 'rolls and rests'}, {shelf.lots}{' '}
        {shelf.lots === 1 ? 'lot' : 'lots'})
      </label>
    </div>
  )
}
