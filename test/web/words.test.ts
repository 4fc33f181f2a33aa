import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { planEdits } from '@/core/model/plan/merge'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { formatter } from '@/web/words/format'
import { CAUTIONS, faultText, findingText, stageWhy, stepTitle, wayText } from '@/web/words/sentences'
import { refusal } from '@/web/words/refusals'
import { SEEN, solvedText, spotText } from '@/web/words/stretch-words'
import { summarise } from '@/web/words/summary'
import { waysFor } from '@/core/engines/stretch/ways'
import { filesBelow } from '../fixtures/files'
import { catalogue, handCar, withPanel } from '../fixtures/plans'

const metric = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
const inches = formatter({ lengthUnit: 'in', tempUnit: 'F', locale: 'en-US', currency: 'USD', timeZone: 'UTC' })

it('every code of a finding, anywhere in core, has its sentence', () => {
  const text = filesBelow('core', '.ts')
    .map((f) => readFileSync(f, 'utf8'))
    .join('\n')
  const codes = [
    ...text.matchAll(/(?:finding|add|say)\(\s*(?:panel,\s*)?'(\w+)'/g),
    ...text.matchAll(/rule\(\s*'\w+',\s*'(\w+)'/g),
    ...text.matchAll(/code: '(unfit_\w+|chrome_\w+|print_gas_out|short_warranty|no_warranty_zone)'/g),
  ].map((m) => m[1] ?? '')
  expect(codes.length).toBeGreaterThan(30)
  for (const code of new Set(codes)) expect(findingText({ code, facts: {} }, metric), code).not.toBe(code)
})
it('every reason why a piece cannot lie somewhere has its sentence', () => {
  const text = readFileSync('core/engines/roll/arrange.ts', 'utf8')
  const codes = [...new Set([...text.matchAll(/code: '(\w+)'/g)].map((m) => m[1] ?? '')), 'is_locked']
  expect(codes.length).toBeGreaterThan(7)
  for (const code of codes)
    expect(refusal({ code, facts: { piece: 'Bonnet', others: 'Roof' } }, metric), code).not.toBe(code)
})
it('every demo job reads as sentences with no hole in them, in either system', () => {
  for (const { make } of DEMO_JOBS) {
    const r = reckon(Plan.parse(make()), catalogue, [])
    for (const fmt of [metric, inches])
      for (const text of [
        ...r.findings.flatMap((f) => [findingText(f, fmt), ...f.waysOut.map((x) => wayText(x, fmt))]),
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
  const found = waysFor(plan, 'mirror-left', { triangles: 300, films: [tough] })
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
