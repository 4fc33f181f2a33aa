'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { defectsOf, type Defect } from '@/core/engines/heat/defects'
import { DEFECT_KINDS } from '@/core/model/log/schema'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'

/** Defects against a panel, and notes. */
export function Notes() {
  const { plan, ledger, log, fmt, reckoning } = useJob()
  const panels = plan.panels.filter((p) => p.wrap)
  const [panelId, setPanel] = useState(panels[0]?.id ?? '')
  const [text, setText] = useState('')
  const rows = ledger.filter((r) => r.payload.kind === 'note')
  const defects = defectsOf(ledger, reckoning.points)
  return (
    <div className="plate">
      <h2>Defects and notes</h2>
      <div className="row g-2">
        <div className="col-md-5">
          <label className="label" htmlFor="defect-panel">
            Panel
          </label>
          <Form.Select id="defect-panel" value={panelId} onChange={(e) => setPanel(e.target.value)}>
            {panels.map((p) => (
              <option key={p.id} value={p.id}>
                {p.name}
              </option>
            ))}
          </Form.Select>
        </div>
        <div className="col-md-7">
          <label className="label" htmlFor="defect-note">
            Where, what was done
          </label>
          <Form.Control id="defect-note" value={text} maxLength={2000} onChange={(e) => setText(e.target.value)} />
        </div>
      </div>
      <div className="d-flex gap-2 flex-wrap mt-2" role="group" aria-label="Log a defect">
        {DEFECT_KINDS.map((d) => (
          <Button
            variant="plain"
            key={d}
            disabled={panelId === ''}
            onClick={() => {
              log({ kind: 'defect', panelId, defect: d, note: text.trim() })
              setText('')
            }}
          >
            {word('defect', d)}
          </Button>
        ))}
        <Button
          variant="go"
          disabled={text.trim() === ''}
          onClick={() => {
            log({ kind: 'note', text: text.trim() })
            setText('')
          }}
        >
          Note only
        </Button>
      </div>
      {defects.length > 0 && (
        <ul className="list-unstyled mt-3 mb-0 fs-5">
          {defects.map((d) => (
            <DefectRow key={d.id} defect={d} onClose={(how) => log({ kind: 'defect_closed', defectId: d.id, how })} />
          ))}
        </ul>
      )}
      <ul className="mt-3 mb-0 fs-5">
        {rows.map((r) => (
          <li key={r.id}>
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

/** One defect, open until somebody says what was done about it. */
function DefectRow({ defect: d, onClose }: { defect: Defect; onClose: (how: string) => void }) {
  const { plan, fmt } = useJob()
  const [how, setHow] = useState('')
  const when = (at: string) => fmt.moment(at, { hour: '2-digit', minute: '2-digit' })
  const panel = plan.panels.find((p) => p.id === d.panelId)?.name ?? d.panelId
  return (
    <li className="py-2 border-bottom">
      <span className="verdict me-2" data-verdict={d.closed ? 'good' : 'under'}>
        {d.closed ? 'closed' : 'open'}
      </span>
      {panel}: {word('defect', d.defect)}
      {d.note && `, ${d.note}`} <span className="label">{`${d.by}, ${when(d.at)}`}</span>
      {d.closed ? (
        <span className="d-block">
          {d.closed.how} <span className="label">{`${d.closed.by}, ${when(d.closed.at)}`}</span>
        </span>
      ) : (
        <span className="d-flex gap-2 mt-1">
          <Form.Control
            aria-label={`What was done about: ${panel}, ${word('defect', d.defect)}`}
            placeholder="what was done"
            maxLength={2000}
            value={how}
            onChange={(e) => setHow(e.target.value)}
          />
          <Button
            variant="outline-light"
            className="btn-plain text-nowrap"
            disabled={how.trim() === ''}
            onClick={() => onClose(how.trim())}
          >
            Close it
          </Button>
        </span>
      )}
    </li>
  )
}
