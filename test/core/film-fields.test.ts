import { describe, expect, it } from 'vitest'
import { filmsFromTable, filmTable } from '@/core/model/film/film-table'
import { FilmSheet } from '@/core/model/film/schema'
import { upgradeSheet } from '@/core/model/film/upgrade'
import { controlCharacterIn, isPlainText } from '@/core/kit/plain-text'
import { MAX_TABLE_COLUMNS, readTable } from '@/core/kit/table'
import { parseLength } from '@/core/kit/units'
import { readPlan, writePlan } from '@/core/model/plan/parse'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { reckon } from '@/core/reckon/reckon'
import { fleetTable } from '@/core/engines/roll/fleet-table'
import {
  offeredPreStretch,
  preStretchSteps,
  shrinkCapacity,
  sizeAfterHeat,
  stretchAsMade,
} from '@/core/engines/stretch/pre-stretch'
import { straightedgeMm } from '@/core/model/vehicle/straightedge'
import { questionsOf } from '@/core/stages/tape/tape-answer'
import { panelFindings } from '@/core/stages/tape/findings'
import { readCsv } from '@/web/kit/csv'
import { DEMO_FILMS } from '@/db/demo/films'
import { film, handCar, withPanel } from '../fixtures/plans'

/** A sheet as it was before it said these three things. */
const older = (sheet: FilmSheet) => {
  const { heatLimitC: _h, preStretchMax: _p, recovers: _r, ...rest } = sheet
  return rest
}

describe('older files', () => {
  it('a job of the first format is read as one of this: its sheets get what they did not say, marked so', () => {
    const old = JSON.parse(writePlan(handCar())) as { format: string; film: { sheets: FilmSheet[] } }
    const text = JSON.stringify({
      ...old,
      format: 'cuirass/job@1',
      film: { ...old.film, sheets: old.film.sheets.map(older) },
    })
    const plan = readPlan(text)
    if (!plan.ok) throw new Error(plan.error.code)
    const [sheet] = plan.value.film.sheets
    expect(sheet).toMatchObject({ heatLimitC: 127, preStretchMax: { cold: 0.2, warm: 0.3 }, recovers: 0.9 })
    expect(sheet?.standings).toMatchObject({
      heatLimitC: 'assumed',
      preStretchMax: 'common_practice',
      recovers: 'assumed',
    })
    expect(plan.value.format).toBe('cuirass/job@3')
    // What it reckons for a plan without pre-stretch is what it did.
    const used = (p: typeof plan.value) => reckon(p, EMPTY_CATALOGUE, []).figures.get('rail/film_used')?.value
    expect(used(plan.value)).toBe(used(handCar()))
  })
  it('two parts of one id, which could be saved once, come in as the first of them', () => {
    const old = JSON.parse(writePlan(handCar())) as { film: { sheets: FilmSheet[] }; panels: object[] }
    const twice = { ...old, format: 'cuirass/job@1', panels: [...old.panels, { ...old.panels[0], name: 'Again' }] }
    const plan = readPlan(JSON.stringify(twice))
    expect(plan.ok && plan.value.panels.map((p) => p.name)).toEqual(['Bonnet', 'Door', 'Wing'])
    expect(readPlan(JSON.stringify({ ...twice, format: 'cuirass/job@2' }))).toMatchObject({
      error: { code: 'duplicate_id' },
    })
  })
  it.each(DEMO_FILMS.map((f) => [f.id, f] as const))('%s: upgraded, it keeps to its own limits', (_, sheet) => {
    const made = FilmSheet.parse(upgradeSheet(older(sheet)))
    expect(made.heatLimitC).toBeGreaterThan(Math.max(made.postHeatC.max, made.overlapC.max))
    expect(made.preStretchMax.warm > 0).toBe(['cast', 'colour_shift', 'printed_cast'].includes(made.kind))
    expect(upgradeSheet(sheet)).toBe(sheet)
  })
})

describe('the table of films', () => {
  it('carries warranties of any zones and surfaces there and back, and reads them as they were written before', () => {
    const zones = ['mild', 'hot', 'desert coast', 'high, cold'].flatMap((zone) =>
      ['vertical', 'horizontal', 'roof and bonnet'].map((surface, i) => ({ zone, surface, months: 12 * (i + 1) })),
    )
    const sheet = { ...film('fen-satin'), warrantyMonths: zones }
    const [head, cells] = filmTable([sheet])
    const back = filmsFromTable([head ?? [], cells ?? []])
    expect(back.ok && back.value[0]?.warrantyMonths).toEqual(zones)
    const at = head?.indexOf('warranty') ?? 0
    const old = filmsFromTable([
      head ?? [],
      (cells ?? []).map((c, i) => (i === at ? 'mild vertical 60; hot horizontal 18' : c)),
    ])
    expect(old.ok && old.value[0]?.warrantyMonths.map((w) => w.months)).toEqual([60, 18])
  })
  it('reads a table of before the new columns were there', () => {
    const [head = [], cells = []] = filmTable([film('quay-orange')])
    const keep = head.map((h) => !['pre_stretch_cold', 'pre_stretch_warm', 'recovers', 'heat_limit_c'].includes(h))
    const back = filmsFromTable([head.filter((_, i) => keep[i]), cells.filter((_, i) => keep[i])])
    expect(back.ok && back.value[0]).toMatchObject({
      preStretchMax: { cold: 0, warm: 0 },
      recovers: 0.5,
      heatLimitC: 147,
    })
  })
})

describe('tables from elsewhere', () => {
  it('of very many columns are refused before they are taken apart', () => {
    const text = `${'a,'.repeat(200_000)}a\n1\n`
    expect(readCsv(text)).toMatchObject({ error: [{ code: 'too_many_columns', facts: { columns: 200_001 } }] })
    const row = Array.from({ length: MAX_TABLE_COLUMNS + 1 }, (_, i) => `c${i}`)
    expect(readTable([row, row], { known: () => true, required: [] })).toMatchObject({
      error: [{ code: 'too_many_columns' }],
    })
  })
  it('a column that is there twice is named', () =>
    expect(
      readTable(
        [
          ['a', 'b', 'A '],
          ['1', '2', '3'],
        ],
        { known: () => true, required: [] },
      ),
    ).toMatchObject({ error: [{ code: 'column_twice', column: 'a' }] }))
  it('a fleet’s own hands no formula to a spreadsheet', () => {
    const placements = [{ piece: '=1+1', copy: 1, x_mm: 0, y_mm: 0, turn_deg: 0 as const }]
    const [, cells] = fleetTable(
      [{ id: '@roll', width_mm: 1, length_mm: 1, lot: '+lot' }],
      [{ id: '@roll', used_mm: 1, placements }],
    )
    expect(cells).toEqual(["'@roll", "'+lot", "'=1+1", '1', '0', '0', '0'])
  })
})

describe('text', () => {
  it('with control characters or half a character is told, and where', () => {
    expect(isPlainText('Ünïcødé 37 1/2″, tab\tand\nlines 🚗')).toBe(true)
    for (const bad of ['\u0000', 'a\u0007', '\u007f', '\ud83d', 'x\udc00y']) expect(isPlainText(bad), bad).toBe(false)
    expect(controlCharacterIn({ panels: [{}, { name: 'a\u0000' }] })).toBe('panels[1].name')
    expect(controlCharacterIn({ ok: ['x', 3, null] })).toBeNull()
    expect(readPlan(writePlan(handCar()).replace('Hand-worked car', 'Hand\\u0000car'))).toMatchObject({
      error: { code: 'control_character', at: 'name' },
    })
  })
  it.each(['constructor', 'toString', '__proto__', 'hasOwnProperty'])('5 %s is no length', (word) =>
    expect(parseLength(`5 ${word}`, 'mm')).toMatchObject({
      ok: false,
      error: { code: expect.stringMatching(/unknown_unit|bad_number/) },
    }),
  )
})

describe('pre-stretch', () => {
  const cast = { recovers: 0.9, heatShrink: 0.06 }
  it('what heat leaves of it counts against the sheet as made: reckoned by hand', () => {
    // Stretched by a fifth, heat takes back nine tenths: 2 % stay. Under tension it shrinks on by its 6 %.
    expect(sizeAfterHeat(0.2, cast)).toBeCloseTo(1.02 * 0.94, 12)
    expect(stretchAsMade(0.17, 0.2, cast)).toBeCloseTo(1.17 * 1.02 * 0.94 - 1, 12)
    expect(shrinkCapacity(0.2, cast)).toBeCloseTo(1 - (1.02 * 0.94) / 1.2, 12)
    // Film that gives nothing back keeps all of it, but for what its own heat shrink takes.
    expect(stretchAsMade(0, 0.2, { recovers: 0, heatShrink: 0 })).toBeCloseTo(0.2, 12)
  })
  it('none changes nothing, and no film is ever stretched less than nothing', () => {
    expect(stretchAsMade(0.17, 0, cast)).toBeCloseTo(0.17, 12)
    expect(shrinkCapacity(0, cast)).toBe(0.06)
    expect(stretchAsMade(0, 0.05, cast)).toBe(0)
  })
  it('more of it: a smaller cut and another stretch, each by its own figure', () => {
    const at = (preStretch: number) => {
      const deep = withPanel(handCar(), 'bonnet', () => ({ crownMm: 140, crownOverMm: 1000 }))
      const plan = {
        ...deep,
        pieces: [
          {
            panelId: 'bonnet',
            parts: 1,
            along: 'height' as const,
            preStretch,
            bleedMm: null,
            seamsAtMm: [],
            slits: [],
            flat: null,
          },
        ],
      }
      const { figures, findings } = reckon(plan, EMPTY_CATALOGUE, [])
      const value = (id: string) => Number(figures.get(id)?.value)
      return {
        width: value('piece/bonnet/width'),
        stretch: value('stretch/bonnet/worst'),
        codes: findings.map((f) => f.code),
      }
    }
    const [none, ...more] = [0, 0.2, 0.3, 0.4].map(at)
    more.forEach((m, i) => expect(m.width).toBeCloseTo((none?.width ?? 0) / (1 + [0.2, 0.3, 0.4][i]!), 6))
    expect(new Set(more.map((m) => m.stretch.toFixed(6))).size).toBe(3)
    expect(more.map((m) => m.codes.filter((c) => c.startsWith('pre_stretch')))).toEqual([
      [],
      ['pre_stretch_warm'],
      ['pre_stretch_past_bound'],
    ])
  })
  it('is offered where the film bears it and nowhere else', () => {
    const offers = Object.fromEntries(DEMO_FILMS.map((f) => [f.id, offeredPreStretch(f)]))
    expect(offers).toMatchObject({ 'fen-satin': 0.2, 'quay-orange': 0, 'mere-mirror': 0, 'reed-sheet': 0 })
    expect(preStretchSteps(film('mere-mirror'))).toEqual([0])
    expect(preStretchSteps(film('fen-satin')).at(-1)).toBe(0.3)
  })
})

describe('straightedges', () => {
  it('are those that a shop has, the longest that fits, in the units people think in', () => {
    expect([2000, 999, 412, 300, 150].map((side) => straightedgeMm(side))).toEqual([1000, 600, 300, 300, 150])
    expect([2000, 700, 320].map((side) => straightedgeMm(side, { inches: true }))).toEqual(
      [36, 24, 12].map((x) => x * 25.4),
    )
    expect(straightedgeMm(900, { takenMm: 412 })).toBe(412)
  })
  it('an assumed crown is asked for under one of them, as the same round reads there', () => {
    const panel = { ...handCar().panels[0]!, crownMm: 20, crownOverMm: 412, assumed: ['crownMm'] }
    const crown = questionsOf(panel).find((q) => q.field === 'crownMm')
    expect(crown?.overMm).toBe(1000)
    const radius = (mm: number, over: number) => (over ** 2 / 4 + mm ** 2) / (2 * mm)
    expect(radius(crown?.mm ?? 0, 1000)).toBeCloseTo(radius(20, 412), 6)
  })
})

describe('a taped figure against an assumed one', () => {
  it('is not blamed: the guess is named, as a note', () => {
    const plan = withPanel(handCar(), 'door', (d) => ({
      assumed: d.edges.map((e) => `edges.${e.id}`),
      edges: d.edges.map((e) => (e.at === 'top' ? { ...e, lengthMm: 2200 } : e)),
    }))
    const found = panelFindings(plan).find((f) => f.code === 'edge_against_size')
    expect(found).toMatchObject({ level: 'note', facts: { guess: 'edge' } })
    const taped = withPanel(plan, 'door', () => ({ assumed: [] }))
    expect(panelFindings(taped).find((f) => f.code === 'edge_against_size')).toMatchObject({
      level: 'warn',
      facts: { guess: '' },
    })
  })
})
