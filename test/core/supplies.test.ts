import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { packsFor, supplyList } from '@/core/engines/edge/supply-list'
import { readCatalogue, writeCatalogue } from '@/core/model/catalogue/files'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import type { LogRow } from '@/core/model/log/schema'
import { Plan } from '@/core/model/plan/schema'
import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { DEMO_SETTINGS } from '@/db/demo/people'
import { formatter } from '@/web/words/format'
import { findingText } from '@/web/words/findings'
import { catalogue, choiceOf, row } from '../fixtures/plans'

const hatch = Plan.parse(DEMO_JOBS[0]?.make())
const shop = { ...DEFAULT_SHOP, supplies: DEMO_SETTINGS.supplies }
const at = (supplies: Catalogue['supplies'], ledger: LogRow[] = [], plan = hatch) =>
  reckon(plan, { ...catalogue, shop, ...(supplies ? { supplies } : {}) }, ledger)
const line = (r: ReturnType<typeof at>, kind: string) => {
  const found = r.supplies.find((l) => l.kind === kind)
  if (!found) throw new Error(`no ${kind}`)
  return found
}
const used = (of: 'filament' | 'masking', amount: number) =>
  row({ kind: 'consumable_used', of, amount }, '2026-11-24T10:00:00.000Z')

describe('packs to order', () => {
  it('the fewest that leave what is kept at least: held to the slow way, one pack after the other', () => {
    const amount = fc.integer({ min: 0, max: 400 }).map((n) => n / 4)
    fc.assert(
      fc.property(
        amount,
        amount,
        amount,
        amount,
        fc.integer({ min: 1, max: 60 }),
        (needed, used, least, shelf, pack) => {
          let packs = 0
          while (shelf + packs * pack < Math.max(0, needed - used) + least) packs++
          expect(packsFor({ needed, used, least, shelf, pack })).toBe(packs)
        },
      ),
    )
  })
})

describe('supplies of a job against the shelf', () => {
  it('a tape that is short is told with what to order; what is enough is not; what is not counted says so', () => {
    const r = at({ masking: 2, blades: 500 })
    const masking = line(r, 'masking')
    expect(masking.needed).toBeGreaterThan(2)
    const told = r.findings.filter((f) => f.code === 'supply_short')
    expect(told.map((f) => f.facts.supply)).toEqual(['masking'])
    expect(masking.packs).toBe(Math.ceil((masking.needed + 50 - 2) / 50))
    expect(line(r, 'blades')).toMatchObject({ packs: 0, cost: 0 })
    expect(line(r, 'felts')).toMatchObject({ shelf: null, packs: null, cost: null })
    const fmt = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
    expect(told[0] && findingText(told[0], fmt)).toMatch(
      /^Masking tape: \d+\.\d+ m needed, 2\.00 m on the shelf\. Order/,
    )
  })

  it('what was used is no longer needed: the shelf is lower by as much, and the order stays what it was', () => {
    const before = line(at({ masking: 20 }), 'masking')
    const after = line(at({ masking: 15 }, [used('masking', 5)]), 'masking')
    expect(after.used).toBe(5)
    expect(after.packs).toBe(before.packs)
    // More used than was planned leaves nothing open.
    expect(line(at({ masking: 60 }, [used('masking', 900)]), 'masking').packs).toBe(0)
  })

  it('a seam 1.2 m longer takes 1.2 m of filament more, and its end to pull by', () => {
    const bonnet = hatch.panels.find((p) => p.id === 'bonnet')
    if (!bonnet) throw new Error('no bonnet')
    const seamed = (widthMm: number): Plan => ({
      ...hatch,
      panels: hatch.panels.map((p) => (p.id === 'bonnet' ? { ...p, widthMm } : p)),
      pieces: [
        ...hatch.pieces.filter((c) => c.panelId !== 'bonnet'),
        { ...choiceOf(hatch, 'bonnet'), parts: 2, along: 'height', seamsAtMm: [] },
      ],
    })
    const filament = (plan: Plan) => reckon(plan, catalogue, []).edges.tapes.filter((t) => t.edgeId === null)
    const [a] = filament(seamed(bonnet.widthMm))
    const [b] = filament(seamed(bonnet.widthMm + 1200))
    expect((b?.lengthMm ?? 0) - (a?.lengthMm ?? 0)).toBeCloseTo(1200, 6)
  })

  it('every order has its working, and all of them their sum', () => {
    const { figures, supplies } = at({ filament: 0, masking: 0, blades: 0, felts: 0, alcohol: 0 })
    const ordered = supplies.filter((l) => l.packs !== null)
    expect(ordered.length).toBeGreaterThan(3)
    let sum = 0
    for (const l of ordered) {
      expect(figures.get(`supply/${l.kind}/order`)?.value).toBe(l.packs)
      expect(figures.get(`supply/${l.kind}/cost`)?.value).toBeCloseTo((l.packs ?? 0) * l.price, 9)
      sum += l.cost ?? 0
    }
    expect(Number(figures.get('supply/all/cost')?.value)).toBeCloseTo(sum, 9)
  })

  it('a log of something that no edge asks for is listed as used', () => {
    const lines = supplyList([], 0, [used('filament', 2)], { supplies: {}, levels: {} })
    expect(lines).toMatchObject([{ kind: 'filament', needed: 0, used: 2, shelf: null, packs: null }])
  })

  it('levels go with the catalogue’s file, and an old file without them is read', () => {
    const file = writeCatalogue({ ...catalogue, supplies: { filament: 7.5 } }, [])
    const read = readCatalogue(file)
    expect(read.ok && read.value.supplies).toEqual({ filament: 7.5 })
    const old = readCatalogue(writeCatalogue(catalogue, []))
    expect(old.ok && old.value.supplies).toBeUndefined()
    expect(readCatalogue(file.replace('7.5', '"many"')).ok).toBe(false)
  })
})
