'use client'

import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import Button from 'react-bootstrap/Button'
import { useState } from 'react'
import { freeId, slug } from '@/core/kit/ids'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { Settings } from './drop-settings'

/** Lettering that no seam may cross: where it begins on a side, and how large it is. */
export function Lettering({ drops, set }: { drops: Settings; set: (change: Partial<Settings>) => void }) {
  const { fmt, mayPlan } = useJob('fmt', 'mayPlan')
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
        <Table>
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
