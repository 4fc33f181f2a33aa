'use client'

import { type FilmLayout } from '@/core/engines/roll/film-layout'
import { fromMm } from '@/core/kit/units'
import { numberOf } from '@/core/model/figure/figure'
import { useJob } from '@/web/job/job-state'
import { Fig } from '@/web/job/figure'
import { FilmSheet } from '@/core/model/film/schema'
import { Quantity } from '@/web/words/format'

/** What a film's layout takes, yields and costs. */
export function LayoutFigures({
  film,
  layout,
  id,
  long,
}: {
  film: FilmSheet
  layout: FilmLayout
  id: (part: string) => string
  long: (figureId: string) => Quantity | undefined
}) {
  const { reckoning, fmt } = useJob('reckoning', 'fmt')
  const usedMm = numberOf(reckoning.figures.get(id('used'))) ?? 0
  const inBoth = (unit: 'm' | 'yd') => `${fmt.number(fromMm(usedMm, unit), 2)} ${unit}`
  return (
    <div className="d-flex column-gap-4 row-gap-0 flex-wrap align-items-baseline mb-2">
      <h2 className="mb-0">{film.name}</h2>
      {(
        [
          ['Used', 'used'],
          ['Reserve', 'reserve'],
          ['Yield', 'yield'],
          ['To order', 'order'],
          ['To buy', 'cost'],
        ] as const
      ).map(([label, part]) =>
        part === 'reserve' && layout.reserveMm === 0 ? null : (
          <span key={part}>
            <span className="label">{label}</span>{' '}
            <span className="fs-5">
              <Fig id={id(part)} as={part === 'used' || part === 'order' ? long(id(part)) : undefined} />
            </span>
          </span>
        ),
      )}
      <span className="label">
        {inBoth('m')} = {inBoth('yd')}
      </span>
    </div>
  )
}
