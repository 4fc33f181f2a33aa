'use client'

import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import { useMemo, useState } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import { cutPieces, takenOff } from '@/core/model/log/cut-pieces'
import type { FilmLayout } from '@/core/engines/roll/film-layout'
import { layOutFilm } from '@/core/engines/roll/layout-solver'
import { purchase } from '@/core/engines/roll/purchase'
import { compareFigures, filmFigures } from '@/core/stages/roll/figures'
import { Fig, type Figures } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { RollDrawing } from './roll-drawing'

const ROUNDS = 3000

/** Two plans of the same pieces side by side. */
export function Compare({ layout }: { layout: FilmLayout }) {
  const { plan, catalogue, ledger, fmt } = useJob('plan', 'catalogue', 'ledger', 'fmt')
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
  const figures = useMemo(() => {
    const panels = new Map(plan.panels.map((p) => [p.id, p]))
    const of = (l: FilmLayout) =>
      new Map(
        [...filmFigures(l, purchase(l.film, l, catalogue.stock), panels), ...compareFigures(l)].map((f) => [f.id, f]),
      )
    return { mine: of(layout), other: other ? of(other.laid) : null }
  }, [layout, other, plan.panels, catalogue.stock])
  const row = (name: string, l: FilmLayout, among: Figures) => {
    const id = (f: string) => `roll/${l.film.id}/${f}`
    const order = among.get(id('order'))?.value
    return (
      <tr>
        <th scope="row">{name}</th>
        <td className="n">
          <Fig among={among} id={id('used')} as={fmt.longLength(l.usedMm)} />
        </td>
        <td className="n">
          <Fig among={among} id={id('above')} />
        </td>
        <td className="n">
          {l.unplaced.length > 0 ? (
            `${l.unplaced.length} not placed`
          ) : typeof order === 'number' && order > 0 ? (
            <Fig among={among} id={id('order')} as={fmt.longLength(order)} />
          ) : (
            '–'
          )}
        </td>
        <td className="n">{l.unplaced.length > 0 ? '–' : <Fig among={among} id={id('cost')} />}</td>
        <td className="n">{among.has(id('cuts')) ? <Fig among={among} id={id('cuts')} /> : '–'}</td>
        <td className="n">
          <Fig among={among} id={id('rests')} />
        </td>
      </tr>
    )
  }
  return (
    <div className="mb-2">
      <label className="d-inline-flex gap-2 align-items-center">
        <span className="label">Compare with</span>
        <Form.Select
          size="sm"
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
        </Form.Select>
      </label>
      {other && (
        <>
          <div className="scroll-x">
            <Table className="mt-2">
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
                {row('This one', layout, figures.mine)}
                {figures.other && row(other.name, other.laid, figures.other)}
              </tbody>
            </Table>
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
