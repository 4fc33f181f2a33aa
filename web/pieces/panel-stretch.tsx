'use client'

import Form from 'react-bootstrap/Form'
import type { Panel } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import { ScanPlate } from './scan-plate'
import { StretchBench } from './stretch-bench'
import { type KeptScan } from './use-scans'
import type { FilmSheet } from '@/core/model/film/schema'
import type { ScanSurface } from '@/core/solve/mesh/scan'

/** One panel of the page: its stretch, and a scan of it. */
export function PanelStretch({
  shown,
  alive,
  setPicked,
  able,
  scans,
}: {
  shown: { panel: Panel; film: FilmSheet }
  alive: boolean
  setPicked: (value: string) => void
  able: { panel: Panel; film: FilmSheet }[]
  scans: {
    kept: readonly KeptScan[]
    surface: ScanSurface | null
    waiting: boolean
    keep: (own: string, scan: ScanSurface | null, name: string) => Promise<string>
  }
}) {
  const { plan } = useJob('plan')
  return (
    <section className="plate mt-3">
      <div className="d-flex gap-2 align-items-baseline flex-wrap mb-2">
        <h2 className="mb-0">{shown.panel.name}</h2>
        <label className="d-flex gap-2 align-items-center ms-auto">
          <span className="label">Panel</span>
          <Form.Select
            size="sm"
            className="w-auto"
            disabled={!alive}
            aria-label="Panel whose stretch is shown"
            value={shown.panel.id}
            onChange={(e) => setPicked(e.target.value)}
          >
            {plan.panels
              .filter((p) => able.some((x) => x.panel === p))
              .map((panel) => (
                <option key={panel.id} value={panel.id}>
                  {panel.name}
                </option>
              ))}
          </Form.Select>
        </label>
      </div>
      {scans.waiting ? (
        <p className="label">Fetching the scan of {shown.panel.name} …</p>
      ) : (
        <StretchBench
          key={`${shown.panel.id} ${shown.film.id} ${String(scans.surface !== null)}`}
          panel={shown.panel}
          film={shown.film}
          scan={scans.surface}
        />
      )}
      <ScanPlate
        key={shown.panel.id}
        panel={shown.panel}
        kept={scans.kept.find((k) => k.panelId === shown.panel.id) ?? null}
        onKept={(scan, name) => scans.keep(shown.panel.id, scan, name)}
      />
      <p className="label mb-0">
        {scans.surface
          ? 'Film laid on the scanned surface.'
          : 'Film laid on a surface made of the taped crown, roll-overs, folds, recesses and raised objects.'}{' '}
        The film’s sheet wins; so does a trial on the panel.
      </p>
    </section>
  )
}
