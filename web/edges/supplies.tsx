import Table from 'react-bootstrap/Table'
import type { Consumable } from '@/core/engines/edge/consumables'
import type { SupplyLine } from '@/core/engines/edge/supply-list'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { word } from '@/web/words/names'

/** What is used up beside the film: needed, used, on the shelf, and what is to be ordered, each with its working. */
export function Supplies({ consumables }: { consumables: readonly Consumable[] }) {
  const { reckoning, fmt } = useJob('reckoning', 'fmt')
  const { supplies } = reckoning
  const amount = (line: SupplyLine, n: number) =>
    line.isTape ? fmt.text(fmt.longLength(n * 1000)) : String(Math.round(n * 10) / 10)
  const liner = consumables.some((c) => c.kind === 'liner')
  return (
    <section className="plate mb-3" aria-label="Used up beside the film">
      <h2 className="h6 mb-1">Used up beside the film</h2>
      <div className="scroll-x">
        <Table>
          <thead>
            <tr>
              <th scope="col">Supply</th>
              <th scope="col" className="n">
                Needed
              </th>
              <th scope="col" className="n">
                Used
              </th>
              <th scope="col" className="n">
                On the shelf
              </th>
              <th scope="col" className="n">
                Packs to order
              </th>
              <th scope="col" className="n">
                Cost
              </th>
            </tr>
          </thead>
          <tbody>
            {supplies.map((line) => (
              <tr key={line.kind}>
                <th scope="row">{word('supply', line.kind)}</th>
                <td className="n">{line.needed > 0 ? <Fig id={`supply/${line.kind}`} /> : '–'}</td>
                <td className="n">{line.used > 0 ? amount(line, line.used) : '–'}</td>
                <td className="n">{line.shelf === null ? 'not counted' : amount(line, line.shelf)}</td>
                <td className="n">{line.packs === null ? '–' : <Fig id={`supply/${line.kind}/order`} />}</td>
                <td className="n">
                  {line.cost === null || line.cost === 0 ? '–' : <Fig id={`supply/${line.kind}/cost`} />}
                </td>
              </tr>
            ))}
            {liner && (
              <tr>
                <th scope="row">{word('supply', 'liner')}</th>
                <td className="n">
                  <Fig id="supply/liner" />
                </td>
                <td className="n" colSpan={4} />
              </tr>
            )}
          </tbody>
          {reckoning.figures.has('supply/all/cost') && (
            <tfoot>
              <tr>
                <th scope="row" colSpan={5}>
                  Supplies to order
                </th>
                <td className="n">
                  <Fig id="supply/all/cost" />
                </td>
              </tr>
            </tfoot>
          )}
        </Table>
      </div>
      <p className="label mb-0">
        Tape with an end to pull by. Shelf and packs: on the Rack and the Shop page. Primer only thinly, in deep
        recesses; its sheet and good air come first.
      </p>
    </section>
  )
}
