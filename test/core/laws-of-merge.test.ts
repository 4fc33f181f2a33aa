import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { changesOnly, mergePlans, planEdits } from '@/core/model/plan/merge'
import { applyChange, type PlanChange } from '@/core/model/plan/plan-change'
import { Plan } from '@/core/model/plan/schema'
import { may, planPartsOf, ROLES, savingRight } from '@/core/model/rights/rights'
import { film, handCar, withPanel } from '../fixtures/plans'

/** Changes that two people make; each touches the part that it names. */
const EDITS: { part: string; by: (n: number) => (plan: Plan) => Plan }[] = [
  { part: 'bonnet', by: (n) => (p) => withPanel(p, 'bonnet', () => ({ widthMm: 1300 + n })) },
  { part: 'door', by: (n) => (p) => withPanel(p, 'door', () => ({ note: `note ${n}` })) },
  { part: 'wing', by: (n) => (p) => withPanel(p, 'wing', () => ({ crownMm: n, crownOverMm: 500 })) },
  { part: 'bleed', by: (n) => (p) => ({ ...p, method: { ...p.method, bleedMm: 20 + n } }) },
  { part: 'arch', by: () => (p) => ({ ...p, method: { ...p.method, wheelArch: 'flush' } }) },
  { part: 'crew', by: (n) => (p) => ({ ...p, runSheet: { ...p.runSheet, crew: 1 + (n % 6) } }) },
  { part: 'skip wash', by: () => (p) => ({ ...p, runSheet: { ...p.runSheet, skip: [...p.runSheet.skip, 'wash'] } }) },
  {
    part: 'do mask',
    by: () => (p) => ({ ...p, runSheet: { ...p.runSheet, skip: p.runSheet.skip.filter((s) => s !== 'mask') } }),
  },
  {
    part: 'minutes of the door',
    by: (n) => (p) => ({ ...p, runSheet: { ...p.runSheet, minutes: { ...p.runSheet.minutes, 'lay:door': n } } }),
  },
  {
    part: 'lock of the bonnet',
    by: (n) => (p) => ({ ...p, runSheet: { ...p.runSheet, locks: { 'lay:bonnet': `2031-03-03T09:${10 + n}` } } }),
  },
  {
    part: 'gap on the roll',
    by: (n) => (p) => ({ ...p, layout: { ...p.layout, gapMm: n } }),
  },
  {
    part: 'where film comes from',
    by: (n) => (p) => ({ ...p, layout: { ...p.layout, sources: [{ filmId: 'fen-satin', source: `new:${n}` }] } }),
  },
  { part: 'note', by: (n) => (p) => ({ ...p, note: `${n}` }) },
  {
    part: 'piece',
    by: (n) => (p) => applyChange(p, { kind: 'piece', panelId: 'door', set: { bleedMm: 10 + n } }),
  },
]
const edit = fc
  .record({ at: fc.integer({ min: 0, max: EDITS.length - 1 }), n: fc.integer({ min: 1, max: 40 }) })
  .map(({ at, n }) => ({ part: EDITS[at]?.part ?? '', apply: EDITS[at]?.by(n) ?? ((p: Plan) => p) }))
const sound = (plan: unknown) => JSON.stringify(Plan.parse(plan))
const merged = (base: Plan, mine: Plan, theirs: Plan): Plan => {
  const out = mergePlans(base, mine, theirs)
  if (!out.clean) throw new Error(out.clashes.map((c) => c.part).join())
  return out.plan
}

describe('merging two plans', () => {
  const fresh = handCar()
  const base: Plan = { ...fresh, runSheet: { ...fresh.runSheet, skip: ['mask'], minutes: { wash: 20 } } }
  it('with nobody else is one’s own plan; with nothing of one’s own it is theirs', () => {
    fc.assert(
      fc.property(edit, ({ apply }) => {
        const changed = apply(base)
        expect(sound(merged(base, changed, base))).toBe(sound(changed))
        expect(sound(merged(base, base, changed))).toBe(sound(changed))
        expect(sound(merged(base, changed, changed))).toBe(sound(changed))
      }),
    )
  })
  it('of different parts is the same whoever comes first, and holds both changes', () => {
    fc.assert(
      fc.property(edit, edit, (a, b) => {
        fc.pre(a.part !== b.part)
        const [mine, theirs] = [a.apply(base), b.apply(base)]
        const one = merged(base, mine, theirs)
        expect(sound(one)).toBe(sound(merged(base, theirs, mine)))
        expect(sound(one)).toBe(sound(b.apply(a.apply(base))))
      }),
    )
  })
  it('merged once more with what it was made of changes nothing', () => {
    fc.assert(
      fc.property(edit, edit, (a, b) => {
        fc.pre(a.part !== b.part)
        const [mine, theirs] = [a.apply(base), b.apply(base)]
        const one = merged(base, mine, theirs)
        expect(sound(merged(theirs, one, theirs))).toBe(sound(one))
        expect(sound(merged(mine, mine, one))).toBe(sound(one))
      }),
    )
  })
  it('of three people’s changes the order of arrival does not matter', () => {
    fc.assert(
      fc.property(edit, edit, edit, (a, b, c) => {
        fc.pre(new Set([a.part, b.part, c.part]).size === 3)
        const [x, y, z] = [a, b, c].map((e) => e.apply(base)) as [Plan, Plan, Plan]
        const left = merged(base, merged(base, x, y), z)
        const right = merged(base, x, merged(base, y, z))
        expect(sound(left)).toBe(sound(right))
      }),
    )
  })
  it('a clash names the part, and is settled for the side that is preferred', () => {
    const mine = { ...base, note: 'mine' }
    const theirs = { ...base, note: 'theirs' }
    const out = mergePlans(base, mine, theirs)
    expect(out).toMatchObject({ clean: false, clashes: [{ part: 'note', mine: 'mine', theirs: 'theirs' }] })
    for (const prefer of ['mine', 'theirs'] as const) {
      const settled = mergePlans(base, mine, theirs, { prefer })
      expect(settled.clean && settled.plan.note).toBe(prefer)
    }
  })
  it('figures of one panel that differ go together; the same figure clashes', () => {
    const mine = withPanel(base, 'bonnet', () => ({ crownMm: 25 }))
    const theirs = withPanel(base, 'bonnet', () => ({ note: 'stone chips' }))
    const bonnet = merged(base, mine, theirs).panels.find((p) => p.id === 'bonnet')
    expect(bonnet).toMatchObject({ crownMm: 25, note: 'stone chips' })
    const other = withPanel(base, 'bonnet', () => ({ crownMm: 30 }))
    expect(mergePlans(base, mine, other).clean).toBe(false)
  })
  it('two who lock, skip or time different steps, or set different choices of a method, are not in each other’s way', () => {
    const sheet = (over: Partial<Plan['runSheet']>): Plan => ({ ...base, runSheet: { ...base.runSheet, ...over } })
    const mine = sheet({ locks: { wash: '2031-03-03T08:00' }, skip: ['mask', 'dry'], minutes: {} })
    const theirs = sheet({ locks: { dry: '2031-03-03T09:00' }, skip: [], minutes: { wash: 20, dry: 12 } })
    expect(merged(base, mine, theirs).runSheet).toMatchObject({
      locks: { wash: '2031-03-03T08:00', dry: '2031-03-03T09:00' },
      skip: ['dry'],
      minutes: { dry: 12 },
    })
    expect(mergePlans(base, mine, sheet({ locks: { wash: '2031-03-04T08:00' } })).clean).toBe(false)
    // What one took away and the other changed is asked about.
    expect(mergePlans(base, mine, sheet({ minutes: { wash: 25 } })).clean).toBe(false)
  })
  it('what changed is listed part by part, and nothing else', () => {
    fc.assert(
      fc.property(edit, ({ apply }) => {
        const changed = apply(base)
        const edits = planEdits(base, changed)
        expect(edits.length > 0).toBe(sound(changed) !== sound(base))
        expect(planEdits(changed, changed)).toEqual([])
      }),
    )
  })
})

describe('what a role may press', () => {
  const base = handCar()
  const tape: PlanChange = { kind: 'panel', panelId: 'door', set: { wrap: false } }
  it('it may do, and nothing else: by the one table that page and server both ask', () => {
    for (const role of ROLES) {
      expect(may(role, savingRight(role)), role).toBe(true)
      const parts = planPartsOf(role)
      const changed = [
        { part: 'panels', plan: applyChange(base, tape) },
        { part: 'walkaround', plan: { ...base, walkaround: { ...base.walkaround, note: 'scratch' } } },
        { part: 'method', plan: { ...base, method: { ...base.method, bleedMm: 33 } } },
        { part: 'film', plan: applyChange(base, { kind: 'film', panelId: 'door', sheet: film('dusk-shift') }) },
        { part: 'layout', plan: { ...base, layout: { ...base.layout, gapMm: 4 } } },
        { part: 'runSheet', plan: { ...base, runSheet: { ...base.runSheet, crew: 4 } } },
      ]
      for (const { part, plan } of changed) {
        const allowed = parts === null || parts.includes(part)
        // A film on a panel changes the panel too: both have to be allowed.
        const need = part === 'film' ? parts === null : allowed
        expect(parts === null || changesOnly(base, plan, parts), `${role} ${part}`).toBe(need)
      }
    }
  })
  it('an owner may all that anybody may; nobody from outside may anything', () => {
    const rights = ['plan', 'newJob', 'log', 'stock', 'people', 'read', 'tape', 'fleet', 'scan', 'table'] as const
    for (const right of rights) {
      expect(may('owner', right), right).toBe(true)
      expect(may('visitor', right)).toBe(false)
      expect(may('__proto__', right)).toBe(false)
    }
    expect(ROLES.filter((role) => may(role, 'people'))).toEqual(['owner'])
    expect(may('installer', 'plan') || may('desk', 'log')).toBe(false)
  })
})
