'use client'

import Table from 'react-bootstrap/Table'
import { useMemo, useRef } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import { tapedShare } from '@/core/model/plan/vehicle-library'
import { tapeList, type TapeItem } from '@/core/stages/tape/tape-list'
import { answerTape, questionsOf } from '@/core/stages/tape/tape-answer'
import { MAX_PANEL_MM } from '@/core/model/vehicle/kinds'
import { Fig } from '@/web/job/figure'
import { LengthInput } from '@/web/kit/quantity-input'
import type { Formatter } from '@/web/words/format'
import { questionName } from './question-words'
import '@/web/kit/grid.scss'

const SHOWN = 8

/** The figures still assumed that matter most to film and stretch, to be typed right here. */
export function TapeFirst({
  plan,
  edit,
  fmt,
  onPick,
}: {
  plan: Plan
  edit: (change: (plan: Plan) => Plan) => void
  fmt: Formatter
  onPick: (id: string) => void
}) {
  const { panels, film, method, pieces } = plan
  const list = useMemo(
    () => tapeList(plan),
    // The ranking hangs on these alone.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [panels, film, method, pieces],
  )
  if (list.length === 0) return null
  const rows = list.slice(0, SHOWN).flatMap((item) => {
    const panel = plan.panels.find((p) => p.id === item.panelId)
    const question =
      panel && questionsOf(panel, { inches: fmt.units.lengthUnit === 'in' }).find((q) => q.field === item.field)
    return panel && question ? [{ item, panel, question }] : []
  })
  const share = tapedShare(plan.panels)
  const why = (i: TapeItem) =>
    [
      i.filmMm2 > 5000 ? `± ${fmt.text(fmt.area(i.filmMm2 / 2))} film` : '',
      i.stretch[1] - i.stretch[0] > 0.002
        ? `stretch ${fmt.percent(i.stretch[0]).text} to ${fmt.text(fmt.percent(i.stretch[1]))}`
        : '',
      i.decides ? 'decides whether one piece will do' : '',
    ]
      .filter((x) => x !== '')
      .join(' · ') || ''
  return (
    <section className="plate mb-3" aria-label="Tape these first">
      <div className="d-flex gap-2 align-items-baseline flex-wrap">
        <h2 className="mb-0">Tape these first</h2>
        <span className="label">
          {share.all - share.taped} of {share.all} figures are assumed and {list.length} measures settle them, a
          mirrored pair by one; each was moved within its likely range and the job reckoned again
        </span>
      </div>
      <Table bsPrefix="tape-grid" className="mt-2" style={{ maxWidth: 860 }}>
        <thead>
          <tr>
            <th scope="col">Panel</th>
            <th scope="col">Figure</th>
            <th scope="col">Taped</th>
            <th scope="col">Film at stake</th>
          </tr>
        </thead>
        <tbody
          onKeyDown={(e) => {
            if (e.key !== 'Enter') return
            e.preventDefault()
            const inputs = [...e.currentTarget.querySelectorAll('input')]
            inputs[inputs.indexOf(e.target as HTMLInputElement) + 1]?.focus()
          }}
        >
          {rows.map(({ item, panel, question }) => (
            <FirstRow
              key={`${item.panelId}/${item.field}`}
              name={item.also ? panel.name.replace(/ left$/, ', both sides') : panel.name}
              figure={questionName(question, fmt)}
              mm={question.mm}
              why={
                <>
                  <Fig id={item.figure.id} among={new Map([[item.figure.id, item.figure]])} /> {why(item)}
                </>
              }
              fmt={fmt}
              onFocus={() => onPick(panel.id)}
              onValue={(mm) => edit((p) => answerTape(p, item.panelId, item.field, mm, question.overMm))}
              zero={question.ask === 'crown' || question.ask === 'crown_down'}
            />
          ))}
        </tbody>
      </Table>
    </section>
  )
}

/**
 * A row keeps its place while it is typed: what is typed goes out when the hand leaves it, since the list then moves
 * on.
 */
function FirstRow({
  name,
  figure,
  mm,
  why,
  fmt,
  onFocus,
  onValue,
  zero,
}: {
  name: string
  figure: string
  mm: number
  why: React.ReactNode
  fmt: Formatter
  onFocus: () => void
  onValue: (mm: number) => void
  zero: boolean
}) {
  const typed = useRef<number | null>(null)
  const send = () => {
    if (typed.current !== null) onValue(typed.current)
    typed.current = null
  }
  return (
    <tr>
      <td className="px-2">{name}</td>
      <td className="px-2">{figure}</td>
      <td data-assumed style={{ position: 'relative', width: 110 }}>
        <LengthInput
          aria-label={`Tape ${name}, ${figure}`}
          mm={null}
          placeholder={`${fmt.length(mm).text} ?`}
          unit={fmt.units.lengthUnit}
          format={(v) => fmt.length(v).text}
          max={MAX_PANEL_MM}
          optional
          {...(zero ? {} : { min: 0.5 })}
          onFocus={onFocus}
          onValue={(v) => (typed.current = v)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') send()
          }}
          onBlur={send}
        />
      </td>
      <td className="px-2 label">{why}</td>
    </tr>
  )
}
