import 'fake-indexeddb/auto'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import { PULL_REACH_MM } from '@/core/model/edge/cut-rules'
import type { FigureUnit } from '@/core/model/figure/figure'
import { NO_SOLUTIONS, solutionTables } from '@/core/model/catalogue/solution-tables'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { comparedBy, panelFitness } from '@/core/stages/film/fitness'
import { demoSolutions } from '@/db/demo/solutions'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { Bay } from '@/web/bay/bay'
import { SkinPage } from '@/web/skin/skin-page'
import { Edges } from '@/web/edges/edges'
import { FilmChoice } from '@/web/film/film-choice'
import { Handover } from '@/web/handover/handover'
import { JobProvider } from '@/web/job/job-state'
import { Rail } from '@/web/job/rail'
import { Pieces } from '@/web/pieces/pieces'
import { Roll } from '@/web/roll/roll'
import { RunSheet } from '@/web/run-sheet/run-sheet'
import { Tape } from '@/web/tape/tape'
import { WalkaroundView } from '@/web/walkaround/walkaround'
import { formatter, type MemberUnits } from '@/web/words/format'
import { stubBrowser } from '../fixtures/browser'
import { catalogue } from '../fixtures/plans'

vi.mock('@/web/actions/jobs', () => ({ saveJob: vi.fn(), takeBackChange: vi.fn() }))
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/tape',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh: () => {}, replace: () => {} }),
}))
vi.stubGlobal('fetch', async () => new Response('{}'))
stubBrowser()

const UNITS: MemberUnits = { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' }
const fmt = formatter(UNITS)
const STAGES = {
  rail: Rail,
  walkaround: WalkaroundView,
  film: FilmChoice,
  tape: Tape,
  pieces: Pieces,
  roll: Roll,
  edges: Edges,
  run_sheet: RunSheet,
  handover: Handover,
  skin: SkinPage,
  bay: Bay,
}
/** A number with its unit, or money. */
const NUMBER = /€[\d,]+(?:\.\d+)?|\d[\d,]*(?:[.:]\d+)?(?=\s?(?:mm|cm²|m²|m\b|%|°C|min\b|h\b|ΔE))/g

const NOBODY = { id: '00000000-0000-4000-8000-00000000aaaa', name: 'Tamsin Brack', role: 'lead' as const }
/** Said of the tool or the trade, not of this job. */
const IN_WORDS = ['70 % isopropyl', '0.95 m are read']

/** What a field's number is measured in, by its name: `widthMm`, `airC`; a share, a price or a count has no suffix. */
const unitsOf = (field: string): FigureUnit[] => {
  if (/mm2$/i.test(field)) return ['mm2']
  if (/mm$/i.test(field)) return ['mm']
  if (/(?:[a-z]C|_c)$/.test(field)) return ['C']
  if (/min(?:utes)?$/i.test(field) || /^(?:post_heat|lay|trim|degrease|wash|\w+):/.test(field)) return ['min']
  if (/money|price|cost|minimum/i.test(field)) return ['money', 'money_each']
  return ['fraction', 'count', 'delta_e']
}

/** Every number that stands somewhere in it, with the field that it stands in. */
function leaves(value: unknown, out: [string, number][] = [], field = ''): [string, number][] {
  if (typeof value === 'number') out.push([field, value])
  else if (value instanceof Map) for (const v of value.values()) leaves(v, out, field)
  else if (Array.isArray(value)) for (const v of value) leaves(v, out, field)
  else if (typeof value === 'object' && value !== null)
    // Ends of a range are measured as the range is.
    for (const [key, v] of Object.entries(value)) leaves(v, out, /^(?:min|max|x|y)$/.test(key) ? field : key)
  return out
}

/** How each number that this job has could be read: its figures with what they are made of, and what was typed. */
function knownTexts(plan: Plan, shop: Catalogue): Set<string> {
  const { figures, steps, layouts, edges } = reckon(plan, shop, [])
  const known = new Set<string>()
  const add = (value: number, unit: FigureUnit) => {
    known.add(fmt.quantity(value, unit).text)
    if (unit === 'mm') for (const q of [fmt.length(value), fmt.longLength(value)]) known.add(q.text)
  }
  const others = shop.films.flatMap((f) =>
    plan.panels.flatMap((p) => panelFitness(f, p, plan, shop, comparedBy(plan, p, shop)).figures),
  )
  for (const f of [...figures.values(), ...others])
    for (const { value, unit } of [f, ...f.inputs, ...(f.limit ? [f.limit] : [])])
      if (typeof value === 'number') add(value, unit)
  // Steps, cuts and edges are told by their own rows, each with what decided it.
  const cuts = layouts.flatMap((l) => l.rolls.map((r) => r.cutting))
  const placed = layouts.flatMap((l) => l.rolls.map((r) => r.placements))
  const pieces = layouts.flatMap((l) => l.pieces.map(({ acrossMm, alongMm }) => ({ acrossMm, alongMm })))
  const reachMm = PULL_REACH_MM
  const rows = { plan, films: shop.films, stock: shop.stock, steps, cuts, placed, pieces, edges: edges.edges, reachMm }
  for (const [field, value] of leaves(rows)) for (const unit of unitsOf(field)) add(value, unit)
  return known
}

/** What a person reads, but for figures that open their working and the ticks of a scale. */
function readText(container: HTMLElement): string {
  const texts: string[] = []
  const walk = (node: Node) => {
    if (node instanceof Element && node.matches('button.figure, .scale-tick, script, style'))
      return void texts.push(' ')
    if (node.nodeType === Node.TEXT_NODE) return void texts.push(node.textContent ?? '')
    node.childNodes.forEach(walk)
    if (/^(DIV|P|TD|TH|LI|TR|H\d|BUTTON|text)$/.test(node.nodeName)) texts.push('\n')
  }
  walk(container)
  return texts.join('')
}

afterEach(cleanup)

describe.each(DEMO_JOBS.map(({ id, make }) => [Plan.parse(make()).vehicle.name, id, make] as const))(
  '%s',
  (_, id, make) => {
    const made = Plan.parse(make())
    const plan = { ...made, runSheet: { ...made.runSheet, startAt: '2026-11-23T08:00' } }
    const shop: Catalogue = { ...catalogue, solutions: { ...NO_SOLUTIONS, ...solutionTables(demoSolutions(id)) } }
    const known = knownTexts(plan, shop)
    it.each(Object.entries(STAGES))(
      '%s: each number with a unit is a figure of the job, or was typed',
      (name, Stage) => {
        const start = {
          jobId: id,
          number: 1,
          shopHead: 0,
          plan,
          ledger: [],
          catalogue: shop,
          units: UNITS,
          member: NOBODY,
        }
        const { container } = render(
          <QueryClientProvider client={new QueryClient()}>
            <JobProvider start={start}>
              <Stage />
            </JobProvider>
          </QueryClientProvider>,
        )
        // The bay shows one view at a time.
        const views = [...container.querySelectorAll<HTMLElement>('nav[aria-label="Bay views"] button')]
        if (name === 'bay') expect(views.length).toBe(5)
        const text = [
          readText(container),
          ...views.map((view) => {
            fireEvent.click(view)
            return readText(container)
          }),
        ].join('\n')
        const unknown = [...text.matchAll(NUMBER)].flatMap((m) => {
          const about = text.slice(Math.max(0, m.index - 40), m.index + 25).replace(/\s+/g, ' ')
          return known.has(m[0]) || IN_WORDS.some((w) => text.slice(m.index, m.index + 20).startsWith(w)) ? [] : [about]
        })
        expect(unknown).toEqual([])
      },
    )
  },
)

it('a number that no figure has is found', () => {
  const plan = Plan.parse(DEMO_JOBS[0]?.make())
  const known = knownTexts(plan, catalogue)
  const said = [...'Film 913.77 m, €4,711.13, 61.43 % of it, 12:59 h'.matchAll(NUMBER)].map((m) => m[0])
  expect(said).toEqual(['913.77', '€4,711.13', '61.43', '12:59'])
  expect(said.filter((n) => known.has(n))).toEqual([])
})
