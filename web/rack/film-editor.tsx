'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { FilmSheet } from '@/core/model/film/schema'
import { freeId, slug } from '@/core/kit/ids'
import { putFilm } from '@/web/actions/rack'
import { call } from '@/web/kit/call'
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
  const [sheet, setSheet] = useState(start)
  const [said, setSaid] = useState('')
  const [busy, setBusy] = useState(false)
  const set = (part: Partial<FilmSheet>) => setSheet((was) => ({ ...was, ...part }))
  const stand = (field: StandedField, standing: string) =>
    setSheet((was) => {
      const { [field]: _, ...rest } = was.standings
      return { ...was, standings: standing === '' ? rest : { ...rest, [field]: standing as 'assumed' } }
    })
  const save = async () => {
    const id = basedOn === 0 ? freeId(slug(sheet.name), taken) : sheet.id
    const parsed = FilmSheet.safeParse({ ...sheet, id })
    if (!parsed.success) {
      const issue = parsed.error.issues[0]
      const field =
        FILM_FIELDS.flatMap((g) => g.fields).find((f) => f.field === issue?.path[0])?.label ??
        String(issue?.path.join('.') ?? '')
      return setSaid(
        `${field}: ${faultText({ code: issue?.code === 'custom' ? issue.message : (issue?.code ?? 'bad_input') })}`,
      )
    }
    setBusy(true)
    const out = await call(putFilm, { sheet: parsed.data, basedOn })
    setBusy(false)
    if (!out.ok) return setSaid(faultText(out.error))
    onDone(true)
  }
  return (
    <section className="plate mb-3" aria-label={`Sheet of ${start.name}`}>
      <h2>{basedOn === 0 ? 'A new film' : start.name}</h2>
      <div className="row g-2 mb-2">
        <Text id="film-name" label="Name" value={sheet.name} onText={(name) => set({ name })} />
        <Text id="film-maker" label="Maker" value={sheet.maker} onText={(maker) => set({ maker })} />
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
              </div>
            ))}
          </fieldset>
        ))}
      </div>
      <Offers sheet={sheet} set={set} fmt={fmt} />
      <div className="d-flex gap-2 align-items-center mt-3">
        <Button disabled={busy} onClick={() => void save()}>
          {basedOn === 0 ? 'Put it on the rack' : 'Save the sheet'}
        </Button>
        <Button variant="outline-secondary" onClick={() => onDone(false)}>
          Cancel
        </Button>
        <span className="text-danger" role="alert">
          {said}
        </span>
      </div>
    </section>
  )
}

/** The unit that a field is typed in, after its name. */
function unitOf(f: FilmField, fmt: Formatter): string {
  if (f.kind === 'length' || f.kind === 'lengths') return `, ${fmt.units.lengthUnit}`
  if (f.kind === 'percent') return ', %'
  if (f.kind === 'temp' || (f.kind === 'span' && f.unit === 'C')) return `, °${fmt.units.tempUnit}`
  return f.kind === 'span' ? ', h' : f.kind === 'number' && f.unit ? `, ${f.unit}` : ''
}

function Text({ id, label, value, onText }: { id: string; label: string; value: string; onText: (t: string) => void }) {
  return (
    <div className="col-6 col-md-2">
      <Form.Label htmlFor={id}>{label}</Form.Label>
      <Form.Control
        id={id}
        maxLength={120}
        value={value}
        aria-invalid={value.trim() === '' || undefined}
        onChange={(e) => onText(e.target.value)}
      />
    </div>
  )
}
