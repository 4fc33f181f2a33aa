'use client'

import { useMemo, useState } from 'react'
import type { Plan } from '@/core/plan/schema'
import { cutPieces, takenOff } from '@/core/roll/cut-pieces'
import { layOutFilm, purchase, type FilmLayout } from '@/core/roll/lay-out'
import { restsOf } from '@/core/roll/rests'
import { useJob } from '@/web/job/job-state'
import { RollDrawing } from './roll-drawing'

const ROUNDS = 3000

/** Two plans of the same pieces side by side. */
export function Compare({ layout }: { layout: FilmLayout }) {
  const { plan, catalogue, ledger, fmt } = useJob()
  const [against, setAgainst] = useState('')
  const others = useMemo(() => {
    const l = plan.layout
    const variant = (change: Partial<Plan['layout']>): Plan => ({ ...plan, layout: { ...l, kept: [], ...change } })
    const list: { key: string; name: string; plan: Plan }[] = [
      l.cutting === 'crosscut'
        ? { key: 'free', name: 'by machine, any placement', plan: variant({ cutting: 'free' }) }
        : { key: 'crosscut', name: 'by hand, straight cuts', plan: variant({ cutting: 'crosscut' }) },
      ...(l.cutting === 'crosscut'
        ? [2, 3, 4, 5]
            .filter((n) => n !== l.stages)
            .map((stages) => ({ key: `stages-${stages}`, name: `${stages} stages of cuts`, plan: variant({ stages }) }))
        : []),
      ...layout.sources
        .filter((s) => s.id !== layout.source?.id)
        .map((s) => ({
          key: s.id,
          name: s.kind === 'shelf' ? `from the shelf, lot ${s.lot}` : `bought ${fmt.text(fmt.length(s.widthMm))} wide`,
          plan: variant({
            sources: [
              ...l.sources.filter((x) => x.filmId !== layout.film.id),
              { filmId: layout.film.id, source: s.id },
            ],
          }),
        })),
      ...(layout.kept === 'current' ? [{ key: 'anew', name: 'laid out anew', plan: variant({}) }] : []),
    ]
    return list
  }, [plan, layout, fmt])
  const other = useMemo(() => {
    const picked = others.find((o) => o.key === against)
    if (!picked) return null
    const risk = new Map(layout.reserveFor.map((r) => [r.pieceId, r.risk]))
    const laid = layOutFilm(
      picked.plan,
      layout.film,
      layout.pieces,
      { stock: catalogue.stock, cut: cutPieces(ledger), risk, taken: takenOff(ledger) },
      { rounds: ROUNDS },
    )
    return { name: picked.name, laid }
  }, [others, against, layout, catalogue, ledger])
  const row = (name: string, l: FilmLayout) => {
    const bought = purchase(l.film, l, catalogue.stock)
    const rests = restsOf(l)
    return (
      <tr>
        <th scope="row">{name}</th>
        <td className="n">{fmt.text(fmt.longLength(l.usedMm))}</td>
        <td className="n">{l.boundMm > 0 ? fmt.text(fmt.percent(Math.max(0, l.usedMm / l.boundMm - 1))) : '–'}</td>
        <td className="n">
          {l.unplaced.length > 0
            ? `${l.unplaced.length} not placed`
            : bought.orderMm > 0
              ? fmt.text(fmt.longLength(bought.orderMm))
              : '–'}
        </td>
        <td className="n">{l.unplaced.length > 0 ? '–' : fmt.text(fmt.money(bought.cost))}</td>
        <td className="n">{l.rolls.reduce((s, r) => s + r.cutting.cuts.length, 0) || '–'}</td>
        <td className="n">
          {rests.length > 0
            ? `${rests.length}, ${fmt.text(fmt.area(rests.reduce((s, r) => s + r.widthMm * r.lengthMm, 0)))}`
            : '–'}
        </td>
      </tr>
    )
  }
  return (
    <div className="mb-2">
      <label className="d-inline-flex gap-2 align-items-center">
        <span className="label">Compare with</span>
        <select
          className="form-select form-select-sm"
          style={{ width: 'auto' }}
          aria-label="Compare with"
          value={against}
          onChange={(e) => setAgainst(e.target.value)}
        >
          <option value="">nothing</option>
          {others.map((o) => (
            <option key={o.key} value={o.key}>
              {o.name}
            </option>
          ))}
        </select>
      </label>
      {other && (
        <>
          <div className="scroll-x">
            <table className="quiet-table mt-2">
              <thead>
                <tr>
                  <th>Plan</th>
                  <th className="n">Takes</th>
                  <th className="n">Over the least</th>
                  <th className="n">To order</th>
                  <th className="n">Cost</th>
                  <th className="n">Cuts</th>
                  <th className="n">Rests to keep</th>
                </tr>
              </thead>
              <tbody>
                {row('This one', layout)}
                {row(other.name, other.laid)}
              </tbody>
            </table>
          </div>
          {[{ name: 'This one', laid: layout }, other].map((side) =>
            side.laid.rolls.map((r) => (
              <div key={`${side.name}-${r.id}`} className="mt-2">
                <span className="label">{side.name}</span>
                <RollDrawing layout={side.laid} roll={r} label={side.name} scale={0.1} />
              </div>
            )),
          )}
        </>
      )}
    </div>
  )
}
