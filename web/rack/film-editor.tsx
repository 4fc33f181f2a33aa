'use client'

import { useState } from 'react'
import { parseLength, parseTemp } from '@/core/kit/units'
import { FilmSheet, SheetWord, ZONES, SURFACES } from '@/core/film/schema'
import { freeId, slug } from '@/core/plan/new-plan'
import { putFilm } from '@/web/actions/rack'
import { call } from '@/web/kit/call'
import { WordSelect } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/sentences'
import { Offers } from './offers'
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
      const field = FILM_FIELDS.flatMap((g) => g.fields).find((f) => f.field === issue?.path[0])?.label ?? String(issue?.path.join('.') ?? '') // prettier-ignore
      return setSaid(`${field}: ${faultText({ code: issue?.code === 'custom' ? issue.message : (issue?.code ?? 'bad_input') })}`) // prettier-ignore
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
          <label className="form-label" htmlFor="film-kind">Kind</label>
          <WordSelect list="film" locale={fmt.units.locale} id="film-kind" className="form-select" value={sheet.kind} onCode={(kind) => set({ kind })} />
        </div>
        <div className="col-6 col-md-2">
          <label className="form-label" htmlFor="film-finish">Finish</label>
          <WordSelect list="finish" id="film-finish" className="form-select" value={sheet.finish} onCode={(finish) => set({ finish })} />
        </div>
        <Text id="film-colour" label="Colour" value={sheet.colour.name} onText={(name) => set({ colour: { ...sheet.colour, name } })} />
        <div className="col-6 col-md-1">
          <label className="form-label" htmlFor="film-hex">Shade</label>
          <input id="film-hex" type="color" className="form-control form-control-color w-100" value={sheet.colour.hex} onChange={(e) => set({ colour: { ...sheet.colour, hex: e.target.value } })} />
        </div>
      </div>
      <div className="film-fields">
        {FILM_FIELDS.map(({ group, fields }) => (
          <fieldset key={group}>
            <legend className="h3">{group}</legend>
            {fields.map((f) => (
              <div key={f.label} className="film-field">
                <span className="label" id={`lf-${group}-${f.label}`.replace(/\W+/g, '-')}>{f.label}{unitOf(f, fmt)}</span>
                <FieldInput field={f} sheet={sheet} set={set} fmt={fmt} />
                <select className="form-select form-select-sm" aria-label={`${f.label}, standing`} value={sheet.standings[f.field] ?? ''} onChange={(e) => stand(f.field, e.target.value)}>
                  <option value="">film sheet</option>
                  <option value="published">published</option>
                  <option value="common_practice">common practice</option>
                  <option value="assumed">assumed</option>
                </select>
              </div>
            ))}
          </fieldset>
        ))}
      </div>
      <Offers sheet={sheet} set={set} fmt={fmt} />
      <div className="d-flex gap-2 align-items-center mt-3">
        <button type="button" className="btn btn-primary" disabled={busy} onClick={() => void save()}>
          {basedOn === 0 ? 'Put it on the rack' : 'Save the sheet'}
        </button>
        <button type="button" className="btn btn-outline-secondary" onClick={() => onDone(false)}>Cancel</button>
        <span className="text-danger" role="alert">{said}</span>
      </div>
    </section>
  )
} // prettier-ignore

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
      <label className="form-label" htmlFor={id}>{label}</label>
      <input id={id} className="form-control" maxLength={120} value={value} aria-invalid={value.trim() === '' || undefined} onChange={(e) => onText(e.target.value)} />
    </div>
  )
} // prettier-ignore

function FieldInput({ field: f, sheet, set, fmt }: { field: FilmField; sheet: FilmSheet; set: (part: Partial<FilmSheet>) => void; fmt: Formatter }) {
  const unit = fmt.units.lengthUnit
  const format = (mm: number) => fmt.length(mm).text
  const cls = 'form-control form-control-sm'
  switch (f.kind) {
    case 'length':
      return f.path ? (
        <LengthInput className={cls} aria-label={f.label} mm={sheet.soldBy.minimumMm} unit={unit} format={format} max={f.max} optional onValue={(mm) => set({ soldBy: { ...sheet.soldBy, minimumMm: mm ?? 0 } })} />
      ) : (
        <LengthInput className={cls} aria-label={f.label} mm={sheet[f.field] as number} unit={unit} format={format} max={f.max} optional onValue={(mm) => set({ [f.field]: mm ?? 0 })} />
      )
    case 'lengths':
      return <ListInput label={f.label} values={sheet[f.field] as number[]} fmt={fmt} max={f.max} onValues={(v) => set({ [f.field]: v })} />
    case 'percent':
      return f.path ? (
        <NumberInput className={cls} aria-label={`${f.label}, per cent`} value={sheet.preStretchMax[f.path === 'preStretchMax.cold' ? 'cold' : 'warm']} scale={100} digits={1} max={f.max} min={0} optional onValue={(v) => set({ preStretchMax: { ...sheet.preStretchMax, [f.path === 'preStretchMax.cold' ? 'cold' : 'warm']: v ?? 0 } })} />
      ) : (
        <NumberInput className={cls} aria-label={`${f.label}, per cent`} value={sheet[f.field] as number} scale={100} digits={1} max={f.max} min={0} optional onValue={(v) => set({ [f.field]: v ?? 0 })} />
      )
    case 'number':
      return f.path ? (
        <NumberInput className={cls} aria-label={f.label} value={sheet.soldBy.price} digits={2} max={f.max} optional onValue={(v) => set({ soldBy: { ...sheet.soldBy, price: v ?? 0 } })} />
      ) : (
        <NumberInput className={cls} aria-label={`${f.label}${f.unit ? `, ${f.unit}` : ''}`} value={sheet[f.field] as number | null} max={f.max} optional onValue={(v) => set({ [f.field]: v ?? (f.optional ? null : 0) })} />
      )
    case 'span':
      return <SpanInput label={f.label} unit={f.unit} value={sheet[f.field] as { min: number; max: number } | null} optional={f.optional ?? false} fmt={fmt} onValue={(v) => set({ [f.field]: v })} />
    case 'temp':
      return <TempInput label={f.label} value={sheet[f.field] as number} fmt={fmt} onValue={(c) => set({ [f.field]: c })} />
    case 'flag':
      return <input type="checkbox" aria-label={f.label} checked={sheet[f.field] as boolean} onChange={(e) => set({ [f.field]: e.target.checked })} />
    case 'word':
      return f.path ? (
        <WordSelect list={f.list} locale={fmt.units.locale} className="form-select form-select-sm" aria-label={f.label} value={sheet.soldBy.unit} onCode={(u) => set({ soldBy: { ...sheet.soldBy, unit: u } })} />
      ) : (
        <WordSelect list={f.list} className="form-select form-select-sm" aria-label={f.label} value={sheet.edgeOrder} onCode={(edgeOrder) => set({ edgeOrder })} />
      )
    case 'warranty':
      return <Warranty sheet={sheet} set={set} />
    case 'text':
      return <textarea className={cls} aria-label={f.label} rows={2} maxLength={2000} value={sheet.care} onChange={(e) => set({ care: e.target.value })} />
  }
} // prettier-ignore

/** Several lengths in one field, parted by semicolons. */
function ListInput({ label, values, fmt, max, onValues }: { label: string; values: number[]; fmt: Formatter; max: number; onValues: (v: number[]) => void }) {
  const [draft, setDraft] = useState<string | null>(null)
  const read = (t: string) => t.split(';').map((x) => parseLength(x, fmt.units.lengthUnit))
  const good = (t: string) => read(t).every((r) => r.ok && r.value > 0 && r.value <= max)
  const bad = draft !== null && !good(draft)
  return (
    <span>
      <input className="form-control form-control-sm num" aria-label={`${label}, parted by semicolons`} aria-invalid={bad || undefined} value={draft ?? values.map((v) => fmt.length(v).text).join('; ')} onChange={(e) => { setDraft(e.target.value); if (good(e.target.value)) onValues(read(e.target.value).flatMap((r) => (r.ok ? [r.value] : []))) }} onBlur={() => !bad && setDraft(null)} />
      {bad && <span className="text-danger small">Lengths parted by semicolons, each at most {fmt.text(fmt.longLength(max))}.</span>}
    </span>
  )
} // prettier-ignore

function TempInput({ label, value, fmt, onValue }: { label: string; value: number | null; fmt: Formatter; onValue: (c: number) => void }) {
  const [draft, setDraft] = useState<string | null>(null)
  const bad = draft !== null && !parseTemp(draft, fmt.units.tempUnit).ok
  return (
    <input className="form-control form-control-sm num" aria-label={`${label}, °${fmt.units.tempUnit}`} aria-invalid={bad || undefined} value={draft ?? (value === null ? '' : fmt.temp(value).text)} onChange={(e) => { setDraft(e.target.value); const t = parseTemp(e.target.value, fmt.units.tempUnit); if (t.ok) onValue(t.value) }} onBlur={() => !bad && setDraft(null)} />
  )
} // prettier-ignore

function SpanInput({ label, unit, value, optional, fmt, onValue }: { label: string; unit: 'C' | 'h'; value: { min: number; max: number } | null; optional: boolean; fmt: Formatter; onValue: (v: { min: number; max: number } | null) => void }) {
  const ends = ['min', 'max'] as const
  const from = value ?? { min: 0, max: 0 }
  return (
    <span>
      <span className="d-flex gap-1 align-items-center">
        {optional && <input type="checkbox" aria-label={`${label}, needed`} checked={value !== null} onChange={(e) => onValue(e.target.checked ? { min: 24, max: 48 } : null)} />}
        {value !== null &&
          ends.map((end) =>
            unit === 'C' ? (
              <TempInput key={end} label={`${label} ${end === 'min' ? 'from' : 'to'}`} value={from[end]} fmt={fmt} onValue={(c) => onValue({ ...from, [end]: c })} />
            ) : (
              <NumberInput key={end} className="form-control form-control-sm" aria-label={`${label} ${end === 'min' ? 'from' : 'to'}, hours`} value={from[end]} max={336} optional onValue={(v) => onValue({ ...from, [end]: v ?? 0 })} />
            ),
          )}
      </span>
      {value && value.min > value.max && <span className="text-danger small">{faultText({ code: 'min_over_max' })}</span>}
    </span>
  )
} // prettier-ignore

/** Months by the zones and surfaces that the sheet names, a row each, as many as there are. */
function Warranty({ sheet, set }: { sheet: FilmSheet; set: (part: Partial<FilmSheet>) => void }) {
  const rows = sheet.warrantyMonths
  const change = (i: number, part: Partial<(typeof rows)[number]>) =>
    set({ warrantyMonths: rows.map((w, k) => (k === i ? { ...w, ...part } : w)) })
  const twice = rows.findIndex((w, i) => rows.findIndex((v) => v.zone === w.zone && v.surface === w.surface) < i)
  return (
    <span className="warranty">
      {rows.map((w, i) => (
        <span key={i} className="d-flex gap-1 align-items-center mb-1">
          <input className="form-control form-control-sm" aria-label={`Warranty ${i + 1}, zone`} list="warranty-zones" maxLength={60} placeholder="zone" value={w.zone} aria-invalid={!SheetWord.safeParse(w.zone).success || undefined} onChange={(e) => change(i, { zone: e.target.value })} />
          <input className="form-control form-control-sm" aria-label={`Warranty ${i + 1}, surface`} list="warranty-surfaces" maxLength={60} placeholder="surface" value={w.surface} aria-invalid={!SheetWord.safeParse(w.surface).success || undefined} onChange={(e) => change(i, { surface: e.target.value })} />
          <NumberInput className="form-control form-control-sm" aria-label={`Warranty ${i + 1}, months`} value={w.months} max={600} onValue={(v) => v !== null && change(i, { months: Math.round(v) })} />
          <button type="button" className="btn btn-outline-secondary btn-sm" aria-label={`Take out warranty ${i + 1}`} onClick={() => set({ warrantyMonths: rows.filter((_, k) => k !== i) })}>×</button>
        </span>
      ))}
      <button type="button" className="btn btn-outline-primary btn-sm" onClick={() => set({ warrantyMonths: [...rows, nextWarranty(rows)] })}>Add a zone and surface</button>
      {twice >= 0 && <span className="text-danger small d-block">{rows[twice]?.zone}, {rows[twice]?.surface} stands here twice.</span>}
      <datalist id="warranty-zones">{[...new Set([...ZONES, ...rows.map((w) => w.zone)])].map((z) => <option key={z} value={z} />)}</datalist>
      <datalist id="warranty-surfaces">{[...new Set([...SURFACES, ...rows.map((w) => w.surface)])].map((z) => <option key={z} value={z} />)}</datalist>
    </span>
  )
} // prettier-ignore

/** The first pair that is not listed yet; when all are, one to be named. */
const nextWarranty = (rows: FilmSheet['warrantyMonths']): FilmSheet['warrantyMonths'][number] => {
  const free = ZONES.flatMap((zone) => SURFACES.map((surface) => ({ zone, surface }))).find(
    (x) => !rows.some((w) => w.zone === x.zone && w.surface === x.surface),
  )
  return { ...(free ?? { zone: '', surface: '' }), months: 0 }
}
