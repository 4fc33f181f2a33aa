'use client'

import { faultCode } from '@/core/kit/fault-code'
import { useRouter } from 'next/navigation'
import { useState } from 'react'
import Alert from 'react-bootstrap/Alert'
import Button from 'react-bootstrap/Button'
import Modal from 'react-bootstrap/Modal'
import { StripTest, type StockItem } from '@/core/model/film/schema'
import { stripLoss } from '@/core/model/film/strip-test'
import { logStrip } from '@/web/actions/shop'
import { call } from '@/web/kit/call'
import { useActId } from '@/web/kit/use-act-id'
import { LengthInput } from '@/web/kit/quantity-input'
import { useOnce } from '@/web/kit/use-once'
import type { Formatter } from '@/web/words/format'
import { faultText } from '@/web/words/faults'

/** Lengths of a strip as they are asked for, in the order in which the tape is laid on it. */
const ASKED = [
  ['beforeMm', 'Length before'],
  ['afterMm', 'Length after'],
  ['acrossBeforeMm', 'Width before'],
  ['acrossAfterMm', 'Width after'],
] as const
type Asked = (typeof ASKED)[number][0]

/** Stands where an id has to be while figures are only being typed. */
const UNSENT = '00000000-0000-0000-0000-000000000000'

/** How much tension a roll holds from its winding: its strips so far, and one more. */
export function StripTests({ item, fmt, may }: { item: StockItem; fmt: Formatter; may: boolean }) {
  const router = useRouter()
  const [open, setOpen] = useState(false)
  const blank = (): Record<Asked, number | null> => ({
    beforeMm: 1000,
    afterMm: null,
    acrossBeforeMm: null,
    acrossAfterMm: null,
  })
  const [mm, setMm] = useState(blank)
  const act = useActId()
  const [said, setSaid] = useState('')
  const losses = item.strips.map(stripLoss)
  const percent = (share: number) => fmt.text(fmt.percent(share))
  const typed = StripTest.safeParse({ ...mm, id: UNSENT, at: '2000-01-01T00:00:00Z', by: '' })
  const now = typed.success ? stripLoss(typed.data) : null
  const save = useOnce(async () => {
    if (!typed.success) return setSaid(faultText({ code: faultCode(typed.error.issues[0]?.message) }))
    const strip = { ...typed.data, id: act.idFor(mm), at: new Date().toISOString() }
    const out = await call(logStrip, { itemId: item.id, strip })
    if (!out.ok) return setSaid(faultText(out.error))
    act.taken()
    setMm(blank)
    setSaid('')
    setOpen(false)
    router.refresh()
  })
  return (
    <>
      {losses.map((loss, i) => (
        <div key={item.strips[i]?.id} className="text-nowrap">
          {percent(loss.along)} along{loss.across === null ? '' : `, ${percent(loss.across)} across`}
        </div>
      ))}
      {may && (
        <Button
          variant="link"
          size="sm"
          className="p-0"
          aria-label={`Strip test of ${item.label}`}
          onClick={() => setOpen(true)}
        >
          Strip test
        </Button>
      )}
      <Modal show={open} onHide={() => setOpen(false)} aria-labelledby={`strip-${item.id}`}>
        <Modal.Header closeButton>
          <Modal.Title id={`strip-${item.id}`}>
            Strip test of {item.label}, lot {item.lot}
          </Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <p>
            Cut a strip along the roll and mark its length. Cap sheet off, lay it back on its own liner, heat it evenly
            until it draws no further, let it cool, and measure again. Hot film burns: gloves on.
          </p>
          <div className="row g-2">
            {ASKED.map(([field, label]) => (
              <div key={field} className="col-6">
                <label htmlFor={`strip-${field}`} className="form-label">
                  {label}
                  {field.startsWith('across') && <span className="label"> (if measured)</span>}
                </label>
                <LengthInput
                  id={`strip-${field}`}
                  className="form-control"
                  aria-label={label}
                  optional
                  mm={mm[field]}
                  unit={fmt.units.lengthUnit}
                  format={(v) => fmt.length(v).text}
                  max={5000}
                  onValue={(v) => setMm((was) => ({ ...was, [field]: v }))}
                />
              </div>
            ))}
          </div>
          {now && (
            <p className="mt-3 mb-0" role="status">
              It lost <b>{percent(now.along)}</b> along the roll
              {now.across === null ? '' : `, ${percent(now.across)} across`}. Jobs cut from lot {item.lot} and relaxed
              first are told of it.
            </p>
          )}
          {said !== '' && (
            <Alert variant="danger" className="mt-3 mb-0">
              {said}
            </Alert>
          )}
        </Modal.Body>
        <Modal.Footer>
          <Button variant="outline-primary" onClick={() => setOpen(false)}>
            Close
          </Button>
          <Button onClick={() => void save()}>Keep it</Button>
        </Modal.Footer>
      </Modal>
    </>
  )
}
