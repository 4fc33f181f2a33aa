'use client'

import Table from 'react-bootstrap/Table'
import Form from 'react-bootstrap/Form'
import Button from 'react-bootstrap/Button'
import type { FilmSheet } from '@/core/model/film/schema'
import { WordSelect } from '@/web/kit/fields'
import { LengthInput, NumberInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'

type Offer = FilmSheet['offers'][number]
const whole = (unit: Offer['unit']) => unit === 'roll' || unit === 'sheet'

/**
 * How single widths are sold, where they differ: cut to length from a minimum, or whole, each at its price.
 */
export function Offers({
  sheet,
  set,
  fmt,
}: {
  sheet: FilmSheet
  set: (part: Partial<FilmSheet>) => void
  fmt: Formatter
}) {
  const { offers } = sheet
  const change = (i: number, part: Partial<Offer>) =>
    set({ offers: offers.map((o, k) => (k === i ? { ...o, ...part } : o)) })
  return (
    <fieldset className="mt-2">
      <legend className="h3">Widths sold otherwise</legend>
      {offers.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th>Width</th>
              <th>Sold by</th>
              <th>Minimum, or length</th>
              <th>Price per metre, or each</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {offers.map((o, i) => (
              <OfferRow
                key={i}
                offer={o}
                number={i + 1}
                sheet={sheet}
                fmt={fmt}
                change={(part) => change(i, part)}
                takeOut={() => set({ offers: offers.filter((_, k) => k !== i) })}
              />
            ))}
          </tbody>
        </Table>
      )}
      <Button
        variant="outline-primary"
        size="sm"
        disabled={offers.length >= 16}
        onClick={() =>
          set({
            offers: [
              ...offers,
              {
                widthMm: sheet.widthsMm[0] ?? 1520,
                unit: 'metre',
                lengthMm: null,
                minimumMm: sheet.soldBy.minimumMm,
                price: sheet.soldBy.price,
              },
            ],
          })
        }
      >
        Add an offer for one width
      </Button>
      <p className="label mb-0 mt-1">
        Where a width has offers here, these hold and not the general way above; the cheapest that holds a plan is
        reckoned.
      </p>
    </fieldset>
  )
}

function OfferRow({
  offer: o,
  number,
  sheet,
  fmt,
  change,
  takeOut,
}: {
  offer: Offer
  number: number
  sheet: FilmSheet
  fmt: Formatter
  change: (part: Partial<Offer>) => void
  takeOut: () => void
}) {
  const length = (id: string, label: string, mm: number | null, onValue: (mm: number) => void, max: number) => (
    <LengthInput
      id={id}
      className="form-control form-control-sm"
      style={{ width: 90 }}
      aria-label={label}
      mm={mm}
      unit={fmt.units.lengthUnit}
      format={(v) => fmt.length(v).text}
      max={max}
      onValue={(v) => v !== null && onValue(v)}
    />
  )
  return (
    <tr>
      <td>
        <Form.Select
          size="sm"
          aria-label={`Offer ${number}, width`}
          value={o.widthMm}
          onChange={(e) => change({ widthMm: Number(e.target.value) })}
        >
          {[...new Set([...sheet.widthsMm, o.widthMm])].map((w) => (
            <option key={w} value={w}>
              {fmt.text(fmt.length(w))}
            </option>
          ))}
        </Form.Select>
      </td>
      <td>
        <WordSelect
          list="soldBy"
          className="form-select form-select-sm"
          aria-label={`Offer ${number}, sold by`}
          value={o.unit}
          onCode={(unit) =>
            change({
              unit,
              lengthMm: whole(unit) ? (o.lengthMm ?? sheet.rollLengthsMm[0] ?? 25000) : null,
            })
          }
        />
      </td>
      <td>
        {whole(o.unit)
          ? length(
              `offer-l-${number}`,
              `Offer ${number}, length`,
              o.lengthMm,
              (lengthMm) => change({ lengthMm }),
              100000,
            )
          : length(
              `offer-m-${number}`,
              `Offer ${number}, minimum`,
              o.minimumMm,
              (minimumMm) => change({ minimumMm }),
              100000,
            )}
      </td>
      <td>
        <NumberInput
          id={`offer-p-${number}`}
          className="form-control form-control-sm"
          style={{ width: 90 }}
          aria-label={`Offer ${number}, price`}
          value={o.price}
          max={100000}
          onValue={(v) => v !== null && change({ price: v })}
        />
      </td>
      <td>
        <Button variant="link" size="sm" className="p-0" aria-label={`Take out offer ${number}`} onClick={takeOut}>
          Take out
        </Button>
      </td>
    </tr>
  )
}
