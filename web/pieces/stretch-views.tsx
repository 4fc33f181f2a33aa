'use client'

import type { FilmSheet } from '@/core/model/film/schema'
import { type Feel } from '@/core/engines/stretch/feel'
import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import type { Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import { SurfacePicture } from './surface-picture'
import { Surface3D } from '@/web/pieces/surface-3d'

/** The panel in space, or drawn flat, beside its flat film. */
export function StretchViews({
  flat,
  map,
  feel,
  film,
  at,
  setAt,
  grid,
  panel,
  says,
  dead,
}: {
  flat: boolean
  map: SurfaceMap
  feel: Feel
  film: FilmSheet
  at: number | null
  setAt: (value: number | null) => void
  grid: boolean
  panel: Panel
  says: string
  dead: () => void
}) {
  const { fmt } = useJob('fmt')
  const text = (v: number) => fmt.text(fmt.percent(v))
  const same = { map, feel, film, text, at, onAt: setAt, grid, says }
  return (
    <div className="d-flex gap-3 flex-wrap mt-2 align-items-start">
      {flat ? (
        <SurfacePicture title="On the panel" places={map.seen} id={`p-${panel.id}`} {...same} />
      ) : (
        <Surface3D map={map} band={feel.band} at={at} onAt={setAt} grid={grid} says={says} onDead={dead} />
      )}
      <SurfacePicture title="Flat film" places={map.film} id={`f-${panel.id}`} {...same} />
    </div>
  )
}
