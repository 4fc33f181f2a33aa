'use client'

import { useSearchParams } from 'next/navigation'
import { labelsOf } from '@/core/engines/roll/labels'
import { pointName } from '@/web/handover/point-name'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'
import { stepTitle } from '@/web/words/steps'

/** The piece whose label was read: what it is, where it was cut from, what is done on its panel and what is not. */
export function PieceCard() {
  const { reckoning, catalogue, ledger, fmt } = useJob('reckoning', 'catalogue', 'ledger', 'fmt')
  const id = useSearchParams().get('piece')
  if (id === null) return null
  const piece = reckoning.laid.find((p) => p.id === id)
  if (!piece)
    return (
      <p className="caution" role="status">
        This label’s piece is no longer in the plan: it was divided, or its panel is not wrapped any more. Ask the lead.
      </p>
    )
  const label = reckoning.layouts
    .flatMap((l) => labelsOf(l, catalogue.stock, ledger))
    .find((l) => l.kind === 'piece' && l.id === id)
  const film = reckoning.layouts.find((l) => l.pieces.some((p) => p.id === id))?.film
  const steps = reckoning.steps.filter((s) => s.panelId === piece.panelId)
  const points = reckoning.points.filter((p) => p.pieceId === id)
  const size = (mm: number) => fmt.text(fmt.length(mm))
  return (
    <section className="plate mb-3" aria-label="Piece">
      <span className="label">Piece</span>
      <h2 className="mt-1">{piece.name}</h2>
      <p className="fs-5 mb-1">
        {film?.name}, {label?.from ? `${label.from.label}, lot ${label.from.lot}` : 'lot not recorded'};{' '}
        {size(piece.cutWidthMm)} wide × {size(piece.cutHeightMm)} high. Arrow: top or front of the panel.
      </p>
      <ul className="list-unstyled mb-0">
        {steps.map((s) => (
          <li key={s.id}>
            {stepTitle(s)}: <b>{s.state === 'to_do' ? 'to do' : s.state}</b>
          </li>
        ))}
        {points.map((p) => {
          const newest = p.readings.at(-1)
          return (
            <li key={p.id}>
              {pointName(p)}:{' '}
              <b>
                {newest ? `${fmt.text(fmt.temp(newest.tempC))}, ${word('verdict', newest.verdict)}` : 'not read yet'}
              </b>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
