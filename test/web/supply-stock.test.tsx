import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { SupplyStock } from '@/web/rack/supply-stock'
import { StripTests } from '@/web/rack/strip-test'
import { formatter } from '@/web/words/format'

const sent = vi.hoisted(() => ({
  move: vi.fn<(input: unknown) => Promise<{ ok: true; value: null }>>(),
  strip: vi.fn<(input: unknown) => Promise<{ ok: true; value: null }>>(),
}))
vi.mock('@/web/actions/supplies', () => ({ moveSupply: sent.move }))
vi.mock('@/web/actions/shop', () => ({ logStrip: sent.strip }))
vi.mock('next/navigation', () => ({ useRouter: () => ({ refresh: vi.fn() }) }))
afterEach(() => {
  cleanup()
  sent.move.mockReset()
  sent.strip.mockReset()
})

const fmt = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
const lost = () => Promise.reject(new Error('no network'))
const taken = () => Promise.resolve({ ok: true as const, value: null })
const told = () => sent.move.mock.calls.map(([input]) => input as { id: string; amount: number; reason: string })

describe('supplies on the shelf', () => {
  const shelf = () => render(<SupplyStock levels={{ filament: 40 }} fmt={fmt} mayChange />)
  const type = (amount: string) => {
    const field = screen.getByLabelText('Metres')
    fireEvent.change(field, { target: { value: amount } })
    fireEvent.blur(field)
  }
  const press = async (name: RegExp, times: number) => {
    fireEvent.click(screen.getByRole('button', { name }))
    await waitFor(() => expect(sent.move).toHaveBeenCalledTimes(times))
    await waitFor(() => expect(screen.getByRole('status').textContent).not.toBe(''))
  }

  it('sent again after a lost answer it is the same movement; changed, it is another one', async () => {
    shelf()
    type('50')
    sent.move.mockImplementationOnce(lost).mockImplementationOnce(lost).mockImplementation(taken)
    await press(/Came in/, 1)
    await press(/Came in/, 2)
    type('5')
    await press(/Came in/, 3)
    const [first, again, other] = told()
    expect(again).toEqual(first)
    expect(other?.amount).toBe(5)
    expect(other?.id).not.toBe(first?.id)
  })

  it('came in and counted are two movements, of one amount too', async () => {
    shelf()
    type('50')
    sent.move.mockImplementationOnce(lost).mockImplementation(taken)
    await press(/Came in/, 1)
    await press(/Counted/, 2)
    const [first, other] = told()
    expect([first?.reason, other?.reason]).toEqual(['received', 'counted'])
    expect(other?.id).not.toBe(first?.id)
  })

  it('two packs of one size, one after the other, both count', async () => {
    shelf()
    sent.move.mockImplementation(taken)
    type('50')
    await press(/Came in/, 1)
    await waitFor(() => expect(screen.getByLabelText<HTMLInputElement>('Metres').value).toBe(''))
    type('50')
    await press(/Came in/, 2)
    const [first, second] = told()
    expect(second?.amount).toBe(50)
    expect(second?.id).not.toBe(first?.id)
  })
})

describe('a strip test', () => {
  it('measured again after a lost answer, it is put down as it was read last', async () => {
    const item = { id: 'roll-1', label: 'Roll 1', lot: 'L7', strips: [] }
    render(<StripTests item={item as never} fmt={fmt} may />)
    fireEvent.click(screen.getByRole('button', { name: 'Strip test of Roll 1' }))
    const after = screen.getByLabelText('Length after')
    const save = () => screen.getByRole('button', { name: 'Keep it' })
    sent.strip.mockImplementationOnce(lost).mockImplementation(taken)
    fireEvent.change(after, { target: { value: '980' } })
    fireEvent.blur(after)
    fireEvent.click(save())
    await waitFor(() => expect(sent.strip).toHaveBeenCalledTimes(1))
    await waitFor(() => expect(screen.getByText(/No answer came/)).toBeTruthy())
    fireEvent.change(after, { target: { value: '975' } })
    fireEvent.blur(after)
    fireEvent.click(save())
    await waitFor(() => expect(sent.strip).toHaveBeenCalledTimes(2))
    const [first, second] = sent.strip.mock.calls.map(([i]) => (i as { strip: { id: string; afterMm: number } }).strip)
    expect([first?.afterMm, second?.afterMm]).toEqual([980, 975])
    expect(second?.id).not.toBe(first?.id)
    // It closes once it was taken; its fading ends by a timer, which must not outlive the page.
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
    await new Promise((r) => setTimeout(r, 100))
  })
})
