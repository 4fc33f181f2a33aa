'use client'

import { zodResolver } from '@hookform/resolvers/zod'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { Controller, useForm } from 'react-hook-form'
import { z } from 'zod'
import type { FilmSheet } from '@/core/model/film/schema'
import { receiveStock } from '@/web/actions/shop'
import { call, newId } from '@/web/kit/call'
import { firstInvalid } from '@/web/kit/first-invalid'
import { LengthInput } from '@/web/kit/quantity-input'
import { faultText } from '@/web/words/faults'
import type { Formatter } from '@/web/words/format'

const text = (missing: string) => z.string().trim().min(1, missing).max(120, 'At most 120 characters.')
const Fields = z.object({
  filmId: z.string(),
  kind: z.enum(['roll', 'rest']),
  label: text('Give it the label that is written on it.'),
  lot: text('Read the lot from its core.'),
  widthMm: z.number('Measure its width.'),
  lengthMm: z.number('Measure its length.'),
})
type Fields = z.infer<typeof Fields>

const newIds = () => ({ id: newId(), movementId: newId() })

/** A roll or a rest put on the rack, with its label and lot. */
export function Receive({ films, fmt }: { films: FilmSheet[]; fmt: Formatter }) {
  const router = useRouter()
  const [said, setSaid] = useState<{ text: string; bad: boolean } | null>(null)
  // The same ids again after a dead network: the roll is put on the rack once.
  const [ids, setIds] = useState(newIds)
  const sizes = (film: FilmSheet | undefined) => ({
    widthMm: film?.widthsMm[0] ?? 1520,
    lengthMm: film?.rollLengthsMm[0] ?? 25_000,
  })
  const blank = (film: FilmSheet | undefined) =>
    ({ filmId: film?.id ?? '', kind: 'roll', label: '', lot: '', ...sizes(film) }) as const
  const { register, control, handleSubmit, formState, reset, setValue } = useForm<Fields>({
    resolver: zodResolver(Fields),
    defaultValues: blank(films[0]),
  })
  const send = handleSubmit(async (v, event) => {
    const bad = firstInvalid(event?.target as HTMLFormElement)
    if (bad !== null) return setSaid({ text: `${bad}: cannot be read. Nothing is put on the rack.`, bad: true })
    const out = await call(receiveStock, { ...v, ...ids })
    if (!out.ok) return setSaid({ text: faultText(out.error), bad: true })
    setIds(newIds)
    setSaid({ text: `${v.label} is on the rack.`, bad: false })
    reset(blank(films.find((f) => f.id === v.filmId)))
    router.refresh()
  })
  const fault = (field: keyof Fields) =>
    formState.errors[field] && <p className="text-danger mb-0">{formState.errors[field].message}</p>
  const typed = (field: 'label' | 'lot', label: string) => (
    <div className="col-md-2">
      <Form.Label htmlFor={`r-${field}`}>{label}</Form.Label>
      <Form.Control
        id={`r-${field}`}
        maxLength={120}
        aria-invalid={formState.errors[field] ? true : undefined}
        {...register(field)}
      />
      {fault(field)}
    </div>
  )
  const length = (field: 'widthMm' | 'lengthMm', label: string, min: number, max: number) => (
    <div className="col-md-1">
      <Form.Label htmlFor={`r-${field}`}>{label}</Form.Label>
      <Controller
        control={control}
        name={field}
        render={({ field: { value, onChange } }) => (
          <LengthInput
            id={`r-${field}`}
            className="form-control"
            aria-label={`Roll ${label.toLowerCase()}`}
            mm={value}
            unit={fmt.units.lengthUnit}
            format={(mm) => fmt.length(mm).text}
            min={min}
            max={max}
            onValue={onChange}
          />
        )}
      />
      {fault(field)}
    </div>
  )
  return (
    <details className="plate my-3">
      <summary>
        <b>Put a roll or rest on the rack</b>
      </summary>
      <Form className="row g-2 mt-1 align-items-start" noValidate onSubmit={(e) => void send(e)}>
        <div className="col-md-3">
          <Form.Label htmlFor="r-film">Film</Form.Label>
          <Form.Select
            id="r-film"
            {...register('filmId', {
              onChange: (e: { target: { value: string } }) => {
                const { widthMm, lengthMm } = sizes(films.find((f) => f.id === e.target.value))
                setValue('widthMm', widthMm)
                setValue('lengthMm', lengthMm)
              },
            })}
          >
            {films.map((f) => (
              <option key={f.id} value={f.id}>
                {f.name}
              </option>
            ))}
          </Form.Select>
        </div>
        <div className="col-md-1">
          <Form.Label htmlFor="r-kind">Kind</Form.Label>
          <Form.Select id="r-kind" {...register('kind')}>
            <option value="roll">roll</option>
            <option value="rest">rest</option>
          </Form.Select>
        </div>
        {typed('label', 'Label')}
        {typed('lot', 'Lot')}
        {length('widthMm', 'Width', 50, 3000)}
        {length('lengthMm', 'Length', 0, 100_000)}
        <div className="col-md-2 align-self-end">
          <Button type="submit" className="w-100" disabled={formState.isSubmitting}>
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
