'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { setCalendarLink } from '@/web/actions/shop'
import { call } from '@/web/kit/call'
import { faultText } from '@/web/words/faults'

/** One's own calendar as a secret link: whoever has it sees the work, so it can be taken back. */
export function CalendarLink() {
  const [link, setLink] = useState<string | null>(null)
  const [said, setSaid] = useState('')
  const ask = async (wanted: boolean) => {
    const out = await call(setCalendarLink, wanted)
    setLink(out.ok && out.value.path ? `${window.location.origin}${out.value.path}` : null)
    setSaid(out.ok ? (wanted ? '' : 'The link is taken back.') : faultText(out.error))
  }
  return (
    <section className="plate mb-3" aria-label="Your calendar">
      <h2 className="h5">Your calendar</h2>
      <p className="label">
        A link for a calendar program: what the board gives you to do, by the shop’s clock, with closed days. Whoever
        has the link sees it. A new one ends the one before.
      </p>
      {link && (
        <Form.Control
          readOnly
          aria-label="Calendar link"
          value={link}
          className="mb-2"
          onFocus={(e) => e.target.select()}
        />
      )}
      <div className="d-flex gap-2 align-items-center">
        <Button size="sm" variant="outline-primary" onClick={() => void ask(true)}>
          Make a link
        </Button>
        <Button size="sm" variant="outline-secondary" onClick={() => void ask(false)}>
          Take it back
        </Button>
        <span role="status">{said}</span>
      </div>
    </section>
  )
}
