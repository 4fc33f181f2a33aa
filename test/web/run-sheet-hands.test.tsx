import 'fake-indexeddb/auto'
import { cleanup, fireEvent, screen, within } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import type { Plan } from '@/core/model/plan/schema'
import { RunSheet } from '@/web/run-sheet/run-sheet'
import { stepTitle } from '@/web/words/steps'
import { stubBrowser } from '../fixtures/browser'
import { openJob } from '../fixtures/open-job'
import { handCar, row } from '../fixtures/plans'
import { button, tap, type } from '../fixtures/press'

vi.mock('@/web/actions/jobs', () => ({ saveJob: () => new Promise(() => {}), takeBackChange: vi.fn() }))
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/run-sheet',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh: () => {}, replace: () => {} }),
}))
vi.stubGlobal('fetch', async () => new Response('{}', { status: 503 }))
stubBrowser()
afterEach(cleanup)

const MONDAY = '2026-11-23T08:00'
const dated = (over: Partial<Plan['runSheet']> = {}): Plan => {
  const plan = handCar()
  return { ...plan, runSheet: { ...plan.runSheet, startAt: MONDAY, ...over } }
}
const open = (plan = dated(), over: Parameters<typeof openJob>[1] = {}) => openJob(<RunSheet />, { plan, ...over })
const step = (o: ReturnType<typeof open>, id: string) => {
  const found = o.job().reckoning.steps.find((s) => s.id === id)
  if (!found) throw new Error(id)
  return found
}

describe('minutes of a step', () => {
  it('typed they stand in place of the rules, which stay in sight; emptied, the rules are back', () => {
    const o = open()
    const wash = step(o, 'wash')
    type(`Minutes, ${stepTitle(wash)}`, String(wash.minutes + 25))
    expect(o.job().plan.runSheet.minutes).toEqual({ wash: wash.minutes + 25 })
    expect(step(o, 'wash')).toMatchObject({ minutes: wash.minutes + 25, minutesByRule: wash.minutes })
    expect(document.body.textContent).toContain(`by the rules ${wash.minutes} min`)
    type(`Minutes, ${stepTitle(wash)}`, '')
    expect(o.job().plan.runSheet.minutes).toEqual({})
    expect(step(o, 'wash').minutes).toBe(wash.minutes)
  })
  it('count in the crew’s time by as much', () => {
    const o = open()
    const wash = step(o, 'wash')
    const sum = () => o.job().reckoning.steps.reduce((n, s) => n + s.minutes * s.people, 0)
    const before = sum()
    type(`Minutes, ${stepTitle(wash)}`, String(wash.minutes + 30))
    expect(sum() - before).toBe(30 * wash.people)
  })
  it.each(['-5', '6001', 'long'])('%s is no time: the plan stays as it was', (text) => {
    const o = open()
    type(`Minutes, ${stepTitle(step(o, 'wash'))}`, text)
    expect(o.job().plan.runSheet.minutes).toEqual({})
  })
})

describe('a step left out', () => {
  it('is in its own list, and done after all it is back at its place', () => {
    const o = open()
    const before = plannedSteps(o.job().reckoning.steps).map((s) => s.id)
    fireEvent.click(screen.getByRole('checkbox', { name: `Do ${stepTitle(step(o, 'wash'))}` }))
    expect(o.job().plan.runSheet.skip).toEqual(['wash'])
    expect(plannedSteps(o.job().reckoning.steps).map((s) => s.id)).toEqual(before.filter((id) => id !== 'wash'))
    const left = screen.getByRole('region', { name: 'Left out' })
    expect(left.textContent).toContain(stepTitle(step(o, 'wash')))
    fireEvent.click(within(left).getByRole('button', { name: 'Do it after all' }))
    expect(o.job().plan.runSheet.skip).toEqual([])
    expect(plannedSteps(o.job().reckoning.steps).map((s) => s.id)).toEqual(before)
  })
})

describe('a step of one’s own', () => {
  it('comes after the one it was put after, counts, and can be taken out', () => {
    const o = open()
    const n = plannedSteps(o.job().reckoning.steps).length
    expect(button('Add').disabled).toBe(true)
    type('Step of your own', '  Polish the sills ')
    type('Minutes of your own step', '40')
    type('After', 'wash')
    tap('Add')
    const [own] = o.job().plan.runSheet.own
    expect(own).toMatchObject({ name: 'Polish the sills', minutes: 40, after: 'wash', people: 1 })
    const ids = plannedSteps(o.job().reckoning.steps).map((s) => s.id)
    expect(ids.length).toBe(n + 1)
    expect(ids.indexOf(own?.id ?? '')).toBe(ids.indexOf('wash') + 1)
    expect(step(o, own?.id ?? '').minutes).toBe(40)
    tap('Take it out')
    expect(plannedSteps(o.job().reckoning.steps).length).toBe(n)
  })
  it('two of one name are two steps', () => {
    const o = open()
    for (let k = 0; k < 2; k++) {
      type('Step of your own', 'Look again')
      tap('Add')
    }
    const ids = o.job().plan.runSheet.own.map((s) => s.id)
    expect(new Set(ids).size).toBe(2)
  })
})

describe('a lock', () => {
  const lockOf = (o: ReturnType<typeof open>, id: string) => o.job().plan.runSheet.locks[id]
  it('holds a step to the moment at which it stands; taken away the step is free', () => {
    const o = open()
    const title = stepTitle(step(o, 'wash'))
    const stood = o.job().reckoning.schedule?.times.get('wash')?.from
    tap(new RegExp(`^Lock ${title} to `))
    expect(lockOf(o, 'wash')).toBe(stood)
    expect(o.job().reckoning.schedule?.times.get('wash')?.from).toBe(stood)
    expect(document.body.textContent).toContain('locked to ')
    const [clear] = screen
      .getAllByRole('button', { name: /close|clear/i })
      .filter((b) => b.closest('.step-lock') !== null)
    if (!clear) throw new Error('it cannot be cleared')
    fireEvent.click(clear)
    expect(lockOf(o, 'wash')).toBeUndefined()
  })
  it('that cannot be held is said to be one, and so is one whose moment went by', () => {
    // Nobody works at night.
    open(dated({ locks: { mask: '2026-11-24T02:00' } }))
    expect(document.body.textContent).toContain('cannot be held to ')
    cleanup()
    // Nothing begins before the car is there.
    open(dated({ locks: { wash: '2026-11-20T08:00' } }))
    expect(document.body.textContent).toContain('was locked to Fri 20 Nov, 08:00, which is past')
  })
  it('is not offered for what is done', () => {
    const o = open(dated(), {
      ledger: [
        row({ kind: 'step_started', stepId: 'wash' }, '2026-11-23T08:00:00.000Z'),
        row({ kind: 'step_done', stepId: 'wash' }, '2026-11-23T08:40:00.000Z'),
      ],
    })
    const offered = (id: string) =>
      screen.queryByRole('button', { name: new RegExp(`^Lock ${stepTitle(step(o, id))} to `) })
    expect(offered('wash')).toBeNull()
    expect(offered('mask')).not.toBeNull()
  })
})

describe('what the times hang on', () => {
  it('a crew twice as large is ready no later', () => {
    const o = open(dated({ crew: 1 }))
    const alone = o.job().reckoning.schedule?.readyAt ?? ''
    type('Crew', '2')
    expect(o.job().plan.runSheet.crew).toBe(2)
    expect((o.job().reckoning.schedule?.readyAt ?? '') <= alone).toBe(true)
    expect(alone).not.toBe('')
  })
  it('a slower pace is ready no earlier, and takes longer', () => {
    const o = open()
    const before = o.job().reckoning.schedule?.readyAt ?? ''
    const work = () => o.job().reckoning.figures.get('rail/crew_minutes')?.value
    const minutes = Number(work())
    type('Pace', '2')
    expect(o.job().plan.runSheet.paceFactor).toBe(2)
    expect((o.job().reckoning.schedule?.readyAt ?? '') >= before).toBe(true)
    expect(Number(work())).toBeGreaterThan(minutes)
  })
  it.each([
    ['Crew', '0', 'crew'],
    ['Crew', '13', 'crew'],
    ['Pace', '0.4', 'paceFactor'],
    ['Pace', '7', 'paceFactor'],
  ] as const)('%s of %s is not taken', (label, text, key) => {
    const o = open()
    const before = o.job().plan.runSheet[key]
    type(label, text)
    expect(o.job().plan.runSheet[key]).toBe(before)
  })
  it('without a start there are steps and minutes, and no day', () => {
    open(handCar())
    expect(screen.getByRole('region', { name: 'Steps' })).toBeTruthy()
    expect(document.body.textContent).not.toContain('that decide when the car is ready')
  })
  it('days are in their order, each step on the day on which it begins', () => {
    const o = open()
    const times = o.job().reckoning.schedule?.times
    const days = new Set(plannedSteps(o.job().reckoning.steps).map((s) => times?.get(s.id)?.from.slice(0, 10)))
    const names = [...days].sort().map((d) => o.job().fmt.day(d ?? ''))
    const shown = screen.getAllByRole('region').map((s) => s.getAttribute('aria-label') ?? '')
    expect(shown.filter((s) => names.includes(s))).toEqual(names)
  })
})

describe('a panel’s steps', () => {
  it('are one row that opens to its parts, and folds again', () => {
    const o = open()
    const rows = () => screen.getAllByRole('row').length
    const before = rows()
    const parts = plannedSteps(o.job().reckoning.steps).filter((s) => s.panelId === 'door').length
    expect(parts).toBeGreaterThan(1)
    const door = () => fireEvent.click(screen.getByText(/Door/, { selector: 'button.row-pick' }))
    door()
    expect(rows()).toBe(before + parts)
    door()
    expect(rows()).toBe(before)
    tap('Open panels')
    expect(rows()).toBeGreaterThan(before + parts)
    tap('Fold panels')
    expect(rows()).toBe(before)
  })
})

describe('who may', () => {
  it('an installer sees it all and changes nothing of the plan', () => {
    const o = open(dated(), { role: 'installer' })
    for (const field of screen.getAllByLabelText<HTMLInputElement>(/^Minutes, /)) expect(field.disabled).toBe(true)
    for (const box of screen.getAllByRole<HTMLInputElement>('checkbox')) expect(box.disabled).toBe(true)
    expect(screen.queryByRole('button', { name: /^Lock / })).toBeNull()
    expect(screen.getByRole('group', { name: 'Own step' })).toHaveProperty('disabled', true)
    expect(o.job().mayPlan).toBe(false)
  })
})
