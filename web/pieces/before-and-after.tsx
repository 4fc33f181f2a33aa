'use client'

import Button from 'react-bootstrap/Button'
import type { FilmSheet } from '@/core/model/film/schema'
import { type Feel } from '@/core/engines/stretch/feel'
import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import type { Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import { SurfacePicture } from './surface-picture'

/** The stretch of a panel before a way out was taken, and now. */
export function BeforeAndAfter({
  setBefore,
  beforeFeel,
  before,
  film,
  panel,
  feel,
  map,
  says,
}: {
  setBefore: (value: { map: SurfaceMap; key: string } | null) => void
  beforeFeel: Feel
  before: { map: SurfaceMap; key: string }
  film: FilmSheet
  panel: Panel
  feel: Feel
  map: SurfaceMap
  says: string
}) {
  const { fmt } = useJob('fmt')
  return (
    <section aria-label="Before and after" className="mt-2">
      <div className="d-flex gap-2 align-items-baseline">
        <h3 className="mb-1">Before and after</h3>
        <Button variant="link" size="sm" onClick={() => setBefore(null)}>
          Close
        </Button>
      </div>
      <div className="d-flex gap-3 flex-wrap">
        <SurfacePicture
          title={`Before: ${fmt.text(fmt.percent(beforeFeel.worst))}`}
          places={before.map.seen}
          map={before.map}
          feel={beforeFeel}
          film={film}
          text={(v) => fmt.text(fmt.percent(v))}
          id={`b-${panel.id}`}
          px={300}
          says={`worst stretch ${fmt.text(fmt.percent(beforeFeel.worst))}`}
        />
        <SurfacePicture
          title={`Now: ${fmt.text(fmt.percent(feel.worst))}`}
          places={map.seen}
          map={map}
          feel={feel}
          film={film}
          text={(v) => fmt.text(fmt.percent(v))}
          id={`n-${panel.id}`}
          px={300}
          says={says}
        />
      </div>
    </section>
  )
}
