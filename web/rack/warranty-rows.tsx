'use client'

import Button from 'react-bootstrap/Button'
import Form from 'react-bootstrap/Form'
import { SURFACES, ZONES } from '@/core/model/film/kinds'
import { SheetWord, type FilmSheet } from '@/core/model/film/schema'
import { NumberInput } from '@/web/kit/quantity-input'

/** Months by the zones and surfaces that the sheet names, a row each, as many as there are. */
export function Warranty({ sheet, set }: { sheet: FilmSheet; set: (part: Partial<FilmSheet>) => void }) {
  const rows = sheet.warrantyMonths
  const change = (i: number, part: Partial<(typeof rows)[number]>) =>
    set({ warrantyMonths: rows.map((w, k) => (k === i ? { ...w, ...part } : w)) })
  const twice = rows.findIndex((w, i) => rows.findIndex((v) => v.zone === w.zone && v.surface === w.surface) < i)
  return (
    <span className="warranty d-grid justify-content-start">
      {rows.map((w, i) => (
        <span key={i} className="d-flex gap-1 align-items-center mb-1">
          <Form.Control
            size="sm"
            aria-label={`Warranty ${i + 1}, zone`}
            list="warranty-zones"
            maxLength={60}
            placeholder="zone"
            value={w.zone}
            aria-invalid={!SheetWord.safeParse(w.zone).success || undefined}
            onChange={(e) => change(i, { zone: e.target.value })}
          />
          <Form.Control
            size="sm"
            aria-label={`Warranty ${i + 1}, surface`}
            list="warranty-surfaces"
            maxLength={60}
            placeholder="surface"
            value={w.surface}
            aria-invalid={!SheetWord.safeParse(w.surface).success || undefined}
            onChange={(e) => change(i, { surface: e.target.value })}
          />
          <NumberInput
            className="form-control form-control-sm"
            aria-label={`Warranty ${i + 1}, months`}
            value={w.months}
            max={600}
            onValue={(v) => v !== null && change(i, { months: Math.round(v) })}
          />
          <Button
            variant="outline-secondary"
            size="sm"
            aria-label={`Take out warranty ${i + 1}`}
            onClick={() => set({ warrantyMonths: rows.filter((_, k) => k !== i) })}
          >
            ×
          </Button>
        </span>
      ))}
      <Button
        variant="outline-primary"
        size="sm"
        onClick={() => set({ warrantyMonths: [...rows, nextWarranty(rows)] })}
      >
        Add a zone and surface
      </Button>
      {twice >= 0 && (
        <span className="text-danger small d-block">
          {rows[twice]?.zone}, {rows[twice]?.surface} stands here twice.
        </span>
      )}
      <datalist id="warranty-zones">
        {[...new Set([...ZONES, ...rows.map((w) => w.zone)])].map((z) => (
          <option key={z} value={z} />
        ))}
      </datalist>
      <datalist id="warranty-surfaces">
        {[...new Set([...SURFACES, ...rows.map((w) => w.surface)])].map((z) => (
          <option key={z} value={z} />
        ))}
      </datalist>
    </span>
  )
}

/** The first pair that is not listed yet; when all are, one to be named. */
const nextWarranty = (rows: FilmSheet['warrantyMonths']): FilmSheet['warrantyMonths'][number] => {
  const free = ZONES.flatMap((zone) => SURFACES.map((surface) => ({ zone, surface }))).find(
    (x) => !rows.some((w) => w.zone === x.zone && w.surface === x.surface),
  )
  return { ...(free ?? { zone: '', surface: '' }), months: 0 }
}
