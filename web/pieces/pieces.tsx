'use client'

import { useState } from 'react'
import { choiceFor } from '@/core/plan/new-plan'
import { applyChange } from '@/core/reckon/finding'
import { MethodPlate } from '@/web/method/method-plate'
import type { PieceChoice } from '@/core/plan/schema'
import { Fig } from '@/web/job/figure'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { stretchBand } from './bands'
import { SurfaceView } from './surface-view'

/** Panels broken into pieces: cut sizes by school and edge, rule-based stretch, and what is past a limit. */
export function Pieces() {
  const { plan, reckoning, fmt, edit, mayPlan } = useJob()
  const unit = fmt.units.lengthUnit
  const format = (mm: number) => fmt.length(mm).text
  const byPanel = new Map<string, typeof reckoning.pieces>()
  for (const piece of reckoning.pieces) byPanel.set(piece.panelId, [...(byPanel.get(piece.panelId) ?? []), piece])
  const rows = plan.panels
    .filter((p) => p.wrap)
    .map((panel) => ({ panel, pieces: byPanel.get(panel.id) ?? [], stretch: reckoning.stretch.get(panel.id) ?? 0 }))
  const set = (panelId: string, part: Partial<PieceChoice>) =>
    edit((p) => applyChange(p, { kind: 'piece', panelId, set: part }))
  return (
    <>
      <div className="bench-head">
        <h1>Pieces</h1>
        <span className="label">{reckoning.pieces.length} pieces</span>
      </div>
      <MethodPlate />
      <Findings stage="pieces" limit={5} />
      {reckoning.pieces.length === 0 && (
        <p className="plate">
          No pieces yet: {plan.panels.length === 0 ? 'no panel is measured' : 'no film is chosen'}.
        </p>
      )}
      {reckoning.pieces.length > 0 && (
        <fieldset disabled={!mayPlan} className="plate scroll-x">
          <table className="quiet-table">
            <thead>
              <tr>
                <th>Panel</th>
                <th className="n">Cut width</th>
                <th className="n">Cut height</th>
                <th>Worst stretch</th>
                <th>Parts</th>
                <th>Pre-stretch</th>
                <th className="n">Bleed</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ panel, pieces, stretch }) => {
                const choice = choiceFor(plan, panel.id)
                const film = plan.film.sheets.find((s) => s.id === (panel.filmId ?? plan.film.mainId))
                const band = film ? stretchBand(stretch, film) : null
                const first = pieces[0]
                return (
                  <tr key={panel.id} id={panel.id}>
                    <td>
                      {panel.name}
                      {pieces.length > 1 && <span className="label"> × {pieces.length}</span>}
                    </td>
                    <td className="n">{first ? <Fig id={first.figures.width.id} /> : '–'}</td>
                    <td className="n">{first ? <Fig id={first.figures.height.id} /> : '–'}</td>
                    <td>
                      {band && (
                        <span className="d-inline-flex gap-2 align-items-center">
                          <span
                            aria-hidden
                            style={{
                              width: 14,
                              height: 14,
                              background: `var(--band-${band.step})`,
                              border: '1px solid var(--ink)',
                            }}
                          />
                          <Fig id={`stretch/${panel.id}/worst`} /> <span className="label">{band.text}</span>
                        </span>
                      )}
                    </td>
                    <td className="text-nowrap">
                      <select
                        className="form-select form-select-sm d-inline-block w-auto"
                        aria-label={`${panel.name}, parts`}
                        value={choice.parts}
                        onChange={(e) => set(panel.id, { parts: Number(e.target.value) })}
                      >
                        {[...new Set([1, 2, 3, 4, choice.parts])]
                          .sort((a, b) => a - b)
                          .map((n) => (
                            <option key={n} value={n}>
                              {n}
                            </option>
                          ))}
                      </select>{' '}
                      {choice.parts > 1 && (
                        <select
                          className="form-select form-select-sm d-inline-block w-auto"
                          aria-label={`${panel.name}, divided along`}
                          value={choice.along}
                          onChange={(e) => set(panel.id, { along: e.target.value as PieceChoice['along'] })}
                        >
                          <option value="height">by height</option>
                          <option value="width">by width</option>
                        </select>
                      )}
                    </td>
                    <td>
                      <select
                        className="form-select form-select-sm w-auto"
                        aria-label={`${panel.name}, pre-stretch`}
                        value={choice.preStretch}
                        onChange={(e) => set(panel.id, { preStretch: Number(e.target.value) })}
                      >
                        {[...new Set([0, 0.2, 0.25, 0.3, choice.preStretch])]
                          .sort((a, b) => a - b)
                          .map((v) => (
                            <option key={v} value={v}>
                              {v === 0 ? 'no' : `${Math.round(v * 100)} %`}
                            </option>
                          ))}
                      </select>
                    </td>
                    <td className="n" style={{ width: 90 }}>
                      <LengthInput
                        className="form-control form-control-sm"
                        aria-label={`${panel.name}, bleed`}
                        placeholder={format(plan.method.bleedMm)}
                        optional
                        mm={choice.bleedMm}
                        unit={unit}
                        format={format}
                        max={300}
                        onValue={(bleedMm) => set(panel.id, { bleedMm })}
                      />
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </table>
          <p className="label mb-0 mt-2">
            Stretch is by closed forms from tape measurements: crown as a cap, recess as a bridge. A rule, not a survey
            of the surface.
          </p>
        </fieldset>
      )}
      <StretchPlate />
    </>
  )
}

/** The stretch over one panel's surface, made of its tape; which panel is the reader's choice. */
function StretchPlate() {
  const { plan, reckoning } = useJob()
  const able = plan.panels.flatMap((panel) => {
    const film = plan.film.sheets.find((s) => s.id === (panel.filmId ?? plan.film.mainId))
    return panel.wrap && film ? [{ panel, film }] : []
  })
  const worst = able.reduce<(typeof able)[number] | null>((a, b) => (!a || (reckoning.stretch.get(b.panel.id) ?? 0) > (reckoning.stretch.get(a.panel.id) ?? 0) ? b : a), null) // prettier-ignore
  const [picked, setPicked] = useState('')
  const [open, setOpen] = useState(false)
  const shown = able.find((x) => x.panel.id === picked) ?? worst
  if (!shown) return null
  return (
    <details className="plate mt-3" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>
        <b>Stretch over the surface</b>
      </summary>
      <label className="d-flex gap-2 align-items-center my-2">
        <span className="label">Panel</span>
        <select
          className="form-select form-select-sm w-auto"
          aria-label="Panel whose stretch is shown"
          value={shown.panel.id}
          onChange={(e) => setPicked(e.target.value)}
        >
          {able.map(({ panel }) => (
            <option key={panel.id} value={panel.id}>
              {panel.name}
            </option>
          ))}
        </select>
      </label>
      {open && <SurfaceView key={shown.panel.id} panel={shown.panel} film={shown.film} />}
      <p className="label mb-0">
        Film laid on a surface made of the taped crown, nose and recesses, with the least worst stretch there can be.
        The film’s sheet wins; so does a trial on the panel.
      </p>
    </details>
  )
}
