'use client'

import { faultCode } from '@/core/kit/fault-code'
import Table from 'react-bootstrap/Table'
import Link from 'next/link'
import { useEffect, useState } from 'react'
import { MethodPlate } from '@/web/method/method-plate'
import { faultText } from '@/web/words/faults'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { useHydrated } from '@/web/kit/use-hydrated'
import { useScans } from './use-scans'
import { keyOf } from './use-stretch'
import { makeReady } from './stretch-workers'
import { PanelStretch } from './panel-stretch'
import { PieceRow } from './piece-row'

/** Panels broken into pieces: cut sizes by school and edge, rule-based stretch, and what is past a limit. */
export function Pieces() {
  const { plan, reckoning, catalogue, mayPlan, jobId } = useJob('plan', 'reckoning', 'catalogue', 'mayPlan', 'jobId')
  useEffect(makeReady, [])
  const alive = useHydrated()
  // The worst when the page was opened; figures that come in later do not change what is looked at.
  const [picked, setPicked] = useState(
    () => [...reckoning.stretch].reduce((a, b) => (b[1] > a[1] ? b : a), ['', -1] as [string, number])[0],
  )
  const byPanel = new Map<string, typeof reckoning.pieces>()
  for (const piece of reckoning.pieces) byPanel.set(piece.panelId, [...(byPanel.get(piece.panelId) ?? []), piece])
  const rows = plan.panels
    .filter((p) => p.wrap)
    .map((panel) => ({
      panel,
      pieces: byPanel.get(panel.id) ?? [],
      solved: catalogue.solutions?.stretch[keyOf(plan, panel.id, catalogue.scans)] ?? null,
      fault: catalogue.solutions?.fault[keyOf(plan, panel.id, catalogue.scans)],
      stretch: reckoning.stretch.get(panel.id) ?? 0,
    }))
    .sort((a, b) => b.stretch - a.stretch)
  const able = rows.flatMap(({ panel }) => {
    const film = plan.film.sheets.find((f) => f.id === (panel.filmId ?? plan.film.mainId))
    return film ? [{ panel, film }] : []
  })
  const shown = able.find((x) => x.panel.id === picked) ?? able[0]
  const scans = useScans(jobId, shown?.panel.id ?? null)
  return (
    <>
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Pieces</h1>
        <span className="label">{reckoning.pieces.length} pieces</span>
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
          <Table>
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
              {rows.map((row) => (
                <PieceRow
                  key={row.panel.id}
                  {...row}
                  shown={row.panel.id === shown?.panel.id}
                  setPicked={setPicked}
                  fault={row.fault && faultText({ ...row.fault, code: faultCode(row.fault.code, 'not_solved') })}
                />
              ))}
            </tbody>
          </Table>
          <p className="label mb-0 mt-2">
            Stretch is solved on a surface of each panel, laid in the method’s order, behind the plan; until it is
            there, by closed forms from the tape.
          </p>
        </fieldset>
      )}
      {shown && <PanelStretch shown={shown} alive={alive} setPicked={setPicked} able={able} scans={scans} />}
    </>
  )
}
