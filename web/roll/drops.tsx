'use client'

import { dropFigures } from '@/core/engines/pieces/drop-figures'
import { OneSide } from '@/web/roll/drops-of-side'

import { Lettering } from '@/web/roll/lettering'

import Form from 'react-bootstrap/Form'
import { useMemo } from 'react'
import type { FilmSheet } from '@/core/model/film/schema'
import { sideDrops } from '@/core/engines/pieces/side-drops'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { Settings } from '@/web/roll/drop-settings'

/** Strips of a print over each side: where their seams run, and the list for the printer. */
export function Drops({ film }: { film: FilmSheet }) {
  const { plan, edit, fmt, mayPlan, jobId } = useJob('plan', 'edit', 'fmt', 'mayPlan', 'jobId')
  const sides = useMemo(() => sideDrops(plan, film), [plan, film])
  const figures = useMemo(
    () => new Map(sides.flatMap((s) => dropFigures(film, s, plan)).map((f) => [f.id, f])),
    [sides, film, plan],
  )
  const { drops } = plan.layout
  const set = (change: Partial<Settings>) =>
    edit((p) => ({ ...p, layout: { ...p.layout, drops: { ...p.layout.drops, ...change } } }))
  if (sides.length === 0) return null
  return (
    <section className="mb-3" aria-label="Drops over the sides">
      <h3>Drops over the sides</h3>
      <fieldset disabled={!mayPlan} className="settings-line">
        <label className="d-flex gap-2 align-items-center">
          <Form.Check.Input
            type="checkbox"
            className="mt-0"
            checked={drops.use}
            onChange={(e) => set({ use: e.target.checked })}
          />
          lay the sides as drops
        </label>
        <label>
          <span className="label">Strips</span>
          <Form.Select
            size="sm"
            aria-label="Strips"
            value={drops.run}
            onChange={(e) => set({ run: e.target.value as Settings['run'] })}
          >
            <option value="fewest">whichever are fewer</option>
            <option value="upright">upright, side by side</option>
            <option value="level">level, one over the other</option>
          </Form.Select>
        </label>
        {(
          [
            ['Printable width', 'printableMm', drops.printableMm, 3000],
            ['Seams keep off', 'distanceMm', drops.distanceMm, 500],
            ['Print beyond', 'bleedMm', drops.bleedMm, 200],
          ] as const
        ).map(([label, key, mm, max]) => (
          <label key={key} style={{ width: 120 }}>
            <span className="label">{label}</span>
            <LengthInput
              id={`drops-${key}`}
              className="form-control form-control-sm"
              aria-label={label}
              optional
              mm={mm}
              unit={fmt.units.lengthUnit}
              format={(v) => fmt.length(v).text}
              max={max}
              onValue={(v) => set({ [key]: key === 'printableMm' ? v : (v ?? 0) })}
            />
          </label>
        ))}
        <label>
          <span className="label">Overlap of upright strips</span>
          <Form.Select
            size="sm"
            aria-label="Overlap of upright strips"
            value={drops.airflow}
            onChange={(e) => set({ airflow: e.target.value as Settings['airflow'] })}
          >
            <option value="front_over_rear">front over rear, with the airflow</option>
            <option value="rear_over_front">rear over front</option>
          </Form.Select>
        </label>
      </fieldset>
      <Lettering drops={drops} set={set} />
      {sides.map((s) => (
        <OneSide key={s.side} side={s} film={film} order={drops.airflow} figures={figures} />
      ))}
      <p className="mb-0">
        <a href={`/jobs/${jobId}/layout/drops.csv?film=${encodeURIComponent(film.id)}`}>
          Print list with register marks (CSV, mm)
        </a>
      </p>
    </section>
  )
}
