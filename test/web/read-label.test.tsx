import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import fc from 'fast-check'
import jsqr from 'jsqr'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { piecesByLabel, readCode, shortCode } from '@/core/engines/roll/short-code'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { ReadLabel } from '@/web/bay/read-label'
import { qrCode } from '@/web/roll/qr'
import { catalogue } from '../fixtures/plans'

const { laid } = reckon((DEMO_JOBS[0] as (typeof DEMO_JOBS)[number]).make(), catalogue, [])
vi.mock('@/web/job/job-state', () => ({ useJob: () => ({ reckoning: { laid }, jobId: 'x' }) }))
afterEach(() => {
  cleanup()
  window.history.replaceState(null, '', '/')
})

/** A code as a camera sees it: dark and light dots, `dot` wide, with a light margin. */
function picture(text: string, dot: number) {
  const { side, runs } = qrCode(text)
  const margin = 4
  const width = (side + 2 * margin) * dot
  const data = new Uint8ClampedArray(4 * width * width).fill(255)
  for (const [x, y, run] of runs)
    for (let v = (y + margin) * dot; v < (y + margin + 1) * dot; v++)
      for (let u = (x + margin) * dot; u < (x + margin + run) * dot; u++) data.set([20, 20, 20], 4 * (v * width + u))
  return { data, width }
}

describe('labels of pieces', () => {
  it('every piece of the demo jobs has a code of its own, and is found by it, by its link and by its printed code', () => {
    for (const job of DEMO_JOBS) {
      const pieces = reckon(job.make(), catalogue, []).laid
      expect(new Set(pieces.map((p) => shortCode(p.id))).size).toBe(pieces.length)
      for (const p of pieces.slice(0, 4)) {
        const link = `http://127.0.0.1:3000/jobs/x/bay?piece=${encodeURIComponent(p.id)}`
        expect(piecesByLabel(pieces, 'x', shortCode(p.id))).toEqual([p])
        const { data, width } = picture(link, 4)
        expect(piecesByLabel(pieces, 'x', jsqr(data, width, width)?.data ?? '')).toEqual([p])
      }
    }
  })
  it('what is typed by glove is read as meant: small letters, blanks, I for 1, O for 0', () => {
    expect(readCode(' a1-io ')).toBe('A110')
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 30 }), (id) => {
        const code = shortCode(id)
        expect(code).toMatch(/^[0-9A-HJKMNP-TV-Z]{4}$/)
        expect(readCode(code.toLowerCase())).toBe(code)
        expect(piecesByLabel([{ id }], 'x', `${code.slice(0, 2)} ${code.slice(2)}`)).toEqual([{ id }])
      }),
    )
  })
  it('what is no label finds nothing: other links, cut-off links, too few letters', () => {
    for (const text of ['', 'AB', 'https://example.org', '?piece=%E0%A4%A', '?piece=no-such-piece', 'ABCDE'])
      expect(piecesByLabel(laid, 'x', text), text).toEqual([])
  })
})

it('the label of another car means no piece of this one, though panels are called alike', () => {
  const [piece] = laid
  const link = (job: string) => `https://shop.example/jobs/${job}/bay?piece=${encodeURIComponent(piece?.id ?? '')}`
  expect(piecesByLabel(laid, 'x', link('x'))).toEqual([piece])
  expect(piecesByLabel(laid, 'x', link('y'))).toEqual([])
})

describe('reading a label in the bay', () => {
  const piece = laid[3] as (typeof laid)[number]
  const open = () => {
    render(<ReadLabel />)
    fireEvent.click(screen.getByRole('button', { name: 'Read a label' }))
    return screen.getByLabelText('Four letters on the label')
  }
  it('without a camera four letters name the piece, one press opens its card, and nothing is asked of the server', () => {
    const field = open()
    expect(screen.getByText('No camera here: type the letters.')).toBeTruthy()
    fireEvent.change(field, { target: { value: shortCode(piece.id).toLowerCase() } })
    fireEvent.click(screen.getByRole('button', { name: new RegExp(piece.name) }))
    expect(window.location.search).toBe(`?piece=${encodeURIComponent(piece.id)}`)
    expect(screen.queryByRole('dialog')).toBeNull()
  })
  it('a code of no piece is told', () => {
    const field = open()
    const free = ['0000', '0001', '0002'].find((c) => laid.every((p) => shortCode(p.id) !== c)) ?? ''
    fireEvent.change(field, { target: { value: free } })
    expect(screen.getByText(/No piece of this job has that code/)).toBeTruthy()
  })
})
