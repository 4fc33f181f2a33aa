import type { FilmSheet } from '@/core/model/film/schema'
import type { LogRow } from '@/core/model/log/schema'
import type { Fault } from '@/core/kit/result'
import { choiceFor, filmOf } from '@/core/model/plan/piece-choice'
import { newPanel } from '@/core/model/vehicle/new-panel'
import type { Plan } from '@/core/model/plan/schema'
import type { Catalogue } from '@/core/model/catalogue/catalogue'
import { priceChange, pricedJob } from '@/core/reckon/price'
import { type Price } from '@/core/model/finding/price'
import { laidPanel } from '@/core/engines/stretch/sticking-order'
import type { ScanSurface } from '@/core/solve/mesh/scan'
import { surfaceMap, type SurfaceMap } from '@/core/engines/stretch/surface-map'
import { shrinkCapacity } from '@/core/engines/stretch/pre-stretch'
import { waysOutFor } from '@/core/engines/stretch/ways'
import { type SolvedWayOut } from '@/core/engines/stretch/way-candidates'
import type { Panel } from '@/core/model/vehicle/schema'
import { COARSE, FINE } from '../pieces/fineness'

interface MapAsk {
  plan: Plan
  panelId: string
  pull: 'tightest' | 'even'
  atOnce: boolean
  flangeMm: number
  scan: ScanSurface | null
}

export type StretchAsk =
  /** A first, coarse map, answered under its number. */
  | { kind: 'quick'; id: number; map: MapAsk }
  | ({ kind: 'map' } & MapAsk)
  | { kind: 'ways'; plan: Plan; panelId: string; catalogue: Catalogue; ledger: LogRow[]; scan: ScanSurface | null }
  | { kind: 'schools'; plan: Plan; panelId: string; scan: ScanSurface | null }
  /** Warm-up solve: a small panel is laid, so that the first real map does not wait for the solver to be compiled. */
  | { kind: 'warm' }

export type PricedWayOut = SolvedWayOut & { price: Price | null }
export type School = { code: string; map: SurfaceMap }
export type StretchNews =
  | { kind: 'tick'; share: number }
  | { kind: 'quick'; id: number; news: StretchNews }
  /** `coarse`: a first map, soon followed by a finer one. */
  | { kind: 'map'; map: SurfaceMap; coarse: boolean }
  | { kind: 'ways'; now: SolvedWayOut | null; ways: PricedWayOut[]; done: boolean }
  | { kind: 'school'; school: School }
  | { kind: 'fault'; fault: Fault }
  | { kind: 'end' }

const SCHOOLS = 1200
/** Ways whose film and minutes are reckoned. */
const PRICED = 10

const post = (news: StretchNews) => self.postMessage(news)

/** Stretch maps, ways out and comparisons off the main thread. Stopped by ending the worker. */
self.onmessage = ({ data }: MessageEvent<StretchAsk>) => {
  if (data.kind === 'warm') return warm()
  if (data.kind === 'quick') return post({ kind: 'quick', id: data.id, news: map(data.map, COARSE) })
  if (data.kind === 'map') post(map(data, data.scan ? 0 : FINE))
  else if (data.kind === 'ways') ways(data)
  else schools(data)
  post({ kind: 'end' })
}

function map({ plan, panelId, pull, atOnce, flangeMm, scan }: MapAsk, triangles: number): StretchNews {
  const panel = plan.panels.find((p) => p.id === panelId) as Panel
  const film = filmOf(plan, panel) as FilmSheet
  const coarse = triangles === COARSE
  let told = 0
  const made = laidPanel(panel, choiceFor(plan, panel, film), {
    triangles,
    pull,
    atOnce,
    flangeMm,
    scan,
    quick: coarse,
    order: plan.method.order,
    limit: film.stretchLimit,
    shrink: 0,
    restShrink: shrinkCapacity(choiceFor(plan, panel, film).preStretch, film),
    progress: (share) => {
      if (!coarse && share > told + 0.05) post({ kind: 'tick', share: (told = share) })
    },
  })
  return made.ok ? { kind: 'map', map: made.value, coarse } : { kind: 'fault', fault: made.error }
}

function warm(): void {
  const panel: Panel = {
    ...newPanel({ id: 'warm', name: 'Warm', kind: 'bonnet', side: 'centre', widthMm: 900, heightMm: 600 }),
    crownMm: 20,
    crownOverMm: 800,
    crownDownMm: 10,
    crownDownOverMm: 500,
  }
  const how = { triangles: COARSE, pull: 'even', quick: true, limit: 0.1, shrink: 0 } as const
  // Twice: what ran once is compiled for the second.
  for (let i = 0; i < 2; i++) surfaceMap(panel, how)
}

function ways({ plan, panelId, catalogue, ledger, scan }: Extract<StretchAsk, { kind: 'ways' }>): void {
  const found = waysOutFor(plan, panelId, {
    films: catalogue.films,
    scan,
    found: (_way, done, of) => post({ kind: 'tick', share: Math.min(0.95, done / of) }),
  })
  if (!found.ok) return post({ kind: 'fault', fault: found.error })
  const { now, ways: list } = found.value
  post({ kind: 'ways', now, ways: list.map((w) => ({ ...w, price: null })), done: false })
  const job = pricedJob(plan, catalogue, ledger)
  const priced = list.map((w, i): PricedWayOut => ({
    ...w,
    price: i < PRICED ? priceChange(job, w.change) : null,
  }))
  post({ kind: 'ways', now, ways: priced, done: true })
}

/**
 * What the schools argue about, each laid on the same panel: recesses first or after the flats, bridged near or wide,
 * fed.
 */
function schools({ plan, panelId, scan }: Extract<StretchAsk, { kind: 'schools' }>): void {
  const panel = plan.panels.find((p) => p.id === panelId) as Panel
  const film = filmOf(plan, panel) as FilmSheet
  const as = (handling: Partial<Panel['recesses'][number]>): Panel => ({
    ...panel,
    recesses: panel.recesses.map((r) => ({ ...r, ...handling })),
  })
  const open = panel.recesses.find((r) => r.open && r.openAt)
  const list = [
    ['recesses_first', as({ way: 'bridge' }), 'recesses_first'],
    ['flats_near', as({ way: 'bridge', gapMm: 40 }), 'flats_first'],
    ['flats_wide', as({ way: 'bridge', gapMm: 200 }), 'flats_first'],
    ['fed', as({ way: 'feed', ...(open ? {} : { open: true, openAt: 'bottom' }) }), 'flats_first'],
  ] as const
  for (const [code, own, order] of list) {
    const made = laidPanel(own, choiceFor(plan, panel, film), {
      order,
      scan,
      triangles: SCHOOLS,
      limit: film.stretchLimit,
      shrink: 0,
      restShrink: shrinkCapacity(choiceFor(plan, panel, film).preStretch, film),
    })
    if (made.ok) post({ kind: 'school', school: { code, map: made.value } })
    else post({ kind: 'fault', fault: made.error })
  }
}
