import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useCallback, useState } from 'react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Plan } from '@/core/model/plan/schema'
import type { Edge } from '@/core/model/vehicle/schema'
import { familyPanels, usualKeys } from '@/core/model/vehicle/families'
import { skinMarks, type Layer } from '@/web/charts/skin-marks'
import { FeatureTable, type Column } from '@/web/kit/feature-table'
import { Panels } from '@/web/skin/skin-panels'
import { PanelEdges } from '@/web/tape/panel-edges'
import { formatter } from '@/web/words/format'
import { handCar } from '../fixtures/plans'

afterEach(cleanup)
const fmt = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
const car = (): Plan => ({ ...handCar(), panels: familyPanels('city_car', usualKeys('city_car')), pieces: [] })

describe('a table of like things', () => {
  interface Part {
    id: string
    name: string
    mm: number
  }
  const PARTS: Part[] = ['a', 'b', 'c'].map((id, i) => ({ id, name: `Part ${id}`, mm: 10 + i }))
  const COLUMNS: Column<Part>[] = [
    { key: 'name', label: 'Name', kind: 'text' },
    { key: 'mm', label: 'Long', kind: 'length', max: 1000 },
  ]
  const drawn: string[] = []
  const extra = (p: Part) => {
    drawn.push(p.id)
    return <i>{p.mm}</i>
  }
  function Table({ columns = COLUMNS }: { columns?: Column<Part>[] }) {
    const [rows, setRows] = useState<readonly Part[]>(PARTS)
    const onRows = useCallback((change: (rows: readonly Part[]) => Part[]) => setRows(change), [])
    return (
      <FeatureTable
        rows={rows}
        columns={columns}
        fmt={fmt}
        onRows={onRows}
        naming={(p, i) => `${p.name}, number ${i + 1}`}
        assumed={(p, key) => key === 'mm' && p.mm === 11}
        extra={extra}
      />
    )
  }
  const field = (name: string) => screen.getByLabelText<HTMLInputElement>(name)

  it('draws anew the row that was typed in, and no other', () => {
    render(<Table />)
    drawn.length = 0
    fireEvent.change(field('Part b, number 2, long'), { target: { value: '25' } })
    expect([...new Set(drawn)]).toEqual(['b'])
    expect(field('Part b, number 2, long').value).toBe('25')
    expect(field('Part b, number 2, long').closest('td')?.dataset.assumed).toBe('false')
  })
  it('two rows typed one after the other keep both figures; one taken away leaves the others, called anew', () => {
    render(<Table />)
    fireEvent.change(field('Part a, number 1, long'), { target: { value: '31' } })
    fireEvent.change(field('Part c, number 3, long'), { target: { value: '33' } })
    fireEvent.click(screen.getByRole('button', { name: 'Remove Part b, number 2' }))
    expect(field('Part a, number 1, long').value).toBe('31')
    expect(field('Part c, number 2, long').value).toBe('33')
  })
  it('other columns draw every row', () => {
    const { rerender } = render(<Table />)
    rerender(<Table columns={[{ key: 'name', label: 'Called', kind: 'text' }]} />)
    expect(screen.getAllByLabelText(/, called$/)).toHaveLength(3)
    expect(screen.queryByLabelText(/, long$/)).toBeNull()
  })
})

describe('the edges of a panel', () => {
  function Sheet() {
    const [plan, setPlan] = useState(car)
    const [panel] = plan.panels
    const change = useCallback(
      (f: (p: Plan['panels'][number]) => Plan['panels'][number]) =>
        setPlan((was) => ({ ...was, panels: was.panels.map((p, i) => (i === 0 ? f(p) : p)) })),
      [],
    )
    const renamed = () =>
      setPlan((was) => ({ ...was, panels: was.panels.map((p, i) => (i === 1 ? { ...p, name: 'Renamed' } : p)) }))
    return (
      panel && (
        <>
          <button onClick={renamed}>rename</button>
          <PanelEdges panel={panel} plan={plan} change={change} fmt={fmt} />
          <output>{JSON.stringify({ edges: panel.edges, assumed: panel.assumed })}</output>
        </>
      )
    )
  }
  const told = () =>
    JSON.parse(screen.getByRole('status').textContent ?? '') as { edges: Edge[]; assumed: readonly string[] }

  it('a length typed is taped, another edge’s is still assumed', () => {
    render(<Sheet />)
    const [first, second] = told().edges.map((e) => e.id)
    const [length] = screen.getAllByLabelText(/ edge, length$/)
    if (!length) throw new Error('no length')
    fireEvent.change(length, { target: { value: '777' } })
    expect(told().edges[0]?.lengthMm).toBe(777)
    expect(told().assumed).not.toContain(`edges.${first}`)
    expect(told().assumed).toContain(`edges.${second}`)
  })
  it('a panel that is called otherwise is called so among the neighbours', () => {
    render(<Sheet />)
    expect(screen.queryAllByRole('option', { name: 'Renamed' })).toHaveLength(0)
    fireEvent.click(screen.getByText('rename'))
    expect(screen.getAllByRole('option', { name: 'Renamed' })).toHaveLength(told().edges.length)
  })
})

describe('panels on the map', () => {
  const words = {
    area: () => '',
    size: (w: number, h: number) => `${w} × ${h}`,
    material: (code: string) => code,
  }
  const picked = vi.fn()
  const opened = vi.fn()
  const Map = ({ plan, layer, selected = [] }: { plan: Plan; layer: Layer; selected?: string[] }) => (
    <svg role="listbox">
      <Panels
        drawing={skinMarks(plan, layer, words, '2026-03-02T08:00:00Z')}
        selected={selected}
        uid="map"
        onPick={picked}
        onOpen={opened}
      />
    </svg>
  )
  const option = (name: string | RegExp) => screen.getByRole('option', { name })

  it('are picked and opened wherever on them they are pressed, and beside them nothing is', () => {
    render(<Map plan={car()} layer="size" />)
    const roof = option(/^Roof,/)
    fireEvent.click(roof.querySelector('text') ?? roof, { shiftKey: true, clientX: 5, clientY: 7 })
    expect(picked).toHaveBeenCalledExactlyOnceWith('roof', true, 5, 7)
    fireEvent.doubleClick(roof.querySelector('path') ?? roof)
    expect(opened).toHaveBeenCalledExactlyOnceWith('roof')
    const around = roof.parentElement
    if (!around) throw new Error('no group around')
    fireEvent.click(around)
    expect(picked).toHaveBeenCalledTimes(1)
  })
  it('show what changed: a size, another layer, its edges, what is picked', () => {
    const plan = car()
    const { rerender } = render(<Map plan={plan} layer="size" />)
    const wider = { ...plan, panels: plan.panels.map((p) => (p.id === 'roof' ? { ...p, widthMm: 1234 } : p)) }
    rerender(<Map plan={wider} layer="size" />)
    expect(option(/^Roof, 1234 × /).getAttribute('aria-selected')).toBe('false')
    rerender(<Map plan={wider} layer="size" selected={['roof']} />)
    expect(option(/^Roof,/).getAttribute('aria-selected')).toBe('true')
    rerender(<Map plan={wider} layer="edges" />)
    const strokes = () =>
      [...option(/^Roof,/).querySelectorAll('path')].slice(1).map((p) => p.getAttribute('stroke-dasharray'))
    const before = strokes()
    expect(before.length).toBe(plan.panels.find((p) => p.id === 'roof')?.edges.length)
    const sealed = {
      ...wider,
      panels: wider.panels.map((p) =>
        p.id === 'roof' ? { ...p, edges: p.edges.map((e) => ({ ...e, meets: 'bead' as const })) } : p,
      ),
    }
    rerender(<Map plan={sealed} layer="edges" />)
    expect(strokes()).not.toEqual(before)
    expect(new Set(strokes()).size).toBe(1)
  })
})
