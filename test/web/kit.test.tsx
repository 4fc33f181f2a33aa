import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { DateField } from '@/web/kit/date-field'
import { Explain } from '@/web/kit/explain'
import { FilePicker } from '@/web/kit/file-picker'
import { PageError } from '@/web/kit/page-error'
import { read, ReadFault } from '@/web/kit/read'
import { SortableTable, type SortableColumn } from '@/web/kit/sortable-table'
import { Skeleton } from '@/web/kit/skeleton'
import { TERMS } from '@/web/words/terms'
import { stubBrowser } from '../fixtures/browser'

stubBrowser()
afterEach(() => {
  cleanup()
  vi.restoreAllMocks()
})

describe('a date as the member writes it', () => {
  const field = () => screen.getByRole<HTMLInputElement>('textbox')
  const type = (text: string) => {
    fireEvent.change(field(), { target: { value: text } })
    fireEvent.keyDown(field(), { key: 'Enter' })
    fireEvent.blur(field())
  }
  it.each([
    ['en-GB', '05/03/2026'],
    ['en-US', '03/05/2026'],
  ])('%s: the fifth of March is shown as %s, whatever zone the browser is in', (locale, shown) => {
    render(<DateField id="d" value="2026-03-05" locale={locale} onValue={() => {}} />)
    expect(field().value).toBe(shown)
  })
  it('typed, it comes back as it is stored', () => {
    const seen = vi.fn()
    render(<DateField id="d" value={null} locale="en-GB" onValue={seen} />)
    type('09/11/2026')
    expect(seen).toHaveBeenLastCalledWith('2026-11-09')
  })
  it('with its hour it stays the shop’s wall time', () => {
    const seen = vi.fn()
    render(<DateField id="d" withTime value="2026-03-29T02:30" locale="en-GB" onValue={seen} timeZone="UTC" />)
    expect(field().value).toBe('29/03/2026 02:30')
    type('30/03/2026 07:45')
    expect(seen).toHaveBeenLastCalledWith('2026-03-30T07:45')
  })
  it('no date is none; what is no date is shown as none', () => {
    const { rerender } = render(<DateField id="d" value={null} locale="en-GB" onValue={() => {}} />)
    expect(field().value).toBe('')
    rerender(<DateField id="d" value="someday" locale="en-GB" onValue={() => {}} />)
    expect(field().value).toBe('')
  })
  it('can be cleared, unless it is shut', () => {
    const seen = vi.fn()
    const { rerender } = render(<DateField id="d" value="2026-03-05" locale="en-GB" onValue={seen} />)
    fireEvent.click(screen.getByRole('button', { name: /close|clear/i }))
    expect(seen).toHaveBeenLastCalledWith(null)
    rerender(<DateField id="d" value="2026-03-05" locale="en-GB" onValue={seen} disabled />)
    expect(screen.queryByRole('button')).toBeNull()
    expect(field().disabled).toBe(true)
  })
})

describe('choosing a file', () => {
  const file = new File(['a'], 'a.csv')
  it('hands it on, and the same file once more when it is chosen again', () => {
    const seen = vi.fn()
    render(
      <FilePicker label="Sheet" accept=".csv" onFile={seen}>
        Bring in
      </FilePicker>,
    )
    const input = screen.getByLabelText<HTMLInputElement>('Sheet')
    expect(input.accept).toBe('.csv')
    for (let i = 0; i < 2; i++) fireEvent.change(input, { target: { files: [file] } })
    expect(seen).toHaveBeenCalledTimes(2)
    expect(seen).toHaveBeenLastCalledWith(file)
  })
  it('nothing chosen hands on nothing', () => {
    const seen = vi.fn()
    render(
      <FilePicker label="Sheet" accept=".csv" onFile={seen}>
        Bring in
      </FilePicker>,
    )
    fireEvent.change(screen.getByLabelText('Sheet'), { target: { files: [] } })
    expect(seen).not.toHaveBeenCalled()
  })
})

describe('a list that is sorted and filtered', () => {
  interface Row {
    id: string
    name: string
    mm: number | null
  }
  const rows: Row[] = [
    { id: 'a', name: 'Bonnet', mm: 1400 },
    { id: 'b', name: 'Door', mm: 900 },
    { id: 'c', name: 'Roof', mm: 1600 },
  ]
  const columns: SortableColumn<Row>[] = [
    { header: 'Panel', accessorKey: 'name' },
    { header: 'Length', accessorKey: 'mm', meta: { numbers: true } },
  ]
  const names = () =>
    screen
      .getAllByRole('row')
      .slice(1)
      .map((r) => r.querySelector('td')?.textContent)
  const list = (filter = '') => (
    <SortableTable label="Panels" rows={rows} columns={columns} rowKey={(r) => r.id} filter={filter} none="None." />
  )
  it('by any column, up, down, and back to how it came', () => {
    render(list())
    expect(names()).toEqual(['Bonnet', 'Door', 'Roof'])
    const head = () => screen.getByRole('columnheader', { name: /Length/ })
    const press = () => fireEvent.click(screen.getByRole('button', { name: /Length/ }))
    press()
    const first = head().getAttribute('aria-sort')
    expect(['ascending', 'descending']).toContain(first)
    expect(names()).toEqual(first === 'ascending' ? ['Door', 'Bonnet', 'Roof'] : ['Roof', 'Bonnet', 'Door'])
    press()
    expect(head().getAttribute('aria-sort')).not.toBe(first)
    expect(names()).toEqual(first === 'ascending' ? ['Roof', 'Bonnet', 'Door'] : ['Door', 'Bonnet', 'Roof'])
    press()
    expect(head().getAttribute('aria-sort')).toBe('none')
    expect(names()).toEqual(['Bonnet', 'Door', 'Roof'])
  })
  it('as one types, whatever the case; what is left out is said', () => {
    const { rerender } = render(list('ROO'))
    expect(names()).toEqual(['Roof'])
    rerender(list(' 900 '))
    expect(names()).toEqual(['Door'])
    rerender(list('nothing such'))
    expect(screen.getByText('None.')).toBeTruthy()
    expect(screen.queryByRole('table')).toBeNull()
  })
})

describe('what explains and what stands in', () => {
  it('a question mark beside a term tells it in a line, by key as well', async () => {
    render(<Explain term="bound" />)
    const mark = screen.getByRole('button', { name: 'What is the least possible?' })
    fireEvent.focus(mark)
    expect((await screen.findByRole('tooltip')).textContent).toBe(TERMS.bound.line)
  })
  it('every term is told in one sentence or two', () => {
    for (const { name, line } of Object.values(TERMS)) {
      expect(name.length).toBeGreaterThan(1)
      expect(line, name).toMatch(/^[A-Z].{20,140}\.$/)
    }
  })
  it('a page on its way says so to those who do not see it', () => {
    render(<Skeleton shape="table" />)
    expect(screen.getByRole('status').getAttribute('aria-busy')).toBe('true')
    expect(screen.getByText('On its way')).toBeTruthy()
  })
  it('a page that failed says that nothing was lost, with its reference, and can be tried again', () => {
    const again = vi.fn()
    render(<PageError error={Object.assign(new Error('secret of the database'), { digest: 'r-77' })} reset={again} />)
    expect(screen.getByRole('alert').textContent).toMatch(/Nothing was lost.*r-77/)
    expect(screen.getByRole('alert').textContent).not.toContain('secret')
    fireEvent.click(screen.getByText('Try again'))
    expect(again).toHaveBeenCalledOnce()
  })
})

describe('reading from a route handler', () => {
  const answers = (body: unknown) =>
    vi.stubGlobal('fetch', async () => new Response(JSON.stringify(body), { status: 200 }))
  it('gives the value of what was answered', async () => {
    answers({ ok: true, value: [1, 2] })
    await expect(read<number[]>('/api/fleets')).resolves.toEqual([1, 2])
  })
  it('what was refused is an error with its code', async () => {
    answers({ ok: false, error: { code: 'not_found' } })
    const error = await read('/api/fleets/x').catch((e: unknown) => e)
    expect(error).toBeInstanceOf(ReadFault)
    expect((error as ReadFault).fault).toEqual({ code: 'not_found' })
  })
})
