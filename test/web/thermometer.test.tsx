import { act, cleanup, renderHook } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useThermometer } from '@/web/bay/use-thermometer'

/** A stream that says what a test lets it say. */
function stand() {
  const stream = {
    closed: 0,
    onmessage: null as EventSource['onmessage'],
    onerror: null as EventSource['onerror'],
    close() {
      stream.closed++
    },
  }
  const say = (data: string): void => {
    act(() => {
      stream.onmessage?.call(stream as never, new MessageEvent('message', { data }))
    })
  }
  return { stream, say, open: () => stream }
}

const at = (url: string | null): { url: string | null } => ({ url })

beforeEach(() => void vi.useFakeTimers())
afterEach(() => {
  cleanup()
  vi.useRealTimers()
})

describe('the thermometer on the page', () => {
  it('is off until it is switched on, then waits, shows, and settles', () => {
    const { say, open } = stand()
    const { result, rerender } = renderHook(({ url }: { url: string | null }) => useThermometer(url, open), {
      initialProps: at(null),
    })
    expect(result.current).toBeNull()
    rerender({ url: '/a' })
    expect(result.current).toEqual({ kind: 'waiting' })
    say('{"tempC":60}')
    expect(result.current).toEqual({ kind: 'shows', tempC: 60, steady: false })
    for (const c of [90.2, 90.6, 91, 90.8, 90.4]) say(`{"tempC":${c}}`)
    expect(result.current).toEqual({ kind: 'shows', tempC: 90.4, steady: true })
  })

  it('stays one stream while it speaks, also where its source is made anew at each drawing', () => {
    const { stream, say, open } = stand()
    let opened = 0
    renderHook(() =>
      useThermometer('/a', () => {
        opened++
        return open()
      }),
    )
    for (const c of [60, 70, 80]) say(`{"tempC":${c}}`)
    expect([opened, stream.closed]).toEqual([1, 0])
  })

  it('says when it falls silent, and goes on when it speaks again', () => {
    const { say, open } = stand()
    const { result } = renderHook(() => useThermometer('/a', open))
    say('{"tempC":88}')
    act(() => {
      vi.advanceTimersByTime(3100)
    })
    expect(result.current).toEqual({ kind: 'silent' })
    say('{"tempC":87}')
    expect(result.current).toMatchObject({ kind: 'shows', tempC: 87 })
  })

  it('one that never speaks, or whose line breaks, is silent; text is told as text', () => {
    const { stream, say, open } = stand()
    const { result } = renderHook(() => useThermometer('/a', open))
    act(() => {
      vi.advanceTimersByTime(3100)
    })
    expect(result.current).toEqual({ kind: 'silent' })
    say('Lo BATT')
    expect(result.current).toEqual({ kind: 'garbled', said: 'Lo BATT' })
    act(() => {
      stream.onerror?.call(stream as never, new Event('error'))
    })
    expect(result.current).toEqual({ kind: 'silent' })
  })

  it('switched off or left, the stream is closed', () => {
    const { stream, open } = stand()
    const { rerender, unmount } = renderHook(({ url }: { url: string | null }) => useThermometer(url, open), {
      initialProps: at('/a'),
    })
    rerender({ url: null })
    expect(stream.closed).toBe(1)
    rerender({ url: '/b' })
    unmount()
    expect(stream.closed).toBe(2)
  })
})
