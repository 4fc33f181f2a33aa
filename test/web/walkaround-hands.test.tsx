import 'fake-indexeddb/auto'
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import type { Plan } from '@/core/model/plan/schema'
import { ConditionsOfTheDay } from '@/web/conditions/conditions-of-the-day'
import { LogAir } from '@/web/conditions/log-air'
import { DamageRecord } from '@/web/walkaround/damage'
import { PaintFields } from '@/web/walkaround/paint-fields'
import { Lists } from '@/web/walkaround/walkaround-lists'
import { logClimate } from '@/web/actions/shop'
import { word } from '@/web/words/names'
import { stubBrowser } from '../fixtures/browser'
import { openJob } from '../fixtures/open-job'
import { handCar } from '../fixtures/plans'
import { button, tap, type } from '../fixtures/press'

vi.mock('@/web/actions/jobs', () => ({ saveJob: () => new Promise(() => {}), takeBackChange: vi.fn() }))
vi.mock('@/web/actions/shop', () => ({ logClimate: vi.fn() }))
const refresh = vi.fn()
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/walkaround',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh, replace: () => {} }),
}))
stubBrowser()
let answer: (url: string) => Promise<Response>
beforeEach(() => {
  answer = async () => new Response('{}', { status: 503 })
  vi.stubGlobal('fetch', (url: string) => answer(String(url)))
})
afterEach(() => {
  cleanup()
  vi.clearAllMocks()
})

type Damage = Plan['walkaround']['damage'][number]
const damage = (over: Partial<Damage> = {}): Damage => ({
  id: 'd1',
  panelId: 'door',
  kind: 'chip',
  note: '',
  sizeMm: null,
  xMm: null,
  yMm: null,
  photoIds: [],
  waived: null,
  ...over,
})
const withDamage = (...list: Damage[]): Plan => {
  const plan = handCar()
  return { ...plan, walkaround: { ...plan.walkaround, damage: list } }
}

describe('damage before the work', () => {
  it('is added, told in words, sized, and taken out again', () => {
    const { job } = openJob(<DamageRecord />)
    expect(document.body.textContent).toContain('None noted.')
    tap('Add damage')
    type(/^Damage 1, kind/, 'scratch')
    type(/^Damage 1, panel/, 'wing')
    type(/^Damage 1, size/, '120')
    type(/^Damage 1, note/, 'near the lamp')
    expect(job().plan.walkaround.damage).toEqual([
      damage({ kind: 'scratch', panelId: 'wing', sizeMm: 120, note: 'near the lamp' }),
    ])
    tap('Remove Damage 1')
    expect(job().plan.walkaround.damage).toEqual([])
  })
  it('two finds have ids of their own, also after one in between was taken out', () => {
    const { job } = openJob(<DamageRecord />)
    for (let k = 0; k < 3; k++) tap('Add damage')
    tap('Remove Damage 2')
    tap('Add damage')
    const ids = job().plan.walkaround.damage.map((d) => d.id)
    expect(new Set(ids).size).toBe(3)
  })
  it.each(['rust', 'peeling_clear'] as const)('%s stops its panel until it is waived with a reason', (kind) => {
    const { job } = openJob(<DamageRecord />, { plan: withDamage(damage({ kind })) })
    const stops = () => job().reckoning.findings.filter((f) => f.level === 'stop' && f.panelId === 'door').length
    const blocked = stops()
    expect(blocked).toBeGreaterThan(0)
    tap('Waive')
    type('Damage 1, reason to waive', 'no')
    expect(button('Waive it').disabled).toBe(true)
    type('Damage 1, reason to waive', 'owner knows, in writing')
    tap('Waive it')
    expect(job().plan.walkaround.damage[0]?.waived).toMatchObject({
      reason: 'owner knows, in writing',
      by: 'Tamsin Brack',
    })
    expect(stops()).toBeLessThan(blocked)
    tap('Take back')
    expect(stops()).toBe(blocked)
  })
  it.each(['chip', 'dent', 'scratch'] as const)('%s stops nothing and needs no waiver', (kind) => {
    openJob(<DamageRecord />, { plan: withDamage(damage({ kind })) })
    expect(screen.queryByRole('button', { name: 'Waive' })).toBeNull()
  })
  it('a photo is sent and hangs on its find; what is refused is said and adds nothing', async () => {
    const { job } = openJob(<DamageRecord />, { plan: withDamage(damage()) })
    const send = (size = 10) =>
      fireEvent.change(screen.getByLabelText('Photo of damage 1'), {
        target: { files: [new File([new Uint8Array(size)], 'a.jpg', { type: 'image/jpeg' })] },
      })
    answer = async () => Response.json({ ok: true, value: { id: 'photo-1' } })
    send()
    await waitFor(() => expect(job().plan.walkaround.damage[0]?.photoIds).toEqual(['photo-1']))
    expect(screen.getByAltText('Damage 1, photo 1')).toBeTruthy()
    answer = async () => Response.json({ ok: false, error: { code: 'not_an_image' } })
    send()
    await waitFor(() => expect(screen.getByRole('status').textContent?.length).toBeGreaterThan(10))
    answer = async () => Promise.reject(new TypeError('no network'))
    send()
    await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/answer/i))
    send(12_000_001)
    await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/12/))
    expect(job().plan.walkaround.damage[0]?.photoIds).toEqual(['photo-1'])
  })
})

describe('paint and what comes off', () => {
  it('the day of a repaint is asked for where there was one', () => {
    const { job } = openJob(<PaintFields />)
    expect(screen.queryByLabelText('Repainted on')).toBeNull()
    type('Paint', 'repaint')
    expect(job().plan.walkaround.paint.origin).toBe('repaint')
    expect(screen.getByLabelText('Repainted on')).toBeTruthy()
    type('Age in years', '7')
    expect(job().plan.walkaround.paint.ageYears).toBe(7)
    type('Age in years', '')
    expect(job().plan.walkaround.paint.ageYears).toBeNull()
  })
  it('a part that comes off takes its minutes, and a step where it is taken off', () => {
    const { job } = openJob(<Lists list="hardware" />)
    tap('Add hardware')
    type(/^Hardware 1, part/, 'Badge')
    type(/^Hardware 1, minutes/, '25')
    expect(job().plan.walkaround.hardware).toMatchObject([{ name: 'Badge', minutes: 25, way: 'remove' }])
    const off = job().reckoning.steps.filter((s) => s.code === 'hardware_off')
    expect(off.reduce((n, s) => n + s.minutes, 0)).toBeGreaterThanOrEqual(25)
    type(/^Hardware 1, part/, '   ')
    expect(job().plan.walkaround.hardware[0]?.name).toBe('Badge')
    type(/^Hardware 1, minutes/, '')
    expect(job().plan.walkaround.hardware[0]?.minutes).toBe(0)
  })
  it('what is never covered is named by its kind and panel', () => {
    const { job } = openJob(<Lists list="neverCover" />)
    tap('Add a place')
    type(/^Free place 1, panel/, 'bonnet')
    expect(job().plan.walkaround.neverCover).toMatchObject([{ kind: 'sensor', panelId: 'bonnet' }])
    tap('Remove Free place 1')
    expect(job().plan.walkaround.neverCover).toEqual([])
  })
  it('a panel painted again is a row of its own', () => {
    const { job } = openJob(<Lists list="repaints" />)
    tap('Add a repainted panel')
    type(/^Repaint 1, panel/, 'wing')
    expect(job().plan.walkaround.repaints).toMatchObject([{ panelId: 'wing', on: null }])
  })
})

describe('the conditions of the day', () => {
  function Day() {
    return (
      <ConditionsOfTheDay
        set={(part) => opened?.job().edit((p) => ({ ...p, conditions: { ...p.conditions, ...part } }))}
      />
    )
  }
  let opened: ReturnType<typeof openJob> | null = null
  const open = (units?: 'F') => {
    opened = openJob(<Day />, {
      ...(units
        ? { units: { lengthUnit: 'in', tempUnit: 'F', locale: 'en-US', currency: 'USD', timeZone: 'UTC' } as const }
        : {}),
    })
    return opened
  }
  it('a cold car is told how long it has to warm', () => {
    const { job } = open()
    const lead = () => Number(job().reckoning.figures.get('conditions/lead')?.value ?? 0)
    type(/^Room on the day/, '20')
    type(/^Vehicle arrives at/, '18')
    const mild = lead()
    type(/^Vehicle arrives at/, '-5')
    expect(job().plan.conditions.vehicleC).toBe(-5)
    expect(lead()).toBeGreaterThan(mild)
  })
  it('what no room has is said, and not turned into something else', () => {
    const { job } = open()
    type(/^Room on the day/, '21')
    type(/^Room on the day/, '75')
    expect(screen.getByRole('alert').textContent).toBe(
      'Between -20 and 60 °C.'.replace('-', job().fmt.temp(-20).text[0] ?? ''),
    )
    expect(job().plan.conditions.airC).toBe(21)
    type(/^Room on the day/, '')
    expect(job().plan.conditions.airC).toBeNull()
  })
  it('bounds are told in the member’s own degrees', () => {
    open('F')
    type(/^Room on the day/, '200')
    expect(screen.getByRole('alert').textContent).toMatch(/140/)
    expect(screen.getByRole('alert').textContent).toContain('°F')
  })
  it('humidity is typed in per cent and kept as a share', () => {
    const { job } = open()
    type('Humidity on the day in per cent', '55')
    expect(job().plan.conditions.humidity).toBeCloseTo(0.55)
    const { wet } = job().plan.conditions
    fireEvent.click(screen.getByRole('checkbox'))
    expect(job().plan.conditions.wet).toBe(!wet)
  })
})

describe('a reading of the air put down', () => {
  it('takes the air first; then it is sent once, and the fields are free again', async () => {
    vi.mocked(logClimate).mockResolvedValue({ ok: true, value: {} } as never)
    openJob(<LogAir />)
    tap('Log reading')
    await screen.findByText('Read the air first.')
    expect(logClimate).not.toHaveBeenCalled()
    type(/^Air/, '19.5')
    type('Humidity in per cent', '60')
    tap('Log reading')
    await screen.findByText('Logged.')
    expect(logClimate).toHaveBeenCalledOnce()
    expect(vi.mocked(logClimate).mock.calls[0]?.[0]).toMatchObject({ airC: 19.5, humidity: 0.6, surfaceC: null })
    expect(refresh).toHaveBeenCalled()
    expect(screen.getByLabelText<HTMLInputElement>(/^Air/).value).toBe('')
  })
  it('sent again after a lost answer it is the same reading; another figure is another one', async () => {
    vi.mocked(logClimate).mockRejectedValueOnce(new TypeError('no network'))
    openJob(<LogAir />)
    type(/^Air/, '18')
    tap('Log reading')
    await waitFor(() => expect(logClimate).toHaveBeenCalledTimes(1))
    vi.mocked(logClimate).mockRejectedValueOnce(new TypeError('no network'))
    await waitFor(() => expect(button('Log reading').disabled).toBe(false))
    tap('Log reading')
    await waitFor(() => expect(logClimate).toHaveBeenCalledTimes(2))
    vi.mocked(logClimate).mockResolvedValue({ ok: true, value: {} } as never)
    await waitFor(() => expect(button('Log reading').disabled).toBe(false))
    type(/^Air/, '18.5')
    tap('Log reading')
    await screen.findByText('Logged.')
    const ids = vi.mocked(logClimate).mock.calls.map(([sent]) => (sent as { id: string }).id)
    expect(ids[0]).toBe(ids[1])
    expect(ids[2]).not.toBe(ids[0])
  })
  it('a surface that cannot be read is named, and nothing is logged', async () => {
    openJob(<LogAir />)
    type(/^Air/, '18')
    type(/^Surface/, 'warm')
    tap('Log reading')
    await screen.findByText(/Nothing is logged yet/)
    expect(logClimate).not.toHaveBeenCalled()
  })
  it('air that no shop has is said', async () => {
    openJob(<LogAir />)
    type(/^Air/, '72')
    tap('Log reading')
    await screen.findByText('No shop has that air. Check the figure.')
    expect(word('zone', 'mild').length).toBeGreaterThan(0)
  })
})
