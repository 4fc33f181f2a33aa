'use client'

import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import Button from 'react-bootstrap/Button'
import { useMemo, useState } from 'react'
import type { FilmSheet } from '@/core/model/film/schema'
import { freeId, slug } from '@/core/kit/ids'
import { dropFigures, sideDrops, type SideDrops } from '@/core/engines/pieces/side-drops'
import type { Plan } from '@/core/model/plan/schema'
import { Fig, type Figures } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { hatch } from './hatch'

type Settings = Plan['layout']['drops']

/** Strips of a print over each side: where their seams run, and the list for the printer. */
export function Drops({ film }: { film: FilmSheet }) {
  const { plan, edit, fmt, mayPlan, jobId } = useJob()
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
      <fieldset disabled={!mayPlan} className="roll-settings">
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

/** Lettering that no seam may cross: where it begins on a side, and how large it is. */
function Lettering({ drops, set }: { drops: Settings; set: (change: Partial<Settings>) => void }) {
  const { fmt, mayPlan } = useJob()
  const [name, setName] = useState('')
  const change = (id: string, part: Partial<Settings['lettering'][number]>) =>
    set({ lettering: drops.lettering.map((l) => (l.id === id ? { ...l, ...part } : l)) })
  const add = () => {
    const text = name.trim()
    if (text === '') return
    const id = freeId(
      slug(text),
      drops.lettering.map((l) => l.id),
    )
    set({
      lettering: [
        ...drops.lettering,
        { id, name: text.slice(0, 120), side: 'left', fromFrontMm: 1000, fromTopMm: 500, widthMm: 800, heightMm: 300 },
      ],
    })
    setName('')
  }
  return (
    <fieldset disabled={!mayPlan} className="mb-2">
      {drops.lettering.length > 0 && (
        <Table bsPrefix="quiet-table">
          <thead>
            <tr>
              <th>Lettering</th>
              <th>Side</th>
              <th>From the front</th>
              <th>From the top</th>
              <th>Long</th>
              <th>High</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {drops.lettering.map((l) => (
              <tr key={l.id}>
                <td>{l.name}</td>
                <td>
                  <Form.Select
                    size="sm"
                    aria-label={`${l.name}, side`}
                    value={l.side}
                    onChange={(e) => change(l.id, { side: e.target.value as 'left' })}
                  >
                    <option value="left">left</option>
                    <option value="right">right</option>
                  </Form.Select>
                </td>
                {(
                  [
                    ['from the front', 'fromFrontMm', 20000],
                    ['from the top', 'fromTopMm', 10000],
                    ['long', 'widthMm', 20000],
                    ['high', 'heightMm', 10000],
                  ] as const
                ).map(([label, key, max]) => (
                  <td key={key}>
                    <LengthInput
                      id={`letter-${l.id}-${key}`}
                      className="form-control form-control-sm"
                      style={{ width: 90 }}
                      aria-label={`${l.name}, ${label}`}
                      mm={l[key]}
                      unit={fmt.units.lengthUnit}
                      format={(v) => fmt.length(v).text}
                      min={key === 'widthMm' || key === 'heightMm' ? 1 : 0}
                      max={max}
                      onValue={(v) => v !== null && change(l.id, { [key]: v })}
                    />
                  </td>
                ))}
                <td>
                  <Button
                    variant="link"
                    size="sm"
                    className="p-0"
                    aria-label={`Take out ${l.name}`}
                    onClick={() => set({ lettering: drops.lettering.filter((x) => x.id !== l.id) })}
                  >
                    Take out
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      <span className="d-inline-flex gap-2 mt-1">
        <Form.Control
          size="sm"
          style={{ width: 200 }}
          aria-label="New lettering"
          placeholder="lettering to keep whole"
          maxLength={120}
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <Button variant="outline-primary" size="sm" disabled={name.trim() === ''} onClick={add}>
          Keep seams off it
        </Button>
      </span>
    </fieldset>
  )
}

function OneSide({
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
  const { fmt } = useJob()
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
        <svg width={768} height={h + 22} role="img" aria-label={`${drops.length} drops, ${side.run}`}>
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
      <Table bsPrefix="quiet-table">
        <thead>
          <tr>
            <th>Laid</th>
            <th>Drop</th>
            <th className="n">{upright ? 'From front' : 'From top'}</th>
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
              <td className="n">{fig(`width-${d.number}`, d.widthMm)}</td>
              <td className="n">{fig(`length-${d.number}`, d.lengthMm)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </div>
  )
}
