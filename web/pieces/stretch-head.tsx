'use client'

import type { Figure } from '@/core/model/figure/figure'
import type { FigureId } from '@/core/model/figure/figure-id'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'

const SHOWN = [
  ['Worst', 'worst'],
  ['Mean', 'mean'],
  ['To post-heat', 'post_heat'],
  ['Left after heat', 'residual'],
  ['Surface', 'area'],
] as const

/**
 * The figures of a panel's map, and whether it is the fine one. `asPlanned`: it is laid as the plan has it, so that
 * what the job says of the panel stands here too.
 */
export function StretchHead({
  figures,
  panelId,
  asPlanned,
  coarse,
  share,
}: {
  figures: ReadonlyMap<FigureId, Figure>
  panelId: string
  asPlanned: boolean
  coarse: boolean
  share: number
}) {
  const { reckoning } = useJob('reckoning')
  const place = (f: string) => {
    const ofJob = `stretch/${panelId}/${f}`
    const known = reckoning.figures.get(ofJob)
    // The job's own figure, wherever it has one that is solved.
    return asPlanned && known && !known.settling ? { id: ofJob } : { id: `surface/${panelId}/${f}`, among: figures }
  }
  return (
    <div className="d-flex gap-4 flex-wrap align-items-baseline mb-2">
      {SHOWN.map(([label, f]) => (
        <span key={f}>
          <span className="label">{label}</span>{' '}
          <span className="fs-5">
            <Fig {...place(f)} />
          </span>
        </span>
      ))}
      <span className="label" role="status">
        {coarse ? 'first, coarse map; a finer one follows' : 'fine map'}
      </span>
      {coarse && <progress value={share} max={1} aria-label="Finer map" style={{ width: 80 }} />}
    </div>
  )
}
