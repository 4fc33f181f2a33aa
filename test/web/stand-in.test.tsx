import 'fake-indexeddb/auto'
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react'
import type { ReactNode } from 'react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ChangePerson } from '@/web/bay/change-person'
import { checkPin, dropPin, keepPin, peopleKept } from '@/web/bay/pins-here'
import { useIdle } from '@/web/bay/use-idle'
import { deviceStore } from '@/web/job/device-store'
import { JobProvider } from '@/web/job/job-state'
import { endStandIn, isLocked, setLocked, setStandIn, standIn } from '@/web/job/at-this-tablet'
import { SignIn } from '@/web/people/sign-in'
import { stubBrowser } from '../fixtures/browser'
import { catalogue, handCar } from '../fixtures/plans'
import { watchJob } from '../fixtures/watch-job'

vi.mock('@/web/actions/jobs', () => ({ saveJob: vi.fn(), takeBackChange: vi.fn() }))
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/bay',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh: () => {}, replace: () => {} }),
}))
stubBrowser()

const IMRE = { memberId: '00000000-0000-4000-8000-00000000aaaa', name: 'Imre Saltwell', role: 'installer' }
const TAMSIN = { memberId: '00000000-0000-4000-8000-00000000bbbb', name: 'Tamsin Brack', role: 'lead' }
/** Let in over the page of Tamsin, whose session the server knows. */
const IMRE_OVER_TAMSIN = { id: IMRE.memberId, name: IMRE.name, role: 'installer', over: TAMSIN.memberId } as const
const JOB = '00000000-0000-4000-8000-00000000cccc'
/** What the server answers; null: there is no network. */
let server: ((url: string, init?: RequestInit) => Response) | null = null
let asked: { url: string; body: string }[] = []
const reload = vi.fn()

beforeEach(async () => {
  server = null
  asked = []
  reload.mockReset()
  endStandIn()
  for (const { memberId } of await peopleKept()) await dropPin(memberId)
  vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => {
    if (!server) throw new TypeError('no network')
    asked.push({ url: String(url), body: String(init?.body ?? '') })
    return server(String(url), init)
  })
  vi.stubGlobal('location', { ...window.location, reload })
})
afterEach(cleanup)

const { Watch, job } = watchJob()
const start = {
  jobId: JOB,
  number: 1,
  shopHead: 0,
  plan: handCar(),
  ledger: [],
  catalogue,
  units: { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' } as const,
  member: { id: TAMSIN.memberId, name: TAMSIN.name, role: 'lead' as const },
}
const open = (view: ReactNode) =>
  render(
    <QueryClientProvider client={new QueryClient()}>
      <JobProvider start={start}>
        <Watch />
        {view}
      </JobProvider>
    </QueryClientProvider>,
  )
const press = (digits: string) => {
  for (const d of digits) fireEvent.click(screen.getByRole('button', { name: d }))
}
const pick = async (name: string) => fireEvent.click(await screen.findByRole('button', { name }))

describe('a PIN as this tablet keeps it', () => {
  it('lets in whose it is, and is not kept as digits', async () => {
    await keepPin(IMRE, '2580')
    expect(await peopleKept()).toEqual([IMRE])
    expect(await checkPin(IMRE.memberId, '2580')).toBeNull()
    expect(JSON.stringify(await peopleKept())).not.toContain('2580')
  })
  it('five wrong tries leave only the full sign-in; a right one in between begins anew', async () => {
    await keepPin(IMRE, '2580')
    for (const left of [4, 3])
      expect(await checkPin(IMRE.memberId, '0000')).toEqual({ code: 'wrong_pin', facts: { left } })
    expect(await checkPin(IMRE.memberId, '2580')).toBeNull()
    for (const left of [4, 3, 2, 1])
      expect(await checkPin(IMRE.memberId, '0000')).toEqual({ code: 'wrong_pin', facts: { left } })
    expect(await checkPin(IMRE.memberId, '0000')).toEqual({ code: 'full_sign_in' })
    expect(await checkPin(IMRE.memberId, '2580')).toEqual({ code: 'full_sign_in' })
    expect(await peopleKept()).toEqual([])
  })
  it('nobody’s digits let nobody in', async () =>
    expect(await checkPin(TAMSIN.memberId, '2580')).toEqual({ code: 'full_sign_in' }))
})

describe('changing the person without a network', () => {
  it('another person is let in by four digits and stands in; a wrong PIN is told', async () => {
    await keepPin(IMRE, '2580')
    open(<ChangePerson locked={false} onBack={() => {}} />)
    await pick(IMRE.name)
    press('1111')
    expect((await screen.findByText(/4 tries left/)).textContent).toContain('not the PIN')
    expect(standIn()).toBeNull()
    press('2580')
    await waitFor(() => expect(reload).toHaveBeenCalled())
    expect(standIn()).toEqual({ id: IMRE.memberId, name: IMRE.name, role: 'installer', over: TAMSIN.memberId })
  })
  it('whose page it is unlocks it and goes on with it', async () => {
    await keepPin(TAMSIN, '1470')
    const back = vi.fn()
    open(<ChangePerson locked onBack={back} />)
    await pick(TAMSIN.name)
    press('1470')
    await waitFor(() => expect(back).toHaveBeenCalled())
    expect(reload).not.toHaveBeenCalled()
    expect(standIn()).toBeNull()
  })
  it('where the server answers it alone decides, whatever this tablet keeps', async () => {
    await keepPin(IMRE, '2580')
    server = (url) =>
      url.endsWith('/api/tablet')
        ? Response.json({ ok: false, people: [IMRE], error: { code: 'full_sign_in' } }, { status: 200 })
        : Response.json({}, { status: 503 })
    open(<ChangePerson locked={false} onBack={() => {}} />)
    await pick(IMRE.name)
    server = () => Response.json({ ok: false, error: { code: 'full_sign_in' } }, { status: 403 })
    press('2580')
    await screen.findByText(/sign in with address and password/)
    expect(standIn()).toBeNull()
    // What counts no more at the server counts no more here.
    await waitFor(async () => expect(await peopleKept()).toEqual([]))
  })
  it('a PIN that the server took is kept here too', async () => {
    server = () => Response.json({ ok: true, people: [] })
    open(<ChangePerson locked={false} onBack={() => {}} />)
    await pick('A PIN for me here')
    press('3690')
    await screen.findByText(/Your PIN counts/)
    server = null
    expect(await checkPin(TAMSIN.memberId, '3690')).toBeNull()
  })
})

describe('whoever stands in', () => {
  const entry = () => ({ kind: 'note' as const, text: 'Edge at the sill lifts' })
  it('is who logs, changes no plan, and sends nothing under another’s session', async () => {
    setStandIn(IMRE_OVER_TAMSIN)
    server = () => Response.json({ outcomes: [], head: 0 })
    open(null)
    expect(job().member.name).toBe(IMRE.name)
    expect([job().standsIn, job().mayLog, job().mayPlan, job().mayTape, job().mayWalkaround]).toEqual([
      true,
      true,
      false,
      false,
      false,
    ])
    act(() => job().log(entry()))
    await waitFor(async () => expect(await (await deviceStore()).waiting()).toHaveLength(1))
    await act(async () => void (await new Promise((r) => setTimeout(r, 100))))
    expect((await (await deviceStore()).waiting())[0]?.memberId).toBe(IMRE.memberId)
    expect(asked.filter((a) => a.url.includes('/entries'))).toEqual([])
    expect(job().waiting).toBe(1)
  })
  it('is themselves again once they came in at the server', async () => {
    setStandIn({ id: TAMSIN.memberId, name: TAMSIN.name, role: 'lead', over: IMRE.memberId })
    open(null)
    expect(standIn()).toBeNull()
    expect([job().standsIn, job().mayPlan]).toEqual([false, true])
  })
  it('is nobody any more once the server knows another member than before', () => {
    setStandIn({ ...IMRE_OVER_TAMSIN, over: '00000000-0000-4000-8000-00000000dddd' })
    open(null)
    expect([job().member.name, job().standsIn]).toEqual([TAMSIN.name, false])
    expect(standIn()).toBeNull()
  })
  it('is forgotten where somebody signs in, and so is a lock', () => {
    setStandIn(IMRE_OVER_TAMSIN)
    setLocked(true)
    render(<SignIn demo={false} />)
    expect([standIn(), isLocked()]).toEqual([null, false])
  })
  it.each([['{'], ['{"id":"x"}'], ['{"id":"x","name":"y","role":"king"}']])(
    'what is no person stands in for nobody: %s',
    (text) => {
      sessionStorage.setItem('cuirass/stand-in', text)
      expect(standIn()).toBeNull()
    },
  )
})

describe('a lock without a network', () => {
  function Idle() {
    const { idle } = useIdle(1)
    return <p>{idle ? 'locked' : 'open'}</p>
  }
  it('stays over a reload, and not for a shop that locks nothing', () => {
    setLocked(true)
    render(<Idle />)
    expect(screen.getByText('locked')).toBeDefined()
    cleanup()
    function Never() {
      const { idle } = useIdle(0)
      return <p>{idle ? 'locked' : 'open'}</p>
    }
    render(<Never />)
    expect(screen.getByText('open')).toBeDefined()
  })
  it('is opened by four digits, and is open after the next reload too', async () => {
    await keepPin(IMRE, '2580')
    setLocked(true)
    open(<ChangePerson locked onBack={() => {}} />)
    await pick(IMRE.name)
    press('2580')
    await waitFor(() => expect(reload).toHaveBeenCalled())
    expect(isLocked()).toBe(false)
  })
  it.each([
    ['falls where somebody can be let in', [IMRE], 'locked'],
    ['waits where nobody could', [], 'open'],
  ] as const)('%s', async (_, people, said) => {
    for (const p of people) await keepPin(p, '2580')
    vi.spyOn(navigator, 'onLine', 'get').mockReturnValue(false)
    vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval'] })
    try {
      render(<Idle />)
      act(() => void vi.advanceTimersByTime(70_000))
      await act(async () => void (await new Promise((r) => setTimeout(r, 50))))
      expect(screen.getByText(/locked|open/).textContent).toBe(said)
    } finally {
      vi.useRealTimers()
      vi.restoreAllMocks()
    }
  })
})
