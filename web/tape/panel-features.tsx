'use client'

import { freeId, slug } from '@/core/kit/ids'
import { taped } from '@/core/model/vehicle/resize'
import { Recess, type Panel } from '@/core/model/vehicle/schema'
import { FeatureTable } from '@/web/kit/feature-table'
import type { Formatter } from '@/web/words/format'
import { EXTENT, LINES, Lists, NAME, RAISED, RECESS, ZONES } from './panel-sheet-columns'

/** All that is on one panel, list by list: recesses, body lines, raised objects, holes, zones. */
export function PanelFeatures({
  panel,
  change,
  fmt,
}: {
  panel: Panel
  change: (f: (panel: Panel) => Panel) => void
  fmt: Formatter
}) {
  const list =
    <K extends Lists>(key: K) =>
    (f: (rows: Panel[K]) => Panel[K]) =>
      change((p) => {
        const before = p[key] as readonly { id: string }[]
        const rows = f(p[key])
        // What was typed over is taped now; what is gone is not asked for any more.
        const touched = before
          .filter((r) => !(rows as readonly { id: string }[]).includes(r))
          .map((r) => `${key}.${r.id}`)
        return taped({ ...p, [key]: rows }, ...touched)
      })
  const id = (name: string, key: Lists) =>
    freeId(
      slug(name),
      panel[key].map((x) => x.id),
    )
  const block = {
    widthMm: Math.min(200, panel.widthMm),
    heightMm: Math.min(60, panel.heightMm),
    xMm: panel.widthMm / 2,
    yMm: panel.heightMm / 2,
  }
  return (
    <>
      <div className="col-12">
        <h3>Recesses</h3>
        <FeatureTable
          rows={panel.recesses}
          columns={RECESS}
          fmt={fmt}
          add="Add a recess"
          naming={(r) => r.name}
          assumed={(r) => panel.assumed.includes(`recesses.${r.id}`)}
          onRows={(f) =>
            list('recesses')((rows) =>
              f(rows).map((r) => (r.way === 'feed' && !r.open ? { ...r, way: 'bridge' as const } : r)),
            )
          }
          make={() =>
            Recess.parse({
              id: id('recess', 'recesses'),
              name: 'Recess',
              mouthWidthMm: Math.min(130, panel.widthMm),
              mouthHeightMm: Math.min(70, panel.heightMm),
              depthMm: 20,
              wallDeg: 45,
              open: false,
              way: 'bridge',
              gapMm: 60,
            })
          }
        />
      </div>
      <div className="col-12">
        <h3>Body lines</h3>
        <FeatureTable
          rows={panel.bodyLines}
          columns={LINES}
          fmt={fmt}
          add="Add a body line"
          naming={(r) => r.name}
          assumed={(r) => panel.assumed.includes(`bodyLines.${r.id}`)}
          onRows={list('bodyLines')}
          make={() => ({
            id: id('line', 'bodyLines'),
            name: 'Body line',
            along: 'width' as const,
            atMm: panel.heightMm / 2,
            radiusMm: 10,
            seam: true,
            foldDeg: 0,
          })}
        />
      </div>
      <div className="col-12">
        <h3>Raised objects</h3>
        <FeatureTable
          rows={panel.raised}
          columns={RAISED}
          fmt={fmt}
          add="Add an object"
          naming={(r) => r.name}
          assumed={(r) => panel.assumed.includes(`raised.${r.id}`)}
          onRows={(f) => list('raised')((rows) => f(rows).map((r) => (r.minutes === null ? { ...r, minutes: 0 } : r)))}
          make={() => ({
            id: id('object', 'raised'),
            name: 'Badge',
            kind: 'badge' as const,
            ...block,
            removable: true,
            minutes: 5,
            riseMm: null,
            behind: 'tucked' as const,
          })}
        />
      </div>
      <div className="col-12 d-flex flex-wrap gap-4">
        <div>
          <h3>Holes</h3>
          <FeatureTable
            rows={panel.holes}
            columns={[NAME, ...EXTENT]}
            fmt={fmt}
            add="Add a hole"
            naming={(r) => r.name}
            onRows={list('holes')}
            make={() => ({ id: id('hole', 'holes'), name: 'Hole', ...block })}
          />
        </div>
        <div>
          <h3>Convex and concave zones</h3>
          <FeatureTable
            rows={panel.zones}
            columns={ZONES}
            fmt={fmt}
            add="Add a zone"
            naming={(r) => r.name}
            onRows={list('zones')}
            make={() => ({ id: id('zone', 'zones'), name: 'Zone', kind: 'concave' as const, ...block })}
          />
        </div>
      </div>
    </>
  )
}
