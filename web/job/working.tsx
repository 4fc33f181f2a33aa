'use client'

import { WorkingSheet } from '@/web/kit/working'
import { figureName } from '@/web/words/figure-names'
import { placeOf } from '@/web/words/places'
import { useJob } from './job-state'

/** The working of the figure that is asked for. */
export function Working() {
  const { shown, show, reckoning, fmt, plan, jobId } = useJob('shown', 'show', 'reckoning', 'fmt', 'plan', 'jobId')
  return (
    <WorkingSheet
      f={shown ? (shown.among ?? reckoning.figures).get(shown.id) : undefined}
      fmt={fmt}
      nameOf={(id) => figureName(id, plan)}
      placeOf={(at) => placeOf(at, plan, jobId)}
      onShow={(id) => (id === null ? show(null) : show(id, shown?.among ?? null))}
    />
  )
}
