import 'fake-indexeddb/auto'
import { cleanup, fireEvent, screen, within } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import { Edges } from '@/web/edges/edges'
import { matches } from '@/web/edges/edge-table'
import { word } from '@/web/words/names'
import { stubBrowser } from '../fixtures/browser'
import { openJob, type OpenJob } from '../fixtures/open-job'
import { handCar } from '../fixtures/plans'
import { button, tap, typeIn } from '../fixtures/press'

vi.mock('@/web/actions/jobs', () => ({ saveJob: () => new Promise(() => {}), takeBackChange: vi.fn() }))
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/edges',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh: () => {}, replace: () => {} }),
}))
vi.stubGlobal('fetch', async () => new Response('{}', { status: 503 }))
stubBrowser()
afterEach(cleanup)

const edgesOf = ({ job }: OpenJob): readonly EdgeDecision[] => job().reckoning.edges.edges
const decided = (o: OpenJob, panelId: string, at: string): EdgeDecision => {
  const found = edgesOf(o).find((e) => e.panelId === panelId && e.at === at)
  if (!found) throw new Error(`${panelId}, ${at}`)
  return found
}
const measured = ({ job }: OpenJob, panelId: string, edgeId: string) =>
  job()
    .plan.panels.find((p) => p.id === panelId)
    ?.edges.find((e) => e.id === edgeId)
const fields = () => screen.getByRole('group', { name: 'This edge' })
const field = (label: string) => within(fields()).getByLabelText(label)
const mark = (name: string) => fireEvent.click(screen.getByRole('checkbox', { name: `Change together: ${name}` }))
const together = () => screen.getByRole('region', { name: 'Edges changed together' })

describe('one edge', () => {
  it('is picked by its name, and its section and fields are its own', () => {
    const o = openJob(<Edges />)
    const last = edgesOf(o).at(-1)
    if (!last) throw new Error('no edge')
    const name = `${o.job().plan.panels.find((p) => p.id === last.panelId)?.name}, ${last.at}`
    tap(name)
    expect(button(name).getAttribute('aria-pressed')).toBe('true')
    typeIn(field('Gap'), '3')
    expect(measured(o, last.panelId, last.edgeId)?.gapMm).toBe(3)
  })
  it('a cut against the rules stands until it is given back to them', () => {
    const o = openJob(<Edges />)
    const [first] = edgesOf(o)
    if (!first) throw new Error('no edge')
    const choices = [...within(fields()).getByLabelText<HTMLSelectElement>('Cut').options].map((c) => c.value)
    const other = choices.find((c) => c !== '' && c !== first.cut)
    if (!other) throw new Error('no other cut')
    fireEvent.change(field('Cut'), { target: { value: other } })
    expect(decided(o, first.panelId, first.at).cut).toBe(other)
    fireEvent.change(field('Cut'), { target: { value: '' } })
    expect(decided(o, first.panelId, first.at)).toEqual(first)
  })
  it('only cuts that go at such an edge are offered, each with what it leaves', () => {
    const o = openJob(<Edges />)
    for (const e of edgesOf(o).slice(0, 6)) {
      const name = o.job().plan.panels.find((p) => p.id === e.panelId)?.name ?? ''
      fireEvent.click(screen.getByText(`${name}, ${e.at}`, { selector: 'button.row-pick' }))
      const options = [...within(fields()).getByLabelText<HTMLSelectElement>('Cut').options]
      for (const c of options.filter((c) => c.value !== '')) {
        fireEvent.change(field('Cut'), { target: { value: c.value } })
        const now = decided(o, e.panelId, e.at)
        expect(now.cut, `${e.meets}, ${c.value}`).toBe(c.value)
        expect(c.textContent).toContain(`${o.job().fmt.text(o.job().fmt.length(now.leaveMm))} left`)
      }
      fireEvent.change(field('Cut'), { target: { value: '' } })
    }
  })
  it('what is left is typed, held to what can be, and emptied goes back to the rules', () => {
    const o = openJob(<Edges />)
    const [first] = edgesOf(o)
    if (!first) throw new Error('no edge')
    typeIn(field('Left'), '9')
    expect(decided(o, first.panelId, first.at).leaveMm).toBe(9)
    typeIn(field('Left'), '121')
    expect(decided(o, first.panelId, first.at).leaveMm).toBe(9)
    typeIn(field('Left'), '')
    expect(decided(o, first.panelId, first.at).leaveMm).toBe(first.leaveMm)
  })
  it('an edge that is grabbed every day is an entry of the measured car, not of one film', () => {
    const o = openJob(<Edges />)
    const [first] = edgesOf(o)
    if (!first) throw new Error('no edge')
    const grabs = [...within(fields()).getByLabelText<HTMLSelectElement>('Grabbed').options].map((c) => c.value)
    for (const grab of grabs) {
      fireEvent.change(field('Grabbed'), { target: { value: grab } })
      expect(measured(o, first.panelId, first.edgeId)?.grab).toBe(grab)
    }
  })
})

describe('edges changed together', () => {
  it('are those marked and no other; what was not set stays as it was', () => {
    const o = openJob(<Edges />)
    const door = edgesOf(o).filter((e) => e.panelId === 'door')
    const [one, two] = door
    if (!one || !two) throw new Error('too few edges')
    const before = o.job().plan
    mark(`Door, ${one.at}`)
    mark(`Door, ${two.at}`)
    expect(together().textContent).toContain(`2 of ${edgesOf(o).length} edges marked`)
    expect(within(together()).getByRole<HTMLButtonElement>('button', { name: 'Set on these 2' }).disabled).toBe(true)
    typeIn(within(together()).getByLabelText('Gap of the edges marked'), '6')
    fireEvent.click(within(together()).getByRole('button', { name: 'Set on these 2' }))
    const changed = o
      .job()
      .plan.panels.flatMap((p) => p.edges.filter((e) => e.gapMm === 6).map((e) => `${p.id}/${e.id}`))
    expect(changed.sort()).toEqual([`door/${one.edgeId}`, `door/${two.edgeId}`].sort())
    for (const e of [one, two]) {
      const was = before.panels.find((p) => p.id === 'door')?.edges.find((x) => x.id === e.edgeId)
      expect(measured(o, 'door', e.edgeId)).toEqual({ ...was, gapMm: 6 })
    }
    expect(screen.queryByRole('region', { name: 'Edges changed together' })).toBeNull()
  })
  it('all that the filter shows can be marked, and nothing that it hides', () => {
    const o = openJob(<Edges />)
    fireEvent.change(screen.getByLabelText('Filter edges'), { target: { value: 'wing' } })
    const wing = edgesOf(o).filter((e) => e.panelId === 'wing')
    mark(`Wing, ${wing[0]?.at}`)
    fireEvent.click(within(together()).getByRole('button', { name: 'Mark all shown' }))
    fireEvent.change(within(together()).getByLabelText('Opens'), { target: { value: 'door' } })
    const set = within(together()).getByRole('button', { name: /^Set on / })
    expect(set.textContent).toBe(`Set on these ${wing.length}`)
    const opens = within(together()).getByLabelText<HTMLSelectElement>('Opens').value
    fireEvent.click(set)
    for (const p of o.job().plan.panels)
      for (const e of p.edges)
        if (edgesOf(o).some((x) => x.panelId === p.id && x.edgeId === e.id))
          expect(e.opens === (opens || null), `${p.id}/${e.id}`).toBe(p.id === 'wing' || opens === '')
  })
  it('go back to the rules together', () => {
    const o = openJob(<Edges />)
    const [one, two] = edgesOf(o).filter((e) => e.panelId === 'door')
    if (!one || !two) throw new Error('too few edges')
    const name = (e: EdgeDecision) => `Door, ${e.at}`
    for (const e of [one, two]) mark(name(e))
    typeIn(within(together()).getByLabelText('Left of the edges marked'), '11')
    fireEvent.click(within(together()).getByRole('button', { name: 'Set on these 2' }))
    expect(decided(o, 'door', one.at).leaveMm).toBe(11)
    for (const e of [one, two]) mark(name(e))
    fireEvent.click(within(together()).getByRole('button', { name: 'Back to the rules' }))
    fireEvent.click(within(together()).getByRole('button', { name: 'Set on these 2' }))
    for (const e of [one, two]) expect(decided(o, 'door', e.at)).toEqual(e)
  })
  it('marking none changes nothing', () => {
    const o = openJob(<Edges />)
    const before = o.job().plan
    const [one] = edgesOf(o).filter((e) => e.panelId === 'door')
    mark(`Door, ${one?.at}`)
    fireEvent.click(within(together()).getByRole('button', { name: 'Mark none' }))
    expect(screen.queryByRole('region', { name: 'Edges changed together' })).toBeNull()
    expect(o.job().plan).toBe(before)
  })
})

describe('who may, and what there is', () => {
  it('a desk reads every edge and has nothing to press that changes one', () => {
    openJob(<Edges />, { role: 'desk' })
    expect(screen.queryAllByRole('checkbox', { name: /^Change together/ })).toEqual([])
    expect(screen.queryByRole('button', { name: /Change it$/ })).toBeNull()
  })
  it('without a panel it says what to do', () => {
    openJob(<Edges />, { plan: { ...handCar(), panels: [] } })
    expect(document.body.textContent).toContain('No piece yet: tape a panel and choose a film')
  })
  it('a filter that finds nothing says so', () => {
    openJob(<Edges />)
    fireEvent.change(screen.getByLabelText('Filter edges'), { target: { value: 'nothing like that' } })
    expect(document.body.textContent).toContain('No edge has that in its panel, cut or reason.')
  })
  it('the filter finds an edge by its panel, what it meets, its cut, its heat and its reason', () => {
    const o = openJob(<Edges />)
    const names = new Map(o.job().plan.panels.map((p) => [p.id, p.name]))
    for (const e of edgesOf(o)) {
      const told = [
        names.get(e.panelId) ?? '',
        word('edge', e.meets),
        word('cutSide', e.cut),
        word('edgeHeat', e.heat),
        ...e.why.map((w) => word('edgeWhy', w)),
      ]
      for (const text of told.filter((t) => t !== '')) {
        expect(matches(e, names, text.toUpperCase()), text).toBe(true)
        expect(matches(e, names, ` ${text.slice(0, 5)}`), text).toBe(true)
      }
      expect(matches(e, names, '')).toBe(true)
      expect(matches(e, names, 'qqq')).toBe(false)
    }
  })
})
