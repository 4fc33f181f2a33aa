import { describe, expect, it } from 'vitest'
import { settleLayout } from '@/core/engines/roll/settle-layout'
import { layOutFilm } from '@/core/engines/roll/layout-solver'
import { layOutContext } from '@/core/engines/roll/context'
import { keepLayout } from '@/core/engines/roll/kept-layout'
import { moves } from '@/core/engines/roll/settle-moves'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import { NO_SOLUTIONS, solutionTables, type SolutionTables } from '@/core/model/catalogue/solution-tables'
import { Solution } from '@/core/model/catalogue/solutions'
import { FIELD_ORDER, stretchKey } from '@/core/model/catalogue/stretch-key'
import type { SolvedStretch } from '@/core/model/catalogue/solved-stretch'
import { familyPanels, STYLES, usualKeys, type Style } from '@/core/model/vehicle/families'
import { PieceChoice, type Plan } from '@/core/model/plan/schema'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { Panel, Recess } from '@/core/model/vehicle/schema'
import { reckon } from '@/core/reckon/reckon'
import { lacksOf, solveLack, withSolutions } from '@/core/reckon/solve-lack'
import { variantsOf } from '@/core/engines/stretch/variants'
import { comparedBy, panelFitness } from '@/core/stages/film/fitness'
import { catalogue, handCar, withPanel } from '../fixtures/plans'

const settling: Catalogue = { ...catalogue, solutions: NO_SOLUTIONS }
const value = (worst: number): SolvedStretch => ({
  worst,
  toPostHeatMm2: 0,
  overMm2: 0,
  wrinklesMm2: 0,
  areaMm2: 1e6,
  triangles: 2900,
  spot: null,
  toPostHeat: [],
})
/** Every panel of a plan solved to one stretch. */
const solvedTo = (plan: Plan, worst: number): SolutionTables['stretch'] =>
  Object.fromEntries(
    plan.panels.flatMap((panel) => {
      const film = plan.film.sheets.find((s) => s.id === (panel.filmId ?? plan.film.mainId))
      return film ? [[stretchKey(plan, panel, film), value(worst)]] : []
    }),
  )
const noScan = () => null

describe('what a solved stretch is kept by', () => {
  const plan = handCar()
  const [film] = plan.film.sheets
  const keyOf = (panel: Panel) => film && stretchKey(plan, panel, film)
  /** The same with all fields, and those of what lies within, the other way round. */
  const turned = (value: unknown): unknown =>
    Array.isArray(value)
      ? value.map(turned)
      : typeof value === 'object' && value !== null
        ? Object.fromEntries(
            Object.entries(value)
              .reverse()
              .map(([k, v]) => [k, turned(v)]),
          )
        : value
  it.each(Object.keys(STYLES))('a %s typed just now has the key of the one that is read back', (style) => {
    const panels = familyPanels(style as Style, usualKeys(style as Style))
    for (const panel of panels) expect(keyOf(turned(panel) as Panel)).toBe(keyOf(Panel.parse(panel)))
    expect(new Set(panels.map(keyOf)).size).toBeGreaterThan(1)
  })
  it('has a place for every field of the schema', () => {
    const fields = (schema: unknown): string[] => {
      const { shape, def } = schema as { shape?: object; def: { innerType?: unknown; element?: unknown } }
      return shape ? Object.keys(shape) : fields(def.innerType ?? def.element)
    }
    const { raised, recesses, nose, wraps, bodyLines, holes } = Panel.shape
    expect(FIELD_ORDER.panel).toEqual(fields(Panel))
    expect(FIELD_ORDER.recess).toEqual(fields(recesses))
    expect(FIELD_ORDER.nose).toEqual(fields(nose))
    expect(FIELD_ORDER.wrap).toEqual(fields(wraps))
    expect(FIELD_ORDER.bodyLine).toEqual(fields(bodyLines))
    expect([...FIELD_ORDER.raised, 'behind']).toEqual(fields(raised))
    expect(FIELD_ORDER.hole).toEqual(fields(holes))
    expect(FIELD_ORDER.slit).toEqual(fields(PieceChoice.shape.slits))
  })
})

describe('what is not solved yet', () => {
  const plan = handCar()
  it('is marked on every figure that hangs on it, and on no other', () => {
    const { figures, settling: count } = reckon(plan, settling, [])
    const marked = [...figures.values()].filter((f) => f.settling).map((f) => f.id)
    expect(marked).toEqual(
      expect.arrayContaining(['rail/worst_stretch', 'rail/film_order', 'rail/cost', 'rail/crew_minutes']),
    )
    expect(marked.filter((id) => /^(area|piece|rail\/(edges|seams|tape)$)/.test(id))).toEqual([])
    expect(count.left).toBe(count.of)
    expect(count.of).toBeGreaterThan(2)
  })
  it('is final where nobody solves behind the plan', () => {
    const { figures, settling: count } = reckon(plan, catalogue, [])
    expect([...figures.values()].filter((f) => f.settling)).toEqual([])
    expect(count).toEqual({ lacks: [], left: 0, of: count.of })
  })
  it('raises no Stop by itself: the same figure does, once it is solved', () => {
    const deep = withPanel(plan, 'bonnet', () => ({ crownMm: 220, crownOverMm: 900 }))
    const told = (c: Catalogue) => reckon(deep, c, []).findings.find((f) => f.code === 'stretch_over_limit')?.level
    expect(told(catalogue)).toBe('stop')
    expect(told(settling)).toBe('warn')
    expect(told({ ...catalogue, solutions: { ...NO_SOLUTIONS, stretch: solvedTo(deep, 0.4) } })).toBe('stop')
  })
  it('a layout waits for the stretch of its panels; the largest panel comes first', () => {
    const before = reckon(plan, settling, []).settling.lacks
    expect(new Set(before.map((l) => l.kind))).toEqual(new Set(['stretch']))
    expect(before[0]?.of).toBe('bonnet')
    const after = reckon(plan, { ...catalogue, solutions: { ...NO_SOLUTIONS, stretch: solvedTo(plan, 0.01) } }, [])
    expect(after.settling.lacks.map((l) => l.kind)).toEqual(['layout'])
    expect(after.figures.get('rail/worst_stretch')?.settling).toBeUndefined()
    expect(after.figures.get('rail/film_order')?.settling).toBe(true)
  })
  it('a surface that cannot be made is a solution too: its closed forms stand for good', () => {
    const lack = reckon(plan, settling, []).settling.lacks[0]
    if (!lack) throw new Error('nothing lacks')
    const fault: Solution = { kind: 'fault', key: lack.key, fineness: 0, value: { code: 'crown_too_deep', facts: {} } }
    const { settling: count, figures } = reckon(plan, withSolutions(settling, [fault]), [])
    expect(count.lacks.map((l) => l.key)).not.toContain(lack.key)
    expect(figures.get(`stretch/${lack.of}/worst`)?.settling).toBeUndefined()
  })
})

describe('a layout that no search finds', () => {
  it('is final as it was laid first: nothing asks for it again', () => {
    const plan = handCar()
    const solutions = { ...NO_SOLUTIONS, stretch: solvedTo(plan, 0.01) }
    const key = reckon(plan, { ...catalogue, solutions }, []).settling.lacks[0]?.key ?? ''
    const fault = { [key]: { code: 'not_solved', facts: {} } }
    const { settling: count, figures } = reckon(plan, { ...catalogue, solutions: { ...solutions, fault } }, [])
    expect(count).toMatchObject({ lacks: [], left: 0 })
    expect(figures.get('rail/film_order')?.settling).toBeUndefined()
  })
})

describe('keys', () => {
  const plan = handCar()
  const panel = plan.panels.find((p) => p.id === 'bonnet')
  const film = plan.film.sheets[0]
  if (!panel || !film) throw new Error('no bonnet')
  const key = (of: Plan) => {
    const own = of.panels.find((p) => p.id === 'bonnet')
    return own && stretchKey(of, own, film)
  }
  it.each([
    ['its crown', withPanel(plan, 'bonnet', () => ({ crownMm: 31 })), false],
    ['the parts it is cut in', { ...plan, pieces: [{ ...choice('bonnet'), parts: 2 }] }, false],
    ['its name and note', withPanel(plan, 'bonnet', () => ({ name: 'Hood', note: 'chip' })), true],
    ['another panel', withPanel(plan, 'door', () => ({ crownMm: 44 })), true],
  ])('the stretch of a panel hangs on %s: %#', (_what, changed, same) => {
    expect(key(changed) === key(plan)).toBe(same)
  })
  it('a panel typed just now has the key of the one that is read back, whatever order its fields stand in', () => {
    const typed = newPanel({
      id: 'fresh',
      name: 'Fresh',
      kind: 'front_bumper',
      side: 'centre',
      widthMm: 1400,
      heightMm: 900,
    })
    const backwards = Object.fromEntries(Object.entries(typed).reverse()) as typeof typed
    const keyOf = (p: typeof typed) => stretchKey(plan, p, film)
    expect(keyOf(typed)).toBe(keyOf(Panel.parse(JSON.parse(JSON.stringify(typed)))))
    expect(keyOf(backwards)).toBe(keyOf(typed))
  })
  const layoutKeys = (of: Plan, c: Catalogue = settling) => reckon(of, c, []).layouts.map((l) => l.key)
  it('a layout hangs on pieces, rack and settings, not on words and prices of other films', () => {
    const now = layoutKeys(plan)
    expect(layoutKeys({ ...plan, name: 'Another name' })).toEqual(now)
    expect(layoutKeys(withPanel(plan, 'door', () => ({ widthMm: 1000 })))).not.toEqual(now)
    expect(layoutKeys({ ...plan, layout: { ...plan.layout, gapMm: 3 } })).not.toEqual(now)
    expect(layoutKeys({ ...plan, layout: { ...plan.layout, seed: 9 } })).not.toEqual(now)
    const [roll] = settling.stock.filter((s) => s.filmId === film.id)
    if (!roll) throw new Error('no roll')
    const shorter = settling.stock.map((s) => (s.id === roll.id ? { ...s, leftMm: s.leftMm - 100 } : s))
    expect(layoutKeys(plan, { ...settling, stock: shorter })).not.toEqual(now)
  })
})

describe('a layout that settles', () => {
  const plan = handCar()
  const { layouts } = reckon(plan, catalogue, [])
  const [quick] = layouts
  if (!quick) throw new Error('no layout')
  const context = layOutContext(catalogue.stock, [], quick)
  const settled = settleLayout(plan, quick.film, quick.pieces, context)
  it('is the same on every machine: its search counts moves, not time', () => {
    expect(settleLayout(plan, quick.film, quick.pieces, context)).toEqual(settled)
    const clock = moves(3)
    expect([clock.spent(), clock.spent(), clock.spent(), clock.elapsed()]).toEqual([false, false, true, 1])
  })
  it('is no longer than the quick one, sound, and read back as it was searched', () => {
    expect(settled.value.usedMm).toBeLessThanOrEqual(quick.usedMm + 1e-6)
    expect(settled.value.usedMm).toBeGreaterThanOrEqual(settled.value.boundMm - 1e-6)
    const read = layOutFilm(plan, quick.film, quick.pieces, {
      ...context,
      known: { [settled.key]: settled.value },
    })
    expect(read).toMatchObject({ settling: false, usedMm: settled.value.usedMm, boundMm: settled.value.boundMm })
    const placed = read.rolls.flatMap((r) => r.placements.map((p) => p.pieceId))
    expect([...placed, ...read.unplaced.map((u) => u.piece.id)].sort()).toEqual(quick.pieces.map((p) => p.id).sort())
    expect(read.sources.find((s) => s.id === settled.value.sourceId)?.usedMm).toBeCloseTo(settled.value.usedMm, 6)
  })
  it('a layout that the user kept stands, whatever was searched', () => {
    const kept = { ...plan, layout: { ...plan.layout, kept: [keepLayout(quick)] } }
    const read = layOutFilm(kept, quick.film, quick.pieces, { ...context, known: { [settled.key]: settled.value } })
    expect(read).toMatchObject({ kept: 'current', settling: false, usedMm: quick.usedMm })
  })
  it('a search that is cut short leaves out nothing that the first try had placed', () => {
    const cut = layOutFilm(plan, quick.film, quick.pieces, context, moves(5))
    expect(cut.unplaced.length).toBeLessThanOrEqual(quick.unplaced.length)
  })
  it('what the plan no longer hangs on is not solved', () => {
    const task = { plan, catalogue: settling, ledger: [], scanOf: noScan }
    expect(solveLack(task, { kind: 'layout', key: '0123456789abcdef', of: quick.film.id })).toEqual([])
    expect(solveLack(task, { kind: 'stretch', key: '0123456789abcdef', of: 'bonnet' })).toEqual([])
    expect(solveLack(task, { kind: 'stretch', key: '0123456789abcdef', of: 'no-such-panel' })).toEqual([])
  })
})

describe('a solution as a file carries it', () => {
  const good: Solution = { kind: 'stretch', key: '0123456789abcdef', fineness: 2900, value: value(0.1) }
  it('reads back, and lies in the table of its kind', () => {
    expect(Solution.parse(JSON.parse(JSON.stringify(good)))).toEqual(good)
    expect(solutionTables([good])).toEqual({ ...NO_SOLUTIONS, stretch: { [good.key]: good.value } })
  })
  it.each([
    ['another kind', { ...good, kind: 'magic' }],
    ['a key of another shape', { ...good, key: 'bonnet' }],
    ['a value of another kind', { ...good, kind: 'layout' }],
    ['a figure that cannot be', { ...good, value: { ...good.value, worst: -1 } }],
    ['a field that is not known', { ...good, extra: 1 }],
  ])('is refused with %s', (_what, bad) => {
    expect(Solution.safeParse(bad).success).toBe(false)
  })
})

function choice(panelId: string): Plan['pieces'][number] {
  return { panelId, parts: 1, along: 'height', preStretch: 0, bleedMm: null, seamsAtMm: [], slits: [], flat: null }
}

describe('films and schools compared', () => {
  const plan = handCar()
  const bonnet = plan.panels.find((p) => p.id === 'bonnet')
  if (!bonnet) throw new Error('no bonnet')
  const { films } = catalogue
  const flat = variantsOf(plan, bonnet, films)
  it('without a recess every film lies by one map; with one, only those that heat shrinks alike', () => {
    expect(new Set(flat.map((v) => v.map)).size).toBe(1)
    const scoop = Recess.parse({
      id: 'scoop',
      name: 'Scoop',
      mouthWidthMm: 200,
      mouthHeightMm: 100,
      depthMm: 20,
      wallDeg: 60,
      open: false,
      way: 'bridge',
      gapMm: 40,
      xMm: 600,
      yMm: 400,
    })
    const deep = withPanel(plan, 'bonnet', () => ({ recesses: [scoop] }))
    const panel = deep.panels.find((p) => p.id === 'bonnet')
    if (!panel) throw new Error('no bonnet')
    const maps = new Set(variantsOf(deep, panel, films).map((v) => v.map))
    expect(maps.size).toBe(1 + new Set(films.map((f) => f.heatShrink)).size)
  })
  it('one map solves all that lies by it: film by film the same surface, judged by each film’s own sheet', () => {
    const [lack] = reckon(plan, settling, []).settling.lacks
    if (lack?.kind !== 'stretch') throw new Error('nothing lacks')
    const made = solveLack({ plan, catalogue: settling, ledger: [], scanOf: noScan }, lack)
    expect(made.map((s) => s.key).sort()).toEqual([...new Set(flat.map((v) => v.key))].sort())
    const solved = solutionTables(made).stretch
    const worst = (film: string, tension: string) =>
      solved[flat.find((v) => v.film.id === film && v.school.tension === tension)?.key ?? '']?.worst ?? NaN
    // Film that is relaxed first has the roll's residue to give: that much less of the stretch along the roll counts.
    expect(worst('fen-satin', 'relax_first')).toBeLessThanOrEqual(worst('fen-satin', 'triangles'))
    for (const film of films) expect(worst(film.id, 'triangles')).toBeCloseTo(worst('fen-satin', 'triangles'), 12)
  })
  it('a comparison is by solutions for all films of a panel, or by closed forms for all', () => {
    const all = solutionTables(
      flat.map((v): Solution => ({ kind: 'stretch', key: v.key, fineness: 1, value: value(0.123) })),
    )
    const missing = flat.find((v) => v.film.id === 'slate-matte' && v.school.tension === plan.method.tension)?.key
    const some = { ...all, stretch: Object.fromEntries(Object.entries(all.stretch).filter(([key]) => key !== missing)) }
    const stretchOf = (solutions: SolutionTables) => {
      const shop = { ...catalogue, solutions }
      const known = comparedBy(plan, bonnet, shop)
      return films.map((film) => panelFitness(film, bonnet, plan, shop, known).stretch)
    }
    expect(new Set(stretchOf(all))).toEqual(new Set([0.123]))
    expect(stretchOf(some)).not.toContain(0.123)
  })
  it('what comparisons lack is asked for once the plan itself lacks nothing', () => {
    const task = { plan, catalogue: settling, ledger: [] }
    expect(lacksOf(task).every((l) => l.as === undefined)).toBe(true)
    const own = reckon(plan, { ...catalogue, solutions: { ...NO_SOLUTIONS, stretch: solvedTo(plan, 0.01) } }, [])
    const layout = own.layouts[0]
    if (!layout) throw new Error('no layout')
    const context = layOutContext(catalogue.stock, [], layout)
    const settled = settleLayout(plan, layout.film, layout.pieces, context)
    const solutions = {
      ...NO_SOLUTIONS,
      stretch: solvedTo(plan, 0.01),
      layout: { [settled.key]: settled.value },
    }
    const later = lacksOf({ ...task, catalogue: { ...catalogue, solutions } })
    expect(later.length).toBe(3)
    expect(later.every((l) => l.kind === 'stretch' && l.as !== undefined)).toBe(true)
  })
})
