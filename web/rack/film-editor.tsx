'use client'

import { zodResolver } from '@hookform/resolvers/zod'
import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { useForm, useWatch } from 'react-hook-form'
import { z } from 'zod'
import { FilmSheet } from '@/core/model/film/schema'
import { firstFault } from '@/core/kit/first-fault'
import { freeId, slug } from '@/core/kit/ids'
import { putFilm } from '@/web/actions/rack'
import { call } from '@/web/kit/call'
import { firstInvalid } from '@/web/kit/first-invalid'
import { WordSelect } from '@/web/kit/fields'
import type { Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/faults'
import { Offers } from './offers'
import { FieldInput } from './film-field-input'
import { FILM_FIELDS, type FilmField, type StandedField } from './film-fields'

interface Props {
  start: FilmSheet
  /** 0 for a film that is new to the rack. */
  basedOn: number
  taken: readonly string[]
  fmt: Formatter
  onDone: (saved: boolean) => void
}

/** A film's sheet, all of it, each figure with how well it is known. */
export function FilmEditor({ start, basedOn, taken, fmt, onDone }: Props) {
  const { control, setValue, handleSubmit, formState } = useForm<z.input<typeof FilmSheet>, unknown, FilmSheet>({
    resolver: zodResolver(FilmSheet),
    defaultValues: start,
  })
  const sheet = useWatch({ control }) as FilmSheet
  const [said, setSaid] = useState('')
  const set = (part: Partial<FilmSheet>) => {
    for (const [field, value] of Object.entries(part))
      setValue(field as keyof FilmSheet, value as never, { shouldDirty: true, shouldValidate: formState.isSubmitted })
  }
  const stand = (field: StandedField, standing: string) => {
    const { [field]: _, ...rest } = sheet.standings
    set({ standings: standing === '' ? rest : { ...rest, [field]: standing as 'assumed' } })
  }
  const issues = formState.isSubmitted ? (FilmSheet.safeParse(sheet).error?.issues ?? []) : []
  const fault = (field: keyof FilmSheet) => {
    const issue = issues.find((x) => x.path[0] === field)
    return issue ? faultText(firstFault(new z.ZodError([issue]))) : ''
  }
  const save = handleSubmit(
    async (checked, event) => {
      const bad = firstInvalid(event?.target as HTMLFormElement)
      if (bad !== null) return setSaid(`${bad}: cannot be read. Nothing is saved yet.`)
      const id = basedOn === 0 ? freeId(slug(checked.name), taken) : checked.id
      const out = await call(putFilm, { sheet: { ...checked, id }, basedOn })
      if (!out.ok) return setSaid(faultText(out.error))
      onDone(true)
    },
    () => setSaid('Not saved: put right what is marked.'),
  )
  return (
    <Form
      noValidate
      role="region"
      className="plate mb-3"
      aria-label={`Sheet of ${start.name}`}
      onSubmit={(e) => void save(e)}
    >
      <h2>{basedOn === 0 ? 'A new film' : start.name}</h2>
      <div className="row g-2 mb-2">
        <Text id="film-name" label="Name" value={sheet.name} fault={fault('name')} onText={(name) => set({ name })} />
        <Text
          id="film-maker"
          label="Maker"
          value={sheet.maker}
          fault={fault('maker')}
          onText={(maker) => set({ maker })}
        />
        <div className="col-6 col-md-2">
          <Form.Label htmlFor="film-kind">Kind</Form.Label>
          <WordSelect
            list="film"
            locale={fmt.units.locale}
            id="film-kind"
            className="form-select"
            value={sheet.kind}
            onCode={(kind) => set({ kind })}
          />
        </div>
        <div className="col-6 col-md-2">
          <Form.Label htmlFor="film-finish">Finish</Form.Label>
          <WordSelect
            list="finish"
            id="film-finish"
            className="form-select"
            value={sheet.finish}
            onCode={(finish) => set({ finish })}
          />
        </div>
        <Text
          id="film-colour"
          label="Colour"
          value={sheet.colour.name}
          fault={fault('colour')}
          onText={(name) => set({ colour: { ...sheet.colour, name } })}
        />
        <div className="col-6 col-md-1">
          <Form.Label htmlFor="film-hex">Shade</Form.Label>
          <Form.Control
            id="film-hex"
            type="color"
            className="w-100"
            value={sheet.colour.hex}
            onChange={(e) => set({ colour: { ...sheet.colour, hex: e.target.value } })}
          />
        </div>
      </div>
      <div className="film-fields">
        {FILM_FIELDS.map(({ group, fields }) => (
          <fieldset key={group}>
            <legend className="h3">{group}</legend>
            {fields.map((f) => (
              <div key={f.label} className="film-field">
                <span className="label" id={`lf-${group}-${f.label}`.replace(/\W+/g, '-')}>
                  {f.label}
                  {unitOf(f, fmt)}
                </span>
                <FieldInput field={f} sheet={sheet} set={set} fmt={fmt} />
                <Form.Select
                  size="sm"
                  aria-label={`${f.label}, standing`}
                  value={sheet.standings[f.field] ?? ''}
                  onChange={(e) => stand(f.field, e.target.value)}
                >
                  <option value="">film sheet</option>
                  <option value="published">published</option>
                  <option value="common_practice">common practice</option>
                  <option value="assumed">assumed</option>
                </Form.Select>
                {f.kind !== 'span' && fault(f.field) !== '' && (
                  <span className="text-danger" role="alert">
                    {fault(f.field)}
                  </span>
                )}
              </div>
            ))}
          </fieldset>
        ))}
      </div>
      <Offers sheet={sheet} set={set} fmt={fmt} />
      <div className="d-flex gap-2 align-items-center mt-3">
        <Button type="submit" disabled={formState.isSubmitting}>
          {basedOn === 0 ? 'Put it on the rack' : 'Save the sheet'}
        </Button>
        <Button variant="outline-secondary" onClick={() => onDone(false)}>
          Cancel
        </Button>
        <span className="text-danger" role="alert">
          {said}
        </span>
      </div>
    </Form>
  )
}

/** The unit that a field is typed in, after its name. */
function unitOf(f: FilmField, fmt: Formatter): string {
  if (f.kind === 'length' || f.kind === 'lengths') return `, ${fmt.units.lengthUnit}`
  if (f.kind === 'percent') return ', %'
  if (f.kind === 'temp' || (f.kind === 'span' && f.unit === 'C')) return `, °${fmt.units.tempUnit}`
  return f.kind === 'span' ? ', h' : f.kind === 'number' && f.unit ? `, ${f.unit}` : ''
}

interface TextProps {
  id: string
  label: string
  value: string
  fault: string
  onText: (t: string) => void
}

function Text({ id, label, value, fault, onText }: TextProps) {
  return (
    <div className="col-6 col-md-2">
      <Form.Label htmlFor={id}>{label}</Form.Label>
      <Form.Control
        id={id}
        maxLength={120}
        value={value}
        isInvalid={fault !== ''}
        onChange={(e) => onText(e.target.value)}
      />
      <Form.Control.Feedback type="invalid">{fault}</Form.Control.Feedback>
    </div>
  )
}
