'use client'

import Button from 'react-bootstrap/Button'
import Modal from 'react-bootstrap/Modal'
import Table from 'react-bootstrap/Table'
import type { Clash } from '@/core/model/plan/merge'
import { clashRows } from '@/web/words/clash'
import { useJob } from './job-state'

/** The two sides of a clash in words, and the choice. */
export function ClashDialog() {
  const { save, settle, plan, fmt } = useJob('save', 'settle', 'plan', 'fmt')
  if (save.kind !== 'clash') return null
  const rows = save.clashes.flatMap((clash: Clash) => clashRows(clash, plan, fmt))
  return (
    <Modal show size="lg" backdrop="static" keyboard={false} aria-labelledby="clash-title">
      <Modal.Header>
        <Modal.Title as="h2" id="clash-title">
          {save.by || 'Somebody'} changed the same thing meanwhile
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <p>
          Theirs is revision {save.number}
          {save.summary && ` (${save.summary})`}. Choose which stands; all that does not clash is kept from both.
        </p>
        <Table responsive>
          <thead>
            <tr>
              <th scope="col">What</th>
              <th scope="col">Before</th>
              <th scope="col">Yours</th>
              <th scope="col">Theirs</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.key}>
                <th scope="row">{row.what}</th>
                <td>{row.before}</td>
                <td className="text-break">{row.mine}</td>
                <td className="text-break">{row.theirs}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      </Modal.Body>
      <Modal.Footer>
        <Button variant="outline-secondary" onClick={() => settle('theirs')}>
          Take theirs
        </Button>
        <Button variant="primary" onClick={() => settle('mine')}>
          Save mine over it
        </Button>
      </Modal.Footer>
    </Modal>
  )
}
