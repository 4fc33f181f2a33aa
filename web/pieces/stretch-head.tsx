'use client'

import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import { Fig } from '@/web/job/figure'
import { Figure } from '@/core/model/figure/figure'
import { FigureId } from '@/core/model/figure/figure-id'

/** The figures of a solved panel, and whether its map is the fine one. */
export function StretchHead({
  figures,
  id,
  coarse,
  state,
}: {
  figures: Map<FigureId, Figure>
  id: (f: string) => string
  coarse: boolean
  state: { key: string; stale: boolean; map: SurfaceMap | null; coarse: boolean; share: number; fault: string }
}) {
  return (
    <div className="d-flex gap-4 flex-wrap align-items-baseline mb-2">
      {(
        [
          ['Worst', 'worst'],
          ['Mean', 'mean'],
          ['To post-heat', 'post_heat'],
          ['Left after heat', 'residual'],
          ['Surface', 'area'],
        ] as const
      ).map(([label, f]) => (
        <span key={f}>
          <span className="label">{label}</span>{' '}
          <span className="fs-5">
            <Fig among={figures} id={id(f)} />
          </span>
        </span>
      ))}
      <span className="label" role="status">
        {coarse ? 'first, coarse map; a finer one follows' : 'fine map'}
      </span>
      {coarse && <progress value={state.share} max={1} aria-label="Finer map" style={{ width: 80 }} />}
    </div>
  )
}
