'use client'

import { useState } from 'react'
import { DEFECT_KINDS } from '@/core/log/schema'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'

/** Defects against a panel, and notes. */
export function Notes() {
  const { plan, ledger, log, fmt } = useJob()
  const panels = plan.panels.filter((p) => p.wrap)
  const [panelId, setPanel] = useState(panels[0]?.id ?? '')
  const [text, setText] = useState('')
  const rows = ledger.filter((r) => r.payload.kind === 'defect' || r.payload.kind === 'note')
  return (
    <div className="plate">
      <h2>Defects and notes</h2>
      <div className="row g-2">
        <div className="col-md-5">
          <label className="label" htmlFor="defect-panel">
            Panel
          </label>
          <select id="defect-panel" value={panelId} onChange={(e) => setPanel(e.target.value)}>
            {panels.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </select>
        </div>
        <div className="col-md-7">
          <label className="label" htmlFor="defect-note">
            Where, what was done
          </label>
          <input id="defect-note" value={text} maxLength={2000} onChange={(e) => setText(e.target.value)} />
        </div>
      </div>
      <div className="d-flex gap-2 flex-wrap mt-2" role="group" aria-label="Log a defect">
        {DEFECT_KINDS.map((d) => (
          <button
            key={d}
            type="button"
            className="btn btn-plain"
            disabled={panelId === ''}
            onClick={() => {
              log({ kind: 'defect', panelId, defect: d, note: text.trim() })
              setText('')
            }}
          >
            {word('defect', d)}
          </button>
        ))}
        <button
          type="button"
          className="btn btn-go"
          disabled={text.trim() === ''}
          onClick={() => {
            log({ kind: 'note', text: text.trim() })
            setText('')
          }}
        >
          Note only
        </button>
      </div>
      <ul className="mt-3 mb-0 fs-5">
        {rows.map((r) => (
          <li key={r.id}>
            {r.payload.kind === 'defect' &&
              `${plan.panels.find((p) => p.id === (r.payload as { panelId: string }).panelId)?.name ?? ''}: ${word('defect', r.payload.defect)}${r.payload.note ? `, ${r.payload.note}` : ''}`}
            {r.payload.kind === 'note' && r.payload.text}{' '}
            <span className="label">
              {r.by}, {fmt.moment(r.at, { hour: '2-digit', minute: '2-digit' })}
            </span>
          </li>
        ))}
      </ul>
    </div>
  )
}
