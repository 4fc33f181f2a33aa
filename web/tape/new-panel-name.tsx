'use client'

import Form from 'react-bootstrap/Form'
import { type Panel } from '@/core/model/vehicle/schema'
import type { Plan } from '@/core/model/plan/schema'

/** The last row of the measuring sheet: type a name, Enter, and the panel is there. */
export function NewPanelName({
  shown,
  plan,
  name,
  setName,
  add,
}: {
  shown: Panel[]
  plan: Plan
  name: string
  setName: (value: string) => void
  add: () => void
}) {
  return (
    <Form.Control
      data-cell={`${shown.length}:0`}
      type="text"
      aria-label="Name of a new panel"
      placeholder={
        plan.panels.length === 0 ? 'Type the first panel: bonnet, then Enter' : 'New panel: its name, then Enter'
      }
      value={name}
      maxLength={120}
      onChange={(e) => setName(e.target.value)}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' || name.trim() === '') return
        e.preventDefault()
        e.stopPropagation()
        add()
      }}
    />
  )
}
