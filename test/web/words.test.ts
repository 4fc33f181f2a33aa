import { FAULT_CODES, faultCode, isFaultCode } from '@/core/kit/fault-code'
import { filesBelow } from '../fixtures/files'
import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { planEdits } from '@/core/model/plan/merge'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { FORMULA_FUNCTIONS } from '@/core/model/figure/formula'
import { formulaWithNumbers } from '@/core/model/figure/figure'
import { formulaInWords } from '@/web/words/formulas'
import { formatter } from '@/web/words/format'
import { findingText, wayOutText } from '@/web/words/findings'
import { CAUTIONS, stepTitle } from '@/web/words/steps'
import { faultText } from '@/web/words/faults'
import { stageWhy } from '@/web/words/stages'
import { SEEN, solvedText, spotText } from '@/web/words/stretch-words'
import { summarise } from '@/web/words/summary'
import { waysOutFor } from '@/core/engines/stretch/ways'
import { catalogue, handCar, withPanel } from '../fixtures/plans'

const metric = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
const inches = formatter({ lengthUnit: 'in', tempUnit: 'F', locale: 'en-US', currency: 'USD', timeZone: 'UTC' })

it('a day is told without its hour, on either side of the sea', () => {
  expect(metric.day('2026-03-02')).toBe('Mon 2 Mar')
  expect(inches.day('2026-03-02T00:00')).toBe('Mon, Mar 2')
})
it('every code that a schema of ours refuses with is known, so that it has its sentence', () => {
  const files = [...filesBelow('core', '.ts'), ...filesBelow('db', '.ts'), ...filesBelow('web', '.ts')]
  const codes = new Map<string, string>()
  for (const file of files)
    for (const [, code] of readFileSync(file, 'utf8').matchAll(/\b(?:error|message): '([a-z]+(?:_[a-z]+)+)'/g))
      codes.set(code ?? '', file)
  expect(codes.size).toBeGreaterThan(15)
  for (const [code, file] of codes) expect(isFaultCode(code), `${code} of ${file}`).toBe(true)
})
it('what comes from elsewhere with a code that nobody knows is told as what it is', () => {
  expect(faultCode('too_big')).toBe('too_big')
  expect(faultCode('never_heard_of', 'offline')).toBe('offline')
  expect(faultCode(null)).toBe('bad_input')
  const said = FAULT_CODES.map((code) => faultText({ code, facts: { said: 'Line 2: too wide.' } }, metric))
  expect(said.filter((text) => text.length < 7 || text.startsWith('Cannot be taken ('))).toEqual([])
})
it('every function of a formula is said in words, with the numbers put in or without', () => {
  const said = new Set<string>()
  for (const { make } of DEMO_JOBS)
    for (const f of reckon(Plan.parse(make()), catalogue, []).figures.values()) {
      for (const [, name] of f.formula.matchAll(/([a-z_]+_[a-z_]+|fed|flat|inlaid|profile|relaxed)\(/g))
        said.add(name ?? '')
      for (const text of [f.formula, formulaWithNumbers(f)])
        expect(formulaInWords(text), f.id).not.toMatch(/[a-z]_[a-z]+\(|undefined/)
    }
  expect(said.size).toBeGreaterThan(10)
  expect([...said].filter((name) => !(FORMULA_FUNCTIONS as readonly string[]).includes(name))).toEqual([])
  expect(formulaInWords('fed({depth})')).toBe('fed from the open side: {depth} deep, no stretch')
  expect(formulaInWords('shingle_sheets(1 m, 2 m, 5 mm, 3 mm) ÷ 2')).toContain('1 m × 2 m with 5 mm')
})
it('every demo job reads as sentences with no hole in them, in either system', () => {
  for (const { make } of DEMO_JOBS) {
    const r = reckon(Plan.parse(make()), catalogue, [])
    for (const fmt of [metric, inches])
      for (const text of [
        ...r.findings.flatMap((f) => [findingText(f, fmt), ...f.waysOut.map((x) => wayOutText(x, fmt))]),
        ...r.stages.map((s) => stageWhy(s, fmt)),
        ...r.steps.map(stepTitle),
        ...r.steps.flatMap((s) => s.cautions.map((c) => CAUTIONS[c])),
      ])
        expect(text).not.toMatch(/undefined|NaN|null|_/)
  }
})
it('ways out of too much stretch, their seams and places, read as words in either system', () => {
  const base: Plan = { ...Plan.parse(DEMO_JOBS[0]?.make()), pieces: [] }
  const plan: Plan = { ...base, method: { ...base.method, tension: 'triangles' } }
  const tough = {
    ...catalogue.films[0],
    id: 'tough',
    name: 'Tough',
    stretchLimit: 0.5,
  } as (typeof catalogue.films)[number]
  const found = waysOutFor(plan, 'mirror-left', { triangles: 300, films: [tough] })
  if (!found.ok) throw new Error(found.error.code)
  expect(found.value.ways.length).toBeGreaterThan(10)
  for (const fmt of [metric, inches])
    for (const way of found.value.ways) {
      const text = `${solvedText(way, fmt)} ${SEEN[way.seen]}`
      expect(text).not.toMatch(/undefined|NaN|null|_/)
      expect(text.length).toBeGreaterThan(10)
    }
  expect(spotText({ row: 'middle', column: 'middle' })).toBe('the middle')
  expect(spotText({ row: 'top', column: 'left' })).toBe('the top left corner')
  expect(
    findingText(
      { code: 'stretch_over_limit', facts: { panel: 'P', value: 0.2, limit: 0.1, where: 'spot:bottom:middle' } },
      metric,
    ),
  ).toContain('at its bottom, limit 10.0 %')
})
it('numbers come in the member’s own units', () => {
  expect(metric.text(metric.quantity(10960, 'mm'))).toBe('10.96 m')
  expect(inches.text(inches.quantity(10960, 'mm'))).toBe('11.99 yd')
  expect(inches.text(inches.quantity(952.5, 'mm'))).toBe('37 1/2″')
  expect(inches.text(inches.quantity(90, 'C'))).toBe('194 °F')
  expect(metric.text(metric.temp(15.5))).toBe('15.5 °C')
  expect(metric.text(metric.quantity(0.1771, 'fraction'))).toBe('17.7 %')
  expect(metric.text(metric.quantity(9240, 'mm2'))).toBe('92 cm²')
  expect(metric.text(metric.quantity(1.2696e6, 'mm2'))).toBe('1.27 m²')
  expect(inches.text(inches.quantity(6451.6, 'mm2'))).toBe('10.0 in²')
  expect(metric.text(metric.quantity(1272, 'min'))).toBe('21:12 h')
})
it('a save is told in one line', () =>
  expect(
    summarise(
      planEdits(
        handCar(),
        withPanel(handCar(), 'door', () => ({ widthMm: 1111 })),
      ),
    ),
  ).toBe('Door: width 1050 → 1111'))
it('a fault tells where', () =>
  expect(faultText({ code: 'too_big', at: 'panels[1].widthMm', facts: { maximum: 15000 } })).toBe(
    'Too large: at most 15000. At: panels[1].widthMm',
  ))
