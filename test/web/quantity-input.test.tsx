import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, expect, it, vi } from 'vitest'
import { LengthInput } from '@/web/kit/quantity-input'

afterEach(cleanup)
function Cell({ onValue, optional = false }: { onValue: (mm: number | null) => void; optional?: boolean }) {
  const [mm, setMm] = useState<number | null>(1000)
  return (
    <LengthInput
      aria-label="Width"
      mm={mm}
      unit="mm"
      format={(v) => v.toFixed(0)}
      max={15000}
      optional={optional}
      onValue={(v) => (setMm(v), onValue(v))}
    />
  )
}
const type = (text: string) => fireEvent.change(screen.getByLabelText('Width'), { target: { value: text } })

it('sends a value as soon as it can be read, in mm', () => {
  const seen = vi.fn()
  render(<Cell onValue={seen} />)
  type('37 1/2in')
  expect(seen).toHaveBeenLastCalledWith(952.5)
  fireEvent.blur(screen.getByLabelText('Width'))
  expect(screen.getByLabelText<HTMLInputElement>('Width').value).toBe('953')
})
it.each([
  ['37 1/', /breaks off/],
  ['40 m', /at most 15 m/],
  ['0', /More than 0/],
  ['-5', /More than 0/],
  ['5 parsec', /no unit/],
])('%s goes nowhere and says why at the field', (text, why) => {
  const seen = vi.fn()
  render(<Cell onValue={seen} />)
  type(text)
  expect(seen).not.toHaveBeenCalled()
  expect(screen.getByRole('alert').textContent).toMatch(why)
  expect(screen.getByLabelText('Width').getAttribute('aria-invalid')).toBe('true')
  fireEvent.keyDown(screen.getByLabelText('Width'), { key: 'Escape' })
  expect(screen.getByLabelText<HTMLInputElement>('Width').value).toBe('1000')
})
it('may be emptied only where that means something', () => {
  const seen = vi.fn()
  render(<Cell onValue={seen} optional />)
  type('')
  expect(seen).toHaveBeenLastCalledWith(null)
})
