import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { gapOrSpan } from '@/core/model/plan/gaps-and-spans'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { sectionMarks } from '@/web/charts/section-marks'
import { Section } from '@/web/edges/section'
import { formatter } from '@/web/words/format'
import { catalogue } from '../fixtures/plans'

afterEach(cleanup)
const MM = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
const IN = formatter({ lengthUnit: 'in', tempUnit: 'F', locale: 'en-US', currency: 'USD', timeZone: 'UTC' })
const edges = DEMO_JOBS.flatMap((job) => reckon(job.make(), catalogue, []).edges.edges)
const [edge] = edges.filter((e) => e.gapMm > 0 && e.leaveMm > 0 && e.cut === 'far_side')
if (!edge) throw new Error('no edge')
const type = (label: string, text: string) => {
  const field = screen.getByLabelText(label)
  fireEvent.change(field, { target: { value: text } })
  fireEvent.blur(field)
}

describe('measures in the drawing of a section', () => {
  it('each is pressed where it is drawn, typed, and goes out as that measure alone', () => {
    const onMeasure = vi.fn()
    render(<Section edge={edge} fmt={MM} onMeasure={onMeasure} />)
    fireEvent.click(screen.getByRole('button', { name: /^Gap: .* Change it$/ }))
    type('Gap in the drawing', '6')
    expect(onMeasure.mock.calls).toEqual([['gap', 6]])
    fireEvent.click(screen.getByRole('button', { name: /^Left after the cut/ }))
    type('Left after the cut in the drawing', '18')
    expect(onMeasure.mock.calls.at(-1)).toEqual(['leave', 18])
  })
  it('in inches it is typed in inches; emptied, the rules decide again', () => {
    const onMeasure = vi.fn()
    render(<Section edge={edge} fmt={IN} onMeasure={onMeasure} />)
    fireEvent.click(screen.getByRole('button', { name: /^Left after the cut/ }))
    type('Left after the cut in the drawing', '1/2')
    expect(onMeasure.mock.calls.at(-1)).toEqual(['leave', 12.7])
    fireEvent.click(screen.getByRole('button', { name: /^Left after the cut/ }))
    type('Left after the cut in the drawing', '')
    expect(onMeasure.mock.calls.at(-1)).toEqual(['leave', null])
  })
  it('what is as wide as a window goes out for a span, and what no panel is apart is held back', () => {
    const onMeasure = vi.fn()
    render(<Section edge={edge} fmt={MM} onMeasure={onMeasure} />)
    fireEvent.click(screen.getByRole('button', { name: /^Gap/ }))
    type('Gap in the drawing', '9000')
    expect(onMeasure).not.toHaveBeenCalled()
    expect(screen.getByRole('alert').textContent).toMatch(/Too large/)
    type('Gap in the drawing', '300')
    expect(onMeasure.mock.calls).toEqual([['gap', 300]])
    expect([gapOrSpan(300), gapOrSpan(3), gapOrSpan(null)]).toEqual([
      { gapMm: null, spanMm: 300 },
      { gapMm: 3, spanMm: null },
      { gapMm: null, spanMm: null },
    ])
  })
  it('nought keeps its place in the drawing: 0.5 can be typed', () => {
    for (const e of edges.filter((x) => x.cut !== 'none'))
      expect(sectionMarks({ ...e, leaveMm: 0 }).measures.map((m) => m.id)).toContain('leave')
    expect(sectionMarks({ ...edge, gapMm: 0 }).measures.map((m) => m.id)).toContain('gap')
  })
  it('whoever may not measure reads the figures, and has nothing to press', () => {
    render(<Section edge={edge} fmt={MM} onMeasure={null} />)
    expect(screen.queryAllByRole('button')).toEqual([])
    expect(screen.getAllByText(`${edge.leaveMm} mm`).length).toBeGreaterThan(0)
  })
  it('every edge of every demo job has its figures within the drawing, none over the other', () => {
    for (const e of edges) {
      const { view, measures } = sectionMarks(e)
      for (const { label } of measures) {
        expect(label.x).toBeGreaterThan(view.x)
        expect(label.x).toBeLessThan(view.x + view.w)
        expect(label.y).toBeGreaterThan(view.y)
        expect(label.y).toBeLessThan(view.y + view.h)
      }
      const [a, b] = measures
      if (a && b) expect(Math.hypot(a.label.x - b.label.x, a.label.y - b.label.y)).toBeGreaterThan(8)
    }
  })
})
