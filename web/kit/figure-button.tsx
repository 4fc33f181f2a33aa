'use client'

import type { Figure } from '@/core/model/figure/figure'
import type { Formatter, Quantity } from '@/web/words/format'
import './working.scss'

export function Quant({ q }: { q: Quantity }) {
  return (
    <>
      {q.text}
      {q.unit !== '' && <span className="unit">{q.unit}</span>}
    </>
  )
}

const isOver = (f: Figure): boolean =>
  f.limit !== null &&
  typeof f.value === 'number' &&
  (f.limit.kind === 'max' ? f.value > f.limit.value + 1e-9 : f.value < f.limit.value - 1e-9)

export const SETTLING = 'Settling: what it hangs on is being solved, and it may move.'

/** A number that opens its working. */
export function FigureButton({
  f,
  name,
  fmt,
  as,
  onShow,
}: {
  f: Figure
  name: string
  fmt: Formatter
  as?: Quantity | undefined
  onShow: () => void
}) {
  const q = as ?? fmt.quantity(f.value, f.unit)
  return (
    <button
      type="button"
      className={`figure${isOver(f) ? ' over' : ''}`}
      data-settling={f.settling || undefined}
      title={f.settling ? SETTLING : undefined}
      onClick={onShow}
      aria-label={`${name}: ${fmt.text(q)}${f.settling ? ', settling' : ''}. Show the working`}
    >
      <Quant q={q} />
      {f.settling && (
        <span className="settling" aria-hidden>
          ≈
        </span>
      )}
    </button>
  )
}
