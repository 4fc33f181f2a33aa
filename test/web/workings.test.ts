import { describe, expect, it } from 'vitest'
import { formulaWithNumbers, type Figure } from '@/core/model/figure/figure'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { figureName } from '@/web/words/figure-names'
import { formatter } from '@/web/words/format'
import { asInput, formulaInWords } from '@/web/words/formulas'
import { placeOf } from '@/web/words/places'
import { sourceText } from '@/web/words/sources'
import { stepOfId } from '@/web/words/steps'
import { catalogue } from '../fixtures/plans'

const climate = [{ at: '2026-11-20T08:00:00Z', airC: 20, humidity: 0.5, surfaceC: 19, by: 'Tamsin Brack' }]
const jobs = DEMO_JOBS.map(({ make }) => {
  const plan = Plan.parse(make())
  const dated = { ...plan, runSheet: { ...plan.runSheet, startAt: '2026-11-23T08:00' } }
  return [plan.vehicle.name, dated, [...reckon(dated, { ...catalogue, climate }, []).figures.values()]] as const
})
/** An id, a key or a file where a person reads words. */
const NO_WORD = /[a-z]+:[a-z]|[a-z]_[a-z]|\.md\b|\bdata\/|\bundefined\b|\bNaN\b/

describe.each(jobs)('%s: a stranger can follow every working', (_, plan, figures) => {
  const each = (look: (f: Figure) => string) =>
    figures.map((f) => [f.id, look(f)] as const).filter(([, text]) => NO_WORD.test(text))
  it('says where each input was entered in words, not by ids', () => {
    const label = (at: string) =>
      at.startsWith('figure:') ? figureName(at.slice(7), plan) : placeOf(at, plan, 'x').label
    expect(each((f) => f.inputs.map((i) => label(i.at)).join(' | '))).toEqual([])
  })
  it('reads as a formula in words, with the numbers put in or not', () => {
    const bare = (text: string) => text.replace(/\{\w+\}/g, 'x')
    expect(each((f) => bare(formulaInWords(f.formula)))).toEqual([])
    const numbers = (f: Figure) => formulaInWords(formulaWithNumbers(f, (i) => String(i.value)))
    expect(each((f) => numbers(f).replace(/\d{4}-\d{2}-\d{2}T[\d:]+/g, 'then'))).toEqual([])
    // No word twice in a row, such as a name beside its own unit.
    const named = (f: Figure) => formulaInWords(f.formula).replace(/\{(\w+)\}/g, '$1')
    expect(figures.filter((f) => /\b([a-z]{3,}) \1\b/.test(named(f))).map((f) => f.id)).toEqual([])
  })
  it('each number stands where its name stood: a comma within a date parts no two of them', () => {
    const fmt = formatter({ lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' })
    for (const f of figures.filter((x) => x.inputs.some((i) => i.unit === 'wall_time'))) {
      const shown = (i: Figure['inputs'][number]) => asInput(fmt.text(fmt.quantity(i.value, i.unit)))
      const text = formulaInWords(formulaWithNumbers(f, shown))
      for (const i of f.inputs.filter((x) => f.formula.includes(`{${x.key}}`))) expect(text).toContain(shown(i))
      expect(text).not.toContain('undefined')
    }
  })
  it('names its source as readers know it, not as a file', () => {
    expect(each((f) => (f.source ? sourceText(f.source) : ''))).toEqual([])
  })
  it('is no identity: what it is made of is not itself', () => {
    expect(figures.filter((f) => f.inputs.some((i) => i.at === `figure:${f.id}`)).map((f) => f.id)).toEqual([])
    const twin = (f: Figure) =>
      f.inputs.length === 1 &&
      f.inputs[0]?.at.startsWith('figure:') &&
      (f.formula === 'Σ inputs' || /^\{\w+\}$/.test(f.formula))
    expect(figures.filter(twin).map((f) => f.id)).toEqual([])
  })
})

it('a step is named by what is done, and where', () => {
  const names: Record<string, string> = { door: 'Door', fen: 'Fen satin' }
  expect(stepOfId('wash', (id) => names[id])).toBe('Wash outside')
  expect(stepOfId('lay:door', (id) => names[id])).toBe('Lay: Door')
  expect(stepOfId('post_heat:fen', (id) => names[id])).toBe('Post-heat and read: Fen satin')
})
