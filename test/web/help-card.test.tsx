import { describe, expect, it } from 'vitest'
import { troubleOf, type DefectKind } from '@/core/model/log/trouble-data'
import { DEFECT_KINDS } from '@/core/model/log/kinds'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { formatter } from '@/web/words/format'
import { CAUTIONS, stepHint, stepTitle } from '@/web/words/steps'
import { FIRST, NOT } from '@/web/words/trouble'
import { catalogue } from '../fixtures/plans'

const fmt = formatter({ lengthUnit: 'in', tempUnit: 'F', locale: 'en-US', currency: 'USD', timeZone: 'UTC' })
const jobs = DEMO_JOBS.map((j) => Plan.parse(j.make()))

describe('what the help of a step is made of', () => {
  it('every step of every demo job, by each school, has a name, a hint and its cautions in words', () => {
    for (const plan of jobs)
      for (const tension of ['relax_first', 'triangles', 'rim_shrunk'] as const) {
        const { steps } = reckon({ ...plan, method: { ...plan.method, tension } }, catalogue, [])
        for (const s of steps) {
          expect(stepTitle(s), s.id).not.toMatch(/_|undefined/)
          expect(stepHint(s, fmt), s.id).not.toMatch(/undefined|NaN|\[object/)
          if (s.code !== 'own') expect(stepHint(s, fmt).length, s.id).toBeGreaterThan(5)
          for (const c of s.cautions) expect(CAUTIONS[c], `${s.id}: ${c}`).toBeDefined()
        }
      }
  })

  it('a rough cut-out and a shaping range are said in the member’s units', () => {
    const hints = jobs.flatMap((plan) =>
      reckon(plan, catalogue, [])
        .steps.filter((s) => s.code === 'lay' && Number(s.facts.rough ?? 0) > 0)
        .map((s) => stepHint(s, fmt)),
    )
    expect(hints.length).toBeGreaterThan(0)
    for (const hint of hints) {
      expect(hint).toMatch(/Rough cut-outs first, liner on: [\d /]+″ left/)
      expect(hint).not.toMatch(/\d ?mm|°C/)
    }
  })

  it('each defect has a first answer in words, and what not to do where there is something', () => {
    for (const kind of DEFECT_KINDS as readonly DefectKind[])
      for (const airRelease of ['channels', 'none'] as const) {
        const { first, not } = troubleOf(kind, { airRelease })
        expect(FIRST[first], kind).toBeDefined()
        if (not) expect(NOT[not], kind).toBeDefined()
      }
  })
})
