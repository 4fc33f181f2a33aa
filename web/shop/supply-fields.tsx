import Table from 'react-bootstrap/Table'
import { BY_METRE } from '@/core/model/edge/supply-data'
import { USED_KINDS } from '@/core/model/log/kinds'
import { word } from '@/web/words/names'
import { ShopField } from './shop-field'

const COLUMNS = [
  ['pack', 'A pack holds'],
  ['price', 'Price of a pack'],
  ['least', 'Keep at least'],
] as const

/** How tapes, blades and the like are bought: what jobs order by. */
export function SupplyFields() {
  return (
    <details className="plate mb-3">
      <summary>
        <b>Supplies</b> <span className="label">what a pack holds and costs, and how much is kept at least</span>
      </summary>
      <div className="scroll-x mt-2">
        <Table className="w-auto">
          <thead>
            <tr>
              <th />
              {COLUMNS.map(([field, label]) => (
                <th key={field}>{label}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {USED_KINDS.map((kind) => (
              <tr key={kind}>
                <th scope="row">
                  {word('supply', kind)}
                  {BY_METRE.includes(kind) && <span className="label"> m</span>}
                </th>
                {COLUMNS.map(([field, label]) => (
                  <td key={field} style={{ width: 130 }}>
                    <ShopField hidden name={`supplies.${kind}.${field}`} label={`${word('supply', kind)}: ${label}`} />
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </Table>
      </div>
    </details>
  )
}
