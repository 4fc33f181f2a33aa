'use client'

import Link from 'next/link'
import Offcanvas from 'react-bootstrap/Offcanvas'
import { formulaWithNumbers, type Figure } from '@/core/model/figure/figure'
import type { Formatter } from '@/web/words/format'
import { asInput, formulaInWords } from '@/web/words/formulas'
import { STANDING_WORDS } from '@/web/words/names'
import { sourceText } from '@/web/words/sources'
import { Quant, SETTLING } from './figure-button'

/** Where an input of a figure was entered. */
export interface Place {
  label: string
  /** Link to it; null where it was not entered but follows from practice. */
  href: string | null
}

export const StandingMark = ({ standing }: { standing: Figure['standing'] }) => (
  <span className="standing" data-standing={standing}>
    {STANDING_WORDS[standing]}
  </span>
)

/** The working of a figure: formula, the numbers put in, where each was entered, limit, standing. */
export function WorkingSheet({
  f,
  fmt,
  nameOf,
  placeOf,
  onShow,
}: {
  f: Figure | undefined
  fmt: Formatter
  nameOf: (id: string) => string
  placeOf: (at: string) => Place
  onShow: (id: string | null) => void
}) {
  return (
    <Offcanvas
      show={f !== undefined}
      onHide={() => onShow(null)}
      placement="end"
      style={{ width: 'min(480px, 100vw)' }}
      aria-labelledby="working-title"
    >
      {f && (
        <>
          <Offcanvas.Header closeButton>
            <Offcanvas.Title as="h2" id="working-title">
              {nameOf(f.id)}
            </Offcanvas.Title>
          </Offcanvas.Header>
          <Offcanvas.Body>
            <p className="h1 mb-1">
              <Quant q={fmt.quantity(f.value, f.unit)} />
            </p>
            <p>
              <StandingMark standing={f.standing} />
              {f.settling && <span className="ms-3">{SETTLING}</span>}
              {f.limit && (
                <span className="ms-3">
                  {f.limit.kind === 'max' ? 'at most' : 'at least'}{' '}
                  <b>{fmt.text(fmt.quantity(f.limit.value, f.limit.unit))}</b>{' '}
                  <StandingMark standing={f.limit.standing} />
                </span>
              )}
            </p>
            <p className="mb-1">
              <span className="label">Formula</span>
              <br />
              {formulaInWords(f.formula)
                .split(/\{(\w+)\}/)
                .map((part, i) => (i % 2 === 1 ? <var key={i}>{part.replace(/_/g, ' ')}</var> : part))}
            </p>
            {f.inputs.length > 0 && f.inputs.length <= 12 && (
              <p>
                <span className="label">With the numbers put in</span>
                <br />
                {formulaInWords(formulaWithNumbers(f, (i) => asInput(fmt.text(fmt.quantity(i.value, i.unit)))))} ={' '}
                <b>{fmt.text(fmt.quantity(f.value, f.unit))}</b>
              </p>
            )}
            <table className="table mb-0">
              <thead>
                <tr>
                  <th>Input</th>
                  <th className="n">Value</th>
                  <th>Standing</th>
                </tr>
              </thead>
              <tbody>
                {f.inputs.map((i) => {
                  const inner = i.at.startsWith('figure:') ? i.at.slice(7) : null
                  const place = placeOf(i.at)
                  return (
                    <tr key={i.key + i.at}>
                      <td>
                        {f.formula.includes(`{${i.key}}`) && (
                          <>
                            <var>{i.key.replace(/_/g, ' ')}</var>:{' '}
                          </>
                        )}
                        {inner ? (
                          <button type="button" className="figure" onClick={() => onShow(inner)}>
                            {nameOf(inner)}
                          </button>
                        ) : place.href ? (
                          <Link href={place.href} onClick={() => onShow(null)}>
                            {place.label}
                          </Link>
                        ) : (
                          place.label
                        )}
                      </td>
                      <td className="n">
                        <Quant q={fmt.quantity(i.value, i.unit)} />
                      </td>
                      <td>
                        <StandingMark standing={i.standing} />
                      </td>
                    </tr>
                  )
                })}
              </tbody>
            </table>
            {f.source && <p className="label mt-3">Source: {sourceText(f.source)}</p>}
          </Offcanvas.Body>
        </>
      )}
    </Offcanvas>
  )
}
