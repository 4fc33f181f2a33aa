'use client'

import { Explain } from '@/web/kit/explain'
import Button from 'react-bootstrap/Button'
import Link from 'next/link'
import { useState } from 'react'
import { type FilmLayout } from '@/core/engines/roll/film-layout'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import { placed, toRoll, turnOn, type Refusal, type Spot } from '@/core/engines/roll/arrange'
import { numberOf } from '@/core/model/figure/figure'
import { Fig } from '@/web/job/figure'
import { Cautions, Findings } from '@/web/job/findings'
import { inlayTemplates } from '@/core/engines/pieces/behind'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'
import { refusal } from '@/web/words/refusals'
import { Compare } from './compare'
import { Drops } from './drops'
import { nameOf } from './roll-name'
import { Rests } from './rests'
import { RollDrawing } from './roll-drawing'
import { RollSettings } from './roll-settings'
import { Shingles } from './shingles'
import { Sources } from './sources'
import { CuttingTable } from './cutting-table'
import { PickedPiece } from './picked-piece'
import { LayoutFigures } from './layout-figures'
import './roll.scss'

/** How much film, laid how, cut in what order, from which roll. */
export function Roll() {
  const { reckoning, edit, mayPlan, jobId } = useJob('reckoning', 'edit', 'mayPlan', 'jobId')
  const keep = () => edit((p) => ({ ...p, layout: { ...p.layout, kept: reckoning.layouts.map(keepLayout) } }))
  const allKept = reckoning.layouts.length > 0 && reckoning.layouts.every((l) => l.kept === 'current')
  return (
    <>
      <div className="d-flex flex-wrap gap-3 align-items-baseline mb-3">
        <h1>Roll</h1>
        <span className="flex-fill" />
        {reckoning.layouts.length > 0 && (
          <>
            <Link className="btn btn-outline-primary" href={`/jobs/${jobId}/cut`}>
              Cut step by step
            </Link>
            <Button disabled={!mayPlan || allKept} onClick={keep}>
              {allKept ? 'Layout is kept' : 'Keep this layout'}
            </Button>
          </>
        )}
      </div>
      <RollSettings />
      <Findings stage="roll" />
      {reckoning.layouts.length === 0 && (
        <p className="plate">
          Nothing to lay out yet: it takes <Link href={`/jobs/${jobId}/tape`}>measured panels</Link> and{' '}
          <Link href={`/jobs/${jobId}/film`}>a film</Link>.
        </p>
      )}
      {reckoning.layouts.map((layout) => (
        <OneFilm key={layout.film.id} layout={layout} />
      ))}
    </>
  )
}

function OneFilm({ layout }: { layout: FilmLayout }) {
  const { fmt, reckoning, edit, mayPlan, plan } = useJob('fmt', 'reckoning', 'edit', 'mayPlan', 'plan')
  const { film } = layout
  const [picked, setPicked] = useState<string | null>(null)
  const [said, setSaid] = useState('')
  const id = (part: string) => `roll/${film.id}/${part}`
  const long = (figureId: string) => {
    const value = numberOf(reckoning.figures.get(figureId))
    return value === null ? undefined : fmt.longLength(value)
  }
  const missing = layout.unplaced.length
  const above = numberOf(reckoning.figures.get(id('above')))
  const store = (next: FilmLayout) =>
    edit((p) => ({
      ...p,
      layout: { ...p.layout, kept: [...p.layout.kept.filter((k) => k.filmId !== film.id), keepLayout(next)] },
    }))
  const place = (rollId: string, spot: Spot) => {
    setSaid('')
    store(placed(layout, rollId, spot))
  }
  const refuse = (fault: Refusal) => setSaid(refusal(fault, fmt))
  const roll = layout.rolls.find((r) => r.placements.some((p) => p.pieceId === picked))
  const spot = roll?.placements.find((p) => p.pieceId === picked)
  const piece = layout.pieces.find((p) => p.id === picked)
  const isCut = layout.cut.some((c) => c.id === picked)
  const lock = (pieceId: string) => {
    const at = layout.rolls.find((r) => r.placements.some((p) => p.pieceId === pieceId))
    const was = at?.placements.find((p) => p.pieceId === pieceId)
    if (at && was) place(at.id, { ...was, locked: !was.locked })
  }
  const turn = () => {
    if (!roll || !spot) return
    const out = turnOn(layout, plan, roll.id, spot)
    if (out.ok) place(roll.id, out.value)
    else refuse(out.error)
  }
  const moveTo = (rollId: string) => {
    if (!spot) return
    const out = toRoll(layout, plan, rollId, spot)
    if (out.ok) place(rollId, out.value)
    else refuse(out.error)
  }
  return (
    <section className="plate mb-3" aria-label={film.name}>
      <LayoutFigures film={film} layout={layout} id={id} long={long} />
      <p className="mb-2">
        {above !== null && (
          <>
            {missing > 0 && (
              <b style={{ color: 'var(--stop)' }}>
                {missing} {missing === 1 ? 'piece fits' : 'pieces fit'} no roll; this is without{' '}
                {missing === 1 ? 'it' : 'them'}.{' '}
              </b>
            )}
            {above < 1e-6 ? (
              'No plan can be shorter: '
            ) : (
              <>
                At most <Fig id={id('above')} /> above the least possible,{' '}
              </>
            )}
            <Fig id={id('bound')} as={fmt.longLength(layout.boundMm)} />
            <Explain term="bound" />.{' '}
          </>
        )}
        Sold {word('soldBy', film.soldBy.unit, fmt.units.locale)}
        {film.soldBy.minimumMm > 0 && `, from ${fmt.text(fmt.longLength(film.soldBy.minimumMm))}`}.{' '}
        {layout.reserveFor.length > 0 && (
          <>
            Reserve for{' '}
            {layout.reserveFor
              .map(
                (r) =>
                  `${layout.pieces.find((p) => p.id === r.pieceId)?.name ?? r.pieceId} (${fmt.text(fmt.percent(r.risk))})`,
              )
              .join(', ')}{' '}
            by the chance of doing it twice.
          </>
        )}
      </p>
      <Sources layout={layout} />
      <PickedPiece
        layout={layout}
        piece={piece}
        spot={spot}
        roll={roll}
        isCut={isCut}
        turn={turn}
        lock={lock}
        moveTo={moveTo}
      />
      <p className="mb-1" role="alert" style={{ color: 'var(--stop)', minHeight: '1.4em' }}>
        {said}
      </p>
      {layout.rolls.map((r) => {
        const label = nameOf(layout, r.id)
        return (
          <div key={r.id} className="mb-2">
            <h3>
              {label}
              <small className="label ms-2">
                {r.stock
                  ? `lot ${r.stock.lot}, ${fmt.text(fmt.longLength(r.stock.leftMm))} on it`
                  : 'to be bought, one lot'}
              </small>
            </h3>
            <RollDrawing
              layout={layout}
              roll={r}
              label={`${film.name}, ${label}`}
              picked={picked}
              onPick={setPicked}
              onPlace={mayPlan ? (s) => place(r.id, s) : undefined}
              onRefuse={refuse}
              onLock={lock}
            />
            <CuttingOrder layout={layout} rollId={r.id} />
          </div>
        )
      })}
      {layout.unplaced.length > 0 && (
        <p className="text-danger mb-2">
          Not placed: {layout.unplaced.map((u) => u.piece.name).join(', ')}. See the findings above.
        </p>
      )}
      {film.kind === 'printed_cast' && <Drops film={film} />}
      {film.kind === 'sheet_goods' && <Shingles film={film} />}
      {plan.layout.cutting === 'free' && <CuttingTable layout={layout} />}
      <Rests layout={layout} />
      <Outputs filmId={film.id} />
      <Compare layout={layout} />
      <Cautions codes={['blade']} />
    </section>
  )
}

function CuttingOrder({ layout, rollId }: { layout: FilmLayout; rollId: string }) {
  const { fmt } = useJob('fmt')
  const roll = layout.rolls.find((r) => r.id === rollId)
  if (!roll || roll.cutting.cuts.length === 0) return null
  const name = (id: string) => layout.pieces.find((p) => p.id === id)?.name ?? id
  return (
    <details>
      <summary>Cutting order: {roll.cutting.cuts.length} straight cuts</summary>
      <ol className="mb-0 cutting-list">
        {roll.cutting.cuts.map((c) => (
          <li key={c.number} style={{ marginLeft: (c.stage - 1) * 18 }}>
            {c.runs === 'across' ? 'Across' : 'Lengthwise'} at <b>{fmt.text(fmt.length(c.tapeMm))}</b>
            {c.stage === 1 ? ' from the end' : ' of that part'}
            {c.done.length > 0 && `: ${c.done.map(name).join(', ')} free`}
          </li>
        ))}
      </ol>
    </details>
  )
}

function Outputs({ filmId }: { filmId: string }) {
  const { jobId, plan, reckoning } = useJob('jobId', 'plan', 'reckoning')
  const pieces = reckoning.pieces.filter((p) => p.filmId === filmId)
  const templates = inlayTemplates(plan.panels, plan.method, pieces).length
  const at = (file: string) => `/jobs/${jobId}/layout/${file}?film=${encodeURIComponent(filmId)}`
  return (
    <p className="d-flex gap-3 flex-wrap mb-2">
      <a href={at('cut-sheet.pdf')}>Cut sheet (PDF)</a>
      <a href={at('labels.pdf')}>Piece labels (PDF)</a>
      <a href={at('layout.svg')}>SVG, true size</a>
      <a href={at('layout.dxf')}>DXF, true size</a>
      {templates > 0 && (
        <>
          <a href={at('templates.pdf')}>Templates of {templates} small pieces (PDF, true size)</a>
          <a href={at('templates.svg')}>SVG</a>
          <a href={at('templates.dxf')}>DXF</a>
        </>
      )}
      <a href={at('pieces.csv')}>Pieces (CSV)</a>
      <a href={at('order.csv')}>Order list (CSV)</a>
    </p>
  )
}
