'use client'

import Button from 'react-bootstrap/Button'
import { useState } from 'react'
import { panelAreaMm2 } from '@/core/model/vehicle/outline'
import { useJob } from '@/web/job/job-state'
import { SkinPlate } from './skin-panel'

/** The whole vehicle on one screen, or one sheet of paper. */
export function SkinPage() {
  const { plan, fmt } = useJob('plan', 'fmt')
  const [selected, setSelected] = useState<string[]>([])
  const picked = plan.panels.filter((p) => selected.includes(p.id))
  return (
    <div className="skin-page">
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>The skin</h1>
        <span className="label">
          {plan.vehicle.name}, {plan.panels.length} panels, over a grid of {fmt.text(fmt.length(100))}. Front to the
          left, left side below.
        </span>
        <span className="flex-fill" />
        <Button variant="outline-primary" size="sm" className="d-print-none" onClick={() => window.print()}>
          Print on one page
        </Button>
      </div>
      <SkinPlate selected={selected} onSelect={setSelected} height="min(64vh, 760px)" />
      <p className="label d-print-none" role="status">
        {picked.length === 0
          ? 'Arrows walk from panel to panel, Shift keeps those passed; + and − zoom, 0 shows it whole, Ctrl and wheel too.'
          : `${picked.length} picked: ${picked.map((p) => p.name).join(', ')}, ` +
            `${fmt.text(fmt.area(picked.reduce((s, p) => s + panelAreaMm2(p), 0)))}`}
      </p>
    </div>
  )
}
