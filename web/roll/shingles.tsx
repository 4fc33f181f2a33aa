'use client'

import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import { useMemo } from 'react'
import type { FilmSheet } from '@/core/model/film/schema'
import type { Plan } from '@/core/model/plan/schema'
import { shingleFigures, shinglesOf, type PanelShingles } from '@/core/engines/pieces/panel-shingles'
import { EXPOSED_SETBACK_MM } from '@/core/engines/sheets/shingles'
import { Fig, type Figures } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { faultText } from '@/web/words/faults'

type Settings = Plan['layout']['sheets']

/** Sheets ripped lengthwise and laid like shingles, aft to fore, on each panel that takes them. */
export function Shingles({ film }: { film: FilmSheet }) {
  const { plan, edit, fmt, mayPlan } = useJob('plan', 'edit', 'fmt', 'mayPlan')
  const panels = useMemo(() => shinglesOf(plan, film), [plan, film])
  const figures = useMemo(
    () => new Map(panels.flatMap((p) => shingleFigures(plan, film, p)).map((f) => [f.id, f])),
    [panels, plan, film],
  )
  const { sheets } = plan.layout
  const set = (change: Partial<Settings>) =>
    edit((p) => ({ ...p, layout: { ...p.layout, sheets: { ...p.layout.sheets, ...change } } }))
  if (panels.length === 0) return null
  return (
    <section className="mb-3" aria-label="Sheets as shingles">
      <h3>Sheets as shingles</h3>
      <fieldset disabled={!mayPlan} className="settings-line">
        <label style={{ width: 130 }}>
          <span className="label">Strips from a sheet</span>
          <Form.Select
            size="sm"
            aria-label="Strips from a sheet"
            value={sheets.rips}
            onChange={(e) => set({ rips: Number(e.target.value) })}
          >
            {Array.from({ length: 12 }, (_, i) => (
              <option key={i} value={i + 1}>
                {i + 1}
              </option>
            ))}
          </Form.Select>
        </label>
        <label style={{ width: 120 }}>
          <span className="label">Overlap</span>
          <LengthInput
            id="sheets-overlap"
            className="form-control form-control-sm"
            aria-label="Overlap of sheets"
            optional
            mm={sheets.overlapMm ?? film.overlapMm}
            unit={fmt.units.lengthUnit}
            format={(v) => fmt.length(v).text}
            max={200}
            onValue={(overlapMm) => set({ overlapMm })}
          />
        </label>
        <span>
          <span className="label d-block">
            Edges that meet flow or weather: stop {fmt.text(fmt.length(EXPOSED_SETBACK_MM))} short
          </span>
          {(['fore', 'aft', 'top', 'bottom'] as const).map((edge) => (
            <label key={edge} className="d-inline-flex gap-1 align-items-center me-3">
              <Form.Check.Input
                type="checkbox"
                className="mt-0"
                checked={sheets.exposed[edge]}
                onChange={(e) => set({ exposed: { ...sheets.exposed, [edge]: e.target.checked } })}
              />
              {edge}
            </label>
          ))}
        </span>
      </fieldset>
      {panels.map((p) => (
        <OnePanel key={p.panel.id} at={p} film={film} figures={figures} />
      ))}
    </section>
  )
}

function OnePanel({ at, film, figures }: { at: PanelShingles; film: FilmSheet; figures: Figures }) {
  const { fmt } = useJob('fmt')
  if (!at.plan.ok)
    return (
      <p className="caution">
        {at.panel.name}: {faultText(at.plan.error)}
      </p>
    )
  const { laid, sheets } = at.plan.value
  const k = 760 / at.panel.widthMm
  const h = at.panel.heightMm * k
  const id = (f: string) => `shingles/${film.id}/${at.panel.id}/${f}`
  return (
    <div className="mb-3">
      <b>{at.panel.name}</b>: <Fig among={figures} id={id('sheets')} /> {sheets === 1 ? 'sheet' : 'sheets'},{' '}
      {laid.length} strips of <Fig among={figures} id={id('strip')} />; numbers are the order of laying, aft on the{' '}
      {at.aftAt === 'right' ? 'right' : 'left'}.
      <div className="scroll-x" tabIndex={0} role="region" aria-label={`Shingles on ${at.panel.name}`}>
        <svg
          className="daylight"
          width={768}
          height={h + 8}
          role="img"
          aria-label={`${laid.length} strips on ${at.panel.name}`}
        >
          <g transform="translate(4 4)">
            <rect width={at.panel.widthMm * k} height={h} fill="#fbf8ef" stroke="var(--ink)" />
            {laid.map((s) => {
              const x = at.aftAt === 'right' ? at.panel.widthMm - s.fromAftMm - s.lengthMm : s.fromAftMm
              const y = at.panel.heightMm - s.fromBottomMm - s.heightMm
              return (
                <g key={s.number}>
                  <rect
                    x={x * k}
                    y={y * k}
                    width={s.lengthMm * k}
                    height={s.heightMm * k}
                    fill={film.colour.hex}
                    fillOpacity={0.25}
                    stroke="var(--ink)"
                  />
                  <text
                    x={(x + s.lengthMm / 2) * k}
                    y={(y + s.heightMm / 2) * k + 4}
                    textAnchor="middle"
                    fontSize={12}
                    fontWeight={640}
                  >
                    {s.number}
                  </text>
                </g>
              )
            })}
          </g>
        </svg>
      </div>
      <Table>
        <thead>
          <tr>
            <th>Laid</th>
            <th className="n">From aft</th>
            <th className="n">From the bottom</th>
            <th className="n">Long</th>
            <th className="n">High</th>
            <th className="n">Sheet</th>
          </tr>
        </thead>
        <tbody>
          {laid.map((s) => (
            <tr key={s.number}>
              <td>{s.number}.</td>
              <td className="n">{fmt.text(fmt.length(s.fromAftMm))}</td>
              <td className="n">{fmt.text(fmt.length(s.fromBottomMm))}</td>
              <td className="n">{fmt.text(fmt.length(s.lengthMm))}</td>
              <td className="n">{fmt.text(fmt.length(s.heightMm))}</td>
              <td className="n">{s.sheet}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  )
}
