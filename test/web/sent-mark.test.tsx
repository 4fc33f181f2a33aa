import { cleanup, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { SentMark } from '@/web/job/kept-entries'

const state = vi.hoisted(() => ({ waiting: 0, looked: false, refused: [] as object[], photos: { waiting: 0 } }))
vi.mock('@/web/job/job-state', () => ({ useJob: () => state }))

const says = (over: Partial<typeof state>): string => {
  cleanup()
  Object.assign(state, { waiting: 0, looked: true, refused: [], photos: { waiting: 0 } }, over)
  render(<SentMark />)
  return screen.getByTestId('outbox').textContent
}
afterEach(cleanup)

describe('what waits to be sent', () => {
  it('is not said to be nothing before the device was looked into', () => {
    expect(says({ looked: false })).toBe('Looking what waits here…')
    expect(says({})).toBe('All entries sent')
  })

  it('is said at once where something is known to wait, and photos and refusals beside it', () => {
    expect(says({ looked: false, waiting: 2 })).toMatch(/^2 entries kept here/)
    expect(says({ waiting: 1, photos: { waiting: 1 }, refused: [{}] })).toBe(
      '1 entry kept here, sending, 1 photo still to send, 1 not taken',
    )
  })
})
