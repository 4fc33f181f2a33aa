'use client'

import type { Plan } from '@/core/plan/schema'
import { WordSelect } from '@/web/kit/fields'
import { freeId } from '@/core/plan/new-plan'
import { useState } from 'react'
import { Fig } from '@/web/job/figure'
import { Cautions, Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { NumberInput } from '@/web/kit/quantity-input'

type Walk = Plan['walkaround']

/** The look round the vehicle before anything is promised. */
export function WalkaroundView() {
  const { plan, edit, fmt, mayPlan } = useJob()
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
    <>
      <div className="bench-head">
        <h1>Walkaround</h1>
        <span className="label">what removal and warranty will hang on</span>
      </div>
      <Findings stage="walkaround" />
      <fieldset disabled={!mayPlan}>
        <section className="plate mb-3">
          <h2>Job and vehicle</h2>
          <div className="row g-3">
            <TextField
              id="job-name"
              label="Job"
              value={plan.name}
              required
              onText={(name) => edit((p) => ({ ...p, name }))}
            />
            <TextField
              id="customer-ref"
              label="Customer reference"
              value={plan.customerRef}
              onText={(customerRef) => edit((p) => ({ ...p, customerRef }))}
            />
            <TextField
              id="colour-name"
              label="Body colour"
              value={plan.vehicle.colour.name}
              required
              onText={(name) =>
                edit((p) => ({ ...p, vehicle: { ...p.vehicle, colour: { ...p.vehicle.colour, name } } }))
              }
            />
            <div className="col-6 col-lg-3">
              <label className="form-label" htmlFor="colour-hex">
                Nearest shade
              </label>
              <input
                id="colour-hex"
                type="color"
                className="form-control form-control-color w-100"
                value={plan.vehicle.colour.hex}
                onChange={(e) =>
                  edit((p) => ({
                    ...p,
                    vehicle: { ...p.vehicle, colour: { ...p.vehicle.colour, hex: e.target.value } },
                  }))
                }
              />
            </div>
          </div>
          <p className="mt-2 mb-0">
            <span className="label">Contrast against the film</span> <Fig id="walkaround/contrast" />
          </p>
        </section>
        <section className="plate mb-3">
          <h2>Paint</h2>
          <div className="row g-3">
            {choose('paint-origin', 'Paint', 'origin', w.paint.origin, (origin) => paint({ origin }))}
            {choose('paint-condition', 'Condition', 'condition', w.paint.condition, (condition) =>
              paint({ condition }),
            )}
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
                <input
                  id="repainted-on"
                  type="date"
                  className="form-control"
                  value={w.paint.repaintedOn ?? ''}
                  onChange={(e) => paint({ repaintedOn: e.target.value || null })}
                />
              </div>
            )}
            {choose('zone', 'Climate zone', 'zone', w.zone, (zone) => set({ zone }))}
          </div>
        </section>
        <Damage />
        <Hardware />
        <section className="plate">
          <label className="h2" htmlFor="walk-note">
            Note
          </label>
          <textarea
            id="walk-note"
            className="form-control"
            rows={2}
            maxLength={2000}
            value={w.note}
            onChange={(e) => set({ note: e.target.value })}
          />
          <div className="mt-2">
            <Cautions codes={['never_cover', 'airbag_trim']} />
          </div>
        </section>
      </fieldset>
      <p className="label mt-2">
        Temperatures in {fmt.units.tempUnit === 'C' ? '°C' : '°F'}, lengths in {fmt.units.lengthUnit}; change both at
        the top.
      </p>
    </>
  )
}

function TextField({
  id,
  label,
  value,
  required = false,
  onText,
}: {
  id: string
  label: string
  value: string
  required?: boolean
  onText: (v: string) => void
}) {
  const [draft, setDraft] = useState<string | null>(null)
  const bad = required && draft !== null && draft.trim() === ''
  return (
    <div className="col-6 col-lg-3">
      <label className="form-label" htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        className="form-control"
        maxLength={120}
        value={draft ?? value}
        aria-invalid={bad || undefined}
        onChange={(e) => {
          setDraft(e.target.value)
          if (!required || e.target.value.trim() !== '') onText(e.target.value)
        }}
        onBlur={() => setDraft(null)}
      />
      {bad && <span className="text-danger small">This cannot be empty; the last text stays.</span>}
    </div>
  )
}

function Damage() {
  const { plan, edit } = useJob()
  const list = plan.walkaround.damage
  const set = (damage: Walk['damage']) => edit((p) => ({ ...p, walkaround: { ...p.walkaround, damage } }))
  const change = (id: string, part: Partial<Walk['damage'][number]>) =>
    set(list.map((d) => (d.id === id ? { ...d, ...part } : d)))
  return (
    <section className="plate mb-3">
      <h2>Damage before the work</h2>
      {list.length === 0 && <p className="label">None noted.</p>}
      {list.map((d, i) => (
        <div key={d.id} className="row g-2 mb-1">
          <div className="col-3">
            <WordSelect
              list="damage"
              className="form-select"
              aria-label={`Damage ${i + 1}, kind`}
              value={d.kind}
              onCode={(code) => change(d.id, { kind: code })}
            />
          </div>
          <div className="col-3">
            <select
              className="form-select"
              aria-label={`Damage ${i + 1}, panel`}
              value={d.panelId ?? ''}
              onChange={(e) => change(d.id, { panelId: e.target.value || null })}
            >
              <option value="">no panel named</option>
              {plan.panels.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </select>
          </div>
          <div className="col">
            <input
              className="form-control"
              aria-label={`Damage ${i + 1}, note`}
              placeholder="Where, how large"
              maxLength={2000}
              value={d.note}
              onChange={(e) => change(d.id, { note: e.target.value })}
            />
          </div>
          <div className="col-auto">
            <button type="button" className="btn btn-link" onClick={() => set(list.filter((x) => x.id !== d.id))}>
              Remove
            </button>
          </div>
        </div>
      ))}
      <button
        type="button"
        className="btn btn-outline-primary btn-sm mt-1"
        onClick={() =>
          set([
            ...list,
            {
              id: freeId(
                'd1',
                list.map((d) => d.id),
              ),
              panelId: null,
              kind: 'chip',
              note: '',
            },
          ])
        }
      >
        Add damage
      </button>
    </section>
  )
}

function Hardware() {
  const { plan, edit } = useJob()
  const list = plan.walkaround.hardware
  const set = (hardware: Walk['hardware']) => edit((p) => ({ ...p, walkaround: { ...p.walkaround, hardware } }))
  const change = (id: string, part: Partial<Walk['hardware'][number]>) =>
    set(list.map((h) => (h.id === id ? { ...h, ...part } : h)))
  return (
    <section className="plate mb-3">
      <h2>Hardware</h2>
      {list.length === 0 && <p className="label">Nothing listed.</p>}
      {list.map((h, i) => (
        <div key={h.id} className="row g-2 mb-1">
          <div className="col">
            <input
              className="form-control"
              aria-label={`Hardware ${i + 1}, name`}
              maxLength={120}
              value={h.name}
              onChange={(e) => e.target.value.trim() !== '' && change(h.id, { name: e.target.value })}
            />
          </div>
          <div className="col-3">
            <WordSelect
              list="hardware"
              className="form-select"
              aria-label={`Hardware ${i + 1}, way`}
              value={h.way}
              onCode={(code) => change(h.id, { way: code })}
            />
          </div>
          <div className="col-2">
            <NumberInput
              className="form-control"
              aria-label={`Hardware ${i + 1}, minutes`}
              value={h.minutes}
              min={0}
              max={600}
              optional
              onValue={(minutes) => change(h.id, { minutes: minutes ?? 0 })}
            />
          </div>
          <div className="col-auto d-flex align-items-center label">min</div>
          <div className="col-auto">
            <button type="button" className="btn btn-link" onClick={() => set(list.filter((x) => x.id !== h.id))}>
              Remove
            </button>
          </div>
        </div>
      ))}
      <button
        type="button"
        className="btn btn-outline-primary btn-sm mt-1"
        onClick={() =>
          set([
            ...list,
            {
              id: freeId(
                'h1',
                list.map((h) => h.id),
              ),
              name: 'Part',
              way: 'remove',
              minutes: 10,
            },
          ])
        }
      >
        Add hardware
      </button>
    </section>
  )
}
