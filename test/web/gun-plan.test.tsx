import { cleanup, fireEvent, render, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, describe, expect, it } from 'vitest'
import { paceSeconds, solvedPace } from '@/core/engines/heat/pace'
import type { SolvedHeat } from '@/core/model/catalogue/solved-heat'
import { SEALS } from '@/core/model/edge/cut-rules'
import type { Plan } from '@/core/model/plan/schema'
import { DEMO_SETTINGS } from '@/db/demo/people'
import { GunPlan } from '@/web/edges/gun-plan'
import { GuidedTape } from '@/web/tape/guided-tape'
import { formatter } from '@/web/words/format'
import { stubBrowser } from '../fixtures/browser'
import { film, handCar } from '../fixtures/plans'

const fmt = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
const ask = {
  panel: { surface: { material: 'steel' as const, thicknessMm: null } },
  film: film('fen-satin'),
  guns: DEMO_SETTINGS.guns,
}
const SOLVED: SolvedHeat = {
  kind: 'plan',
  gun: 'wide',
  holdS: 3.9,
  paceMmS: 10.8,
  passes: 2,
  gapS: 14,
  beforeMm: 5,
  pastMm: 8,
  peakC: { min: 81, max: 92 },
  inBand: 0.99,
}
stubBrowser()
afterEach(cleanup)

describe('how to move the gun along an edge', () => {
  const show = (known: SolvedHeat | undefined, lengthMm = 700) =>
    render(<GunPlan ask={ask} known={known} panelId={null} lengthMm={lengthMm} frame={null} fmt={fmt} />)
  const asks = () => screen.queryByRole('button', { name: 'How to move the gun' })

  it('stands there without asking where it was solved behind the plan, in seconds of this very edge', () => {
    show(SOLVED)
    expect(document.body.textContent).toContain('Wide nozzle: hold 3.9 s at the start, then 10.8 mm/s (25 mm in 2.3 s)')
    const seconds = Math.round(paceSeconds(solvedPace(SOLVED, 700)))
    // Two passes with what runs over both ends, each held at its start, and the gap between.
    expect(seconds).toBe(Math.round(2 * (3.9 + 713 / 10.8) + 14))
    expect(document.body.textContent).toContain(`${seconds} s for this edge`)
    expect(document.body.textContent).toContain('81 °C to 92 °C; 99.0 % of it')
    expect(asks()).toBe(null)
  })
  it('a longer edge takes longer by the same sweep', () => {
    const told = (lengthMm: number) => {
      show(SOLVED, lengthMm)
      const seconds = Number(/, (\d+) s for this edge/.exec(document.body.textContent ?? '')?.[1])
      cleanup()
      return seconds
    }
    expect(told(1780) - told(700)).toBe(Math.round((2 * 1080) / 10.8))
  })
  it.each([
    ['cannot_reach', 'No gun of the shop gets this edge hot enough'],
    ['band_too_narrow', 'No way of moving these guns'],
    ['limit_below_band', 'The film’s limit lies below'],
  ] as const)('says why there is none: %s, and offers no sum that ends the same', (code, words) => {
    show({ kind: 'none', code })
    expect(document.body.textContent).toContain(words)
    expect(asks()).toBe(null)
  })
  it('is worked out for whoever asks while it is not there yet', () => {
    show(undefined)
    expect(asks()).not.toBe(null)
  })
})

describe('a seal in the guided round', () => {
  it('is answered by a word: no keypad, and the edge has it', () => {
    const start = handCar()
    let plan: Plan = start
    function Round() {
      const [shown, setShown] = useState(start)
      const edit = (change: (p: Plan) => Plan) =>
        setShown((was) => {
          plan = change(was)
          return plan
        })
      return <GuidedTape plan={shown} edit={edit} fmt={fmt} onClose={() => {}} />
    }
    render(<Round />)
    const more = screen.queryByRole('button', { name: 'Go on with every figure' })
    if (more) fireEvent.click(more)
    const seal = () => screen.queryByRole('group', { name: 'How the seal sits' })
    for (let i = 0; i < 60 && !seal(); i++) fireEvent.click(screen.getByRole('button', { name: 'Skip' }))
    expect(seal()).not.toBe(null)
    expect(screen.queryByRole('button', { name: '7' })).toBe(null)
    const said = screen.getByText(/^seal at the /).textContent ?? ''
    fireEvent.click(screen.getByRole('button', { name: 'loose takes 19 mm' }))
    const loose = plan.panels.flatMap((p) => p.edges.filter((e) => e.tightness === 'loose').map((e) => ({ p, e })))
    expect(loose.length).toBeGreaterThan(0)
    expect(loose.every(({ e }) => SEALS.includes(e.meets))).toBe(true)
    expect(said).toBe(`seal at the ${loose[0]?.e.id} edge`)
  })
})
