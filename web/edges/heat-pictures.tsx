'use client'

import { useState } from 'react'
import Alert from 'react-bootstrap/Alert'
import Button from 'react-bootstrap/Button'
import Spinner from 'react-bootstrap/Spinner'
import Table from 'react-bootstrap/Table'
import type { EdgeHeatAsk } from '@/core/engines/heat/edge-heat'
import type { SolvedHeat } from '@/core/model/catalogue/solved-heat'
import type { HeatPicture, SourceSweep } from '@/core/engines/heat/heat-picture'
import { panelHeat } from '@/core/engines/heat/panel-heat'
import type { Point } from '@/core/kit/plane'
import { OTHER_SOURCES, ROOM, SAFE_C, type HeatSource, type OtherSource } from '@/core/model/heat/heat-data'
import type { ShopSettings } from '@/core/model/shop/shop'
import { heatLimits } from '@/web/charts/heat-map-marks'
import type { Formatter } from '@/web/words/format'
import { HeatCurve } from './heat-curve'
import { HeatLegend, HeatStrip, PanelHeatMap } from './heat-map'
import { useHeatPicture, type PictureState } from './use-heat-picture'
import { Compare, type Other } from './heat-compare'
import './heat.scss'

type Guns = ShopSettings['guns']
type Plan = Extract<SolvedHeat, { kind: 'plan' }>
export interface PanelFrame {
  name: string
  path: readonly Point[]
  /** Its edges that are heated, as lines in the same plane. */
  heated: readonly (readonly Point[])[]
}

const sweepOf = (p: Plan): SourceSweep => ({
  beforeMm: p.beforeMm,
  pastMm: p.pastMm,
  paceMmS: p.paceMmS,
  passes: p.passes,
  holdS: p.holdS,
  gapS: p.gapS,
})
const isOther = (id: string): id is OtherSource => id in OTHER_SOURCES

function sourceOf(guns: Guns, id: string): HeatSource | null {
  if (isOther(id)) return OTHER_SOURCES[id]
  const gun = guns.find((g) => g.id === id)
  return gun && gun.airC !== null && gun.coefficient !== null && gun.sigmaMm !== null
    ? { airC: gun.airC, coefficient: gun.coefficient, flux: 0, sigmaMm: gun.sigmaMm }
    : null
}

/** What the planned pass does to the panel, beside another source, pace, car or film: maps, curve and figures. */
export function HeatPictures({
  ask,
  lengthMm,
  plan,
  frame,
  fmt,
}: {
  ask: EdgeHeatAsk
  lengthMm: number
  plan: Plan
  frame: PanelFrame | null
  fmt: Formatter
}) {
  const { guns, film, panel } = ask
  const planned = plan.gun
  const base = { film, lengthMm, surface: panel.surface, films: 1 as const, startC: ROOM.airC }
  const [other, setOther] = useState<Other | null>(null)
  const source = sourceOf(guns, planned)
  const first = useHeatPicture(source && { ...base, source, sweep: sweepOf(plan) })
  const otherSource = other && sourceOf(guns, other.source)
  const second = useHeatPicture(
    other && otherSource
      ? {
          ...base,
          surface: {
            material: other.material,
            thicknessMm: other.material === panel.surface.material ? panel.surface.thicknessMm : null,
          },
          films: other.films,
          startC: other.startC,
          source: otherSource,
          sweep: other.sweep,
        }
      : null,
  )
  const limits = heatLimits(SAFE_C.lift, film)
  const looked = [
    { name: 'As planned', state: first },
    { name: 'Compared', state: second },
  ].flatMap(({ name, state }) => (state?.kind === 'there' ? [{ name, picture: state.picture }] : []))
  const [shown] = looked
  return (
    <section className="mt-2" aria-label="What the pass does">
      <div className="heat-looks">
        <Look name="As planned" state={first} limits={limits} />
        {other && <Look name="Compared" state={second} limits={limits} />}
      </div>
      <HeatLegend limits={limits} fmt={fmt} />
      {looked.length > 0 && (
        <div className="heat-looks">
          <figure className="mb-1">
            <figcaption className="label">Film in the middle of the edge; dashed: the panel’s back</figcaption>
            <HeatCurve looked={looked} film={film} fmt={fmt} />
          </figure>
          {shown && frame && (
            <figure className="mb-1">
              <figcaption className="label">All of {frame.name} after such passes along its heated edges</figcaption>
              <PanelHeatMap
                heat={panelHeat(frame.path, frame.heated, profileOf(shown.picture), base.startC)}
                path={frame.path}
                limits={limits}
                name={frame.name}
              />
            </figure>
          )}
        </div>
      )}
      {looked.length > 0 && <Figures looked={looked} fmt={fmt} />}
      {other ? (
        <Compare other={other} guns={guns} fmt={fmt} onChange={setOther} onEnd={() => setOther(null)} />
      ) : (
        <Button
          variant="outline-secondary"
          size="sm"
          onClick={() =>
            setOther({
              source: planned,
              material: panel.surface.material,
              films: 1,
              startC: ROOM.airC,
              sweep: sweepOf(plan),
            })
          }
        >
          Compare with another source, pace, car or a lap
        </Button>
      )}
      <p className="label mb-0 mt-1">
        Solved through film and panel with heat spreading sideways. Matter from memory, room{' '}
        {fmt.text(fmt.temp(ROOM.airC))}, still air behind: assumed. The film’s sheet and a reading with the gun away
        come first.
      </p>
    </section>
  )
}

/** By distance from the gun's line, in the middle of the edge. */
function profileOf({ grid }: HeatPicture) {
  const middle = Math.floor(grid.xMm.length / 2)
  return { distanceMm: grid.yMm, peakC: grid.yMm.map((_, r) => grid.peakC[r * grid.xMm.length + middle] ?? 0) }
}

function Look({ name, state, limits }: { name: string; state: PictureState | null; limits: readonly number[] }) {
  return (
    <figure className="mb-1">
      <figcaption className="label">{name}</figcaption>
      {state?.kind === 'there' ? (
        <HeatStrip picture={state.picture} limits={limits} name={name} />
      ) : state?.kind === 'failed' ? (
        <Alert variant="warning" className="py-1 mb-0">
          This picture was not finished. Change a figure to try again.
        </Alert>
      ) : (
        <p className="heat-wait" role="status">
          <Spinner size="sm" aria-hidden /> Working it out…
        </p>
      )}
    </figure>
  )
}

function Figures({ looked, fmt }: { looked: readonly { name: string; picture: HeatPicture }[]; fmt: Formatter }) {
  const temp = (c: number) => fmt.text(fmt.temp(c))
  const after = (s: number | null) => (s === null ? 'over 5 min' : `${Math.round(s)} s`)
  return (
    <Table className="mb-2">
      <thead>
        <tr>
          <th scope="col" />
          <th scope="col" className="n">
            Edge becomes
          </th>
          <th scope="col" className="n">
            In the range
          </th>
          <th scope="col" className="n">
            Takes
          </th>
          <th scope="col" className="n">
            Under {temp(SAFE_C.touch)} after
          </th>
          <th scope="col" className="n">
            Under {temp(SAFE_C.lift)} after
          </th>
        </tr>
      </thead>
      <tbody>
        {looked.map(({ name, picture: p }) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            <td className="n">
              {temp(p.peakC.min)} to {temp(p.peakC.max)}
            </td>
            <td className="n">{Math.round(p.inBand * 100)} %</td>
            <td className="n">{Math.round(p.seconds)} s</td>
            <td className="n">{after(p.coolS.touch)}</td>
            <td className="n">{after(p.coolS.lift)}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  )
}
