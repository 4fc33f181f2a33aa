'use client'

import { useMemo } from 'react'
import { climateOf } from '@/core/engines/conditions/climate'
import type { Plan } from '@/core/model/plan/schema'
import { climateMarks } from '@/web/charts/climate-marks'
import { useJob } from '@/web/job/job-state'
import { ConditionsOfTheDay } from './conditions-of-the-day'
import { LogAir } from './log-air'

const SERIES = { air: 'air', surface: 'surface', dew: 'dew point' } as const

/** The shop's air over time, and what it asks of the vehicle: warming, drying, when it must be in. */
export function Conditions() {
  const { plan, edit, catalogue, fmt, mayTape } = useJob('plan', 'edit', 'catalogue', 'fmt', 'mayTape')
  const main = plan.film.sheets.find((s) => s.id === plan.film.mainId)
  const marks = useMemo(() => climateMarks(catalogue.climate, main?.airC ?? null), [catalogue.climate, main])
  const { last } = climateOf(plan, catalogue.climate)
  const set = (part: Partial<Plan['conditions']>) => edit((p) => ({ ...p, conditions: { ...p.conditions, ...part } }))
  const temp = (c: number) => fmt.text(fmt.temp(c))
  return (
    <section className="plate mb-3" id="conditions" aria-label="Conditions">
      <h2>Conditions</h2>
      <div className="row g-3">
        <div className="col-xl-7">
          {catalogue.climate.length === 0 ? (
            <p className="label">No reading of the shop’s air yet.</p>
          ) : (
            <figure className="mb-0">
              <svg
                viewBox={`0 0 ${marks.width} ${marks.height}`}
                width="100%"
                role="img"
                aria-label={`Air of the shop, ${catalogue.climate.length} readings; last ${last ? temp(last.airC) : ''}`}
              >
                {marks.band && (
                  <rect
                    x={44}
                    width={marks.width - 54}
                    y={marks.band.y}
                    height={marks.band.height}
                    fill="var(--band-2)"
                    opacity={0.5}
                  />
                )}
                {marks.ticks.map((t) => (
                  <g key={t.c}>
                    <line x1={44} x2={marks.width - 10} y1={t.y} y2={t.y} stroke="var(--rule)" />
                    <text x={38} y={t.y + 4} textAnchor="end" fontSize={12} fill="var(--ink)">
                      {fmt.temp(t.c).text}
                    </text>
                  </g>
                ))}
                {marks.days.map((d) => (
                  <text key={d.at} x={d.x} y={marks.height - 4} textAnchor="middle" fontSize={11} fill="var(--soft)">
                    {fmt.moment(d.at, { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })}
                  </text>
                ))}
                {marks.lines.map((l) => (
                  <g key={l.key}>
                    <path
                      d={l.d}
                      fill="none"
                      stroke="var(--ink)"
                      strokeWidth={l.key === 'air' ? 2.2 : 1.6}
                      strokeDasharray={l.dash}
                    />
                    {l.points.map((p) => (
                      <circle key={p.at} cx={p.x} cy={p.y} r={l.key === 'air' ? 3.2 : 2.2} fill="var(--ink)">
                        <title>{`${SERIES[l.key]} ${temp(p.c)}, ${fmt.moment(p.at)}`}</title>
                      </circle>
                    ))}
                  </g>
                ))}
              </svg>
              <figcaption className="label">
                Full line: air. Dashes: surface. Dots: dew point.
                {main ? ` Shaded: the air that ${main.name} asks for.` : ''} Last read{' '}
                {last ? `${fmt.moment(last.at)} by ${last.by}` : ''}.
              </figcaption>
            </figure>
          )}
          {mayTape && <LogAir />}
        </div>
        <ConditionsOfTheDay set={set} />
      </div>
    </section>
  )
}
