'use client'

import Table from 'react-bootstrap/Table'
import { Drop } from '@/core/engines/pieces/drops'
import { JSX } from 'react/jsx-runtime'

/** The drops of one side, in the order they are laid. */
export function DropTable({
  upright,
  laid,
  fig,
}: {
  upright: boolean
  laid: Drop[]
  fig: (f: string, as?: number) => JSX.Element
}) {
  return (
    <Table>
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
  )
}
