import type { FilmSheet } from '../../model/film/schema'
import { filmStanding } from '../../model/film/film-data'
import type { Plan } from '../../model/plan/schema'
import { figure, input, type Figure } from '../../model/figure/figure'
import { piecesOf } from '../../engines/pieces/pieces'
import { panelStretch } from '../../engines/stretch/panel-stretch'
import { otherSideId } from '../../model/vehicle/mirror'
import { setSize } from '../../model/vehicle/resize'
import type { Panel } from '../../model/vehicle/schema'

/** How far an assumed figure may be from the tape's, as a share of itself (assumed). */
export const SPREAD: Record<string, number> = {
  widthMm: 0.08,
  heightMm: 0.08,
  crownMm: 0.5,
  crownDownMm: 0.5,
  cornerRadiusMm: 0.5,
  edges: 0.08,
  recesses: 0.35,
}

/** One figure still to be taped, and what hangs on it. */
export interface TapeItem {
  panelId: string
  /** As `assumed` names it. */
  field: string
  spread: number
  /** Film that is more or less by it over its spread, mm². */
  filmMm2: number
  /** Worst stretch of the panel at the low and the high end [–]. */
  stretch: [number, number]
  /** Whether the film's limit lies between the two. */
  decides: boolean
  /**
   * Film at stake, mm²: the difference in cut film, the stretch that may cost a second try, a piece that may have to
   * be divided.
   */
  stakeMm2: number
  /** The working of it, for this panel alone. */
  figure: Figure
  /** The mirrored panel that one measure settles too. */
  also: string | null
}

const FALLBACK: Pick<FilmSheet, 'stretchLimit'> = { stretchLimit: 0.1 }

/** A panel with one of its figures off by a factor. */
export function offBy(panel: Panel, field: string, factor: number): Panel {
  const [head, id = ''] = field.split('.')
  switch (head) {
    case 'widthMm':
    case 'heightMm':
      return setSize(panel, head, panel[head] * factor)
    case 'crownMm':
      return { ...panel, crownMm: panel.crownMm * factor }
    case 'crownDownMm':
      return { ...panel, crownDownMm: panel.crownDownMm === null ? null : panel.crownDownMm * factor }
    case 'cornerRadiusMm':
      return { ...panel, cornerRadiusMm: panel.cornerRadiusMm === null ? null : panel.cornerRadiusMm * factor }
    case 'edges':
      return { ...panel, edges: panel.edges.map((e) => (e.id === id ? { ...e, lengthMm: e.lengthMm * factor } : e)) }
    case 'recesses':
      return {
        ...panel,
        recesses: panel.recesses.map((r) => (r.id === id ? { ...r, depthMm: r.depthMm * factor } : r)),
      }
    default:
      return panel
  }
}

type Reading = Pick<TapeItem, 'field' | 'spread' | 'filmMm2' | 'stretch' | 'decides' | 'stakeMm2' | 'figure'>
interface Known {
  film: FilmSheet | undefined
  method: Plan['method']
  choice: Plan['pieces'][number] | undefined
  readings: Reading[]
}
/** How sure a figure has to be does not hang on winter or on the paint's colour. */
const PLAIN = { strongContrast: false, winter: false }

/** Panels are never changed in place, so what hangs on their figures holds while film, method and piece choice do. */
const known = new WeakMap<Panel, Known>()

function readingsOf(plan: Plan, panel: Panel): Reading[] {
  const film = plan.film.sheets.find((s) => s.id === (panel.filmId ?? plan.film.mainId))
  const choice = plan.pieces.find((c) => c.panelId === panel.id)
  const before = known.get(panel)
  if (before && before.film === film && before.method === plan.method && before.choice === choice)
    return before.readings
  const limit = (film ?? FALLBACK).stretchLimit
  const read = (p: Panel): { film: number; stretch: number } => ({
    film: film
      ? piecesOf(plan, p, film, PLAIN).reduce((s, x) => s + x.cutWidthMm * x.cutHeightMm, 0)
      : (p.widthMm + 2 * plan.method.bleedMm) * (p.heightMm + 2 * plan.method.bleedMm),
    stretch: film ? Number(panelStretch(plan, p, film).worst.value) : 0,
  })
  const now = read(panel)
  const readings = panel.assumed.map((field): Reading => {
    const spread = SPREAD[field.split('.')[0] ?? ''] ?? 0
    const [low, high] =
      spread > 0 ? [read(offBy(panel, field, 1 - spread)), read(offBy(panel, field, 1 + spread))] : [now, now]
    const filmMm2 = Math.abs(high.film - low.film)
    const stretch: [number, number] = [Math.min(low.stretch, high.stretch), Math.max(low.stretch, high.stretch)]
    const decides = stretch[0] <= limit && stretch[1] > limit
    const stakeMm2 =
      filmMm2 + ((stretch[1] - stretch[0]) / Math.max(limit, 0.01)) * now.film * 0.5 + (decides ? now.film : 0)
    const own = (key: string, value: number, unit: Figure['unit']) =>
      input(key, value, unit, 'assumed', `panels/${panel.id}/${field}`)
    const stake = figure({
      id: `tape/${panel.id}/${field}`,
      value: stakeMm2,
      unit: 'mm2',
      formula:
        '|{film_high} − {film_low}| + ({stretch_high} − {stretch_low}) ÷ {limit} × {film} ÷ 2' +
        `${decides ? ' + {film}' : ''} (± {spread})`,
      inputs: [
        own('film_high', high.film, 'mm2'),
        own('film_low', low.film, 'mm2'),
        own('stretch_high', stretch[1], 'fraction'),
        own('stretch_low', stretch[0], 'fraction'),
        input('limit', limit, 'fraction', filmStanding(film, 'stretchLimit'), `film/${film?.id ?? ''}/stretchLimit`),
        own('film', now.film, 'mm2'),
        own('spread', spread, 'fraction'),
      ],
      standing: 'assumed',
    })
    return { field, spread, filmMm2, stretch, decides, stakeMm2, figure: stake }
  })
  known.set(panel, { film, method: plan.method, choice, readings })
  return readings
}

/**
 * Every assumed figure of the panels to be wrapped, those that matter most first. Each is moved down and up by its
 * spread and the panel's pieces and stretch are reckoned again: the order is computed, not written down.
 */
export function tapeList(plan: Plan): TapeItem[] {
  const out: TapeItem[] = []
  const byId = new Map(plan.panels.map((p) => [p.id, p]))
  for (const panel of plan.panels) {
    if (!panel.wrap || panel.assumed.length === 0) continue
    const other = byId.get(otherSideId(panel.id))
    const twin = panel.mirrored && other !== panel ? other : undefined
    for (const r of readingsOf(plan, panel)) {
      if (twin?.assumed.includes(r.field) && panel.id.endsWith('-right')) continue
      out.push({ ...r, panelId: panel.id, stakeMm2: r.stakeMm2 * (twin ? 2 : 1), also: twin?.id ?? null })
    }
  }
  return out.sort((a, b) => b.stakeMm2 - a.stakeMm2)
}

const RANK = { front: 0, left: 1, rear: 2, right: 3, centre: 4 } as const
/** Panels as one walks round: the front, down the left side, the rear, up the right side, then what lies on top. */
export function walkingOrder(panels: readonly Panel[]): Panel[] {
  const at = new Map(panels.map((p, i) => [p.id, i]))
  return [...panels].sort(
    (a, b) =>
      RANK[a.side] - RANK[b.side] ||
      // Down the left side as the list goes, back up the right side.
      ((at.get(a.id) ?? 0) - (at.get(b.id) ?? 0)) * (a.side === 'right' ? -1 : 1),
  )
}
