'use client'

import Button from 'react-bootstrap/Button'
import { useEffect, useRef, useState } from 'react'
import type { FilmSheet } from '@/core/model/film/schema'
import { choiceFor } from '@/core/model/plan/piece-choice'
import { feelOf } from '@/core/engines/stretch/feel'
import type { ScanSurface } from '@/core/solve/mesh/scan'
import { surfaceFigures } from '@/core/stages/pieces/surface-figures'
import type { Panel } from '@/core/model/vehicle/schema'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import type { School } from '@/web/workers/stretch.worker'
import { SCHOOL_NAMES } from '@/web/words/stretch-words'
import { SurfacePicture } from './surface-picture'
import { startStretch } from './stretch-workers'

/** The same recess laid by four schools, side by side: what they argue about. */
export function Schools({ panel, film, scan }: { panel: Panel; film: FilmSheet; scan: ScanSurface | null }) {
  const { plan, fmt } = useJob('plan', 'fmt')
  const [list, setList] = useState<School[] | null>(null)
  const [busy, setBusy] = useState(false)
  const stop = useRef<() => void>(() => {})
  useEffect(() => () => stop.current(), [])
  const start = () => {
    stop.current()
    setList([])
    setBusy(true)
    stop.current = startStretch({ kind: 'schools', plan, panelId: panel.id, scan }, (news) => {
      if (news.kind === 'school') setList((was) => [...(was ?? []), news.school])
      else if (news.kind === 'end') setBusy(false)
    })
  }
  return (
    <section aria-label="Schools side by side" className="mt-3">
      <div className="d-flex gap-2 align-items-baseline">
        <h3 className="mb-1">Laid by different schools</h3>
        <Button variant="outline-primary" size="sm" disabled={busy} onClick={start}>
          {busy ? 'Laying …' : 'Lay them side by side'}
        </Button>
      </div>
      {list && (
        <div className="d-flex gap-3 flex-wrap">
          {list.map(({ code, map }) => {
            const feel = feelOf({ map, panel, film, choice: choiceFor(plan, panel, film), method: plan.method })
            const [name = code, why = ''] = SCHOOL_NAMES[code] ?? []
            const worst = fmt.text(fmt.percent(feel.worst))
            const figures = new Map(
              surfaceFigures(panel, film, map, feel, {
                pull: 'even',
                choice: choiceFor(plan, panel, film),
                method: plan.method,
                scanned: scan !== null,
              }).map((f) => [f.id, f]),
            )
            const squeeze = fmt.text(fmt.percent(map.report.squeeze.max))
            return (
              <div key={code} style={{ width: 178 }}>
                <SurfacePicture
                  title={name}
                  places={map.seen}
                  map={map}
                  feel={feel}
                  film={film}
                  text={(v) => fmt.text(fmt.percent(v))}
                  id={`s-${code}`}
                  px={178}
                  says={`worst ${worst}`}
                />
                <Fig among={figures} id={`surface/${panel.id}/worst`} />{' '}
                <span className="label">
                  to post-heat <Fig among={figures} id={`surface/${panel.id}/post_heat`} />, shrunk by heat up to{' '}
                  {squeeze}
                </span>
                <p className="label mb-0">{why}</p>
              </div>
            )
          })}
        </div>
      )}
    </section>
  )
}
