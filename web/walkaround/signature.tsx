'use client'

import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { useRef, useState, type PointerEvent } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import { signedMark } from '@/core/model/plan/signed-mark'
import { useJob } from '@/web/job/job-state'

type Stroke = [number, number][]
const MOST_POINTS = 600

/** The customer's name under what was found: drawn with a finger, or typed. */
export function Signature() {
  const { plan, edit, fmt, member, mayWalkaround } = useJob('plan', 'edit', 'fmt', 'member', 'mayWalkaround')
  const [name, setName] = useState('')
  const [strokes, setStrokes] = useState<Stroke[]>([])
  const [drawing, setDrawing] = useState(false)
  const box = useRef<SVGSVGElement>(null)
  const { signature } = plan.walkaround
  const set = (next: Plan['walkaround']['signature']) =>
    edit((p) => ({ ...p, walkaround: { ...p.walkaround, signature: next } }))
  const place = (e: PointerEvent): [number, number] => {
    const r = box.current?.getBoundingClientRect() ?? new DOMRect(0, 0, 1, 1)
    const part = (v: number, size: number) => Math.round(Math.max(0, Math.min(1000, (v / size) * 1000)))
    return [part(e.clientX - r.left, r.width), part(e.clientY - r.top, r.height)]
  }
  const sign = () =>
    set({
      name: name.trim(),
      how: strokes.length > 0 ? 'drawn' : 'typed',
      strokes,
      at: new Date().toISOString(),
      takenBy: member.name,
      mark: signedMark(plan),
    })
  if (signature)
    return (
      <section className="plate mb-3" aria-label="Signature">
        <h2>Signed</h2>
        <div className="d-flex gap-3 align-items-center flex-wrap">
          {signature.how === 'drawn' && <Ink strokes={signature.strokes} name={signature.name} />}
          <span>
            <b>{signature.name}</b>, {fmt.moment(signature.at, { dateStyle: 'medium', timeStyle: 'short' })},{' '}
            {signature.how} before {signature.takenBy}
            {signature.mark !== signedMark(plan) && (
              <span className="text-danger d-block">
                Something here was changed since. Show it, and have it signed again.
              </span>
            )}
          </span>
          {mayWalkaround && (
            <Button
              variant="outline-primary"
              size="sm"
              className="ms-auto"
              onClick={() => {
                set(null)
                setStrokes([])
              }}
            >
              Sign again
            </Button>
          )}
        </div>
      </section>
    )
  return (
    <section className="plate mb-3" aria-label="Signature">
      <h2>The customer signs</h2>
      <p className="label">For paint, damage, hardware and what stays free as they stand here, with the time.</p>
      <div className="row g-2">
        <div className="col-md-5">
          <label className="form-label" htmlFor="signer">
            Name
          </label>
          <Form.Control id="signer" maxLength={120} value={name} onChange={(e) => setName(e.target.value)} />
          <div className="d-flex gap-2 mt-2">
            <Button disabled={!mayWalkaround || name.trim() === ''} onClick={sign}>
              {strokes.length > 0 ? 'Sign with the drawn name' : 'Sign with the typed name'}
            </Button>
            {strokes.length > 0 && (
              <Button variant="outline-secondary" onClick={() => setStrokes([])}>
                Wipe
              </Button>
            )}
          </div>
        </div>
        <div className="col-md-7">
          <svg
            ref={box}
            viewBox="0 0 1000 320"
            className="w-100 border"
            style={{ maxHeight: 170, background: 'var(--field)', touchAction: 'none', cursor: 'crosshair' }}
            role="img"
            aria-label="Draw the name here"
            onPointerDown={(e) => {
              if (!mayWalkaround) return
              e.currentTarget.setPointerCapture(e.pointerId)
              setDrawing(true)
              setStrokes((s) => (s.length < 60 ? [...s, [place(e)]] : s))
            }}
            onPointerMove={(e) => {
              if (!drawing) return
              const at = place(e)
              setStrokes((s) =>
                s.map((stroke, i) => (i === s.length - 1 && stroke.length < MOST_POINTS ? [...stroke, at] : stroke)),
              )
            }}
            onPointerUp={() => setDrawing(false)}
          >
            <line x1="40" x2="960" y1="250" y2="250" stroke="var(--rule)" strokeWidth="3" />
            {strokes.map((s, i) => (
              <path
                key={i}
                d={line(s)}
                fill="none"
                stroke="var(--ink)"
                strokeWidth="6"
                strokeLinecap="round"
                strokeLinejoin="round"
              />
            ))}
          </svg>
        </div>
      </div>
    </section>
  )
}

const line = (s: readonly [number, number][]): string =>
  `M${s.map(([x, y]) => `${x},${(y * 0.32).toFixed(1)}`).join('L')}${s.length === 1 ? 'h1' : ''}`

function Ink({ strokes, name }: { strokes: readonly (readonly [number, number][])[]; name: string }) {
  return (
    <svg viewBox="0 0 1000 320" width={190} height={61} role="img" aria-label={`Drawn signature of ${name}`}>
      {strokes.map((s, i) => (
        <path key={i} d={line(s as Stroke)} fill="none" stroke="var(--ink)" strokeWidth="9" strokeLinecap="round" />
      ))}
    </svg>
  )
}
