'use client'

import { useMemo, type PointerEvent } from 'react'
import type { Feel } from '@/core/engines/stretch/feel'
import type { FilmSheet } from '@/core/model/film/schema'
import type { SurfaceMap } from '@/core/engines/stretch/surface-map'
import { stretchBands } from '@/web/charts/stretch-bands'
import { filmGrid, surfaceMarks, trianglesAt } from '@/web/charts/surface-marks'
import { hatch } from '@/web/roll/hatch'
import { BAND_FILLS, bandLimits, BAND_NAMES } from './bands'
import './pieces.scss'

interface PictureProps {
  title: string
  places: Float64Array
  map: SurfaceMap
  feel: Pick<Feel, 'taken' | 'band'>
  film: FilmSheet
  /** How a stretch is written on its line. */
  text: (stretch: number) => string
  at?: number | null
  onAt?: (t: number | null) => void
  grid?: boolean
  id: string
  px?: number
  /** What a reader without eyes on it is told. */
  says: string
}

/** A stretch map drawn flat: bands, film's grid, strokes along the greatest stretch, the rim. */
export function SurfacePicture({
  title,
  places,
  map,
  feel,
  film,
  text,
  at = null,
  onAt,
  grid = false,
  id,
  px = 372,
  says,
}: PictureProps) {
  const m = useMemo(() => surfaceMarks(map, places, px, () => 0), [map, places, px])
  const {
    bands,
    lines: limits,
    wrinkles,
  } = useMemo(() => stretchBands(map, places, m.scale, feel, bandLimits(film)), [map, places, m.scale, feel, film])
  const lines = useMemo(() => (grid ? filmGrid(map, places, m.scale) : ''), [map, places, grid, m.scale])
  const find = (e: PointerEvent<SVGSVGElement>) => {
    if (!onAt) return
    const box = e.currentTarget.getBoundingClientRect()
    const k = m.width / box.width
    onAt(trianglesAt(map, places, m.scale, m.left + (e.clientX - box.left) * k, m.top + (e.clientY - box.top) * k))
  }
  const here = at === null || at >= map.stretch.length ? null : m.middle(at)
  return (
    <figure className="mb-0">
      <figcaption className="label">{title}</figcaption>
      <svg
        className="daylight"
        width={m.width}
        height={m.height}
        viewBox={`${m.left} ${m.top} ${m.width} ${m.height}`}
        role="img"
        aria-label={`${title}: ${says}`}
        onPointerMove={find}
        onPointerLeave={() => onAt?.(null)}
        style={{ touchAction: 'pan-y', background: '#fbf8ef', maxWidth: '100%', height: 'auto' }}
      >
        {hatch(`band-${id}-2`, '#fffaf0', 6)}
        {hatch(`band-${id}-3`, '#fffaf0', 4)}
        {hatch(`band-${id}-4`, '#fffaf0', 3)}
        {[...bands, wrinkles].map(
          (d, i) =>
            d !== '' && (
              <g key={i}>
                <path d={d} fill={BAND_FILLS[i]} stroke={BAND_FILLS[i]} strokeWidth={0.6} />
                {i >= 2 && <path d={d} fill={`url(#band-${id}-${i})`} opacity={i === 2 ? 0.5 : 0.9} />}
              </g>
            ),
        )}
        {limits.map((l) => (
          <path key={l.limit} d={l.d} fill="none" stroke="var(--ink)" strokeWidth={1} strokeDasharray="5 3" />
        ))}
        {lines !== '' && <path d={lines} fill="none" stroke="var(--ink)" strokeWidth={0.6} opacity={0.55} />}
        <path d={m.strokes} fill="none" stroke="var(--ink)" strokeWidth={1.3} />
        <path d={m.rim} fill="none" stroke="var(--ink)" strokeWidth={1.5} />
        {limits.map(
          (l) =>
            l.label && (
              <text key={l.limit} className="stretch-figure" x={l.label.x} y={l.label.y} textAnchor="middle">
                {text(l.limit)}
              </text>
            ),
        )}
        {here && <circle cx={here.x} cy={here.y} r={7} fill="none" stroke="var(--stop)" strokeWidth={2.5} />}
      </svg>
    </figure>
  )
}

/** What the bands mean, with the surface in each. */
export function BandKey({ areas, text }: { areas: readonly number[]; text: (mm2: number) => string }) {
  return (
    <span className="d-inline-flex gap-3 flex-wrap">
      {BAND_NAMES.map((name, i) => (
        <span key={name} className="d-inline-flex gap-1 align-items-center">
          <svg width={22} height={14} aria-hidden>
            {hatch(`key-${i}`, '#fffaf0', i === 4 ? 3 : i === 3 ? 4 : 6)}
            <rect width={22} height={14} fill={BAND_FILLS[i]} stroke="var(--ink)" />
            {i >= 2 && <rect width={22} height={14} fill={`url(#key-${i})`} opacity={i === 2 ? 0.5 : 0.9} />}
          </svg>
          <span className="label">
            {name} {(areas[i] ?? 0) > 0 && <b>{text(areas[i] ?? 0)}</b>}
          </span>
        </span>
      ))}
    </span>
  )
}
