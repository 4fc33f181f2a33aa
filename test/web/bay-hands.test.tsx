import 'fake-indexeddb/auto'
import { act, cleanup, fireEvent, screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { DEFECT_KINDS } from '@/core/model/log/kinds'
import type { LogPayload } from '@/core/model/log/schema'
import { plannedSteps } from '@/core/engines/run-sheet/steps'
import { CheckView } from '@/web/bay/check-view'
import { HeatView } from '@/web/bay/heat-view'
import { NowView } from '@/web/bay/now-view'
import { SupplyView } from '@/web/bay/supply-view'
import { TroubleView } from '@/web/bay/trouble-view'
import { clockText, Waits } from '@/web/bay/waits'
import { word } from '@/web/words/names'
import { GUARD } from '@/web/words/trouble'
import { stubBrowser } from '../fixtures/browser'
import { openJob, type OpenJob } from '../fixtures/open-job'
import { catalogue, film, handCar, row } from '../fixtures/plans'
import { button, pick as type, tap } from '../fixtures/press'

vi.mock('@/web/actions/jobs', () => ({ saveJob: () => new Promise(() => {}), takeBackChange: vi.fn() }))
vi.mock('next/navigation', () => ({
  usePathname: () => '/jobs/x/bay',
  useSearchParams: () => new URLSearchParams(),
  useRouter: () => ({ push: () => {}, refresh: () => {}, replace: () => {} }),
}))
vi.stubGlobal('fetch', async () => new Response('{}', { status: 503 }))
stubBrowser()

const BEGAN = '2026-11-20T09:00:00.000Z'
const MINUTE = 60_000
beforeEach(() => {
  vi.useFakeTimers({ toFake: ['Date', 'setInterval', 'clearInterval', 'setTimeout', 'clearTimeout'] })
  vi.setSystemTime(new Date(BEGAN))
  // The pacer's clock goes with the test's.
  vi.spyOn(performance, 'now').mockImplementation(() => Date.now())
})
afterEach(() => {
  cleanup()
  vi.restoreAllMocks()
  vi.useRealTimers()
})

const maybe = (name: string | RegExp) => screen.queryByRole('button', { name })
const later = (minutes: number): void => act(() => void vi.setSystemTime(Date.now() + minutes * MINUTE))
const kinds = (list: readonly LogPayload[]) => list.map((p) => p.kind)
const stepsOf = ({ job }: OpenJob) => plannedSteps(job().reckoning.steps)
/** Begins and ends every step before the first of this code. */
function doneUntil(open: OpenJob, code: string): void {
  for (const s of stepsOf(open)) {
    if (s.code === code) return
    open.log({ kind: 'step_started', stepId: s.id }, { kind: 'step_done', stepId: s.id })
    later(Math.max(1, s.waitMin))
  }
  throw new Error(`no step ${code}`)
}

describe('what now', () => {
  it('is the first step; begun and done it gives way to the next, and each is an entry of its own', () => {
    const open = openJob(<NowView onHeat={() => {}} />)
    const [first, second] = stepsOf(open)
    expect(button('Done').disabled).toBe(true)
    tap('Start')
    expect(open.logged()).toEqual([{ kind: 'step_started', stepId: first?.id }])
    expect(button('Start').disabled).toBe(true)
    later(first?.minutes ?? 1)
    tap('Done')
    expect(open.logged().filter((p) => p.kind === 'step_done')).toEqual([{ kind: 'step_done', stepId: first?.id }])
    tap('Start')
    const waited = maybe('Back')
    if (waited) fireEvent.click(button('Lead says so'))
    expect(open.logged().at(-1)).toEqual({ kind: 'step_started', stepId: second?.id })
  })
  it('a step ticked by mistake is not done after all, and the wait that it began is over', () => {
    const open = openJob(<NowView onHeat={() => {}} />)
    const waits = stepsOf(open).find((s) => s.waitMin > 0)
    if (!waits) throw new Error('nothing waits')
    for (const s of stepsOf(open).slice(0, stepsOf(open).indexOf(waits)))
      open.log({ kind: 'step_started', stepId: s.id }, { kind: 'step_done', stepId: s.id })
    later(24 * 60)
    tap('Start')
    tap('Done')
    expect(open.logged().at(-1)).toMatchObject({ kind: 'timer_started', timerId: waits.id, minutes: waits.waitMin })
    tap(/^Not done after all/)
    expect(kinds(open.logged()).slice(-2)).toEqual(['step_done_taken_back', 'timer_ended'])
    expect(open.job().reckoning.steps.find((s) => s.id === waits.id)?.state).not.toBe('done')
  })
  it('inside a wait it asks, and goes past with a reason that stays in the record', () => {
    const open = openJob(<NowView onHeat={() => {}} />)
    const list = stepsOf(open)
    const at = list.findIndex((s) => s.waits.some((w) => w.leastMin > 0))
    const after = list[at]
    if (!after) throw new Error('nothing waits')
    for (const s of list.slice(0, at))
      open.log({ kind: 'step_started', stepId: s.id }, { kind: 'step_done', stepId: s.id })
    tap('Start')
    const dialog = screen.getByRole('alertdialog')
    const least = Math.max(...after.waits.map((w) => w.leastMin))
    expect(dialog.textContent).toContain(GUARD.inside_wait(open.job().fmt.text(open.job().fmt.minutes(least))))
    const before = open.logged().length
    tap('Back')
    expect(open.logged().length).toBe(before)
    tap('Start')
    expect(button('Go on').disabled).toBe(true)
    type('Another reason', 'fan on it')
    tap('Go on')
    expect(open.logged().slice(before)).toEqual([
      { kind: 'guard_passed', guard: 'inside_wait', stepId: after.id, reason: 'fan on it' },
      { kind: 'step_started', stepId: after.id },
    ])
    expect(screen.queryByRole('alertdialog')).toBeNull()
  })
  it('once the wait is over nothing is asked', () => {
    const open = openJob(<NowView onHeat={() => {}} />)
    const list = stepsOf(open)
    const at = list.findIndex((s) => s.waits.some((w) => w.leastMin > 0))
    for (const s of list.slice(0, at))
      open.log({ kind: 'step_started', stepId: s.id }, { kind: 'step_done', stepId: s.id })
    later(24 * 60)
    tap('Start')
    expect(screen.queryByRole('alertdialog')).toBeNull()
    expect(open.logged().at(-1)).toEqual({ kind: 'step_started', stepId: list[at]?.id })
  })
  it('of a panel each part is ticked by itself, and taken back the same way', () => {
    const open = openJob(<NowView onHeat={() => {}} />)
    const panel = stepsOf(open).find((s) => s.panelId !== null && s.code === 'lay')
    for (const s of stepsOf(open).slice(
      0,
      stepsOf(open).findIndex((s) => s.panelId === panel?.panelId),
    ))
      open.log({ kind: 'step_started', stepId: s.id }, { kind: 'step_done', stepId: s.id })
    const parts = () => within(screen.getByRole('group', { name: 'Parts' })).getAllByRole('button')
    const first = parts()[0]
    if (!first) throw new Error('no parts')
    fireEvent.click(first)
    expect(kinds(open.logged()).slice(-2)).toEqual(['step_started', 'step_done'])
    expect(parts()[0]?.getAttribute('aria-pressed')).toBe('true')
    fireEvent.click(parts()[0] ?? first)
    expect(kinds(open.logged()).at(-1)).toBe('step_done_taken_back')
    expect(parts()[0]?.getAttribute('aria-pressed')).toBe('false')
  })
  it('post-heat with places that nobody read hot enough is asked about before it is called done', () => {
    const heat = vi.fn()
    const open = openJob(<NowView onHeat={heat} />)
    const panel = open.job().reckoning.points[0]?.panelId
    for (const s of stepsOf(open)) {
      if (s.panelId === panel && s.code === 'post_heat') break
      open.log({ kind: 'step_started', stepId: s.id }, { kind: 'step_done', stepId: s.id })
    }
    later(24 * 60)
    tap('Start')
    if (screen.queryByRole('alertdialog')) tap('Lead says so')
    tap('Heat and read')
    expect(heat).toHaveBeenCalledOnce()
    tap('Done')
    const due = open.job().reckoning.points.filter((p) => p.panelId === panel && p.state === 'due').length
    expect(screen.getByRole('alertdialog').textContent).toContain(GUARD.points_open(String(due)))
    tap('Back')
    expect(open.job().reckoning.steps.find((s) => s.panelId === panel && s.code === 'post_heat')?.state).toBe('running')
  })
  it('what somebody else is at is not offered as one’s own, and the list says who is there', () => {
    const [first, second] = stepsOf(openJob(<div />))
    cleanup()
    const open = openJob(<NowView onHeat={() => {}} />, {
      ledger: [{ ...row({ kind: 'step_started', stepId: first?.id ?? '' }, BEGAN), by: 'Joss Ferrin' }],
    })
    tap('Start')
    if (screen.queryByRole('alertdialog')) tap('Lead says so')
    expect(open.logged().at(-1)).toEqual({ kind: 'step_started', stepId: second?.id })
    tap(/^All /)
    expect(screen.getByRole('list', { name: 'All steps' }).textContent).toContain('running, Joss Ferrin')
  })
  it('says so when every step is done', () => {
    const open = openJob(<NowView onHeat={() => {}} />)
    for (const s of stepsOf(open)) open.log({ kind: 'step_started', stepId: s.id }, { kind: 'step_done', stepId: s.id })
    expect(document.body.textContent).toContain('Every step is done.')
  })
})

describe('trouble', () => {
  it.each(DEFECT_KINDS)('%s: its first answer stands there before anything is logged; back logs nothing', (kind) => {
    const open = openJob(<TroubleView />)
    tap(word('defect', kind))
    expect(screen.getByRole('region', { name: 'First answer' }).textContent?.length).toBeGreaterThan(20)
    tap('Back')
    expect(open.logged()).toEqual([])
  })
  it('is logged with its panel and words, stands open, and is closed with what was done', () => {
    const open = openJob(<TroubleView />)
    type('Panel', 'door')
    tap(word('defect', 'bubble'))
    type('Where, what was done', '  by the handle ')
    tap('Log it')
    expect(open.logged()).toEqual([{ kind: 'defect', panelId: 'door', defect: 'bubble', note: 'by the handle' }])
    const id = open.job().ledger.at(-1)?.id
    expect(screen.getByRole('region', { name: `Open: Door, ${word('defect', 'bubble')}` })).toBeTruthy()
    type(/^What was done about/, 'pricked at its rim')
    tap('Mended')
    expect(open.logged().at(-1)).toEqual({
      kind: 'defect_closed',
      defectId: id,
      how: 'pricked at its rim',
      outcome: 'mended',
    })
    expect(screen.queryByRole('region', { name: /^Open:/ })).toBeNull()
    expect(screen.getByRole('list', { name: 'Told before' }).textContent).toContain('pricked at its rim')
  })
  it('a piece redone names its pieces, and what was done on its panel is to be done once more', () => {
    const open = openJob(<TroubleView />)
    const own = stepsOf(open).filter((s) => s.panelId === 'door')
    for (const s of own) open.log({ kind: 'step_started', stepId: s.id }, { kind: 'step_done', stepId: s.id })
    open.log({ kind: 'defect', panelId: 'door', defect: 'torn', note: '' })
    tap('Redo the piece')
    const closed = open.logged().find((p) => p.kind === 'defect_closed')
    const pieces = open.job().reckoning.laid.filter((p) => p.panelId === 'door')
    expect(closed).toMatchObject({ outcome: 'redone', pieceIds: pieces.map((p) => p.id) })
    expect(own.length).toBeGreaterThan(1)
    for (const s of own) expect(open.job().reckoning.steps.find((x) => x.id === s.id)?.state, s.id).not.toBe('done')
  })
  it('accepted, it says by whom', () => {
    const open = openJob(<TroubleView />)
    open.log({ kind: 'defect', panelId: 'wing', defect: 'dirt', note: '' })
    tap('Accepted')
    expect(open.logged().at(-1)).toMatchObject({ outcome: 'accepted', how: 'accepted by Tamsin Brack' })
  })
  it('a dent that was known before is told, so that nobody pricks it', () => {
    const plan = handCar()
    openJob(<TroubleView />, {
      plan: {
        ...plan,
        walkaround: {
          ...plan.walkaround,
          damage: [
            {
              id: 'd',
              panelId: 'bonnet',
              kind: 'dent',
              xMm: 200,
              yMm: 200,
              note: '',
              photoIds: [],
              sizeMm: 30,
              waived: null,
            },
          ],
        },
      },
    })
    type('Panel', 'bonnet')
    tap(word('defect', 'bubble'))
    expect(document.body.textContent).toContain('A dent is no bubble: do not prick it.')
    tap('Back')
    type('Panel', 'door')
    tap(word('defect', 'bubble'))
    expect(document.body.textContent).not.toContain('A dent is no bubble')
  })
  it('a reading past the film’s limit is a defect by itself', () => {
    const open = openJob(<TroubleView />)
    const [point] = open.job().reckoning.points
    if (!point) throw new Error('no point')
    open.log({
      kind: 'reading',
      pieceId: point.pieceId,
      pointId: point.id,
      tempC: film('fen-satin').heatLimitC + 5,
      gunAway: true,
    })
    expect(screen.getByRole('region', { name: /^Open: / }).textContent).toContain(word('defect', 'overheated'))
  })
  it('a note alone is a note; blank it is nothing', () => {
    const open = openJob(<TroubleView />)
    type('Note', '   ')
    expect(button('Note only').disabled).toBe(true)
    type('Note', ' mirror glass is loose ')
    tap('Note only')
    expect(open.logged()).toEqual([{ kind: 'note', text: 'mirror glass is loose' }])
  })
})

describe('checking all round', () => {
  const groups = () => screen.getByRole('list', { name: 'Places' }).querySelectorAll('[role=group]')
  it('each place has an answer of its own; all that is open can be said to hold at once', () => {
    const open = openJob(<CheckView />)
    const places = groups().length
    expect(places).toBeGreaterThan(3)
    const [first] = [...groups()]
    if (!(first instanceof HTMLElement)) throw new Error('no place')
    fireEvent.click(within(first).getByRole('button', { name: word('placeResult', 'pressed') }))
    expect(open.logged()).toMatchObject([{ kind: 'place_checked', round: 'check', result: 'pressed' }])
    tap('All of them hold')
    expect(open.logged().length).toBe(places)
    expect(document.body.textContent).toContain(`0 of ${places} open`)
    // What was found before is not written over.
    expect(open.logged().filter((p) => p.kind === 'place_checked' && p.result === 'pressed').length).toBe(1)
  })
  it('what has to be redone is a defect until somebody sees to it', () => {
    const open = openJob(<CheckView />)
    const [first] = [...groups()]
    if (!(first instanceof HTMLElement)) throw new Error('no place')
    fireEvent.click(within(first).getByRole('button', { name: word('placeResult', 'redo') }))
    expect(open.logged()).toMatchObject([
      { kind: 'place_checked', result: 'redo' },
      { kind: 'defect', defect: 'lifted_edge' },
    ])
  })
  it('the recheck is a round of its own', () => {
    const open = openJob(<CheckView />)
    tap('All of them hold')
    tap('Recheck')
    expect(document.body.textContent).not.toContain('0 of ')
    const n = open.logged().length
    tap('All of them hold')
    expect(open.logged().slice(n)).toSatisfy((list: LogPayload[]) =>
      list.every((p) => p.kind === 'place_checked' && p.round === 'recheck'),
    )
  })
})

describe('reading a place', () => {
  const field = () => screen.getByLabelText<HTMLInputElement>(/^Thermometer/)
  const first = (open: OpenJob) => {
    const due = open.job().reckoning.points.find((p) => p.state === 'due')
    if (!due) throw new Error('nothing is due')
    return due
  }
  /** A job that is ready to be heated, its first panel shown. */
  const ready = (filmId = 'fen-satin') => {
    const plan = handCar()
    const open = openJob(<HeatView />, {
      plan: { ...plan, film: { ...plan.film, mainId: filmId, sheets: [film(filmId)] } },
    })
    doneUntil(open, 'check_round')
    return open
  }
  const read = (value: string) => type(/^Thermometer/, value)

  it('digits by the keypad, five at most; the last is taken away again', () => {
    ready()
    for (const d of ['9', '1', 'Comma', '5']) tap(d)
    expect(field().value).toBe('91.5')
    tap('Delete')
    expect(field().value).toBe('91.')
    for (const d of ['1', '2', '3', '4']) tap(d)
    expect(field().value.length).toBe(5)
  })
  it('with the gun away and within the band it counts, and the next place comes', () => {
    const open = ready()
    const { range, ...point } = first(open)
    read(String(range.min + 1))
    tap('Gun away: log')
    expect(open.logged().at(-1)).toEqual({
      kind: 'reading',
      pieceId: point.pieceId,
      pointId: point.id,
      tempC: range.min + 1,
      gunAway: true,
    })
    expect(open.job().reckoning.points.find((p) => p.id === point.id)?.state).toBe('done')
    expect(field().value).toBe('')
    // What was read last stays in sight.
    expect(document.body.textContent).toContain(`: ${word('verdict', 'good')}`)
  })
  it('too cool is kept as read, and the place stays due', () => {
    const open = ready()
    const { range, id } = first(open)
    read(String(range.min - 8))
    tap('Gun away: log')
    expect(open.logged().at(-1)).toMatchObject({ kind: 'reading', tempC: range.min - 8 })
    expect(open.job().reckoning.points.find((p) => p.id === id)?.state).toBe('due')
  })
  it('in the air stream it is doubted; read again it is not kept, kept it does not count', () => {
    const open = ready()
    const { range, id } = first(open)
    const before = open.logged().length
    read(String(range.min + 1))
    tap('Gun still on')
    expect(screen.getByRole('alertdialog').textContent).toContain('air stream')
    tap('Read again')
    expect(open.logged().length).toBe(before)
    expect(field().value).toBe('')
    read(String(range.min + 1))
    tap('Gun still on')
    tap('Log it all the same')
    expect(open.logged().at(-1)).toMatchObject({ gunAway: false })
    expect(open.job().reckoning.points.find((p) => p.id === id)?.state).toBe('due')
    expect(document.body.textContent).toContain(word('verdict', 'gun_on'))
  })
  it('what no panel can change in so short a time is doubted', () => {
    const open = ready()
    const { range } = first(open)
    read(String(range.min - 40))
    tap('Gun away: log')
    read(String(range.max))
    tap('Gun away: log')
    expect(screen.getByRole('alertdialog').textContent).toContain('read again')
  })
  it.each(['-41', '401', 'warm'])('%s is no reading: said at once, and cannot be logged', (text) => {
    ready()
    read(text)
    expect(screen.getByRole('alert').textContent?.length).toBeGreaterThan(5)
    expect(button('Gun away: log').disabled).toBe(true)
    expect(button('Gun still on').disabled).toBe(true)
  })
  it('a mirror is read on tape: asked once, then known', () => {
    const open = ready('mere-mirror')
    const { range } = first(open)
    const n = open.logged().length
    read(String(range.min + 2))
    tap('Gun away: log')
    expect(screen.getByRole('alertdialog').textContent).toContain('reflects')
    expect(open.logged().length).toBe(n)
    tap('Read on tape: log it')
    expect(open.logged().at(-1)).toMatchObject({ kind: 'reading', tempC: range.min + 2 })
    read(String(range.min + 2))
    tap('Gun away: log')
    expect(screen.queryByRole('alertdialog')).toBeNull()
  })
  it('all edges of a panel are read in one sweep: an entry for each place', () => {
    const open = ready()
    const sweep = screen.getAllByRole('button', { name: /^All \d+ edges$/ })[0]
    if (!sweep) throw new Error('no sweep')
    const n = Number(/\d+/.exec(sweep.textContent ?? '')?.[0])
    fireEvent.click(sweep)
    const before = open.logged().length
    read(String(first(open).range.min + 2))
    tap('Gun away: log')
    const made = open.logged().slice(before)
    expect(made.length).toBe(n)
    expect(new Set(made.map((p) => (p.kind === 'reading' ? p.pointId : ''))).size).toBe(n)
  })
  it('another panel is picked from the list, which says what is open', () => {
    const open = ready()
    const panelIds = [...new Set(open.job().reckoning.points.map((p) => p.panelId))]
    tap(/: other panels$/)
    const list = screen.getByRole('list', { name: 'Panels to heat' })
    expect(within(list).getAllByRole('button').length).toBe(panelIds.length)
    fireEvent.click(within(list).getByRole('button', { name: /^Wing/ }))
    expect(button('Wing: other panels')).toBeTruthy()
  })
})

describe('the pace of the gun', () => {
  const run = (ms: number) => act(() => void vi.advanceTimersByTime(ms))
  it('counts down, runs, rests while it is paused, ends with the gun away; a reading too soon is doubted', () => {
    const open = openJob(<HeatView />)
    doneUntil(open, 'check_round')
    tap('Pace the gun')
    const said = () => screen.getByRole('status').textContent ?? ''
    expect(said()).toBe('Ready')
    tap('Start')
    run(1100)
    expect(said()).toBe('2')
    run(2500)
    expect(said()).toMatch(/Hold here|Along/)
    tap('Pause')
    const paused = said()
    run(20_000)
    expect(said()).toBe(paused)
    tap('Go on')
    run(20 * 60_000)
    expect(said()).toBe('Take the gun away, wait, read')
    tap('Gun is away: read')
    const due = open.job().reckoning.points.find((p) => p.state === 'due')
    type(/^Thermometer/, String((due?.range.min ?? 0) + 1))
    tap('Gun away: log')
    expect(screen.getByRole('alertdialog').textContent).toContain('three seconds')
    tap('Read again')
    run(4000)
    type(/^Thermometer/, String((due?.range.min ?? 0) + 1))
    tap('Gun away: log')
    expect(screen.queryByRole('alertdialog')).toBeNull()
    expect(open.logged().at(-1)?.kind).toBe('reading')
  })
  it('begun again it counts down anew and takes as long as before', () => {
    const open = openJob(<HeatView />)
    doneUntil(open, 'check_round')
    tap('Pace the gun')
    const said = () => screen.getByRole('status').textContent ?? ''
    const told = document.body.textContent ?? ''
    const total = Number(/; (\d+) s\. Hot film/.exec(told)?.[1])
    expect(total).toBeGreaterThan(10)
    expect(button('Again').disabled).toBe(true)
    tap('Start')
    run(30_000)
    tap('Again')
    run(500)
    expect(said()).toBe('3')
    // Three seconds to get ready, then the whole of it: a second short of the end it still runs.
    run(2500 + (total - 1) * 1000)
    expect(said()).not.toBe('Take the gun away, wait, read')
    run(2000)
    expect(said()).toBe('Take the gun away, wait, read')
  })
  it('keeps its pace however seldom the page is drawn: a minute is a minute', () => {
    const open = openJob(<HeatView />)
    doneUntil(open, 'check_round')
    const left = (steps: number) => {
      tap('Pace the gun')
      tap('Start')
      for (let k = 0; k < steps; k++) run(12_000 / steps)
      const said = screen.getByRole('status').textContent
      tap('Back')
      return said
    }
    expect(left(1)).toBe(left(60))
  })
  it('back leaves it without a word about a gun that was away', () => {
    const open = openJob(<HeatView />)
    doneUntil(open, 'check_round')
    tap('Pace the gun')
    tap('Start')
    run(5000)
    tap('Back')
    expect(document.body.textContent).not.toContain('Gun away: wait, then read.')
    expect(button('Pace the gun')).toBeTruthy()
  })
})

describe('what is used up, and waits by hand', () => {
  it('film cut from a roll is an entry; the same length is not there to be sent twice', () => {
    const open = openJob(<SupplyView />)
    const roll = catalogue.stock.find((s) => s.filmId === 'fen-satin')
    tap(/^Cut from /)
    const made = open.logged()
    expect(made).toMatchObject([{ kind: 'film_used', stockId: roll?.id }])
    expect(button(/^Cut from /).disabled).toBe(true)
    expect(document.body.textContent).toContain(`from ${roll?.label}, lot ${roll?.lot}`)
  })
  it('what no roll holds is not offered as its length, and more than is left is told', () => {
    const stock = catalogue.stock.map((s) => ({ ...s, leftMm: 200 }))
    openJob(<SupplyView />, { catalogue: { ...catalogue, stock } })
    const length = screen.getByLabelText<HTMLInputElement>('Length cut')
    expect(length.value).toBe('')
    expect(button(/^Cut from /).disabled).toBe(true)
    fireEvent.change(length, { target: { value: '210' } })
    fireEvent.blur(length)
    expect(document.body.textContent).toContain('There is not that much left on this roll.')
    fireEvent.change(length, { target: { value: '190' } })
    fireEvent.blur(length)
    expect(document.body.textContent).not.toContain('There is not that much left on this roll.')
  })
  it('of a job in two films the roll offered is one of the film that is told, wherever it stands on the rack', () => {
    const plan = handCar()
    const [sheet] = plan.film.sheets
    if (!sheet) throw new Error('a job without a film')
    const other = { ...sheet, id: 'other-film', name: 'Other film' }
    const [roll] = catalogue.stock.filter((s) => s.filmId === sheet.id)
    if (!roll) throw new Error('no roll of its film')
    const stock = [{ ...roll, id: 'of-another', filmId: other.id, label: 'R-80' }, roll]
    openJob(<SupplyView />, {
      plan: {
        ...plan,
        film: { ...plan.film, sheets: [...plan.film.sheets, other] },
        layout: { ...plan.layout, sources: [{ filmId: sheet.id, source: `new:${sheet.widthsMm[0]}` }] },
      },
      catalogue: { ...catalogue, stock },
    })
    expect(button(/^Cut from /).textContent).toBe(`Cut from ${roll.label}`)
    expect(screen.getByLabelText<HTMLInputElement>('Length cut').value).not.toBe('')
  })
  it('tape is counted by the metre, and sums up', () => {
    const open = openJob(<SupplyView />)
    const used = screen.getByRole('region', { name: 'Used up' })
    const amount = () => within(used).getByRole('textbox')
    for (const m of ['2.5', '1.5']) {
      fireEvent.change(amount(), { target: { value: m } })
      fireEvent.blur(amount())
      tap('m used')
    }
    expect(open.logged()).toEqual([
      { kind: 'consumable_used', of: 'filament', amount: 2.5 },
      { kind: 'consumable_used', of: 'filament', amount: 1.5 },
    ])
    expect(used.textContent).toContain(`${word('supply', 'filament')} 4 m`)
  })
  it('a timer counts down by the clock, is over when it is, and is ended by a touch', () => {
    const open = openJob(
      <>
        <Waits />
        <SupplyView />
      </>,
    )
    type('Timer', '5')
    tap('Start timer')
    act(() => void vi.advanceTimersByTime(61_000))
    expect(button(/^5 min: 3:5\d; end it$/)).toBeTruthy()
    act(() => void vi.advanceTimersByTime(5 * MINUTE))
    expect(button('5 min: over; end it').getAttribute('data-over')).toBe('true')
    tap('5 min: over; end it')
    expect(kinds(open.logged())).toEqual(['timer_started', 'timer_ended'])
    expect(maybe(/^5 min/)).toBeNull()
  })
  it.each([
    [0, '0:00'],
    [59, '0:59'],
    [61.9, '1:01'],
    [3599, '59:59'],
    [3600, '1:00 h'],
    [7265, '2:01 h'],
  ])('%s s reads %s', (s, text) => expect(clockText(s)).toBe(text))
})
