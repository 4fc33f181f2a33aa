'use client'

import { useMemo } from 'react'
import type { FilmSheet } from '@/core/film/schema'
import { sideDrops, type SideDrops } from '@/core/roll/side-drops'
import type { Plan } from '@/core/plan/schema'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { hatch } from './hatch'

/** Strips of a print over each side: where their seams run, and the list for the printer. */
export function Drops({ film }: { film: FilmSheet }) {
  const { plan, edit, fmt, mayPlan } = useJob()
  const sides = useMemo(() => sideDrops(plan, film), [plan, film])
  const { drops } = plan.layout
  const set = (change: Partial<Plan['layout']['drops']>) =>
    edit((p) => ({ ...p, layout: { ...p.layout, drops: { ...p.layout.drops, ...change } } }))
  if (sides.length === 0) return null
  return (
    <section className="mb-3">
      <h3>Drops over the sides</h3>
      <fieldset disabled={!mayPlan} className="roll-settings">
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
          <span className="label">Overlap</span>
          <select
            className="form-select form-select-sm"
            aria-label="Overlap"
            value={drops.airflow}
            onChange={(e) => set({ airflow: e.target.value as Plan['layout']['drops']['airflow'] })}
          >
            <option value="front_over_rear">front over rear, with the airflow</option>
            <option value="rear_over_front">rear over front</option>
          </select>
        </label>
      </fieldset>
      {sides.map((s) => (
        <OneSide key={s.side} side={s} order={drops.airflow} />
      ))}
    </section>
  )
}

function OneSide({ side, order }: { side: SideDrops; order: Plan['layout']['drops']['airflow'] }) {
  const { fmt } = useJob()
  if (!side.plan.ok)
    return (
      <p className="caution">
        {side.side === 'left' ? 'Left' : 'Right'} side:{' '}
        {side.plan.error.code === 'no_seam_place'
          ? 'no set of seams keeps clear of everything. Let seams come nearer, or print wider.'
          : 'the printable width leaves no room beside the overlap.'}
      </p>
    )
  const { drops, seamsMm } = side.plan.value
  const k = 760 / side.sideMm
  const h = Math.max(40, side.heightMm * k)
  const laid = order === 'front_over_rear' ? [...drops].reverse() : drops
  return (
    <div className="mb-2">
      <span className="label">
        {side.side} side, {fmt.text(fmt.longLength(side.sideMm))} front to rear: {drops.length}{' '}
        {drops.length === 1 ? 'drop' : 'drops'}
      </span>
      <div className="scroll-x" tabIndex={0} role="region" aria-label={`Drops, ${side.side} side`}>
        <svg
          width={768}
          height={h + 22}
          role="img"
          aria-label={`${drops.length} drops, seams at ${seamsMm.map((mm) => fmt.text(fmt.length(mm))).join(', ') || 'none'}`}
        >
          {hatch(`keep-${side.side}`, 'var(--stop)', 6)}
          <g transform="translate(4 2)">
            {side.panels.map((p) => (
              <g key={p.id}>
                <rect x={p.fromMm * k} width={(p.toMm - p.fromMm) * k} height={h} fill="#fbf8ef" stroke="var(--rule)" />
                {(p.toMm - p.fromMm) * k > 50 && (
                  <text x={((p.fromMm + p.toMm) / 2) * k} y={h / 2} textAnchor="middle" fontSize={11}>
                    {p.name}
                  </text>
                )}
              </g>
            ))}
            {side.zones.map((z, i) => (
              <rect
                key={i}
                x={z.fromMm * k - 1}
                width={Math.max(2, (z.toMm - z.fromMm) * k)}
                height={h}
                fill={`url(#keep-${side.side})`}
              >
                <title>{z.name}</title>
              </rect>
            ))}
            {seamsMm.map((mm) => (
              <line key={mm} x1={mm * k} x2={mm * k} y2={h} stroke="var(--ink)" strokeWidth={2} />
            ))}
            {drops.map((d) => (
              <text
                key={d.number}
                x={((Math.max(0, d.fromMm) + Math.min(side.sideMm, d.toMm)) / 2) * k}
                y={h + 14}
                textAnchor="middle"
                fontSize={11}
                fontWeight={640}
              >
                {d.number}
              </text>
            ))}
          </g>
        </svg>
      </div>
      <table className="quiet-table">
        <thead>
          <tr>
            <th>Laid</th>
            <th>Drop</th>
            <th className="n">From front</th>
            <th className="n">Print width</th>
            <th className="n">Print length</th>
          </tr>
        </thead>
        <tbody>
          {laid.map((d, i) => (
            <tr key={d.number}>
              <td>{i + 1}.</td>
              <td>{d.number}</td>
              <td className="n">{Math.round(d.fromMm)} mm</td>
              <td className="n">{Math.round(d.widthMm)} mm</td>
              <td className="n">{Math.round(d.lengthMm)} mm</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
