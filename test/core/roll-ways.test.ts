import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { StockItem } from '@/core/model/film/schema'
import type { LogRow } from '@/core/model/log/schema'
import { type Plan, Plan as PlanSchema } from '@/core/model/plan/schema'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { applyChange } from '@/core/model/plan/plan-change'
import { reckon } from '@/core/reckon/reckon'
import { obstacle } from '@/core/engines/roll/arrange'
import { cutPieces, takenOff, withoutUndoneCuts } from '@/core/model/log/cut-pieces'
import { cutEntry, cutKey, cutsMade, machineEntry, machineKey } from '@/core/engines/roll/cutting'
import { dropPlan, type DropTask } from '@/core/engines/pieces/drops'
import { fleetInput } from '@/core/engines/roll/fleet'
import { bandLengths, damageFromEnd, type FilmLayout } from '@/core/engines/roll/film-layout'
import { layOutFilm } from '@/core/engines/roll/layout-solver'
import { seeded } from '@/core/kit/random'
import type { Offcut } from '@/core/engines/roll/cuts'
import { freeRooms } from '@/core/engines/roll/free-rooms'
import { restsOf } from '@/core/engines/roll/rests'
import { clash } from '@/core/engines/roll/clash'
import { moved, onRoll, pieceAreaMm2 } from '@/core/engines/pieces/shape'
import { shareLots } from '@/core/engines/roll/zones'
import { polygonAreaMm2 } from '@/core/kit/plane'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { film, handCar, row } from '../fixtures/plans'

const stock = (id: string, over: Partial<StockItem>): StockItem => ({
  id,
  filmId: 'fen-satin',
  kind: 'roll',
  label: id.toUpperCase(),
  lot: 'L1',
  widthMm: 1520,
  leftMm: 25000,
  damage: [],
  strips: [],
  ...over,
})
const hatch = (): Plan => PlanSchema.parse(DEMO_JOBS[0]?.make())
const lay = (plan: Plan, shelf: StockItem[] = [], ledger: LogRow[] = []) => {
  const r = reckon(plan, { ...EMPTY_CATALOGUE, stock: shelf }, ledger)
  return { r, layout: r.layouts[0] as FilmLayout }
}
const layoutOf = (plan: Plan, over: Partial<Plan['layout']>): Plan => ({ ...plan, layout: { ...plan.layout, ...over } })

describe('two lots', () => {
  const plan = hatch()
  const { layout: whole } = lay(plan)
  const half = Math.ceil(whole.usedMm * 0.62)
  const shelf = [stock('a', { leftMm: half, lot: 'L1' }), stock('b', { leftMm: half, lot: 'L2' })]
  it('are never taken unasked, but stand beside the other ways, after all that take one', () => {
    const { layout } = lay(plan, shelf)
    expect(layout.source?.kind).toBe('new')
    const kinds = layout.sources.filter((s) => s.covers).map((s) => s.kind)
    expect(kinds).toContain('join')
    expect(kinds.lastIndexOf('new')).toBeLessThan(kinds.indexOf('join'))
  })
  it('taken, each side of the vehicle is of one lot, and the plan says where they meet', () => {
    const named = layoutOf(plan, { sources: [{ filmId: 'fen-satin', source: 'join:L1+L2' }], reserve: false })
    const { layout, r } = lay(named, shelf)
    expect(layout.source?.id).toBe('join:L1+L2')
    expect(layout.unplaced).toEqual([])
    const lotOf = new Map(layout.rolls.flatMap((x) => x.placements.map((p) => [p.pieceId, x.stock?.lot] as const)))
    expect(lotOf.size).toBe(layout.pieces.length)
    for (const side of ['left', 'right'] as const) {
      const bodies = plan.panels.filter((p) => p.side === side && !['mirror', 'handle', 'fuel_flap'].includes(p.kind))
      expect(
        new Set(layout.pieces.filter((p) => bodies.some((b) => b.id === p.panelId)).map((p) => lotOf.get(p.id))).size,
      ).toBe(1)
    }
    const said = r.findings.find((f) => f.code === 'lots_joined')
    expect(said?.facts.length_mm).toBe(layout.join?.lengthMm)
    expect(r.figures.get('roll/fen-satin/join')?.value).toBe(layout.join?.lengthMm)
  })
  it('the join is where it shows least: no other sharing out that fits shows less', () => {
    const { pieces } = whole
    const area = (list: readonly { acrossMm: number; alongMm: number }[]) =>
      list.reduce((s, p) => s + p.acrossMm * p.alongMm, 0)
    const total = area(pieces)
    const few = shareLots(plan, pieces, (lot, some) => area(some) <= total * (lot === 0 ? 0.7 : 0.7))
    const any = shareLots(plan, pieces, () => true)
    expect(few && any && few.lengthMm >= any.lengthMm).toBe(true)
    expect(shareLots(plan, pieces, () => false)).toBeNull()
  })
})

describe('damage on a roll', () => {
  it('is kept from its core end, so that cutting does not move it on the film', () => {
    const damage = [{ fromCoreMm: 3000, lengthMm: 500, note: '' }]
    expect(damageFromEnd(stock('a', { leftMm: 10_000, damage }))).toEqual([{ from: 6500, to: 7000 }])
    expect(damageFromEnd(stock('a', { leftMm: 8000, damage }))).toEqual([{ from: 4500, to: 5000 }])
    expect(damageFromEnd(stock('a', { leftMm: 3200, damage }))).toEqual([{ from: 0, to: 200 }])
    expect(damageFromEnd(stock('a', { leftMm: 2900, damage }))).toEqual([])
  })
  it('no piece lies on it, and none can be put there', () => {
    const plan = handCar()
    const item = stock('a', { leftMm: 9000, damage: [{ fromCoreMm: 7600, lengthMm: 120, note: '' }] })
    const { layout } = lay(plan, [item])
    const [span] = damageFromEnd(item)
    const roll = layout.rolls[0]
    if (!span || !roll) throw new Error('nothing laid')
    expect(layout.source?.kind).toBe('shelf')
    for (const p of roll.placements)
      expect(p.yMm >= span.to - 1e-6 || p.yMm + p.lengthMm <= span.from + 1e-6).toBe(true)
    const first = roll.placements[0]
    expect(first && obstacle(layout, plan, 'a', { ...first, yMm: span.from - 10 })?.code).toBe('on_damage')
  })
})

describe('the reserve', () => {
  it('is held against a lot on the shelf: one that leaves none does not cover all', () => {
    const plan = hatch()
    const { layout } = lay(plan)
    expect(layout.reserveMm).toBeGreaterThan(0)
    const used = layout.usedMm
    const tight = lay(plan, [stock('a', { leftMm: used + layout.reserveMm / 2 })]).layout.sources.find(
      (s) => s.kind === 'shelf',
    )
    expect(tight?.lacks === 'reserve' || tight?.lacks === 'pieces').toBe(true)
    const roomy = lay(plan, [stock('a', { leftMm: used * 1.2 + layout.reserveMm })]).layout
    expect(roomy.source).toMatchObject({ kind: 'shelf', lacks: 'nothing' })
  })
})

describe('a cut taken back', () => {
  const plan = handCar()
  const { layout } = lay(plan, [stock('a', {})])
  const roll = layout.rolls[0] as FilmLayout['rolls'][number]
  const [one, two] = roll.cutting.cuts.filter((c) => c.stage === 1)
  if (!one || !two) throw new Error('two cuts wanted')
  const made = [row(cutEntry(layout, roll, one, 'a')), row(cutEntry(layout, roll, two, 'a'))]
  it('stands no more: its pieces are not cut and its film is not used', () => {
    const back = [...made, row({ kind: 'cut_taken_back', cutKey: cutKey(layout, roll, two) })]
    expect([...cutsMade(back)]).toEqual([cutKey(layout, roll, one)])
    expect(takenOff(back).get('a')).toBeCloseTo(one.tapeMm, 0)
    expect(
      cutPieces(back)
        .map((c) => c.id)
        .sort(),
    ).toEqual([...one.pieceIds].sort())
    // Made again, it counts once.
    const again = [...back, row(cutEntry(layout, roll, two, 'a'))]
    expect(withoutUndoneCuts(again)).toHaveLength(2)
  })
  it('what is cut stays in what the film used says, also when the rest is laid anew', () => {
    const before = lay(plan, [stock('a', {})]).r.figures.get('roll/fen-satin/used')?.value as number
    const after = lay(plan, [stock('a', { leftMm: 25_000 - one.tapeMm })], made.slice(0, 1)).r.figures.get(
      'roll/fen-satin/used',
    )
    expect(after?.value as number).toBeGreaterThan(before - 400)
    expect(after?.inputs.map((i) => i.key)).toContain('cut_already')
  })
})

describe('cut by machine', () => {
  const plan = layoutOf(hatch(), { cutting: 'free', gapMm: 4 })
  const f = film('fen-satin')
  const { r } = lay(plan)
  const pieces = r.pieces
  let clock = 0
  const searched = layOutFilm(plan, f, pieces, undefined, {
    rounds: 600,
    elapsed: () => Math.min(1, (clock += 2e-4)),
    spent: () => clock >= 1,
  })
  it('outlines interlock: no two come nearer than the gap, and the plan is no longer than a quick one of rectangles', () => {
    const straight = layOutFilm(plan, f, pieces, undefined, { rounds: 0 })
    expect(searched.unplaced).toEqual([])
    expect(searched.usedMm).toBeLessThanOrEqual(straight.usedMm + 1e-6)
    expect(searched.boundMm).toBeLessThanOrEqual(searched.usedMm)
    for (const roll of searched.rolls) {
      const shapes = roll.placements.map((p) => {
        const piece = pieces.find((x) => x.id === p.pieceId)
        return piece ? moved(onRoll(piece, p.turnDeg), p.xMm, p.yMm) : []
      })
      shapes.forEach((a, i) => shapes.slice(i + 1).forEach((b) => expect(clash(a, b, 3.9)).toBe(false)))
      for (const s of shapes) for (const q of s) expect(q.x >= -0.02 && q.x <= roll.widthMm + 0.02).toBe(true)
    }
  })
  it('a piece keeps its area and its hand whichever way it is turned', () => {
    const quarter = pieces.find((p) => p.outline && p.id.includes('quarter'))
    if (!quarter) throw new Error('no outline')
    expect(pieceAreaMm2(quarter)).toBeLessThan(quarter.acrossMm * quarter.alongMm)
    for (const turn of [0, 90, 180, 270] as const) {
      const points = onRoll(quarter, turn)
      expect(polygonAreaMm2(points)).toBeCloseTo(pieceAreaMm2(quarter), 0)
      expect(Math.min(...points.map((p) => p.x))).toBeGreaterThan(-0.02)
      expect(Math.min(...points.map((p) => p.y))).toBeGreaterThan(-0.02)
    }
  })
  it('a whole roll done is one entry: all of its pieces, and the length off the stock', () => {
    const roll = searched.rolls[0] as FilmLayout['rolls'][number]
    const entry = machineEntry(searched, roll, 'a')
    expect(entry).toMatchObject({ kind: 'film_used', stockId: 'a', cutKey: machineKey(searched, roll) })
    expect(entry.kind === 'film_used' && entry.pieces?.length).toBe(roll.placements.length)
  })
})

describe('from one length', () => {
  it('bumpers named together lie side by side in one band, and the way out says so', () => {
    const plan = hatch()
    const { r } = lay(plan)
    const note = r.findings.find((f) => f.code === 'bumpers_together')
    const way = note?.waysOut[0]
    if (!way) throw new Error('not offered')
    const paired = applyChange(plan, way.change)
    const { layout, r: after } = lay(paired)
    const [a, b] = ['front_bumper', 'rear_bumper'].map((kind) => {
      const id = plan.panels.find((p) => p.kind === kind)?.id
      return layout.rolls.flatMap((x) => x.placements.map((p) => ({ ...p, roll: x.id }))).find((p) => p.pieceId === id)
    })
    expect(a && b && a.roll === b.roll && a.yMm === b.yMm && a.xMm !== b.xMm).toBe(true)
    expect(after.findings.some((f) => f.code === 'bumpers_together')).toBe(false)
    // The pair is a wish: what is proven is still true of every plan of the pieces.
    expect(layout.boundMm).toBeLessThanOrEqual(lay(plan).layout.usedMm)
  })
})

describe('rests', () => {
  it('between pieces that a machine cuts: the largest rectangle there is, as trying every place finds it; clear of all boxes', () => {
    const random = seeded(3)
    const least = { short: 2, long: 2 }
    for (let t = 0; t < 60; t++) {
      const [width, used] = [12, 16]
      const pieces = Array.from({ length: 1 + Math.floor(random() * 6) }, () => {
        const [w, l] = [1 + Math.floor(random() * 6), 1 + Math.floor(random() * 6)]
        return {
          xMm: Math.floor(random() * (width - w + 1)),
          yMm: Math.floor(random() * (used - l + 1)),
          widthMm: w,
          lengthMm: l,
        }
      })
      const meets = (a: Offcut, b: Offcut) =>
        a.xMm < b.xMm + b.widthMm &&
        b.xMm < a.xMm + a.widthMm &&
        a.yMm < b.yMm + b.lengthMm &&
        b.yMm < a.yMm + a.lengthMm
      let most = 0
      for (let x = 0; x < width; x++)
        for (let y = 0; y < used; y++)
          for (let w = 2; x + w <= width; w++)
            for (let l = 2; y + l <= used; l++)
              if (w * l > most && !pieces.some((p) => meets(p, { xMm: x, yMm: y, widthMm: w, lengthMm: l })))
                most = w * l
      const rooms = freeRooms({ pieces, widthMm: width, usedMm: used, gapMm: 0, damage: [], least })
      expect((rooms[0]?.widthMm ?? 0) * (rooms[0]?.lengthMm ?? 0)).toBe(most)
      rooms.forEach((r, i) => expect([...pieces, ...rooms.slice(0, i)].some((p) => meets(r, p))).toBe(false))
    }
    expect(
      freeRooms({
        pieces: [{ xMm: 0, yMm: 0, widthMm: 5, lengthMm: 10 }],
        widthMm: 12,
        usedMm: 10,
        gapMm: 3,
        damage: [{ from: 4, to: 5 }],
        least,
      }),
    ).toEqual([
      { xMm: 8, yMm: 5, widthMm: 4, lengthMm: 5 },
      { xMm: 8, yMm: 0, widthMm: 4, lengthMm: 4 },
    ])
    expect(freeRooms({ pieces: [], widthMm: 12, usedMm: 10, gapMm: 0, damage: [], least })).toEqual([])
  })
  it('hold no damage of their roll, by hand and by machine', () => {
    const torn = [{ fromCoreMm: 21_000, lengthMm: 150, note: '' }]
    for (const cutting of ['crosscut', 'free'] as const) {
      const { layout } = lay(layoutOf(hatch(), { cutting }), [stock('a', { leftMm: 25_000, damage: torn })])
      expect(layout.rolls[0]?.stock?.id).toBe('a')
      const rests = restsOf(layout)
      const offcuts = layout.rolls.flatMap((r) => r.cutting.offcuts)
      expect(rests.length).toBeGreaterThan(0)
      if (cutting === 'crosscut') expect(offcuts.some((o) => o.yMm < 4000 && o.yMm + o.lengthMm > 3850)).toBe(true)
      for (const r of rests) expect(r.yMm + r.lengthMm <= 3850 || r.yMm >= 4000).toBe(true)
    }
  })
  it('of a plan for the machine are offered too, each with its own mark', () => {
    const { layout } = lay(layoutOf(hatch(), { cutting: 'free' }))
    const rests = restsOf(layout)
    expect(rests.length).toBeGreaterThan(0)
    expect(new Set(rests.map((r) => r.key)).size).toBe(rests.length)
    expect(rests.every((r) => Math.min(r.widthMm, r.lengthMm) >= 150 && Math.max(r.widthMm, r.lengthMm) >= 250)).toBe(
      true,
    )
  })
  it('bands are told as the lengths that must come off one roll; together they are what is used', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 50 }), fc.integer({ min: 1, max: 20 })), {
          minLength: 1,
          maxLength: 12,
        }),
        (list) => {
          const places = list.map(([yMm, lengthMm]) => ({ yMm, lengthMm }))
          const bands = bandLengths(places)
          expect(bands.reduce((s, b) => s + b, 0)).toBeCloseTo(Math.max(...places.map((p) => p.yMm + p.lengthMm)), 9)
        },
      ),
      { numRuns: 100, seed: 2 },
    )
  })
  it('have marks of their own, also between two layouts of one roll', () => {
    const keys = [hatch(), layoutOf(hatch(), { gapMm: 7 })].flatMap((p) => restsOf(lay(p).layout).map((x) => x.key))
    expect(new Set(keys).size).toBe(keys.length)
  })
})

describe('drops of unequal length', () => {
  it('fewest, then least film, then the best seams: an exhaustive search agrees', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 46 }),
        fc.integer({ min: 12, max: 24 }),
        fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 47, maxLength: 47 }),
        fc.array(fc.tuple(fc.integer({ min: 0, max: 46 }), fc.constantFrom('never' as const, 2, -1)), { maxLength: 4 }),
        (sideMm, printableMm, tops, zones) => {
          const t: DropTask = {
            sideMm,
            heightMm: 30,
            printableMm,
            overlapMm: 2,
            bleedMm: 1,
            distanceMm: 1,
            leastMm: 3,
            zones: zones.map(([at, weight]) => ({ fromMm: at, toMm: at, weight })),
            profile: { fromMm: Float64Array.from(tops), toMm: Float64Array.from(tops, () => 30) },
          }
          const twin = everyDrop(t, tops)
          const plan = dropPlan(t)
          expect(plan.ok).toBe(twin !== null)
          if (!plan.ok || !twin) return
          expect([plan.value.drops.length, plan.value.filmMm]).toEqual([twin.drops, twin.film])
          expect(plan.value.weight).toBeCloseTo(twin.weight, 9)
        },
      ),
      { numRuns: 60, seed: 5 },
    )
  })
  it('the sides of a printed job are laid as drops: nothing is wider than the roll', () => {
    const plan = PlanSchema.parse(DEMO_JOBS[2]?.make())
    const { layout, r } = lay(plan)
    expect(layout.unplaced).toEqual([])
    expect(layout.pieces.some((p) => p.id === 'drop-left-1')).toBe(true)
    expect(r.figures.get('drops/folio-print/left/drops')?.value).toBe(
      layout.pieces.filter((p) => p.panelId === 'side:left').length,
    )
    const lettered = layoutOf(plan, {
      drops: {
        ...plan.layout.drops,
        run: 'upright',
        lettering: [
          { id: 'name', name: 'Name', side: 'left', fromFrontMm: 900, fromTopMm: 300, widthMm: 700, heightMm: 300 },
        ],
      },
    })
    const seams = [...lay(lettered).r.figures]
      .filter(([id]) => id.startsWith('drops/folio-print/left/seam-'))
      .map(([, f]) => f.value as number)
    for (const s of seams) expect(s < 900 - 50 || s > 1600 + 50).toBe(true)
  })
})

function everyDrop(t: DropTask, tops: number[]): { drops: number; film: number; weight: number } | null {
  let best: { drops: number; film: number; weight: number } | null = null
  const seamOk = (s: number) =>
    s + t.overlapMm <= t.sideMm && !t.zones.some((z) => z.weight === 'never' && Math.abs(s - z.fromMm) <= t.distanceMm)
  const at = (s: number) => t.zones.reduce((w, z) => (z.weight !== 'never' && s === z.fromMm ? w + z.weight : w), 0)
  const walk = (from: number, drops: number, film: number, weight: number) => {
    if (drops > 8 || (best && drops > best.drops)) return
    for (let s = from + Math.min(t.leastMm, t.sideMm); s <= t.sideMm; s++) {
      const end = s === t.sideMm
      const w = s - from + (from === 0 ? t.bleedMm : 0) + (end ? t.bleedMm : t.overlapMm)
      if (w > t.printableMm) break
      if (!end && !seamOk(s)) continue
      const there = tops.slice(from, Math.min(t.sideMm, s + (end ? 0 : t.overlapMm)) + 1)
      const next = {
        drops: drops + 1,
        film: film + 30 - Math.min(...there) + 2 * t.bleedMm,
        weight: weight + (end ? 0 : at(s)),
      }
      if (!end) walk(s, next.drops, next.film, next.weight)
      else if (
        !best ||
        next.drops < best.drops ||
        (next.drops === best.drops &&
          (next.film < best.film || (next.film === best.film && next.weight < best.weight - 1e-9)))
      )
        best = next
    }
  }
  walk(0, 0, 0, 0)
  return best
}

describe('a fleet as one layout', () => {
  const f = film('fen-satin')
  const pieces = lay(handCar()).layout.pieces
  const ask = {
    film: f,
    cars: [{ name: 'Pip', pieces, count: 3 }],
    stock: [stock('a', { damage: [{ fromCoreMm: 5000, lengthMm: 1000, note: '' }] })],
    newRolls: 2,
    widthMm: 1520,
    cutting: 'guillotine' as const,
    gapMm: 0,
    seconds: 5,
  }
  it('is every vehicle a group, every stretch of a damaged roll a stock of its lot', () => {
    const out = fleetInput(ask)
    if (!out.ok) throw new Error(out.error.code)
    expect(new Set(out.value.pieces.map((p) => p.group)).size).toBe(3)
    expect(out.value.pieces).toHaveLength(pieces.length * 3)
    expect(out.value.stock.map((s) => [s.length_mm, s.lot])).toEqual([
      [19_000, 'L1'],
      [5000, 'L1'],
      [25_000, 'to be bought'],
      [25_000, 'to be bought'],
    ])
  })
  it('says what is missing or too much', () => {
    expect(fleetInput({ ...ask, cars: [{ name: 'x', pieces: [], count: 1 }] })).toMatchObject({
      error: { code: 'no_pieces' },
    })
    expect(fleetInput({ ...ask, stock: [], newRolls: 0 })).toMatchObject({ error: { code: 'no_stock' } })
    expect(fleetInput({ ...ask, cars: [{ name: 'x', pieces, count: 5000 }] })).toMatchObject({
      error: { code: 'too_many_fleet_pieces' },
    })
  })
})
