'use client'

import { useEffect, useMemo, useRef, useState, type PointerEvent } from 'react'
import { bandOf, spotsOver, type Spot } from '@/core/stretch/spots'
import { surfaceFigures } from '@/core/stretch/surface-figures'
import type { SurfaceMap } from '@/core/stretch/surface-map'
import type { FilmSheet } from '@/core/film/schema'
import type { Panel } from '@/core/vehicle/schema'
import { filmGrid, surfaceMarks, trianglesAt } from '@/web/charts/surface-marks'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { hatch } from '@/web/roll/hatch'
import type { SurfaceAsk, SurfaceNews } from '@/web/workers/surface.worker'
import { faultText } from '@/web/words/sentences'

/** Ordered by lightness, told apart by hatching too. */
const FILLS = ['#f3ecd9', '#e0c98c', '#b98a3c', '#6d3b1f']
const NAMES = ['hardly stretched', 'stretched, fine', 'post-heat', 'past the limit']
const PX = 372

/** The stretch of one panel from its tape alone: the panel as it stands beside its flat film, point at one and see the other. */
export function SurfaceView({ panel, film }: { panel: Panel; film: FilmSheet }) {
  const { fmt } = useJob()
  const [state, setState] = useState<{ map: SurfaceMap | null; coarse: boolean; share: number; fault: string }>({ map: null, coarse: true, share: 0, fault: '' }) // prettier-ignore
  const [limit, setLimit] = useState(film.stretchLimit)
  const [at, setAt] = useState<number | null>(null)
  const [grid, setGrid] = useState(true)
  const worker = useRef<Worker | null>(null)
  useEffect(() => {
    const own = new Worker(new URL('../workers/surface.worker.ts', import.meta.url), { type: 'module' })
    worker.current = own
    own.onmessage = ({ data }: MessageEvent<SurfaceNews>) => {
      if (data.kind === 'tick') setState((s) => ({ ...s, share: data.share }))
      else if (data.kind === 'map') setState({ map: data.map, coarse: data.coarse, share: data.coarse ? 0 : 1, fault: '' })
      else setState({ map: null, coarse: false, share: 1, fault: faultText({ code: data.code, ...(data.at ? { at: data.at } : {}), facts: data.facts }) }) // prettier-ignore
    }
    const ask: SurfaceAsk = { panel, limit: film.stretchLimit, shrink: 0 }
    own.postMessage(ask)
    return () => own.terminate()
  }, [panel, film])
  const { map } = state
  const figures = useMemo(() => new Map(map ? surfaceFigures(panel, film, map, film.stretchLimit).map((f) => [f.id, f]) : []), [map, panel, film]) // prettier-ignore
  const spots = useMemo(() => (map ? spotsOver(map, limit) : []), [map, limit])
  if (state.fault !== '') return <p className="caution">{panel.name}: {state.fault}</p> // prettier-ignore
  if (!map) return <p className="label">Laying film on {panel.name} …</p>
  const id = (f: string) => `surface/${panel.id}/${f}`
  return (
    <section aria-label={`Stretch over ${panel.name}`} className="mb-3">
      <div className="d-flex gap-4 flex-wrap align-items-baseline mb-2">
        {(
          [
            ['Worst', 'worst'],
            ['Mean', 'mean'],
            ['To post-heat', 'post_heat'],
            ['Surface', 'area'],
          ] as const
        ).map(([label, key]) => (
          <span key={key}>
            <span className="label">{label}</span> <span className="fs-5"><Fig among={figures} id={id(key)} /></span>
          </span>
        ))}
        <span className="label" role="status">
          {state.coarse ? 'first, coarse map; a finer one follows' : `${map.report.triangles} triangles`}
        </span>
        {state.coarse && <progress value={state.share} max={1} aria-label="Finer map" style={{ width: 80 }} />}
      </div>
      <div className="d-flex gap-3 flex-wrap align-items-center mb-2">
        <label className="d-flex gap-2 align-items-center">
          <span className="label">Limit</span>
          <input type="range" min={0.005} max={0.4} step={0.005} value={limit} aria-label="Limit of stretch" onChange={(e) => setLimit(Number(e.target.value))} />
          <b>{fmt.text(fmt.percent(limit))}</b>
        </label>
        <label className="d-flex gap-2 align-items-center">
          <input type="checkbox" className="form-check-input mt-0" checked={grid} onChange={(e) => setGrid(e.target.checked)} />
          film’s 100 mm grid
        </label>
        {NAMES.map((name, i) => (
          <span key={name} className="d-inline-flex gap-1 align-items-center">
            <svg width={22} height={14} aria-hidden>
              {hatch(`key-${i}`, '#fffaf0', 4)}
              <rect width={22} height={14} fill={FILLS[i]} stroke="var(--ink)" />
              {i >= 2 && <rect width={22} height={14} fill={`url(#key-${i})`} opacity={i === 3 ? 0.9 : 0.5} />}
            </svg>
            <span className="label">{name}</span>
          </span>
        ))}
      </div>
      <div className="d-flex gap-3 flex-wrap">
        <View title="On the panel" places={map.seen} map={map} limit={limit} postHeat={film.postHeatOver} at={at} onAt={setAt} grid={grid} id={`p-${panel.id}`} />
        <View title="Flat film" places={map.film} map={map} limit={limit} postHeat={film.postHeatOver} at={at} onAt={setAt} grid={grid} id={`f-${panel.id}`} />
      </div>
      <p className="mb-1" role="status" style={{ minHeight: '1.5em' }}>
        {at !== null && map.stretch[at] !== undefined
          ? `Here ${fmt.text(fmt.percent(map.stretch[at] as number))}.`
          : 'Point at the panel or the film to read the stretch there.'}
      </p>
      <Spots spots={spots} limit={limit} />
      {map.report.overlaps && <p className="caution">The flat film would lie on itself: it takes a seam or a relief cut.</p>}
    </section>
  )
} // prettier-ignore

function Spots({ spots, limit }: { spots: Spot[]; limit: number }) {
  const { fmt } = useJob()
  const where = (s: Spot) => (s.row === 'middle' && s.column === 'middle' ? 'the middle' : s.row === 'middle' ? `the ${s.column} side` : s.column === 'middle' ? `the ${s.row}` : `the ${s.row} ${s.column} corner`) // prettier-ignore
  if (spots.length === 0) return <p className="mb-0">Nowhere past {fmt.text(fmt.percent(limit))}.</p>
  return (
    <>
      <p className="mb-1">
        Past {fmt.text(fmt.percent(limit))} at {spots.length} {spots.length === 1 ? 'place' : 'places'}:
      </p>
      <ul className="mb-0">
        {spots.slice(0, 6).map((s) => (
          <li key={`${s.xMm}-${s.yMm}`}>
            {where(s)}, {fmt.text(fmt.percent(s.stretch))} over {fmt.text(fmt.area(s.areaMm2))}
          </li>
        ))}
      </ul>
    </>
  )
}

function View({ title, places, map, limit, postHeat, at, onAt, grid, id }: { title: string; places: Float64Array; map: SurfaceMap; limit: number; postHeat: number; at: number | null; onAt: (t: number | null) => void; grid: boolean; id: string }) {
  const m = useMemo(() => surfaceMarks(map, places, PX, (s) => bandOf(s, postHeat, limit)), [map, places, limit, postHeat])
  const lines = useMemo(() => (grid ? filmGrid(map, places, m.scale) : ''), [map, places, grid, m.scale])
  const find = (e: PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect()
    const k = m.width / box.width
    onAt(trianglesAt(map, places, m.scale, m.left + (e.clientX - box.left) * k, m.top + (e.clientY - box.top) * k))
  }
  const here = at === null ? null : m.middle(at)
  return (
    <figure className="mb-0">
      <figcaption className="label">{title}</figcaption>
      <svg width={m.width} height={m.height} viewBox={`${m.left} ${m.top} ${m.width} ${m.height}`} role="img" aria-label={`${title}: worst stretch ${(100 * map.report.stretch.max).toFixed(1)} %`} onPointerMove={find} onPointerLeave={() => onAt(null)} style={{ touchAction: 'pan-y', background: '#fbf8ef', maxWidth: '100%', height: 'auto' }}>
        {hatch(`band-${id}-2`, '#fffaf0', 6)}
        {hatch(`band-${id}-3`, '#fffaf0', 4)}
        {m.bands.map((d, i) => (
          <g key={i}>
            <path d={d} fill={FILLS[i]} stroke={FILLS[i]} strokeWidth={0.6} />
            {i >= 2 && <path d={d} fill={`url(#band-${id}-${i})`} opacity={i === 3 ? 0.9 : 0.5} />}
          </g>
        ))}
        {lines !== '' && <path d={lines} fill="none" stroke="var(--ink)" strokeWidth={0.6} opacity={0.55} />}
        <path d={m.strokes} fill="none" stroke="var(--ink)" strokeWidth={1.3} />
        <path d={m.rim} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
        {here && <circle cx={here.x} cy={here.y} r={7} fill="none" stroke="var(--stop)" strokeWidth={2.5} />}
      </svg>
    </figure>
  )
} // prettier-ignore
