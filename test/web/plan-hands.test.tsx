import 'fake-indexeddb/auto'
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { SCHOOLS, type School } from '@/core/model/method/method-data'
import { METHODS } from '@/core/model/method/schema'
import type { Plan } from '@/core/model/plan/schema'
import { addMember, setRole, setShopMethod } from '@/web/actions/shop'
import { MethodPlate } from '@/web/method/method-plate'
import { ShopPeople } from '@/web/people/shop-people'
import { PieceChoiceCells } from '@/web/pieces/piece-choice-cells'
import { Drops } from '@/web/roll/drops'
import { RollSettings } from '@/web/roll/roll-settings'
import { PanelSurface } from '@/web/tape/panel-surface'
import { useJob } from '@/web/job/job-state'
import { stubBrowser } from '../fixtures/browser'
import { openJob, type OpenJob } from '../fixtures/open-job'
import { choiceOf, film, handCar } from '../fixtures/plans'
import { pick, tap, type } from '../fixtures/press'

vi.mock('@/web/actions/jobs', () => ({ saveJob: () => new Promise(() => {}), takeBackChange: vi.fn() }))
vi.mock('@/web/actions/shop', () => ({ setShopMethod: vi.fn(), addMember: vi.fn(), setRole: vi.fn() }))
const refresh = vi.fn()
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/pieces',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh, replace: () => {} }),
}))
vi.stubGlobal('fetch', async () => new Response('{}', { status: 503 }))
stubBrowser()
afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

const select = (id: string): HTMLSelectElement => {
  const found = document.getElementById(id)
  if (!(found instanceof HTMLSelectElement)) throw new Error(id)
  return found
}
const figure = ({ job }: OpenJob, id: string): number => Number(job().reckoning.figures.get(id)?.value)

describe('the method of a job', () => {
  it.each(METHODS.map((m) => m.name))('%s, started from, is the whole of it', (name) => {
    const o = openJob(<MethodPlate />)
    pick('Start from', name)
    expect(o.job().plan.method).toEqual(METHODS.find((m) => m.name === name))
  })
  it.each(Object.keys(SCHOOLS) as School[])(
    '%s: each choice is that of the plan, and nothing else of it moves',
    (field) => {
      const o = openJob(<MethodPlate />)
      const before = o.job().plan
      for (const value of SCHOOLS[field]) {
        fireEvent.change(select(`method-${field}`), { target: { value } })
        expect(String(o.job().plan.method[field])).toBe(value)
        expect({ ...o.job().plan, method: null }).toEqual({ ...before, method: null })
        expect({ ...o.job().plan.method, [field]: null }).toEqual({ ...before.method, [field]: null })
      }
    },
  )
  it('a bleed out of bounds is not taken, one within them is, and film grows with it', () => {
    const o = openJob(<MethodPlate />)
    const was = figure(o, 'rail/film_used')
    for (const text of ['4', '201', 'wide']) type('Bleed', text)
    expect(o.job().plan.method.bleedMm).toBe(handCar().method.bleedMm)
    type('Bleed', '120')
    expect(o.job().plan.method.bleedMm).toBe(120)
    expect(figure(o, 'rail/film_used')).toBeGreaterThan(was)
  })
  it('a name that is blank leaves the name it had', () => {
    const o = openJob(<MethodPlate />)
    type('Called', '   ')
    expect(o.job().plan.method.name).toBe(handCar().method.name)
    type('Called', 'Ours')
    expect(o.job().plan.method.name).toBe('Ours')
  })
  it('on this job: a row for each choice, with its film, stretch and hours', () => {
    openJob(<MethodPlate />)
    const [first] = screen.getAllByRole('button', { name: 'On this job' })
    if (!first) throw new Error('nothing to compare')
    fireEvent.click(first)
    const table = screen.getAllByRole('table').at(-1)
    const [field] = Object.keys(SCHOOLS) as School[]
    if (!table || !field) throw new Error('no table')
    expect(within(table).getAllByRole('row').length).toBe(SCHOOLS[field].length + 1)
    expect(within(table).getAllByText(/\d/).length).toBeGreaterThan(SCHOOLS[field].length)
  })
  it('made the shop’s own it says so; a refusal is said in its place', async () => {
    vi.mocked(setShopMethod).mockResolvedValueOnce({ ok: true, value: null } as never)
    openJob(<MethodPlate />)
    tap('Make it the shop’s own')
    await screen.findByText('New jobs start with this method.')
    vi.mocked(setShopMethod).mockResolvedValueOnce({ ok: false, error: { code: 'forbidden' } } as never)
    tap('Make it the shop’s own')
    await waitFor(() => expect(screen.getByRole('status').textContent).not.toContain('New jobs start'))
  })
  it('an installer reads it and changes nothing', () => {
    openJob(<MethodPlate />, { role: 'installer' })
    expect(select('method-tension').matches(':disabled')).toBe(true)
    expect(screen.queryByRole('button', { name: 'Make it the shop’s own' })).toBeNull()
  })
})

describe('how a roll is cut', () => {
  it('by a machine there are no stages of cuts to choose', () => {
    const o = openJob(<RollSettings />)
    expect(screen.getByLabelText('Stages of cuts')).toBeTruthy()
    pick('Cut', 'free')
    expect(o.job().plan.layout.cutting).toBe('free')
    expect(screen.queryByLabelText('Stages of cuts')).toBeNull()
  })
  it('a gap between pieces and a trim take film, never less', () => {
    const o = openJob(<RollSettings />)
    const was = figure(o, 'rail/film_used')
    type('Gap between pieces', '15')
    const gapped = figure(o, 'rail/film_used')
    expect(gapped).toBeGreaterThanOrEqual(was)
    type('Left unused along both edges of the roll', '40')
    expect(figure(o, 'rail/film_used')).toBeGreaterThanOrEqual(gapped)
    type('Gap between pieces', '')
    expect(o.job().plan.layout.gapMm).toBe(0)
    type('Gap between pieces', '101')
    expect(o.job().plan.layout.gapMm).toBe(0)
  })
  it('more stages of cuts never take more film than fewer', () => {
    const o = openJob(<RollSettings />)
    const used = ['2', '3', '4'].map((n) => {
      pick('Stages of cuts', n)
      return figure(o, 'rail/film_used')
    })
    expect(o.job().plan.layout.stages).toBe(4)
    expect(used[1]).toBeLessThanOrEqual(used[0] ?? 0)
    expect(used[2]).toBeLessThanOrEqual(used[1] ?? 0)
  })
  it('a reserve is set aside where it is asked for', () => {
    const o = openJob(<RollSettings />)
    const was = o.job().plan.layout.reserve
    fireEvent.click(screen.getByRole('checkbox'))
    expect(o.job().plan.layout.reserve).toBe(!was)
  })
  it('a width of the film is chosen, and left to the cheapest again', () => {
    const two = { ...film('fen-satin'), widthsMm: [1520, 760] }
    const o = openJob(<RollSettings />, { plan: { ...handCar(), film: { ...handCar().film, sheets: [two] } } })
    pick('Roll width', '760')
    expect(o.job().plan.layout.rollWidthMm).toBe(760)
    pick('Roll width', '')
    expect(o.job().plan.layout.rollWidthMm).toBeNull()
  })
  it('without sides there are no drops to lay', () => {
    const plan: Plan = { ...handCar(), panels: [] }
    openJob(<Drops film={film('fen-satin')} />, { plan })
    expect(screen.queryByRole('region', { name: 'Drops over the sides' })).toBeNull()
  })
})

describe('the pieces of one panel', () => {
  function Row() {
    const { plan } = useJob('plan')
    const panel = plan.panels.find((p) => p.id === 'door')
    if (!panel) return null
    return (
      <table>
        <tbody>
          <tr>
            <PieceChoiceCells panel={panel} choice={choiceOf(plan, 'door')} film={film('fen-satin')} />
          </tr>
        </tbody>
      </table>
    )
  }
  it('in two they have a seam as long as what they are divided along, which is asked for then', () => {
    const o = openJob(<Row />)
    expect(screen.queryByLabelText('Door, divided along')).toBeNull()
    pick('Door, parts', '2')
    const own = () => o.job().reckoning.laid.filter((p) => p.panelId === 'door')
    expect(own().length).toBe(2)
    pick('Door, divided along', 'width')
    expect(choiceOf(o.job().plan, 'door')).toMatchObject({ parts: 2, along: 'width' })
    const seams = own().reduce((s, p) => s + p.seamMm, 0)
    pick('Door, divided along', 'height')
    // The door is wider than high: a seam across it is longer than one down it.
    expect(own().reduce((s, p) => s + p.seamMm, 0)).not.toBe(seams)
    pick('Door, parts', '1')
    expect(own().map((p) => p.seamMm)).toEqual([0])
  })
  it('a bleed of its own makes its piece larger by as much on either side; emptied it is the method’s', () => {
    const o = openJob(<Row />)
    const size = () => o.job().reckoning.laid.find((p) => p.panelId === 'door')
    const [was, bleed] = [size(), o.job().plan.method.bleedMm]
    type('Door, bleed', String(bleed + 10))
    expect((size()?.acrossMm ?? 0) - (was?.acrossMm ?? 0)).toBeCloseTo(20, 6)
    expect((size()?.alongMm ?? 0) - (was?.alongMm ?? 0)).toBeCloseTo(20, 6)
    type('Door, bleed', '')
    expect(size()).toEqual(was)
  })
  it('pre-stretched, its piece is shorter', () => {
    const o = openJob(<Row />)
    const area = () =>
      o
        .job()
        .reckoning.laid.filter((p) => p.panelId === 'door')
        .reduce((s, p) => s + p.acrossMm * p.alongMm, 0)
    const was = area()
    const offered = [...screen.getByLabelText<HTMLSelectElement>('Door, pre-stretch').options].map((x) =>
      Number(x.value),
    )
    const some = offered.find((v) => v > 0)
    if (some === undefined) throw new Error('none is offered')
    pick('Door, pre-stretch', String(some))
    expect(choiceOf(o.job().plan, 'door').preStretch).toBe(some)
    expect(area()).toBeLessThan(was)
  })
})

describe('what a panel is made of', () => {
  function Surface() {
    const { plan, edit, fmt } = useJob('plan', 'edit', 'fmt')
    const [panel] = plan.panels
    if (!panel) return null
    return (
      <PanelSurface
        panel={panel}
        fmt={fmt}
        change={(f) => edit((p) => ({ ...p, panels: p.panels.map((x) => (x.id === panel.id ? f(x) : x)) }))}
      />
    )
  }
  it('is the plan’s, and a nose is taped once it is there', () => {
    const o = openJob(<Surface />)
    const bonnet = () => o.job().plan.panels[0]
    pick('Surface', 'aluminium')
    type('Thickness in millimetres', '1,1')
    expect(bonnet()?.surface).toEqual({ material: 'aluminium', thicknessMm: 1.1 })
    expect(screen.queryByLabelText('Nose radius')).toBeNull()
    pick('Nose or roll-over', 'bottom')
    expect(bonnet()?.nose).toMatchObject({ at: 'bottom' })
    type('Nose radius', '45')
    type('Nose angle', '95')
    expect(bonnet()?.nose).toEqual({ at: 'bottom', radiusMm: 45, angleDeg: 95 })
    expect(bonnet()?.assumed).not.toContain('nose')
    type('Nose angle', '300')
    expect(bonnet()?.nose?.angleDeg).toBe(95)
    pick('Nose or roll-over', '')
    expect(bonnet()?.nose).toBeNull()
  })
  it('on plastic the gun goes faster than on steel: its edges are heated in less time', () => {
    const seconds = (material: string) => {
      const o = openJob(<Surface />)
      pick('Surface', material)
      const minutes =
        o.job().reckoning.steps.find((s) => s.panelId === 'bonnet' && s.code === 'post_heat')?.minutes ?? 0
      cleanup()
      return minutes
    }
    expect(seconds('plastic')).toBeLessThan(seconds('steel'))
  })
})

describe('who belongs to the shop', () => {
  const PEOPLE = [
    { id: 'a', name: 'Tamsin Brack', email: 'tamsin@saltmarsh.example', role: 'lead' },
    { id: 'b', name: 'Joss Ferrin', email: 'joss@saltmarsh.example', role: 'installer' },
  ]
  const done = { ok: true, value: null } as never
  it('somebody new wants a name, an address and a password of ten letters', async () => {
    render(<ShopPeople people={PEOPLE} owner />)
    type('E-mail', 'no address')
    type('First password', 'short')
    tap('Add')
    await screen.findByText('Enter a name.')
    expect(screen.getByText('Enter an e-mail address.')).toBeTruthy()
    expect(screen.getByText('At least 10 characters.')).toBeTruthy()
    expect(addMember).not.toHaveBeenCalled()
  })
  it('added, the fields are free again', async () => {
    vi.mocked(addMember).mockResolvedValue(done)
    render(<ShopPeople people={PEOPLE} owner />)
    type('Name', ' Robin Thatch ')
    type('E-mail', 'robin@saltmarsh.example')
    type('First password', 'marsh-tide-42')
    tap('Add')
    await waitFor(() => expect(refresh).toHaveBeenCalled())
    expect(vi.mocked(addMember).mock.lastCall?.[0]).toEqual({
      name: 'Robin Thatch',
      email: 'robin@saltmarsh.example',
      password: 'marsh-tide-42',
      role: 'installer',
    })
    expect(screen.getByLabelText<HTMLInputElement>('Name').value).toBe('')
  })
  it('a role is changed in its row; the last owner’s refusal is said', async () => {
    vi.mocked(setRole).mockResolvedValueOnce(done)
    render(<ShopPeople people={PEOPLE} owner />)
    pick('Role of Joss Ferrin', 'lead')
    await waitFor(() => expect(setRole).toHaveBeenCalledWith({ memberId: 'b', role: 'lead' }))
    vi.mocked(setRole).mockResolvedValueOnce({ ok: false, error: { code: 'last_owner' } } as never)
    pick('Role of Tamsin Brack', 'desk')
    expect((await screen.findByRole('alert')).textContent?.length).toBeGreaterThan(10)
  })
  it('whoever does not own the shop reads the list', () => {
    render(<ShopPeople people={PEOPLE} owner={false} />)
    expect(screen.queryByRole('button', { name: 'Add' })).toBeNull()
    expect(screen.queryByLabelText('Role of Joss Ferrin')).toBeNull()
    expect(document.body.textContent).toContain('bay: steps, readings, film used; reads all')
  })
  it('is found by name, address or what they may', () => {
    render(<ShopPeople people={PEOPLE} owner={false} />)
    fireEvent.change(screen.getByLabelText('Filter people'), { target: { value: 'JOSS' } })
    expect(screen.queryByText('Tamsin Brack')).toBeNull()
    fireEvent.change(screen.getByLabelText('Filter people'), { target: { value: 'nobody' } })
    expect(document.body.textContent).toContain('Nobody matches “nobody”.')
  })
})
