import { act, cleanup, render } from '@testing-library/react'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { LiveRefresh } from '@/web/live/live-refresh'

const refresh = vi.fn()
vi.mock('next/navigation', () => ({ useRouter: () => router }))
const router = { refresh }

class Stream {
  static last: Stream | null = null
  static OPEN = 1
  readyState = 1
  onmessage: ((e: { data: string }) => void) | null = null
  onopen: (() => void) | null = null
  constructor() {
    Stream.last = this
  }
  close() {
    Stream.last = null
  }
}
vi.stubGlobal('EventSource', Stream)
const tell = (data: unknown) => act(() => Stream.last?.onmessage?.({ data: JSON.stringify(data) }))

beforeEach(() => {
  vi.useFakeTimers()
  refresh.mockReset()
})
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

it('a page is drawn anew once for changes that come close together, and for its own kinds alone', async () => {
  render(<LiveRefresh kinds={['stock', 'films']} />)
  await act(() => vi.advanceTimersByTimeAsync(10))
  tell({ job: null, head: 4, kind: 'now' })
  tell({ job: 'x', head: 5, kind: 'plan' })
  await act(() => vi.advanceTimersByTimeAsync(3000))
  expect(refresh).not.toHaveBeenCalled()
  tell({ job: null, head: 6, kind: 'stock' })
  tell({ job: null, head: 7, kind: 'films' })
  await act(() => vi.advanceTimersByTimeAsync(3000))
  expect(refresh).toHaveBeenCalledTimes(1)
})

it('while the stream is silent the page is drawn anew now and then; what is not of ours is let pass', async () => {
  render(<LiveRefresh kinds={['stock']} />)
  await act(() => vi.advanceTimersByTimeAsync(10))
  act(() => Stream.last?.onmessage?.({ data: 'not json' }))
  tell({ kind: 'stock' })
  await act(() => vi.advanceTimersByTimeAsync(2000))
  expect(refresh).not.toHaveBeenCalled()
  if (Stream.last) Stream.last.readyState = 2
  await act(() => vi.advanceTimersByTimeAsync(60_000))
  expect(refresh.mock.calls.length).toBeGreaterThan(1)
})
