'use client'

import Table from 'react-bootstrap/Table'
import Button from 'react-bootstrap/Button'
import type { FilmLayout, Source } from '@/core/engines/roll/film-layout'
import { lotResidue } from '@/core/model/film/strip-test'
import { applyChange } from '@/core/model/plan/plan-change'
import type { Plan } from '@/core/model/plan/schema'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'

/** Where the film can come from, what each source takes and costs; the cheapest is taken unless another is picked. */
export function Sources({ layout }: { layout: FilmLayout }) {
  const { fmt, plan, edit, mayPlan, catalogue } = useJob('fmt', 'plan', 'edit', 'mayPlan', 'catalogue')
  const wanted = plan.layout.sources.find((s) => s.filmId === layout.film.id)?.source ?? null
  const take = (source: string | null) =>
    edit((p) => ({
      ...withLot(p, source),
      layout: {
        ...p.layout,
        sources: [
          ...p.layout.sources.filter((s) => s.filmId !== layout.film.id),
          ...(source ? [{ filmId: layout.film.id, source }] : []),
        ],
        kept: p.layout.kept.filter((k) => k.filmId !== layout.film.id),
      },
    }))
  // A lot that is named brings what its strips lost.
  const withLot = (p: Plan, source: string | null): Plan => {
    const lot = source?.startsWith('lot:') ? lotResidue(catalogue.stock, layout.film.id, source.slice(4)) : null
    return lot ? applyChange(p, { kind: 'lot_residue', filmId: layout.film.id, residue: lot.residue }) : p
  }
  const name = (s: Source) =>
    s.kind === 'shelf'
      ? `On the shelf, lot ${s.lot}`
      : s.kind === 'join'
        ? `Two lots: ${s.lot} and ${s.joined === 'new' ? 'one to be bought' : s.joined}`
        : `Buy, ${fmt.text(fmt.length(s.widthMm))} wide`
  const id = (s: Source, f: string) => `roll/${layout.film.id}/source:${s.id}/${f}`
  return (
    <details className="mb-2" open={layout.sources.length > 1 && wanted !== null}>
      <summary>
        From: <b>{layout.source ? name(layout.source) : 'nothing that fits'}</b>
        {wanted === null && layout.source && layout.source.id === layout.sources[0]?.id
          ? ', the cheapest that covers it'
          : ''}
        ; {layout.sources.length - 1} other {layout.sources.length === 2 ? 'way' : 'ways'}
      </summary>
      <Table className="mt-1">
        <thead>
          <tr>
            <th>Film from</th>
            <th className="n">Takes</th>
            <th className="n">To order</th>
            <th className="n">Cost</th>
            <th className="n">Left over</th>
            <th>Covers</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {layout.sources.map((s) => (
            <tr key={s.id} aria-current={s.id === layout.source?.id || undefined}>
              <td>{s.id === layout.source?.id ? <b>{name(s)}</b> : name(s)}</td>
              <td className="n">
                <Fig id={id(s, 'takes')} as={fmt.longLength(s.usedMm)} />
              </td>
              <td className="n">{s.orderMm > 0 ? <Fig id={id(s, 'order')} as={fmt.longLength(s.orderMm)} /> : '–'}</td>
              <td className="n">{s.cost > 0 ? <Fig id={id(s, 'cost')} /> : '–'}</td>
              <td className="n">
                <Fig id={id(s, 'leaves')} as={fmt.longLength(Math.max(0, s.leavesMm))} />
              </td>
              <td>{s.lacks === 'nothing' ? 'all' : s.lacks === 'reserve' ? 'all but the reserve' : 'not all'}</td>
              <td>
                {s.id === wanted ? (
                  <Button variant="link" size="sm" className="p-0" disabled={!mayPlan} onClick={() => take(null)}>
                    Leave it to the cheapest
                  </Button>
                ) : (
                  <Button variant="link" size="sm" className="p-0" disabled={!mayPlan} onClick={() => take(s.id)}>
                    Take this
                  </Button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="label mb-0">
        Quick plans; the one taken is searched further. Two lots are never taken unasked: shade varies between lots.
      </p>
    </details>
  )
}
