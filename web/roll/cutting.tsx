'use client'

import Link from 'next/link'
import { useState } from 'react'
import { cutEntry, cutKey, cutsMade } from '@/core/roll/cutting'
import type { Cut } from '@/core/roll/cuts'
import { standing } from '@/core/roll/cut-pieces'
import { keepLayout, type FilmLayout, type RollPlan } from '@/core/roll/lay-out'
import { Cautions } from '@/web/job/findings'
import { useJob } from '@/web/job/job-state'
import { Rests } from './rests'
import { nameOf } from './roll-name'

/** One cut at a time, in the bay: what the tape reads, what comes free, a tick when it is made. */
export function CuttingPage() {
  const { reckoning, jobId, plan, waiting } = useJob()
  const layouts = reckoning.layouts.filter((l) => l.rolls.length > 0)
  const [filmId, setFilm] = useState(layouts[0]?.film.id ?? '')
  const layout = layouts.find((l) => l.film.id === filmId) ?? layouts[0]
  return (
    <section className="bay" aria-label="Cutting">
      <div className="d-flex gap-3 align-items-baseline flex-wrap mb-2">
        <h1>Cutting</h1>
        <span>{plan.vehicle.name}</span>
        <span role="status" className="label">
          {waiting === 0 ? 'All entries sent' : `${waiting} kept here, sending`}
        </span>
        <Link className="btn btn-plain ms-auto d-inline-flex align-items-center" href={`/jobs/${jobId}/roll`}>
          Back to the roll
        </Link>
      </div>
      {layouts.length > 1 && (
        <div className="d-flex gap-2 flex-wrap mb-2" role="group" aria-label="Film">
          {layouts.map((l) => (
            <button
              key={l.film.id}
              type="button"
              className="btn btn-plain"
              aria-pressed={l === layout}
              onClick={() => setFilm(l.film.id)}
            >
              {l.film.name}
            </button>
          ))}
        </div>
      )}
      {layout ? <OneFilm key={layout.film.id} layout={layout} /> : <p>Nothing to cut yet: it takes a layout.</p>}
    </section>
  )
}

function OneFilm({ layout }: { layout: FilmLayout }) {
  const { edit, mayPlan } = useJob()
  if (plainFree(layout))
    return (
      <p className="plate">
        This layout is for a machine. The Roll page has its files; to cut by hand, set “by hand, straight cuts” there.
      </p>
    )
  if (layout.kept !== 'current')
    return (
      <div className="plate">
        <p>
          {layout.kept === 'stale'
            ? 'The plan changed after the layout was kept. Keep the new one before anything more is cut.'
            : 'Keep the layout first, so that it stays as it is while you cut.'}
        </p>
        <button
          type="button"
          className="btn btn-go"
          disabled={!mayPlan}
          onClick={() =>
            edit((p) => ({
              ...p,
              layout: {
                ...p.layout,
                kept: [...p.layout.kept.filter((k) => k.filmId !== layout.film.id), keepLayout(layout)],
              },
            }))
          }
        >
          Keep this layout
        </button>
        {!mayPlan && <p className="mt-2 mb-0">A lead keeps it.</p>}
      </div>
    )
  return (
    <>
      {layout.rolls.map((roll) => (
        <OneRoll key={roll.id} layout={layout} roll={roll} />
      ))}
      <div className="plate">
        <Rests layout={layout} />
        <p className="mb-0">Label every piece and every rest at once, arrow up.</p>
      </div>
      <Cautions codes={['blade']} />
    </>
  )
}
const plainFree = (layout: FilmLayout) => layout.rolls.every((r) => r.cutting.cuts.length === 0)

function OneRoll({ layout, roll }: { layout: FilmLayout; roll: RollPlan }) {
  const { ledger, log, fmt, catalogue, mayLog } = useJob()
  const made = cutsMade(ledger)
  const { cuts } = roll.cutting
  const done = (c: Cut) => made.has(cutKey(layout, roll, c))
  const next = cuts.findIndex((c) => !done(c))
  // Only the cut made last can be taken back: what was cut after it hangs on it.
  const lastMade = [...made].at(-1)
  const [look, setLook] = useState<number | null>(null)
  const at = look ?? (next < 0 ? cuts.length - 1 : next)
  const cut = cuts[at]
  const stock = catalogue.stock.filter(
    (s) => s.filmId === layout.film.id && s.widthMm >= roll.widthMm - 1 && s.leftMm > 0,
  )
  // Cut off one roll, it stays that roll.
  const begun = standing(ledger).flatMap(({ payload }) =>
    payload.kind === 'film_used' && payload.cutKey?.startsWith(`${layout.mark}:${roll.id}:`) ? [payload.stockId] : [],
  )[0]
  const [from, setFrom] = useState(begun ?? roll.stock?.id ?? stock[0]?.id ?? '')
  const stockId = begun ?? from
  const name = (id: string) => layout.pieces.find((p) => p.id === id)?.name ?? id
  if (!cut) return null
  const item = catalogue.stock.find((s) => s.id === stockId)
  const lot = layout.rolls.some((r) => r.id !== roll.id && r.stock && item && r.stock.lot !== item.lot)
  return (
    <div className="plate cutting">
      <div className="d-flex gap-3 align-items-baseline flex-wrap">
        <h2 className="mb-0">{nameOf(layout, roll.id)}</h2>
        <span className="label">
          {cuts.filter(done).length} of {cuts.length} cuts made
        </span>
        {!begun && (
          <label className="ms-auto d-flex gap-2 align-items-center">
            <span className="label">Cut from</span>
            <select aria-label="Cut from" value={from} onChange={(e) => setFrom(e.target.value)}>
              <option value="">pick a roll</option>
              {stock.map((s) => (
                <option key={s.id} value={s.id}>
                  {s.label}, lot {s.lot}, {fmt.text(fmt.longLength(s.leftMm))}
                </option>
              ))}
            </select>
          </label>
        )}
        {begun && item && (
          <span className="ms-auto">
            {item.label}, lot {item.lot}
          </span>
        )}
      </div>
      {lot && (
        <p className="caution">Another lot than the other rolls of this film: look at the shade where they meet.</p>
      )}
      {stock.length === 0 && !begun && (
        <p className="caution">No roll of this film and width is on the rack. Put it there first, then cut.</p>
      )}
      <div className="cutting-step">
        <div>
          <p className="label mb-0">
            Cut {cut.number} of {cuts.length}
            {done(cut) ? ', made' : ''}
          </p>
          <p className="big my-1" data-testid="cut-distance">
            {fmt.length(cut.tapeMm).text} <span className="unit">{fmt.length(cut.tapeMm).unit}</span>
          </p>
          <p className="fs-5 mb-1">
            {cut.way === 'across' ? 'across' : 'lengthwise'},{' '}
            {cut.stage === 1 ? 'from the end of the roll' : 'from the near edge of the part'}
          </p>
          <p className="mb-2">
            {cut.done.length > 0
              ? `Free after it: ${cut.done.map(name).join(', ')}`
              : cut.pieceIds.length > 0
                ? `Takes off: ${cut.pieceIds.map(name).join(', ')}`
                : 'Takes off a strip that is left over'}
          </p>
        </div>
        <StepDrawing layout={layout} roll={roll} cut={cut} done={done} />
      </div>
      <div className="d-flex gap-2 cutting-buttons">
        <button type="button" className="btn btn-plain" disabled={at === 0} onClick={() => setLook(at - 1)}>
          Before
        </button>
        <button
          type="button"
          className="btn btn-go flex-fill"
          disabled={!mayLog || done(cut) || stockId === '' || (next >= 0 && at !== next)}
          onClick={() => {
            log(cutEntry(layout, roll, cut, stockId))
            setLook(null)
          }}
        >
          {next < 0
            ? 'All cuts made'
            : done(cut)
              ? 'Made'
              : at !== next
                ? `Cut ${cuts[next]?.number ?? ''} comes first`
                : 'Cut made'}
        </button>
        {done(cut) && lastMade === cutKey(layout, roll, cut) && (
          <button
            type="button"
            className="btn btn-plain"
            disabled={!mayLog}
            onClick={() => {
              log({ kind: 'cut_taken_back', cutKey: cutKey(layout, roll, cut) })
              setLook(null)
            }}
          >
            Not cut after all
          </button>
        )}
        <button
          type="button"
          className="btn btn-plain"
          disabled={at >= cuts.length - 1}
          onClick={() => setLook(at + 1)}
        >
          After
        </button>
      </div>
    </div>
  )
}

/** The stretch of the roll that the cut is in, the cut itself heavy. */
function StepDrawing({
  layout,
  roll,
  cut,
  done,
}: {
  layout: FilmLayout
  roll: RollPlan
  cut: Cut
  done: (c: Cut) => boolean
}) {
  const first = [...roll.cutting.cuts]
    .filter((c) => c.stage === 1 && c.from.yMm < cut.from.yMm - 1e-6 && c.number < cut.number)
    .at(-1)
  const start = first ? first.from.yMm : 0
  const end = Math.max(
    cut.from.yMm,
    cut.to.yMm,
    ...roll.cutting.cuts
      .filter((c) => c.stage === 1 && c.from.yMm > start + 1e-6)
      .slice(0, 1)
      .map((c) => c.from.yMm),
  )
  const here = roll.placements.filter((p) => p.yMm >= start - 1 && p.yMm < end - 1)
  const pad = 40
  return (
    <svg
      viewBox={`${start - pad} ${-pad} ${end - start + 2 * pad} ${roll.widthMm + 2 * pad}`}
      className="cutting-drawing"
      role="img"
      aria-label={`Cut ${cut.number}, ${cut.way}`}
    >
      <rect
        x={start}
        y={0}
        width={end - start}
        height={roll.widthMm}
        fill="var(--plate)"
        stroke="var(--ink)"
        strokeWidth={4}
      />
      {here.map((p) => {
        const free = roll.cutting.cuts.some((c) => c.done.includes(p.pieceId) && done(c))
        const now = cut.done.includes(p.pieceId) || cut.pieceIds.includes(p.pieceId)
        const piece = layout.pieces.find((x) => x.id === p.pieceId)
        const size = Math.max(26, Math.min(60, p.lengthMm / 7))
        return (
          <g key={p.pieceId} opacity={free ? 0.35 : 1}>
            <rect
              x={p.yMm}
              y={p.xMm}
              width={p.lengthMm}
              height={p.widthMm}
              fill={now ? 'var(--brass)' : 'none'}
              fillOpacity={0.22}
              stroke="currentColor"
              strokeWidth={3}
            />
            {p.widthMm > size * 1.4 && p.lengthMm > size * 2.5 && (
              <text
                x={p.yMm + p.lengthMm / 2}
                y={p.xMm + p.widthMm / 2}
                fontSize={size}
                textAnchor="middle"
                dominantBaseline="central"
                fill="currentColor"
              >
                {(piece?.name ?? p.pieceId).slice(0, Math.max(3, Math.floor((p.lengthMm / size) * 1.7)))}
              </text>
            )}
          </g>
        )
      })}
      <line x1={cut.from.yMm} y1={cut.from.xMm} x2={cut.to.yMm} y2={cut.to.xMm} stroke="var(--stop)" strokeWidth={14} />
    </svg>
  )
}
