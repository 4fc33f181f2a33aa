'use client'

import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { freeId, slug } from '@/core/kit/ids'
import type { Plan } from '@/core/model/plan/schema'
import { acceptPanel, sameAsOtherSide } from '@/core/stages/tape/tape-answer'
import { otherSideId } from '@/core/model/vehicle/mirror'
import { taped } from '@/core/model/vehicle/resize'
import { MAX_PANEL_MM, Recess, type Edge, type Panel } from '@/core/model/vehicle/schema'
import { FeatureTable, type Column } from '@/web/kit/feature-table'
import { WordSelect } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { changePanel } from './edit-panel'
import { PanelLarge } from './panel-large'
import { Wraps } from './wraps'
import { EXTENT, LINES, Lists, NAME, RAISED, RECESS, ZONES } from '@/web/tape/panel-sheet-columns'

/** One panel in full: drawn to scale with its measures, its edges and what they meet, all that is on it. */
export function PanelSheet({
  panel,
  plan,
  edit,
  fmt,
  disabled = false,
}: {
  panel: Panel
  plan: Plan
  edit: (change: (plan: Plan) => Plan) => void
  fmt: Formatter
  disabled?: boolean
}) {
  const unit = fmt.units.lengthUnit
  const format = (mm: number) => fmt.length(mm).text
  const change = (f: (p: Panel) => Panel) => edit((was) => changePanel(was, panel.id, f))
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
  const others = plan.panels.filter((p) => p.id !== panel.id).map((p) => [p.id, p.name] as const)
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
  const twin = plan.panels.find((p) => p.id === otherSideId(panel.id) && p.id !== panel.id)
  const EDGES: Column<Edge>[] = [
    { key: 'lengthMm', label: 'Length', kind: 'length', max: MAX_PANEL_MM },
    { key: 'meets', label: 'Meets', kind: 'word', list: 'edge' },
    { key: 'neighbour', label: 'Neighbour', kind: 'choice', options: others, none: '–' },
    { key: 'gapMm', label: 'Gap', kind: 'length', max: 5000, optional: true, min: 0 },
    { key: 'riseMm', label: 'Rise', kind: 'length', max: MAX_PANEL_MM, min: -MAX_PANEL_MM },
    { key: 'cornerDeg', label: 'Corner °', kind: 'number', max: 359, min: 1, optional: true, digits: 1 },
    { key: 'cornerRadiusMm', label: 'Corner r', kind: 'length', max: 5000, optional: true, min: 0 },
    { key: 'grab', label: 'Grabbed', kind: 'word', list: 'grab' },
  ]
  const edges = (f: (rows: readonly Edge[]) => Edge[]) =>
    change((p) => {
      const next = f(p.edges)
      // A run is taped when its length, rise or corner was typed, or the assumed length was typed once more.
      const typed = next.filter((e) => {
        const was = p.edges.find((w) => w.id === e.id)
        if (!was || was === e) return false
        const size = (x: Edge) => JSON.stringify([x.lengthMm, x.riseMm, x.cornerDeg])
        return size(was) !== size(e) || JSON.stringify(was) === JSON.stringify(e)
      })
      return taped({ ...p, edges: next }, ...typed.map((e) => `edges.${e.id}`))
    })
  return (
    <section className="plate mt-3" aria-label={`${panel.name} in full`}>
      <div className="d-flex flex-wrap gap-2 align-items-baseline mb-2">
        <h2 className="mb-0">{panel.name}</h2>
        {panel.assumed.length > 0 && <span className="label">{panel.assumed.length} figures assumed</span>}
        <span className="ms-auto d-flex gap-2 flex-wrap">
          {twin && (
            <Button variant="outline-primary" size="sm" onClick={() => edit((p) => sameAsOtherSide(p, panel.id))}>
              Same as {twin.name}
            </Button>
          )}
          {panel.assumed.length > 0 && (
            <Button variant="outline-primary" size="sm" onClick={() => change(acceptPanel)}>
              It is as it stands here
            </Button>
          )}
        </span>
      </div>
      <PanelLarge panel={panel} edit={edit} fmt={fmt} disabled={disabled} />
      <h3 className="mt-3">Edges, clockwise from the top left</h3>
      <FeatureTable
        rows={panel.edges}
        columns={EDGES}
        fmt={fmt}
        fixed
        onRows={edges}
        naming={(e) => `${panel.name}, ${e.id} edge`}
        assumed={(e, key) => key === 'lengthMm' && panel.assumed.includes(`edges.${e.id}`)}
        extraHead="Edge"
        extra={(e) => <span className="label text-nowrap">{e.id}</span>}
      />
      <p className="label">
        Rise: how far a curved edge stands off its chord; hollow ones (a wheel arch) are negative, straight ones 0.
      </p>
      <div className="row g-3">
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
            onRows={(f) =>
              list('raised')((rows) => f(rows).map((r) => (r.minutes === null ? { ...r, minutes: 0 } : r)))
            }
            make={() => ({
              id: id('object', 'raised'),
              name: 'Badge',
              kind: 'badge' as const,
              ...block,
              removable: true,
              minutes: 5,
              riseMm: null,
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
        <div className="col-6 col-md-3">
          <label className="form-label" htmlFor="surface-material">
            Surface
          </label>
          <WordSelect
            list="material"
            locale={fmt.units.locale}
            id="surface-material"
            className="form-select"
            value={panel.surface.material}
            onCode={(material) => change((p) => ({ ...p, surface: { ...p.surface, material } }))}
          />
        </div>
        <div className="col-6 col-md-2">
          <label className="form-label" htmlFor="surface-thickness">
            Thickness, mm
          </label>
          <NumberInput
            id="surface-thickness"
            className="form-control"
            aria-label="Thickness in millimetres"
            optional
            digits={1}
            value={panel.surface.thicknessMm}
            max={100}
            onValue={(thicknessMm) => change((p) => ({ ...p, surface: { ...p.surface, thicknessMm } }))}
          />
        </div>
        <div className="col-6 col-md-2">
          <label className="form-label" htmlFor="nose-at">
            Nose or roll-over
          </label>
          <WordSelect
            list="at"
            none="none"
            id="nose-at"
            className="form-select"
            value={panel.nose?.at ?? ''}
            onCode={(at) =>
              change((p) =>
                taped(
                  {
                    ...p,
                    nose:
                      at === '' ? null : { at: at, radiusMm: p.nose?.radiusMm ?? 60, angleDeg: p.nose?.angleDeg ?? 80 },
                  },
                  'nose',
                ),
              )
            }
          />
        </div>
        {panel.nose && (
          <>
            <div className="col-3 col-md-2">
              <label className="form-label" htmlFor="nose-radius">
                Nose radius
              </label>
              <LengthInput
                id="nose-radius"
                className="form-control"
                aria-label="Nose radius"
                mm={panel.nose.radiusMm}
                unit={unit}
                format={format}
                max={5000}
                onValue={(mm) =>
                  change((p) => taped({ ...p, nose: p.nose && { ...p.nose, radiusMm: mm ?? p.nose.radiusMm } }, 'nose'))
                }
              />
            </div>
            <div className="col-3 col-md-2">
              <label className="form-label" htmlFor="nose-angle">
                Nose angle °
              </label>
              <NumberInput
                id="nose-angle"
                className="form-control"
                aria-label="Nose angle"
                min={1}
                max={270}
                value={panel.nose.angleDeg}
                onValue={(v) =>
                  change((p) => taped({ ...p, nose: p.nose && { ...p.nose, angleDeg: v ?? p.nose.angleDeg } }, 'nose'))
                }
              />
            </div>
          </>
        )}
        <Wraps panel={panel} fmt={fmt} onChange={(wraps) => change((p) => taped({ ...p, wraps }, 'wraps'))} />
        <div className="col-12 col-md-6">
          <label className="form-label" htmlFor="paint-note">
            Paint on this panel
          </label>
          <Form.Control
            id="paint-note"
            maxLength={2000}
            value={panel.paintNote}
            onChange={(e) => change((p) => ({ ...p, paintNote: e.target.value }))}
          />
        </div>
        {twin && (
          <div className="col-12">
            <label className="d-flex gap-2 align-items-center">
              <Form.Check.Input
                type="checkbox"
                checked={panel.mirrored}
                onChange={(e) => change((p) => ({ ...p, mirrored: e.target.checked }))}
              />
              Mirrors {twin.name}
            </label>
          </div>
        )}
      </div>
    </section>
  )
}
