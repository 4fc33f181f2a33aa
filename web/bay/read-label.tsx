'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { piecesByLabel, shortCode } from '@/core/engines/roll/short-code'
import { useJob } from '@/web/job/job-state'
import { useLabelCamera } from './use-label-camera'

/** A piece by its label: the camera reads its code, or the four letters below it are typed. */
export function ReadLabel() {
  const { reckoning, jobId } = useJob('reckoning', 'jobId')
  const [open, setOpen] = useState(false)
  const [typed, setTyped] = useState('')
  const show = (id: string) => {
    setOpen(false)
    setTyped('')
    // Without asking the server: there may be no network.
    window.history.replaceState(null, '', `?piece=${encodeURIComponent(id)}`)
  }
  const [unknown, setUnknown] = useState(false)
  const read = (text: string) => {
    const [only, more] = piecesByLabel(reckoning.laid, jobId, text)
    setUnknown(!only)
    if (only && !more) show(only.id)
  }
  const meant = piecesByLabel(reckoning.laid, jobId, typed)
  return (
    <>
      <Button variant="plain" onClick={() => setOpen(true)}>
        Read a label
      </Button>
      {open && (
        <div className="bay-dialog" role="dialog" aria-label="Read a label">
          <div className="plate">
            <Camera onText={read} />
            {unknown && (
              <p className="caution" role="status">
                That is no label of this job.
              </p>
            )}
            <Form.Control
              autoFocus
              autoCapitalize="characters"
              autoComplete="off"
              aria-label="Four letters on the label"
              placeholder="or the four letters on it"
              maxLength={9}
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
            />
            <div className="bay-grid mt-2">
              {meant.map((p) => (
                <Button key={p.id} variant="go" onClick={() => show(p.id)}>
                  {p.name} <span className="label">{shortCode(p.id)}</span>
                </Button>
              ))}
            </div>
            {typed.trim().length >= 4 && meant.length === 0 && (
              <p role="status">No piece of this job has that code. Look once more, or ask the lead.</p>
            )}
            <Button variant="plain" className="w-100 mt-2" onClick={() => setOpen(false)}>
              Back
            </Button>
          </div>
        </div>
      )}
    </>
  )
}

function Camera({ onText }: { onText: (text: string) => void }) {
  const { video, state } = useLabelCamera(onText)
  return state === 'refused' || state === 'none' ? (
    <p className="label" role="status">
      {state === 'none'
        ? 'No camera here: type the letters.'
        : 'The camera may not be used: allow it in the browser, or type the letters.'}
    </p>
  ) : (
    <video
      ref={video}
      className="w-100 mb-2 bg-black object-fit-cover"
      style={{ maxHeight: '45vh' }}
      muted
      playsInline
      aria-label="What the camera sees"
    />
  )
}
