'use client'

import Link from 'next/link'
import { createContext, useContext, type ReactNode } from 'react'
import Alert from 'react-bootstrap/Alert'
import type { Fault } from '@/core/kit/result'
import type { HeldBack } from '@/core/model/plan/hold-back'
import { faultText } from '@/web/words/faults'
import { useJob } from './job-state'
import { placeOf } from '@/web/words/places'

const Held = createContext<readonly HeldBack[]>([])
/** What is wrong with the figure at a place, where it is held back from saving. */
export function useHeldFault(): (place: string) => Fault | null {
  const held = useContext(Held)
  return (place) => held.find((h) => h.place === place)?.fault ?? null
}

export function HeldProvider({ children }: { children: ReactNode }) {
  return <Held value={useJob('held').held}>{children}</Held>
}

/**
 * Stays in view while a figure is not saved: its name, what is wrong, and the way there. All sound figures are saved.
 */
export function HeldBar() {
  const { held, plan, jobId, fmt } = useJob('held', 'plan', 'jobId', 'fmt')
  const [first] = held
  if (!first) return null
  const { label, href } = placeOf(first.place, plan, jobId)
  const rest = held.length - 1
  return (
    <Alert
      variant="danger"
      className="position-sticky top-0 z-3 d-flex gap-3 align-items-baseline py-2"
      role="alert"
      data-testid="held"
    >
      <span>
        <b>Not saved: {label}.</b> {faultText({ code: first.fault.code, facts: first.fault.facts ?? {} }, fmt)}
        {rest > 0 && ` And ${rest} more.`} Everything else is saved.
      </span>
      {href && (
        <Link className="ms-auto text-nowrap" href={href}>
          Go there
        </Link>
      )}
    </Alert>
  )
}
