'use client'

import Form from 'react-bootstrap/Form'
import { NumberInput } from '@/web/kit/quantity-input'

/** The jobs of the yard, each with how many vehicles alike are laid out. */
export function JobsToLayOut({
  shown,
  counts,
  setCounts,
}: {
  shown: { id: string; name: string; vehicle: string }[]
  counts: Record<string, number>
  setCounts: (value: Record<string, number>) => void
}) {
  return (
    <ul className="list-unstyled mb-2 mt-1 overflow-y-auto" style={{ maxHeight: 260, columns: '2 340px' }}>
      {shown.map((j) => (
        <li key={j.id} className="d-flex gap-2 align-items-center" style={{ breakInside: 'avoid', minHeight: 32 }}>
          <label className="d-flex gap-2 align-items-center flex-fill">
            <Form.Check.Input
              type="checkbox"
              className="mt-0"
              checked={(counts[j.id] ?? 0) > 0}
              onChange={(e) => setCounts({ ...counts, [j.id]: e.target.checked ? 1 : 0 })}
            />
            {j.vehicle} <span className="label">{j.name}</span>
          </label>
          {(counts[j.id] ?? 0) > 0 && (
            <label className="d-flex gap-1 align-items-center">
              <span className="label">vehicles alike</span>
              <NumberInput
                id={`alike-${j.id}`}
                className="form-control form-control-sm"
                style={{ width: 70 }}
                aria-label={`${j.vehicle}, vehicles alike`}
                value={counts[j.id] ?? 1}
                min={1}
                max={200}
                onValue={(n) => n !== null && setCounts({ ...counts, [j.id]: Math.max(1, Math.round(n)) })}
              />
            </label>
          )}
        </li>
      ))}
    </ul>
  )
}
