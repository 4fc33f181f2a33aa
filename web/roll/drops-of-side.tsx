'use client'

import type { FilmSheet } from '@/core/model/film/schema'
import { type SideDrops } from '@/core/engines/pieces/side-drops'
import { Fig, type Figures } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { hatch } from './hatch'
import { Settings } from './drop-settings'
import { DropTable } from './drop-table'

export function OneSide({
  side,
  film,
  order,
  figures,
}: {
  side: SideDrops
  film: FilmSheet
  order: Settings['airflow']
  figures: Figures
}) {
  const { fmt } = useJob('fmt')
  const fig = (f: string, as?: number) => (
    <Fig
      among={figures}
      id={`drops/${film.id}/${side.side}/${f}`}
      {...(as === undefined ? {} : { as: fmt.length(as) })}
    />
  )
  if (!side.plan.ok)
    return (
      <p className="caution">
        {side.side === 'left' ? 'Left' : 'Right'} side:{' '}
        {side.plan.error.code === 'no_seam_place'
          ? 'no set of seams keeps clear of everything. Let seams come nearer, print wider, or lay the strips the other way.'
          : 'the printable width leaves no room beside the overlap.'}
      </p>
    )
  const { drops } = side.plan.value
  const upright = side.run === 'upright'
  const k = 760 / side.sideMm
  const h = Math.max(40, side.heightMm * k)
  // Level strips lie like shingles: the lowest goes on first. Upright ones by the airflow.
  const laid = !upright || order === 'front_over_rear' ? [...drops].reverse() : drops
  return (
    <div className="mb-3">
      <span className="label">
        {side.side} side, {fmt.text(fmt.longLength(side.sideMm))} front to rear:
      </span>{' '}
      {fig('drops')} {drops.length === 1 ? 'drop' : 'drops'}, {upright ? 'upright' : 'level'},{' '}
      {fig('film', side.plan.value.filmMm)} of print
      {side.loose && (
        <p className="label mb-1">
          These panels name no neighbours: they are taken to stand in the order in which they were measured, on one
          line.
        </p>
      )}
      <div className="scroll-x" tabIndex={0} role="region" aria-label={`Drops, ${side.side} side`}>
        <svg
          className="daylight"
          width={768}
          height={h + 22}
          role="img"
          aria-label={`${drops.length} drops, ${side.run}`}
        >
          {hatch(`keep-${side.side}`, 'var(--stop)', 6)}
          <g transform="translate(4 2)">
            {side.panels.map((p) => (
              <g key={p.id}>
                <rect
                  x={p.fromMm * k}
                  y={p.topMm * k}
                  width={(p.toMm - p.fromMm) * k}
                  height={(p.bottomMm - p.topMm) * k}
                  fill="#fbf8ef"
                  stroke="var(--rule)"
                />
                {(p.toMm - p.fromMm) * k > 50 && (
                  <text
                    x={((p.fromMm + p.toMm) / 2) * k}
                    y={((p.topMm + p.bottomMm) / 2) * k}
                    textAnchor="middle"
                    fontSize={11}
                  >
                    {p.name}
                  </text>
                )}
              </g>
            ))}
            {side.zones.map((z, i) => {
              const [at, long] = [z.fromMm * k - 1, Math.max(2, (z.toMm - z.fromMm) * k)]
              return (
                <rect
                  key={i}
                  {...(upright ? { x: at, width: long, height: h } : { y: at, height: long, width: side.sideMm * k })}
                  fill={`url(#keep-${side.side})`}
                  opacity={0.6}
                >
                  <title>{z.name}</title>
                </rect>
              )
            })}
            {side.lettering.map((l) => (
              <g key={l.id}>
                <rect
                  x={l.fromFrontMm * k}
                  y={l.fromTopMm * k}
                  width={l.widthMm * k}
                  height={l.heightMm * k}
                  fill="none"
                  stroke="var(--brass)"
                  strokeWidth={2}
                />
                <text x={l.fromFrontMm * k + 4} y={l.fromTopMm * k + 12} fontSize={10.5}>
                  {l.name}
                </text>
              </g>
            ))}
            {side.plan.value.seamsMm.map((mm) => (
              <line
                key={mm}
                {...(upright
                  ? { x1: mm * k, x2: mm * k, y1: 0, y2: h }
                  : { x1: 0, x2: side.sideMm * k, y1: mm * k, y2: mm * k })}
                stroke="var(--ink)"
                strokeWidth={2}
              />
            ))}
            {drops.map((d) => {
              const middle = ((Math.max(0, d.fromMm) + Math.min(upright ? side.sideMm : side.heightMm, d.toMm)) / 2) * k
              return (
                <text
                  key={d.number}
                  {...(upright ? { x: middle, y: h + 14 } : { x: side.sideMm * k - 10, y: middle + 4 })}
                  textAnchor="middle"
                  fontSize={12}
                  fontWeight={640}
                >
                  {d.number}
                </text>
              )
            })}
          </g>
        </svg>
      </div>
      <DropTable upright={upright} laid={laid} fig={fig} />
    </div>
  )
}
