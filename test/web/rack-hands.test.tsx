import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { ShopSettings } from '@/core/model/shop/shop'
import { createJob } from '@/web/actions/jobs'
import { receiveStock, saveShop } from '@/web/actions/shop'
import { listVehicles } from '@/web/actions/vehicles'
import { DEMO_FILMS } from '@/db/demo/films'
import { DEMO_SETTINGS } from '@/db/demo/people'
import { Receive } from '@/web/rack/receive'
import { ShopForm } from '@/web/shop/shop-form'
import { formatter } from '@/web/words/format'
import { NewJob } from '@/web/yard/new-job'
import { stubBrowser } from '../fixtures/browser'
import { button, tap, type } from '../fixtures/press'

vi.mock('@/web/actions/jobs', () => ({ createJob: vi.fn() }))
vi.mock('@/web/actions/shop', () => ({ saveShop: vi.fn(), receiveStock: vi.fn() }))
vi.mock('@/web/actions/vehicles', () => ({ listVehicles: vi.fn() }))
const push = vi.fn()
const refresh = vi.fn()
vi.mock('next/navigation', () => ({ useRouter: () => ({ push, refresh, replace: () => {} }) }))
stubBrowser()
afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

const units = { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' } as const
const fmt = formatter(units)
const show = (view: React.ReactNode) =>
  render(<QueryClientProvider client={new QueryClient()}>{view}</QueryClientProvider>)
/** What an action was called with, the last time. */
const sent = (action: unknown): Record<string, unknown> =>
  (vi.mocked(action as () => void).mock.lastCall as unknown as [Record<string, unknown>])[0]
const taken = (value: unknown) => ({ ok: true, value }) as never

describe('a roll put on the rack', () => {
  const ready = () => {
    show(<Receive films={DEMO_FILMS} fmt={fmt} />)
    fireEvent.click(screen.getByText('Put a roll or rest on the rack'))
  }
  it('wants the label that is on it and the lot from its core; both are asked for at once', async () => {
    ready()
    tap('Put on the rack')
    await screen.findByText('Give it the label that is written on it.')
    expect(screen.getByText('Read the lot from its core.')).toBeTruthy()
    expect(receiveStock).not.toHaveBeenCalled()
  })
  it('takes width and length of its film; the fields are free for the next one, the film stays', async () => {
    vi.mocked(receiveStock).mockResolvedValue(taken({}))
    ready()
    const film = DEMO_FILMS.find((f) => f.id === 'mere-mirror')
    type('Film', 'mere-mirror')
    type('Label', 'R-77')
    type('Lot', 'O26-900')
    tap('Put on the rack')
    await screen.findByText('R-77 is on the rack.')
    expect(sent(receiveStock)).toMatchObject({
      filmId: 'mere-mirror',
      kind: 'roll',
      label: 'R-77',
      lot: 'O26-900',
      widthMm: film?.widthsMm[0],
      lengthMm: film?.rollLengthsMm[0],
    })
    expect(screen.getByLabelText<HTMLInputElement>('Label').value).toBe('')
    expect(screen.getByLabelText<HTMLSelectElement>('Film').value).toBe('mere-mirror')
    expect(refresh).toHaveBeenCalled()
  })
  it('after a lost answer it is the same roll; the next one is another', async () => {
    vi.mocked(receiveStock).mockRejectedValueOnce(new TypeError('no network'))
    ready()
    type('Label', 'R-78')
    type('Lot', 'T26-1')
    tap('Put on the rack')
    await waitFor(() => expect(screen.getByRole('status').textContent).not.toBe(''))
    const lost = sent(receiveStock)
    vi.mocked(receiveStock).mockResolvedValue(taken({}))
    await waitFor(() => expect(button('Put on the rack').disabled).toBe(false))
    tap('Put on the rack')
    await screen.findByText('R-78 is on the rack.')
    expect(sent(receiveStock)).toMatchObject({ id: lost.id, movementId: lost.movementId })
    type('Label', 'R-79')
    type('Lot', 'T26-1')
    tap('Put on the rack')
    await screen.findByText('R-79 is on the rack.')
    expect(sent(receiveStock).id).not.toBe(lost.id)
  })
  it.each([
    ['Roll width', '12'],
    ['Roll width', 'wide'],
    ['Roll length', '100001'],
  ])('%s of %s is named, and nothing is sent', async (label, text) => {
    ready()
    type('Label', 'R-80')
    type('Lot', 'T26-1')
    type(label, text)
    tap('Put on the rack')
    await screen.findByText(new RegExp(`^${label}: cannot be read`))
    expect(receiveStock).not.toHaveBeenCalled()
  })
  it('a refusal is said, and what was typed stays', async () => {
    vi.mocked(receiveStock).mockResolvedValue({ ok: false, error: { code: 'label_taken' } } as never)
    ready()
    type('Label', 'R-01')
    type('Lot', 'T26-1')
    tap('Put on the rack')
    await waitFor(() => expect(screen.getByRole('status').className).toContain('text-danger'))
    expect(screen.getByLabelText<HTMLInputElement>('Label').value).toBe('R-01')
  })
})

describe('a new job', () => {
  const ready = () => {
    vi.mocked(listVehicles).mockResolvedValue(
      taken([{ id: 'v1', name: 'Wrenfield Pip', panels: 24, figures: 200, taped: 150 }]),
    )
    show(<NewJob show onHide={() => {}} units={units} />)
  }
  const fill = () => {
    type('Job', 'Green for Mrs Ash')
    type('Vehicle', 'Pip of 2024')
    type('Body colour', 'Silver')
  }
  it('wants a name, a vehicle and the body’s colour, each said at its field', async () => {
    ready()
    tap('Take it in')
    await screen.findByText('Give the job a name.')
    expect(screen.getByText('Say which vehicle.')).toBeTruthy()
    expect(screen.getByText('Name the body colour.')).toBeTruthy()
    expect(createJob).not.toHaveBeenCalled()
  })
  it('starts from the body’s usual panels, with the key lengths that were typed, and opens', async () => {
    vi.mocked(createJob).mockResolvedValue(taken({ id: 'j1' }))
    ready()
    fill()
    const [key] = screen.getAllByRole<HTMLInputElement>('textbox').filter((f) => f.placeholder.endsWith(' ?'))
    if (!key) throw new Error('no key length')
    const usual = Number(key.placeholder.replace(' ?', ''))
    fireEvent.change(key, { target: { value: String(usual + 12) } })
    fireEvent.blur(key)
    tap('Take it in')
    await waitFor(() => expect(push).toHaveBeenCalledWith('/jobs/j1/walkaround'))
    const { start } = sent(createJob) as { start: { from: string; keys: Record<string, number> } }
    expect(start.from).toBe('style')
    expect(Object.values(start.keys)).toEqual([usual + 12])
  })
  it('starts from a vehicle measured before, which says how much of it is taped', async () => {
    vi.mocked(createJob).mockResolvedValue(taken({ id: 'j2' }))
    ready()
    fill()
    fireEvent.click(await screen.findByLabelText('a vehicle measured before'))
    expect(screen.getByLabelText('Vehicle measured before').textContent).toBe('Wrenfield Pip, 24 panels, 75 % taped')
    tap('Take it in')
    await waitFor(() => expect(push).toHaveBeenCalled())
    expect(sent(createJob).start).toEqual({ from: 'vehicle', vehicleId: 'v1' })
  })
  it('a body that has no usual panels starts from none', async () => {
    vi.mocked(createJob).mockResolvedValue(taken({ id: 'j3' }))
    ready()
    fill()
    type('Body', 'other')
    expect(screen.queryByLabelText('the body’s usual ones')).toBeNull()
    tap('Take it in')
    await waitFor(() => expect(push).toHaveBeenCalled())
    expect(sent(createJob).start).toEqual({ from: 'nothing' })
  })
  it('taken in again after a lost answer it is the same job', async () => {
    vi.mocked(createJob).mockRejectedValueOnce(new TypeError('no network'))
    ready()
    fill()
    tap('Take it in')
    await screen.findByRole('alert')
    const lost = sent(createJob).id
    vi.mocked(createJob).mockResolvedValue(taken({ id: 'j4' }))
    await waitFor(() => expect(button('Take it in').disabled).toBe(false))
    tap('Take it in')
    await waitFor(() => expect(push).toHaveBeenCalled())
    expect(sent(createJob).id).toBe(lost)
  })
  it('a key length that cannot be read holds it back, and says which', async () => {
    ready()
    fill()
    const [key] = screen.getAllByRole<HTMLInputElement>('textbox').filter((f) => f.placeholder.endsWith(' ?'))
    if (!key) throw new Error('no key length')
    fireEvent.change(key, { target: { value: 'long' } })
    fireEvent.blur(key)
    tap('Take it in')
    await screen.findByText(/: what is typed there cannot be taken\. Put it right, or empty the field\.$/)
    expect(createJob).not.toHaveBeenCalled()
  })
  it('a job file is brought in, a broken one is refused with its reason', async () => {
    ready()
    const bring = (text: string) =>
      fireEvent.change(screen.getByLabelText('Job file'), { target: { files: [new File([text], 'job.json')] } })
    vi.stubGlobal('fetch', async () => Response.json({ ok: false, error: { code: 'not_json' } }))
    bring('{')
    expect((await screen.findByRole('alert')).textContent?.length).toBeGreaterThan(10)
    vi.stubGlobal('fetch', async () => Response.json({ ok: true, value: { id: 'j5' } }))
    bring('{}')
    await waitFor(() => expect(push).toHaveBeenCalledWith('/jobs/j5/walkaround'))
  })
})

describe('the shop’s own page', () => {
  const settings = ShopSettings.parse(DEMO_SETTINGS)
  const ready = (mayChange = true) =>
    show(<ShopForm number={3} settings={settings} zones={['UTC', settings.timeZone]} mayChange={mayChange} />)
  it('saves what it was given when nothing was changed, on the version it stands on', async () => {
    vi.mocked(saveShop).mockResolvedValue(taken({ number: 4 }))
    ready()
    tap('Save the shop')
    await screen.findByText('Saved as version 4.')
    expect(sent(saveShop)).toEqual({ settings, basedOn: 3 })
    expect(refresh).toHaveBeenCalled()
  })
  it('hours typed are hours kept; a day left empty is closed', async () => {
    vi.mocked(saveShop).mockResolvedValue(taken({ number: 4 }))
    ready()
    const days = within(screen.getByRole('region', { name: 'Hours and bays' })).getAllByPlaceholderText('closed')
    const [monday, tuesday] = days
    if (!monday || !tuesday) throw new Error('no days')
    fireEvent.change(monday, { target: { value: '7:30-12, 13-16' } })
    fireEvent.change(tuesday, { target: { value: '' } })
    tap('Save the shop')
    await screen.findByText('Saved as version 4.')
    const { week } = sent(saveShop).settings as ShopSettings
    const first = Math.min(...settings.week.map((w) => w.day))
    expect(week.filter((w) => w.day === first).length).toBe(2)
    expect(week.some((w) => w.day === first + 1)).toBe(false)
  })
  it('one field that cannot be taken is told at its place, and nothing is saved', async () => {
    ready()
    type('Tax, %', 'a fifth')
    type('Closed days, one a line', '2026-13-40 nowhere')
    tap('Save the shop')
    await screen.findByText('Nothing is saved yet: some fields cannot be taken.')
    expect(saveShop).not.toHaveBeenCalled()
    const isFaulty = (label: string) => screen.getByLabelText(label).getAttribute('aria-invalid') === 'true'
    expect(isFaulty('Tax, %')).toBe(true)
    expect(isFaulty('Closed days, one a line')).toBe(true)
    expect(isFaulty('Margin, %')).toBe(false)
  })
  it('people come and go, with the days on which they are away', async () => {
    vi.mocked(saveShop).mockResolvedValue(taken({ number: 4 }))
    ready()
    const n = settings.people.length
    type(`Name of person ${n}`, 'Robin Thatch')
    type(`Days away of person ${n}`, '2026-12-24 to 2026-12-28\n2027-01-04')
    tap('Save the shop')
    await screen.findByText('Saved as version 4.')
    const { people } = sent(saveShop).settings as ShopSettings
    expect(people.at(-1)).toMatchObject({
      name: 'Robin Thatch',
      away: [
        { from: '2026-12-24', to: '2026-12-28' },
        { from: '2027-01-04', to: '2027-01-04' },
      ],
    })
    tap('Take out Robin Thatch')
    tap('Save the shop')
    await waitFor(() => expect((sent(saveShop).settings as ShopSettings).people.length).toBe(n - 1))
  })
  it('saved by somebody else meanwhile, it says so and keeps what was typed', async () => {
    vi.mocked(saveShop).mockResolvedValue({ ok: false, error: { code: 'stale' } } as never)
    ready()
    type('Margin, %', '31')
    tap('Save the shop')
    await waitFor(() => expect(screen.getByRole('status').className).toContain('text-danger'))
    expect(screen.getByLabelText<HTMLInputElement>('Margin, %').value).toBe('31')
  })
  it('whoever may not change it has nothing to press', () => {
    ready(false)
    expect(screen.queryByRole('button', { name: 'Save the shop' })).toBeNull()
    expect(screen.getByLabelText<HTMLInputElement>('Margin, %').matches(':disabled')).toBe(true)
  })
})
