'use client'

import Button from 'react-bootstrap/Button'
import { JSX } from 'react'
import type { WayOutPart } from '@/core/model/figure/figure-id'
import { signed } from '@/web/words/format'
import { useJob } from '@/web/job/job-state'
import type { PricedWayOut } from '@/web/workers/stretch.worker'
import { SEEN, solvedText } from '@/web/words/stretch-words'

/** One way out: what it leaves, what it costs, and a button that takes it. */
export function WayRow({
  w,
  cell,
  n,
  stale,
  take,
}: {
  w: PricedWayOut
  cell: (n: number | 'now', part: WayOutPart, as?: string) => JSX.Element
  n: number
  stale: boolean
  take: (way: PricedWayOut) => void
}) {
  const { fmt, mayPlan } = useJob('fmt', 'mayPlan')
  return (
    <tr>
      <td style={{ minWidth: 150 }}>
        {solvedText(w, fmt)} {w.answers && <span className="label">answers</span>}
        {w.wrinklesMm2 > 0 && <span className="label"> wrinkles {fmt.text(fmt.area(w.wrinklesMm2))}</span>}
      </td>
      <td className="n text-nowrap">{cell(n, 'worst')}</td>
      <td className="n text-nowrap">{cell(n, 'over')}</td>
      <td className="n text-nowrap">{w.seamMm > 0 ? cell(n, 'seam', fmt.text(fmt.longLength(w.seamMm))) : '–'}</td>
      <td>{SEEN[w.seen]}</td>
      <td className="n text-nowrap">
        {w.price ? cell(n, 'film', signed(w.price.filmMm, fmt.text(fmt.longLength(Math.abs(w.price.filmMm))))) : ''}
      </td>
      <td className="n text-nowrap">
        {w.price ? cell(n, 'minutes', signed(w.price.minutes, fmt.text(fmt.minutes(Math.abs(w.price.minutes))))) : ''}
      </td>
      <td className="n text-nowrap">
        {mayPlan && !stale && (
          <Button variant="outline-primary" size="sm" className="text-nowrap" onClick={() => take(w)}>
            Take it
          </Button>
        )}
      </td>
    </tr>
  )
}
