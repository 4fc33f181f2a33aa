'use client'

import { useMemo } from 'react'
import { handoverOf } from '@/core/log/handover'
import { Findings } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { OPEN_WORDS, pointName } from './point-name'
import { word } from '@/web/words/names'
import { faultText } from '@/web/words/sentences'

/** What was applied where, with lots, readings, rechecks, care and warranty. */
export function Handover() {
  const { plan, reckoning, catalogue, ledger, fmt, jobId, log, waiting, mayLog, logFault } = useJob()
  const h = useMemo(
    () => handoverOf(plan, reckoning, catalogue.stock, ledger),
    [plan, reckoning, catalogue.stock, ledger],
  )
  const when = (iso: string) => fmt.moment(iso, { dateStyle: 'medium', timeStyle: 'short' })
  const step = (code: string) => reckoning.steps.find((s) => s.code === code)
  const tick = (code: string, label: string) => {
    const s = step(code)
    if (!s || s.state === 'skipped') return null
    return s.state === 'done' ? (
      <p className="mb-1">
        {label}: done {s.doneAt && when(s.doneAt)}
      </p>
    ) : (
      <button
        type="button"
        className="btn btn-outline-primary btn-sm me-2"
        disabled={!mayLog}
        onClick={() => log({ kind: 'step_done', stepId: s.id })}
      >
        {label} done
      </button>
    )
  }
  return (
    <>
      <div className="bench-head">
        <h1>Handover</h1>
        <span className="spacer" />
        <a className={`btn btn-primary${waiting > 0 ? ' disabled' : ''}`} href={`/jobs/${jobId}/handover.pdf`}>
          Handover paper (PDF)
        </a>
      </div>
      {logFault && (
        <p className="caution" role="alert">
          {faultText(logFault, fmt)}
        </p>
      )}
      <Findings stage="handover" />
      {h.open.length > 0 && (
        <div className="caution" role="status">
          Still open: {h.open.map((o) => OPEN_WORDS[o]).join(', ')}. The paper says so too.
        </div>
      )}
      <section className="plate mb-3">
        <h2>After the rest</h2>
        {h.recheckDueAt && <p className="mb-1">Recheck due {when(h.recheckDueAt)}</p>}
        {tick('recheck', 'Recheck')}
        {tick('hardware_on', 'Hardware on')}
        {tick('hand_over', 'Hand over')}
      </section>
      <section className="plate mb-3">
        <h2>Applied</h2>
        {h.films.length === 0 && <p className="mb-0">Nothing yet.</p>}
        {h.films.map((f) => (
          <div key={f.film.id} className="mb-2">
            <b>{f.film.name}</b> <span className="label">{f.film.maker}</span>
            <br />
            Lot {f.lots.join(', ') || 'not recorded'}
            {f.usedMm > 0 && `, ${fmt.text(fmt.longLength(f.usedMm))} used`}
            <br />
            On: {f.panels.join(', ')}
            <br />
            Warranty, {word('zone', plan.walkaround.zone)} zone:{' '}
            {f.warranty.map((w) => `${w.surface} ${w.months} months`).join(', ') || 'none on the sheet'}
            <br />
            Care: {f.film.care}
          </div>
        ))}
      </section>
      <section className="plate mb-3 scroll-x">
        <h2>Temperatures reached</h2>
        {h.readings.length === 0 && <p className="mb-0">No place needs a reading.</p>}
        {h.readings.length > 0 && (
          <table className="quiet-table">
            <thead>
              <tr>
                <th>Piece</th>
                <th>Place</th>
                <th className="n">Reading</th>
                <th>Wanted</th>
                <th>Verdict</th>
                <th>By</th>
              </tr>
            </thead>
            <tbody>
              {h.readings.map((r) => (
                <tr key={r.point.id}>
                  <td>{r.piece}</td>
                  <td>{pointName(r.point)}</td>
                  <td className="n">{r.tempC === null ? '–' : fmt.text(fmt.temp(r.tempC))}</td>
                  <td>
                    {fmt.temp(r.point.range.min).text}–{fmt.text(fmt.temp(r.point.range.max))}
                  </td>
                  <td>{r.verdict ? word('verdict', r.verdict) : 'not read'}</td>
                  <td>{r.by ?? ''}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </section>
      {h.defects.length > 0 && (
        <section className="plate">
          <h2>Defects met and dealt with</h2>
          <ul className="mb-0">
            {h.defects.map((d) => (
              <li key={d.at + d.panel}>
                {d.panel}: {word('defect', d.defect)}
                {d.note && `, ${d.note}`}
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}
