'use client'

import Table from 'react-bootstrap/Table'
import Button from 'react-bootstrap/Button'
import { useEffect, useState } from 'react'
import { type Revision, jobHistory, restoreRevision } from '@/web/actions/jobs'
import { call } from '@/web/kit/call'
import { faultText } from '@/web/words/faults'
import { useJob } from './job-state'

/** Every revision of the plan; any can be brought back, as a new one. */
export function History() {
  const { jobId, number, take, mayPlan, fmt } = useJob('jobId', 'number', 'take', 'mayPlan', 'fmt')
  const [rows, setRows] = useState<Revision[] | null>(null)
  const [fault, setFault] = useState<string | null>(null)
  useEffect(() => {
    let alive = true
    void call(jobHistory, { jobId }).then((out) => {
      if (!alive) return
      if (out.ok) setRows(out.value)
      else setFault(faultText(out.error))
    })
    return () => {
      alive = false
    }
  }, [jobId, number])
  const restore = async (to: number) => {
    const out = await call(restoreRevision, { jobId, number: to, basedOn: number })
    if (out.ok) take(out.value)
    else setFault(faultText(out.error))
  }
  return (
    <>
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>History</h1>
        <span className="flex-fill" />
        <a className="btn btn-outline-secondary btn-sm" href={`/jobs/${jobId}/job.json`}>
          Download job file
        </a>
        <a className="btn btn-outline-secondary btn-sm" href={`/jobs/${jobId}/catalogue.json`}>
          its catalogue
        </a>
        <a className="btn btn-outline-secondary btn-sm" href={`/jobs/${jobId}/ledger.json`}>
          its ledger
        </a>
      </div>
      {fault && (
        <p className="text-danger" role="alert">
          {fault}
        </p>
      )}
      {!rows && !fault && <p>Loading the revisions…</p>}
      {rows && (
        <div className="plate scroll-x">
          <Table>
            <thead>
              <tr>
                <th className="n">Revision</th>
                <th>What changed</th>
                <th>By</th>
                <th>When</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {rows.map((r) => (
                <tr key={r.number}>
                  <td className="n">{r.number}</td>
                  <td className="text-break">{r.summary}</td>
                  <td>{r.author}</td>
                  <td className="text-nowrap">{fmt.moment(r.at)}</td>
                  <td>
                    {mayPlan && r.number !== number && (
                      <Button variant="link" size="sm" className="py-0" onClick={() => void restore(r.number)}>
                        Bring back
                      </Button>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </Table>
        </div>
      )}
    </>
  )
}
