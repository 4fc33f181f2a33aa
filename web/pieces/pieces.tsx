'use client'

import Table from 'react-bootstrap/Table'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import Link from 'next/link'
import { Fragment, useState } from 'react'
import { choiceFor } from '@/core/model/plan/new-plan'
import { applyChange } from '@/core/model/plan/plan-change'
import { MethodPlate } from '@/web/method/method-plate'
import type { PieceChoice } from '@/core/model/plan/schema'
import type { Panel } from '@/core/model/vehicle/schema'
import { Fig } from '@/web/job/figure'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { useHydrated } from '@/web/kit/use-hydrated'
import { solvedText, spotText } from '@/web/words/stretch-words'
import { stretchBand } from './bands'
import { ScanPlate } from './scan-plate'
import { StretchBench } from './stretch-bench'
import { useScans } from './use-scans'
import { keyOf, useSurvey } from './use-stretch'
import { preStretchGroups } from '@/web/pieces/pre-stretch-groups'

/** Panels broken into pieces: cut sizes by school and edge, rule-based stretch, and what is past a limit. */
export function Pieces() {
  const { plan, reckoning, catalogue, fmt, edit, mayPlan, waysFound, jobId } = useJob()
  const survey = useSurvey()
  const alive = useHydrated()
  // The worst when the page was opened; figures that come in later do not change what is looked at.
  const [picked, setPicked] = useState(
    () => [...reckoning.stretch].reduce((a, b) => (b[1] > a[1] ? b : a), ['', -1] as [string, number])[0],
  )
  const unit = fmt.units.lengthUnit
  const format = (mm: number) => fmt.length(mm).text
  const byPanel = new Map<string, typeof reckoning.pieces>()
  for (const piece of reckoning.pieces) byPanel.set(piece.panelId, [...(byPanel.get(piece.panelId) ?? []), piece])
  const rows = plan.panels
    .filter((p) => p.wrap)
    .map((panel) => ({
      panel,
      pieces: byPanel.get(panel.id) ?? [],
      solved: catalogue.solved?.[keyOf(plan, panel.id, catalogue.scans)] ?? null,
      stretch: reckoning.stretch.get(panel.id) ?? 0,
    }))
    .sort((a, b) => b.stretch - a.stretch)
  const able = rows.flatMap(({ panel }) => {
    const film = plan.film.sheets.find((f) => f.id === (panel.filmId ?? plan.film.mainId))
    return film ? [{ panel, film }] : []
  })
  const shown = able.find((x) => x.panel.id === picked) ?? able[0]
  const scans = useScans(jobId, shown?.panel.id ?? null)
  const set = (panelId: string, part: Partial<PieceChoice>) =>
    edit((p) => applyChange(p, { kind: 'piece', panelId, set: part }))
  return (
    <>
      <div className="bench-head">
        <h1>Pieces</h1>
        <span className="label">{reckoning.pieces.length} pieces</span>
        {survey.left > 0 && (
          <span className="label" role="status">
            laying film on {survey.left} more
          </span>
        )}
        {survey.left === 0 && survey.finer > 0 && <span className="label">finer maps of {survey.finer} follow</span>}
      </div>
      <MethodPlate />
      <Findings stage="pieces" limit={5} />
      {reckoning.pieces.length === 0 && (
        <p className="plate">
          No pieces yet: {plan.panels.length === 0 ? 'no panel is measured' : 'no film is chosen'}.{' '}
          <Link href={`/jobs/${jobId}/${plan.panels.length === 0 ? 'tape' : 'film'}`}>
            {plan.panels.length === 0 ? 'Tape the panels' : 'Choose the film'}
          </Link>
        </p>
      )}
      {reckoning.pieces.length > 0 && (
        <fieldset disabled={!mayPlan} className="plate scroll-x">
          <Table bsPrefix="quiet-table">
            <thead>
              <tr>
                <th>Panel</th>
                <th>Cut size</th>
                <th>Worst stretch</th>
                <th className="n">To post-heat</th>
                <th>Way</th>
                <th>Parts</th>
                <th>Pre-stretch</th>
                <th className="n">Bleed</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ panel, pieces, stretch, solved }) => {
                const choice = choiceFor(plan, panel.id)
                const film = plan.film.sheets.find((s) => s.id === (panel.filmId ?? plan.film.mainId))
                const band = film ? stretchBand(stretch, film) : null
                const first = pieces[0]
                const fault = survey.faults.get(panel.id)
                return (
                  <Fragment key={panel.id}>
                    <tr id={panel.id}>
                      <td style={{ minWidth: 116 }}>
                        <Button
                          variant="link"
                          size="sm"
                          className="p-0 text-start"
                          aria-pressed={shown?.panel.id === panel.id}
                          onClick={() => setPicked(panel.id)}
                        >
                          {panel.name}
                        </Button>
                        {pieces.length > 1 && <span className="label"> × {pieces.length}</span>}
                      </td>
                      <td className="text-nowrap">
                        {first ? (
                          <>
                            <Fig id={first.figures.width.id} /> × <Fig id={first.figures.height.id} />
                          </>
                        ) : (
                          '–'
                        )}
                      </td>
                      <td style={{ minWidth: 112 }}>
                        {band && (
                          <span className="d-inline-flex gap-2 align-items-center">
                            <span
                              aria-hidden
                              style={{
                                width: 14,
                                height: 14,
                                flex: 'none',
                                background: `var(--band-${band.step})`,
                                border: '1px solid var(--ink)',
                              }}
                            />
                            <Fig id={`stretch/${panel.id}/worst`} />
                          </span>
                        )}
                        {band && <div className="label">{band.text}</div>}
                        {solved?.spot && stretch > (film?.postHeatOver ?? 1) && (
                          <div className="label">{spotText(solved.spot)}</div>
                        )}
                      </td>
                      <td className="n text-nowrap">
                        {solved ? solved.toPostHeatMm2 > 0 ? <Fig id={`stretch/${panel.id}/post_heat`} /> : '–' : ''}
                      </td>
                      <td style={{ minWidth: 104 }}>
                        <span className="label">{wayOf(panel, choice)}</span>
                      </td>
                      <td>
                        <Form.Select
                          size="sm"
                          className="d-inline-block w-auto"
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
                        </Form.Select>{' '}
                        {choice.parts > 1 && (
                          <Form.Select
                            size="sm"
                            className="d-inline-block w-auto"
                            aria-label={`${panel.name}, divided along`}
                            value={choice.along}
                            onChange={(e) => set(panel.id, { along: e.target.value as PieceChoice['along'] })}
                          >
                            <option value="height">by height</option>
                            <option value="width">by width</option>
                          </Form.Select>
                        )}
                      </td>
                      <td>
                        <Form.Select
                          size="sm"
                          className="w-auto"
                          aria-label={`${panel.name}, pre-stretch`}
                          value={choice.preStretch}
                          onChange={(e) => set(panel.id, { preStretch: Number(e.target.value) })}
                        >
                          {preStretchGroups(film, choice.preStretch).map(([group, steps]) => (
                            <optgroup key={group} label={group}>
                              {steps.map((v) => (
                                <option key={v} value={v}>
                                  {v === 0 ? 'no' : `${Math.round(v * 100)} %`}
                                </option>
                              ))}
                            </optgroup>
                          ))}
                        </Form.Select>
                      </td>
                      <td className="n" style={{ minWidth: 78 }}>
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
                    {solved &&
                      solved.overMm2 + solved.wrinklesMm2 > 0 &&
                      (waysFound.get(panel.id)?.length ?? 0) > 0 && (
                        <tr>
                          <td colSpan={8} className="label">
                            {panel.name}, would help:{' '}
                            {waysFound
                              .get(panel.id)
                              ?.map((w) => `${solvedText(w, fmt)} (${fmt.text(fmt.percent(w.becomes ?? 0))})`)
                              .join(' · ')}
                          </td>
                        </tr>
                      )}
                    {fault && (
                      <tr>
                        <td colSpan={8} className="caution">
                          {panel.name}: {fault} Until then its stretch is reckoned by closed forms.
                        </td>
                      </tr>
                    )}
                  </Fragment>
                )
              })}
            </tbody>
          </Table>
          <p className="label mb-0 mt-2">
            Stretch is solved on a surface of each panel, laid in the method’s order, first a coarse one, then a finer;
            until it is there, by closed forms from the tape.
          </p>
        </fieldset>
      )}
      {shown && (
        <section className="plate mt-3">
          <div className="d-flex gap-2 align-items-baseline flex-wrap mb-2">
            <h2 className="mb-0">{shown.panel.name}</h2>
            <label className="d-flex gap-2 align-items-center ms-auto">
              <span className="label">Panel</span>
              <Form.Select
                size="sm"
                className="w-auto"
                disabled={!alive}
                aria-label="Panel whose stretch is shown"
                value={shown.panel.id}
                onChange={(e) => setPicked(e.target.value)}
              >
                {plan.panels
                  .filter((p) => able.some((x) => x.panel === p))
                  .map((panel) => (
                    <option key={panel.id} value={panel.id}>
                      {panel.name}
                    </option>
                  ))}
              </Form.Select>
            </label>
          </div>
          {scans.waiting ? (
            <p className="label">Fetching the scan of {shown.panel.name} …</p>
          ) : (
            <StretchBench
              key={`${shown.panel.id} ${shown.film.id} ${String(scans.surface !== null)}`}
              panel={shown.panel}
              film={shown.film}
              scan={scans.surface}
            />
          )}
          <ScanPlate
            key={shown.panel.id}
            panel={shown.panel}
            kept={scans.kept.find((k) => k.panelId === shown.panel.id) ?? null}
            onKept={(scan, name) => scans.keep(shown.panel.id, scan, name)}
          />
          <p className="label mb-0">
            {scans.surface
              ? 'Film laid on the scanned surface.'
              : 'Film laid on a surface made of the taped crown, roll-overs, folds, recesses and raised objects.'}{' '}
            The film’s sheet wins; so does a trial on the panel.
          </p>
        </section>
      )}
    </>
  )
}

/** The way that a panel is laid by now, in words. */
function wayOf(panel: Panel, choice: PieceChoice): string {
  const recess = (way: string, text: string) => {
    const own = panel.recesses.filter((r) => r.way === way)
    return own.length > 0 ? [`${own.map((r) => r.name).join(', ')} ${text}`] : []
  }
  const parts = [
    choice.parts === 1 ? 'one piece' : `${choice.parts} pieces`,
    ...(choice.slits.length > 0 ? [`${choice.slits.length} relief cuts`] : []),
    ...(choice.preStretch > 0 ? [`pre-stretched ${Math.round(choice.preStretch * 100)} %`] : []),
    ...recess('bridge', 'bridged'),
    ...recess('feed', 'fed'),
    ...recess('inlay', 'inlaid'),
    ...(choice.flat ? ['flat outline on the roll'] : []),
  ]
  return parts.join(', ')
}
