'use client'

import { faultCode } from '@/core/kit/fault-code'
import Alert from 'react-bootstrap/Alert'
import Button from 'react-bootstrap/Button'
import type { LogPayload } from '@/core/model/log/schema'
import { word } from '@/web/words/names'
import { faultText } from '@/web/words/faults'
import { useOnline } from '@/web/offline/network-mark'
import { useJob } from './job-state'

/** How much of what was entered here the server has. */
export function SentMark() {
  const { waiting, looked, refused, photos, standsIn } = useJob('waiting', 'looked', 'refused', 'photos', 'standsIn')
  const online = useOnline()
  return (
    <span role="status" data-testid="outbox">
      {!online && 'No network. '}
      {!looked && waiting === 0
        ? 'Looking what waits here…'
        : waiting === 0
          ? 'All entries sent'
          : `${waiting} ${waiting === 1 ? 'entry' : 'entries'} kept here${online && !standsIn ? ', sending' : ''}`}
      {photos.waiting > 0 && `, ${photos.waiting} ${photos.waiting === 1 ? 'photo' : 'photos'} still to send`}
      {refused.length > 0 && `, ${refused.length} not taken`}
    </span>
  )
}

/** What could not be taken stays here until somebody has seen to it; what others left on this device is said. */
export function KeptEntries() {
  const { refused, settleRefused, logFault, othersWaiting, lasts, fmt, plan, photos } = useJob(
    'refused',
    'settleRefused',
    'logFault',
    'othersWaiting',
    'lasts',
    'fmt',
    'plan',
    'photos',
  )
  const what = (payload: LogPayload): string => {
    switch (payload.kind) {
      case 'reading':
        return `Reading of ${fmt.text(fmt.temp(payload.tempC))}`
      case 'film_used':
        return `Cut of ${fmt.text(fmt.longLength(payload.lengthMm))}`
      case 'defect':
        return `${word('defect', payload.defect)}, ${plan.panels.find((p) => p.id === payload.panelId)?.name ?? payload.panelId}`
      case 'note':
        return `Note “${payload.text.slice(0, 60)}”`
      default:
        return word('entry', payload.kind)
    }
  }
  return (
    <>
      {logFault && (
        <Alert variant="warning" className="caution mb-2" role="alert">
          {faultText(logFault, fmt)}
        </Alert>
      )}
      {photos.fault && (
        <Alert variant="warning" className="caution mb-2" role="alert">
          Photo: {faultText(photos.fault, fmt)}
        </Alert>
      )}
      {!lasts && (
        <Alert variant="warning" className="mb-2">
          This browser keeps nothing over a reload: stay on this page until all entries are sent.
        </Alert>
      )}
      {othersWaiting > 0 && (
        <p className="label mb-2">
          {othersWaiting} {othersWaiting === 1 ? 'entry' : 'entries'} of somebody else waits on this device, until they
          sign in here.
        </p>
      )}
      {refused.map((entry) => (
        <Alert
          key={entry.id}
          variant="danger"
          className="refused-entry d-flex gap-3 align-items-center flex-wrap mb-2"
          data-testid="refused"
        >
          <span className="flex-fill">
            <b>
              Not taken: {what(entry.payload)}, {fmt.moment(entry.at, { hour: '2-digit', minute: '2-digit' })}.
            </b>{' '}
            {faultText({ code: faultCode(entry.code) }, fmt)}
          </span>
          <Button variant="outline-light" className="btn-plain" onClick={() => settleRefused(entry.id)}>
            Seen to
          </Button>
        </Alert>
      ))}
    </>
  )
}
