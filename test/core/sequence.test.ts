import { describe, expect, it } from 'vitest'
import { reckon } from '@/core/reckon/reckon'
import { runSequence, stepIn } from '@/core/reckon/sequence'
import { catalogue, handCar, row, withPanel } from '../fixtures/plans'

interface Sums {
  a: number
  b: number
  doubled: { value: number }
  both: { value: number }
}
const step = stepIn<Sums>()

describe('a computation as a list of steps', () => {
  const ran: string[] = []
  const steps = [
    step('doubled', ['a'], ({ a }) => (ran.push('doubled'), { value: 2 * a })),
    step('both', ['doubled', 'b'], ({ doubled, b }) => (ran.push('both'), { value: doubled.value + b })),
  ]
  it('runs each in order, with what was made before it', () => {
    expect(runSequence<Sums, 'a' | 'b'>({ a: 3, b: 1 }, steps).both.value).toBe(7)
    expect(ran).toEqual(['doubled', 'both'])
  })
  it('takes over what hangs on nothing that changed, and does again what does', () => {
    const first = runSequence<Sums, 'a' | 'b'>({ a: 3, b: 1 }, steps)
    ran.length = 0
    const second = runSequence<Sums, 'a' | 'b'>({ a: 3, b: 2 }, steps, first)
    expect(ran).toEqual(['both'])
    expect(second.doubled).toBe(first.doubled)
    expect(second.both.value).toBe(8)
    ran.length = 0
    const third = runSequence<Sums, 'a' | 'b'>({ a: 3, b: 2 }, steps, second)
    expect(ran).toEqual([])
    expect(third.both).toBe(second.both)
  })
})

describe('a reckoning after another', () => {
  const plan = withPanel(handCar(), 'door', () => ({ crownMm: 12, crownOverMm: 600 }))
  const first = reckon(plan, catalogue, [])
  it('is the same as one from nothing, whatever changed', () => {
    const others = [
      { plan: withPanel(plan, 'bonnet', () => ({ widthMm: 1500 })), catalogue, ledger: [] },
      { plan, catalogue: { ...catalogue, now: '2026-12-01T09:00' }, ledger: [] },
      { plan, catalogue, ledger: [row({ kind: 'step_done', stepId: 'wash' })] },
      { plan: { ...plan, film: { mainId: null, sheets: [] } }, catalogue, ledger: [] },
    ]
    for (const o of others) {
      const anew = reckon(o.plan, o.catalogue, o.ledger)
      const after = reckon(o.plan, o.catalogue, o.ledger, first)
      expect([...after.figures.values()]).toEqual([...anew.figures.values()])
      expect(after.findings).toEqual(anew.findings)
      expect(after.stages).toEqual(anew.stages)
      expect(after.steps).toEqual(anew.steps)
    }
  })
  it('lays no film out anew because the clock went on, nor solves stretch for an entry of the bay', () => {
    const later = reckon(plan, { ...catalogue, now: '2026-12-01T09:00' }, first.parts.ledger, first)
    expect(later.layouts).toBe(first.layouts)
    expect(later.parts.stretch).toBe(first.parts.stretch)
    const logged = reckon(plan, catalogue, [row({ kind: 'step_done', stepId: 'wash' })], first)
    expect(logged.parts.stretch).toBe(first.parts.stretch)
    expect(logged.parts.cutting).toBe(first.parts.cutting)
    expect(logged.steps.find((s) => s.id === 'wash')?.state).toBe('done')
  })
})
