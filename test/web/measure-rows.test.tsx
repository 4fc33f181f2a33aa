import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useEffect, useState, type ComponentProps } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Plan } from '@/core/model/plan/schema'
import { familyPanels, usualKeys } from '@/core/model/vehicle/families'
import { MeasureGrid } from '@/web/tape/measure-grid'
import { formatter } from '@/web/words/format'
import type * as Fields from '@/web/kit/fields'
import { handCar } from '../fixtures/plans'

/** Names of the rows that were drawn since the last look. */
let drawn: string[] = []
vi.mock('@/web/kit/fields', async (original) => {
  const fields = await original<typeof Fields>()
  return {
    ...fields,
    WordSelect: (props: ComponentProps<typeof fields.WordSelect>) => {
      drawn.push((props as { 'aria-label': string })['aria-label'].replace(/, kind$/, ''))
      return <fields.WordSelect {...props} />
    },
  }
})
vi.mock('@/web/actions/jobs', () => ({ saveJob: vi.fn(), takeBackChange: vi.fn() }))
afterEach(cleanup)

const fmt = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
const start: Plan = { ...handCar(), panels: familyPanels('city_car', usualKeys('city_car')), pieces: [] }
let latest: Plan
function Sheet() {
  const [plan, setPlan] = useState(start)
  const [picked, setPicked] = useState<string | null>(null)
  useEffect(() => void (latest = plan), [plan])
  return <MeasureGrid plan={plan} edit={setPlan} fmt={fmt} picked={picked} onPick={setPicked} />
}
const cell = (row: number, column: number) =>
  document.querySelector<HTMLInputElement>(`[data-cell="${row}:${column}"]`) as HTMLInputElement
const names = start.panels.map((p) => p.name)

describe('rows of the measuring sheet', () => {
  beforeEach(() => {
    drawn = []
    render(<Sheet />)
  })
  it('each is drawn once to begin with, and anew only when its own panel is typed', () => {
    expect(drawn).toEqual(names)
    drawn = []
    for (const width of ['1190', '1191', '1192']) fireEvent.change(cell(2, 3), { target: { value: width } })
    expect(latest.panels[2]?.widthMm).toBe(1192)
    expect(new Set(drawn)).toEqual(new Set([names[2]]))
  })
  it('a row that is picked, and the one that was, are drawn; no other', () => {
    fireEvent.focus(cell(1, 3))
    drawn = []
    fireEvent.focus(cell(4, 3))
    expect(new Set(drawn)).toEqual(new Set([names[1], names[4]]))
  })
  it('cells of a marked block say so in its rows and columns alone', () => {
    const box = cell(1, 3)
    box.focus()
    box.select()
    fireEvent.keyDown(box, { key: 'ArrowDown', shiftKey: true })
    fireEvent.keyDown(box, { key: 'ArrowRight', shiftKey: true })
    const marked = [...document.querySelectorAll('[data-marked="true"]')].map(
      (td) => td.querySelector<HTMLElement>('[data-cell]')?.dataset.cell,
    )
    expect(marked).toEqual(['1:3', '1:4', '2:3', '2:4'])
    fireEvent.keyDown(box, { key: 'Enter' })
    expect(document.querySelector('[data-marked="true"]')).toBe(null)
  })
  it('a name is typed in its own row, and one that is left empty is not taken', () => {
    const name = screen.getByLabelText(`Name of ${names[0] ?? ''}`)
    fireEvent.change(name, { target: { value: 'Front lid' } })
    expect(latest.panels[0]?.name).toBe('Front lid')
    fireEvent.change(screen.getByLabelText('Name of Front lid'), { target: { value: '  ' } })
    expect(latest.panels[0]?.name).toBe('Front lid')
    expect(latest.panels.slice(1).map((p) => p.name)).toEqual(names.slice(1))
  })
})
