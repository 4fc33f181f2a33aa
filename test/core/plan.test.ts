import { DEFAULT_SHOP, hoursOf } from '@/core/model/shop/default-shop'
import fc from 'fast-check'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { addOpenMinutes, civilToMinutes, minutesToCivil, nextOpen, weekday } from '@/core/kit/civil'
import { mergePlans, planEdits } from '@/core/model/plan/merge'
import { parsePlan, readPlan, writePlan } from '@/core/model/plan/parse'
import { Plan } from '@/core/model/plan/schema'
import { guessPanel } from '@/core/model/vehicle/name-guess'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { jobSchema } from '../../scripts/write-schema'
import { film, handCar, manyPanels, withPanel } from '../fixtures/plans'

const code = (text: string) => {
  const r = readPlan(text)
  return r.ok ? 'ok' : `${r.error.code}${r.error.at ? ` ${r.error.at}` : ''}`
}
const json = (change: (p: Record<string, unknown>) => void) => {
  const p = JSON.parse(writePlan(handCar())) as Record<string, unknown>
  change(p)
  return JSON.stringify(p)
}
type Loose = { panels: Record<string, unknown>[] }

describe('job file', () => {
  it('one written before vehicles were measured in full reads as it was, new fields at their defaults', () => {
    const later = new Set([
      'riseMm',
      'gapMm/edge',
      'cornerDeg',
      'cornerRadiusMm/edge',
      'grab',
      'crownDownMm',
      'crownDownOverMm',
      'nose',
      'bodyLines',
      'raised',
      'holes',
      'zones',
      'surface/panels',
      'paintNote',
      'mirrored',
      'keys',
      'keysAssumed',
      'toleranceMm',
      'libraryId',
      'repaints',
      'neverCover',
      'signature',
      'conditions',
      'standings',
      'bendRadiusMm',
      'openAt',
      'xMm',
      'yMm',
      'edges/method',
    ])
    const strip = (value: unknown, where: string): unknown => {
      if (Array.isArray(value)) return value.map((v) => strip(v, where))
      if (typeof value !== 'object' || value === null) return value
      return Object.fromEntries(
        Object.entries(value)
          .filter(([k]) => !later.has(k) && !later.has(`${k}/${where}`))
          .map(([k, v]) => [k, strip(v, k === 'edges' ? 'edge' : k)]),
      )
    }
    const old = JSON.stringify(strip(handCar(), ''))
    for (const key of ['riseMm', 'neverCover', 'standings', 'conditions', 'mirrored']) expect(old).not.toContain(key)
    const sheet = film('fen-satin')
    const read = readPlan(old)
    expect(read).toEqual({
      ok: true,
      value: { ...handCar(), film: { mainId: sheet.id, sheets: [{ ...sheet, standings: {} }] } },
    })
  })
  it.each(DEMO_JOBS.map((j) => [Plan.parse(j.make()).name, j] as const))(
    '%s: import of an export is the same document',
    (_, { make }) => {
      const text = writePlan(Plan.parse(make()))
      const back = readPlan(text)
      expect(back.ok && back.value).toEqual(Plan.parse(make()))
      expect(back.ok && writePlan(back.value)).toBe(text)
    },
  )
  it('the published schema is the one that parses', () =>
    expect(readFileSync(new URL('../../docs/job.schema.json', import.meta.url), 'utf8')).toBe(jobSchema()))
  it.each([
    ['empty', '', 'empty'],
    ['truncated', writePlan(handCar()).slice(0, 900), 'truncated'],
    ['no JSON', '{"a": nope}', 'not_json'],
    ['a later version', json((p) => (p.format = 'cuirass/job@4')), 'later_version format'],
    ['something else', '{"format":"other"}', 'not_a_job format'],
    ['deep nesting', '['.repeat(100_000) + ']'.repeat(100_000), 'too_deep'],
    ['50 MB', `"${'x'.repeat(50_000_000)}"`, 'too_large'],
    [
      'a zero width',
      json((p) => (((p as Loose).panels[0] as Record<string, unknown>).widthMm = 0)),
      'too_small panels[0].widthMm',
    ],
    [
      'a negative width',
      json((p) => (((p as Loose).panels[0] as Record<string, unknown>).widthMm = -5)),
      'too_small panels[0].widthMm',
    ],
    [
      'a 40 m door',
      json((p) => (((p as Loose).panels[1] as Record<string, unknown>).widthMm = 40000)),
      'too_big panels[1].widthMm',
    ],
    ['a missing field', json((p) => delete (p as Loose).panels[1]?.kind), 'invalid_value panels[1].kind'],
    ['an unknown key', json((p) => (p.extra = 1)), 'unknown_key extra'],
    [
      'a panel twice',
      json((p) => (p as Loose).panels.push((p as Loose).panels[0] as Record<string, unknown>)),
      'duplicate_id panels[3].id',
    ],
    ['a prototype key', json((p) => (p.method = JSON.parse('{"__proto__":{"a":1}}'))), 'invalid_type method.name'],
  ])('%s is refused', (_, text, want) => expect(code(text)).toBe(want))
  it('501 panels are refused, and a name with script in it stays the text it is', () => {
    const p = manyPanels(500)
    const extra = parsePlan({ ...p, panels: [...p.panels, { ...p.panels[0], id: 'one-more' }] })
    expect(!extra.ok && extra.error).toMatchObject({ code: 'too_big', at: 'panels' })
    const named = readPlan(json((x) => (x.name = '<script>alert(1)</script>')))
    expect(named.ok && named.value.name).toBe('<script>alert(1)</script>')
  })
  it('a recess larger than its panel and a crown deeper than half its straightedge are refused', () => {
    const recess = {
      id: 'r',
      name: 'R',
      mouthWidthMm: 2000,
      mouthHeightMm: 50,
      depthMm: 5,
      wallDeg: 45,
      open: false,
      way: 'bridge',
      gapMm: 0,
    }
    expect(code(JSON.stringify(withPanel(handCar(), 'door', () => ({ recesses: [recess] as never }))))).toBe(
      'recess_larger_than_panel panels[1].recesses[0].mouthWidthMm',
    )
    expect(code(JSON.stringify(withPanel(handCar(), 'door', () => ({ crownMm: 300, crownOverMm: 500 }))))).toBe(
      'crown_deeper_than_half panels[1].crownMm',
    )
  })
  it('no text whatever throws', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.json(),
          fc.jsonValue().map((v) => JSON.stringify({ format: 'cuirass/job@1', panels: v })),
        ),
        (text) => typeof readPlan(text).ok === 'boolean',
      ),
    )
  })
})

describe('merge', () => {
  const base = handCar()
  const mine = withPanel(base, 'door', () => ({ widthMm: 1111 }))
  it('joins changes to different panels', () => {
    const m = mergePlans(
      base,
      mine,
      withPanel(base, 'wing', () => ({ heightMm: 650 })),
    )
    expect(m.clean && m.plan.panels.map((p) => [p.widthMm, p.heightMm])).toEqual([
      [1380, 920],
      [1111, 680],
      [780, 650],
    ])
  })
  it('refuses changes to the same panel and shows both sides', () => {
    const m = mergePlans(
      base,
      mine,
      withPanel(base, 'door', () => ({ widthMm: 999 })),
    )
    expect(!m.clean && m.clashes).toMatchObject([
      { part: 'panels/door', base: { widthMm: 1050 }, mine: { widthMm: 1111 }, theirs: { widthMm: 999 } },
    ])
    for (const prefer of ['mine', 'theirs'] as const) {
      const settled = mergePlans(
        base,
        mine,
        withPanel(
          withPanel(base, 'door', () => ({ widthMm: 999 })),
          'wing',
          () => ({ note: 'kept' }),
        ),
        { prefer },
      )
      expect(settled.clean && settled.plan.panels[1]?.widthMm).toBe(prefer === 'mine' ? 1111 : 999)
      expect(settled.clean && settled.plan.panels[2]?.note).toBe('kept')
    }
  })
  it('a panel removed on one side and untouched on the other goes, with its piece choice', () => {
    const chosen = {
      ...base,
      pieces: [
        {
          panelId: 'wing',
          parts: 2,
          along: 'width' as const,
          preStretch: 0,
          bleedMm: null,
          seamsAtMm: [],
          slits: [],
          flat: null,
        },
      ],
    }
    const m = mergePlans(chosen, mine.panels.length ? { ...mine, pieces: chosen.pieces } : mine, {
      ...chosen,
      panels: chosen.panels.filter((p) => p.id !== 'wing'),
    })
    expect(m.clean && m.plan.panels.map((p) => p.id)).toEqual(['bonnet', 'door'])
    expect(m.clean && m.plan.pieces).toEqual([])
  })
  it('one side alone is that side; both alike is no clash', () => {
    expect(mergePlans(base, mine, base)).toMatchObject({ clean: true, plan: mine })
    expect(mergePlans(base, base, mine)).toMatchObject({ clean: true, plan: mine })
    expect(mergePlans(base, mine, mine)).toMatchObject({ clean: true, plan: mine })
  })
  it('tells what changed, field by field', () =>
    expect(planEdits(base, mine)).toEqual([
      { part: 'panels/door', how: 'changed', name: 'Door', field: 'widthMm', before: 1050, after: 1111 },
    ]))
})

describe('wall time', () => {
  it('counts days as the platform’s calendar does, there and back', () => {
    fc.assert(
      fc.property(
        fc.date({ min: new Date('1900-01-01T00:00Z'), max: new Date('2199-12-31T23:59Z'), noInvalidDate: true }),
        (d) => {
          const text = d.toISOString().slice(0, 16)
          const minutes = civilToMinutes(text)
          return (
            minutes === Math.floor(d.getTime() / 60000) &&
            minutesToCivil(minutes) === text &&
            weekday(minutes) === (d.getUTCDay() + 6) % 7
          )
        },
      ),
    )
  })
  it.each(['2026-02-29', '2026-13-01', '2026-01-01T24:00', 'soon', '2026-1-1'])('%s is no time', (t) =>
    expect(civilToMinutes(t)).toBeNull(),
  )
  it('work stops at closing time and goes on at the next opening', () => {
    const hours = hoursOf(DEFAULT_SHOP)
    const friday = civilToMinutes('2026-11-20T16:00') ?? 0
    expect(minutesToCivil(addOpenMinutes(friday, 90, hours))).toBe('2026-11-23T08:30')
    expect(minutesToCivil(nextOpen(civilToMinutes('2026-11-21T10:00') ?? 0, hours))).toBe('2026-11-23T08:00')
  })
})

it.each([
  ['Front door left', 'door', 'left'],
  ['Rear bumper', 'rear_bumper', 'rear'],
  ['Front bumper', 'front_bumper', 'front'],
  ['Hood', 'bonnet', 'centre'],
  ['fender R', 'wing', 'right'],
  ['Mirror right', 'mirror', 'right'],
  ['Rear handle left', 'handle', 'left'],
  ['Something', 'other', 'centre'],
])('%s is guessed as %s, %s', (name, kind, side) => expect(guessPanel(name)).toEqual({ kind, side }))
