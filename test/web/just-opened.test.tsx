import { beforeEach, describe, expect, it, vi } from 'vitest'
import { reckon } from '@/core/reckon/reckon'
import { NO_SOLUTIONS } from '@/core/model/catalogue/solution-tables'
import { catalogue, handCar } from '../fixtures/plans'

/** A page of which nothing is loaded yet but itself. */
async function justOpened(start: Parameters<typeof import('../fixtures/open-job').openJob>[1] = {}) {
  const [{ act }, { openJob }, late] = await Promise.all([
    import('@testing-library/react'),
    import('../fixtures/open-job'),
    import('@/web/job/late-parts'),
  ])
  const before = { solvers: late.lateSolvers.now(), checks: late.lateChecks.now() }
  const open = await act(async () => {
    const job = openJob(null, start)
    await late.lateSolvers.load()
    return job
  })
  return { act, open, late, before }
}

describe('a page just opened', () => {
  beforeEach(() => vi.resetModules())

  it('of a job with nothing solved waits for the solvers, and reckons as if they had been there', async () => {
    const unsolved = { ...catalogue, solutions: NO_SOLUTIONS }
    const { open, before } = await justOpened({ catalogue: unsolved })
    expect(before).toEqual({ solvers: null, checks: null })
    const values = (of: ReturnType<typeof reckon>) => [...of.figures.values()].map((f) => [f.id, f.value, f.unit])
    expect(values(open.job().reckoning)).toEqual(values(reckon(handCar(), unsolved, [])))
  })

  it('takes an entry before the checks are there: none is lost', async () => {
    const { open, before } = await justOpened({ role: 'installer' })
    expect(before.checks).toBeNull()
    open.log({ kind: 'note', text: 'The left wing was repainted' })
    expect(open.logged()).toEqual([{ kind: 'note', text: 'The left wing was repainted' }])
    expect(open.job().logFault).toBeNull()
  })

  it('says what is wrong with an entry once they are', async () => {
    const { act, open, late } = await justOpened({ role: 'installer' })
    await act(() => late.lateChecks.load())
    open.log({ kind: 'note', text: ' ' })
    expect(open.logged()).toEqual([])
    expect(open.job().logFault).toMatchObject({ code: 'too_small', at: 'text' })
  })

  it('keeps a typed figure that the schema refuses from being saved', async () => {
    const { act, open } = await justOpened()
    const saved = open.job().plan.panels[0]?.widthMm
    await act(async () => {
      open.job().edit((plan) => ({
        ...plan,
        panels: plan.panels.map((p, i) => (i === 0 ? { ...p, widthMm: -5 } : p)),
      }))
      await vi.waitFor(() => expect(open.job().held).toHaveLength(1), 3000)
    })
    expect(open.job().held[0]?.place).toMatch(/widthMm$/)
    expect(open.job().reckoned.panels[0]?.widthMm).toBe(saved)
  })
})
