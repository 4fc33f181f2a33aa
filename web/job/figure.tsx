'use client'

import type { Figure } from '@/core/model/figure/figure'
import { FigureButton } from '@/web/kit/figure-button'
import type { Quantity } from '@/web/words/format'
import { useJob } from './job-state'
import { figureName } from '@/web/words/figure-names'

/** Figures by their names, for a reckoning that is not the job's own: another film, another method. */
export type Figures = ReadonlyMap<string, Figure>

/** A number that opens its working. */
export function Fig({ id, as, among }: { id: string; as?: Quantity; among?: Figures }) {
  const { reckoning, fmt, show, plan } = useJob('reckoning', 'fmt', 'show', 'plan')
  const f = (among ?? reckoning.figures).get(id)
  if (!f) return <span>–</span>
  const name = figureName(id, plan)
  return <FigureButton f={f} name={name} fmt={fmt} as={as} onShow={() => show(id, among ?? null)} />
}
