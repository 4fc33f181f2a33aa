import { climateOf } from '../../engines/conditions/climate'
import type { Plan } from '../../model/plan/schema'
import type { Catalogue } from '../../model/catalogue/catalogue'
import { aroundOf, contrastFigure } from '../../engines/paint/contrast'
import { DEFAULT_SHOP } from '../../model/shop/default-shop'
import { figure, from, input, type Figure } from '../../model/figure/figure'
import { piecesOf, type Piece } from '../../engines/pieces/pieces'
import { panelStretch, type KnownStretch } from '../../engines/stretch/panel-stretch'
import { stretchKey } from '../../model/catalogue/stretch-key'
import { hexDifference, hexLightness } from '../../model/vehicle/colour'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Panel } from '../../model/vehicle/schema'
import { blockedPanels } from '../../engines/paint/blocked-panels'
import { STRONG_CONTRAST_DE, REPAINT_GAS_OUT_DAYS, SHOWS_THROUGH_L } from '../../model/vehicle/paint-data'
import { daysBetween } from '../../kit/civil'
import type { FindingLevel, Said } from '../../model/finding/finding'
import type { FindingCode, FindingFacts } from '../../model/finding/finding-facts'
import { CHROME_CLASS, filmStanding, isFormed } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'

/** Codes that speak against a film, on the whole vehicle or on one panel. */
type UnfitCode =
  | {
      [C in FindingCode]: C extends `unfit_${string}` | `fit_${string}` | `chrome_${string}` ? C : never
    }[FindingCode]
  | 'print_gas_out'
  | 'short_warranty'
  | 'no_warranty_zone'
export type Unfit = Said<UnfitCode>

type AddUnfit = <C extends UnfitCode>(
  code: C,
  level: FindingLevel,
  ...facts: keyof Omit<FindingFacts[C], 'film' | 'panel'> extends never ? [] : [Omit<FindingFacts[C], 'film' | 'panel'>]
) => void

/** Adds to a list; film and panel, which all of them are about, are put in. */
const adder =
  (out: Unfit[], about: { film: string; panel?: string }): AddUnfit =>
  (code, level, ...[facts]) =>
    // Whole again with film and panel, which `Omit` of an open code cannot show.
    void out.push({ code, level, facts: { ...about, ...(facts ?? {}) } } as Unfit)

const isCompound = (p: Panel): boolean => {
  if (p.recesses.length > 0 || PANEL_FACTS[p.kind].compound) return true
  // A panel curved one way only is rolled, not stretched.
  return p.crownMm > 0 && p.crownDownMm !== 0
}

/** What the paint itself rules out, whatever the film. */
function paintUnfit(plan: Plan, now: string, add: AddUnfit): void {
  const { paint } = plan.walkaround
  if (paint.condition === 'peeling' || paint.condition === 'rust')
    add('unfit_paint', 'stop', { condition: paint.condition })
  const days = paint.repaintedOn ? daysBetween(paint.repaintedOn, now) : null
  if (paint.origin === 'repaint' && days !== null && days < REPAINT_GAS_OUT_DAYS)
    add('unfit_fresh_repaint', 'stop', { days, need: REPAINT_GAS_OUT_DAYS })
}

/** A film that lets light through, light over a dark body. */
function showsThrough(film: FilmSheet, plan: Plan): boolean {
  const [own, body] = [film.colour.hex, plan.vehicle.colour.hex].map(hexLightness)
  return !film.opaque && (own ?? 0) - (body ?? 0) > SHOWS_THROUGH_L
}

/** Why a film does not suit this vehicle as the walkaround and the tape describe it; empty where it does. */
export function filmFitness(film: FilmSheet, plan: Plan, now: string): Unfit[] {
  const out: Unfit[] = []
  const add = adder(out, { film: film.name })
  paintUnfit(plan, now, add)
  const wrapped = plan.panels.filter((p) => p.wrap && (p.filmId ?? plan.film.mainId ?? film.id) === film.id)
  const compound = wrapped.filter(isCompound)
  const deep = wrapped.filter((p) => p.recesses.some((r) => r.depthMm > 10 && r.way === 'bridge'))
  const about = (panels: readonly Panel[]) => ({ panels: panels.length, first: panels[0]?.name ?? '' })
  if (film.kind === 'calendered' && compound.length > 0) add('unfit_calendered_curves', 'warn', about(compound))
  if (film.kind === 'sheet_goods' && compound.length > 0) add('unfit_sheet_curves', 'warn', about(compound))
  const flatOnly = film.conforms === 'flat' && film.kind !== 'calendered' && film.kind !== 'sheet_goods'
  if (flatOnly && compound.length > 0) add('unfit_flat_only', 'warn', about(compound))
  if (showsThrough(film, plan)) add('unfit_shows_through', 'warn')
  if (CHROME_CLASS.includes(film.kind)) {
    if (compound.length > 0) add('chrome_needs_seams', 'note', about(compound))
    add('chrome_law', 'note')
  }
  if (!isFormed(film.kind) && deep.length > 0) add('unfit_deep_recess', 'warn', about(deep))
  if (film.gasOutHours) add('print_gas_out', 'note', { min: film.gasOutHours.min, max: film.gasOutHours.max })
  const months = film.warrantyMonths.filter((w) => w.zone === plan.walkaround.zone).map((w) => w.months)
  if (months.length > 0 && Math.min(...months) <= 12) add('short_warranty', 'note', { months: Math.min(...months) })
  if (months.length === 0) add('no_warranty_zone', 'warn', { zone: plan.walkaround.zone })
  return out
}

/** A film on one panel: what speaks against it, and what it costs and guarantees there. */
export interface PanelFitness {
  panelId: string
  filmId: string
  level: 'fits' | 'note' | 'warn' | 'stop'
  reasons: Unfit[]
  stretch: number
  /**
   * The working of stretch, contrast and cost: `stretch/<panel>/worst`, `fitness/<film>/contrast`,
   * `fitness/<film>/<panel>/cost`.
   */
  figures: Figure[]
  /** Film cut for this panel at the sheet's price, in the shop's currency; the layout may do better or worse. */
  cost: number
  warrantyMonths: number | null
  contrast: number | null
}

const RANK = { fits: 0, note: 1, warn: 2, stop: 3 } as const

/** A plastic part heated past this softens (assumed: the part's own maker decides). */
const PLASTIC_HEAT_C = 100

/**
 * One film on one panel, every criterion looked at: forming, direction, width, temperature, paint, surface, contrast,
 * warranty, price. `known`: solved stretches, where every film that it is compared with has one.
 */
export function panelFitness(
  film: FilmSheet,
  panel: Panel,
  plan: Plan,
  catalogue: Catalogue,
  known: KnownStretch = {},
): PanelFitness {
  const reasons: Unfit[] = []
  const add = adder(reasons, { film: film.name, panel: panel.name })
  const facts = PANEL_FACTS[panel.kind]
  const own: Plan = { ...plan, film: { mainId: film.id, sheets: [film] } }
  paintUnfit(plan, catalogue.now, add)
  const blocked = blockedPanels(plan, catalogue.now).get(panel.id)
  if (blocked) add('fit_blocked', 'stop', { why: blocked })
  const stretched = panelStretch(own, panel, film, known)
  const stretch = Number(stretched.worst.value)
  const contrast = contrastOf(plan, film)
  const strong = contrast !== null && Number(contrast.value) >= STRONG_CONTRAST_DE
  if (stretch > film.stretchLimit + 1e-9) add('fit_stretch', 'warn', { value: stretch, limit: film.stretchLimit })
  formingUnfit(film, panel, add)
  const pieces = piecesOf(own, panel, film, {
    ...aroundOf(own, catalogue.shop ?? DEFAULT_SHOP),
    strongContrast: strong,
  })
  sizeUnfit(film, pieces, add)
  handlingUnfit(film, panel, add)
  const { air } = climateOf(plan, catalogue.climate)
  if (air && (air.value < film.airC.min || air.value > film.airC.max))
    add('fit_air', 'warn', { c: air.value, min_c: film.airC.min, max_c: film.airC.max })
  if (strong) add('fit_contrast', 'note', { delta_e: Math.round(Number(contrast.value)) })
  const warranty = film.warrantyMonths.find((w) => w.zone === plan.walkaround.zone && w.surface === facts.surface)
  if (!warranty || warranty.months === 0)
    add('fit_no_warranty', 'warn', { zone: plan.walkaround.zone, surface: facts.surface })
  const cost = costFigure(film, panel, pieces)
  const level = reasons.reduce<PanelFitness['level']>((w, r) => (RANK[r.level] > RANK[w] ? r.level : w), 'fits')
  return {
    panelId: panel.id,
    filmId: film.id,
    level,
    reasons: reasons.sort((a, b) => RANK[b.level] - RANK[a.level]),
    stretch,
    figures: [
      ...stretched.all,
      ...pieces.flatMap((p) => [p.figures.width, p.figures.height]),
      ...(contrast ? [contrast] : []),
      cost,
    ],
    cost: Number(cost.value),
    warrantyMonths: warranty?.months ?? null,
    contrast: contrast ? Number(contrast.value) : null,
  }
}

/** Curves that a film which is not cast does not take. */
function formingUnfit(film: FilmSheet, panel: Panel, add: AddUnfit): void {
  if (!isFormed(film.kind) && isCompound(panel))
    add(
      film.kind === 'sheet_goods'
        ? 'fit_sheet_curve'
        : CHROME_CLASS.includes(film.kind)
          ? 'fit_chrome_curve'
          : 'fit_calendered_curve',
      CHROME_CLASS.includes(film.kind) ? 'note' : 'warn',
    )
  if (!isFormed(film.kind) && panel.recesses.some((r) => r.depthMm > 10 && r.way === 'bridge'))
    add('fit_deep_recess', 'warn')
}

/** Pieces wider or longer than any roll of the film. */
function sizeUnfit(film: FilmSheet, pieces: readonly Piece[], add: AddUnfit): void {
  const widest = Math.max(...film.widthsMm)
  for (const piece of pieces) {
    const least = piece.turn === 'fixed' ? piece.acrossMm : Math.min(piece.acrossMm, piece.alongMm)
    if (least > widest) add('fit_width', 'warn', { piece_mm: least, roll_mm: widest })
    const longest = Math.max(...film.rollLengthsMm)
    if (Math.max(piece.acrossMm, piece.alongMm) > Math.max(longest, widest))
      add('fit_length', 'warn', { piece_mm: Math.max(piece.acrossMm, piece.alongMm), roll_mm: longest })
  }
}

/** What has to be known of a film before it goes on this panel. */
function handlingUnfit(film: FilmSheet, panel: Panel, add: AddUnfit): void {
  if (CHROME_CLASS.includes(film.kind)) add('chrome_law', 'note')
  if (film.gasOutHours) add('print_gas_out', 'note', { min: film.gasOutHours.min, max: film.gasOutHours.max })
  if (film.directional && PANEL_FACTS[panel.kind].sameWayUp) add('fit_direction', 'note')
  if (panel.surface.material === 'plastic' && film.postHeatC.min >= PLASTIC_HEAT_C)
    add('fit_plastic_heat', 'warn', { min_c: film.postHeatC.min })
}

/**
 * Solved stretches to compare a panel's films by, where every film of the rack has one: a solved figure never stands
 * against a closed form.
 */
export function comparedBy(plan: Plan, panel: Panel, { films, solutions, scans }: Catalogue): KnownStretch {
  const scan = scans?.[panel.id]
  if (!solutions) return {}
  const keys = films.map((film) =>
    stretchKey({ ...plan, film: { mainId: film.id, sheets: [film] } }, panel, film, scan),
  )
  return keys.every((key) => solutions.stretch[key]) ? { solved: solutions.stretch, faults: solutions.fault, scan } : {}
}

function contrastOf(plan: Plan, film: FilmSheet): Figure | null {
  const value = hexDifference(plan.vehicle.colour.hex, film.colour.hex)
  return value === null ? null : contrastFigure(`fitness/${film.id}/contrast`, plan, film, value)
}

/**
 * Cut film at the sheet's price by area: the width of the roll is shared out, and so is the length where rolls or
 * sheets are sold whole.
 */
function costFigure(film: FilmSheet, panel: Panel, pieces: readonly Piece[]): Figure {
  const width = Math.max(...film.widthsMm)
  const whole = film.soldBy.unit === 'roll' || film.soldBy.unit === 'sheet'
  const length = whole ? (film.rollLengthsMm[0] ?? 1000) : 1000
  const terms = pieces.map((_, i) => `{w${i + 1}} × {h${i + 1}}`).join(' + ')
  const value = (pieces.reduce((s, p) => s + p.cutWidthMm * p.cutHeightMm, 0) / (width * length)) * film.soldBy.price
  return figure({
    id: `fitness/${film.id}/${panel.id}/cost`,
    value,
    unit: 'money',
    formula: `(${terms}) × {price} ÷ ${whole ? '({width} × {length})' : '{width}'}`,
    inputs: [
      ...pieces.flatMap((p, i) => [from(`w${i + 1}`, p.figures.width), from(`h${i + 1}`, p.figures.height)]),
      input(
        'price',
        film.soldBy.price,
        whole ? 'money_each' : 'price_per_m',
        filmStanding(film, 'soldBy'),
        `film/${film.id}/soldBy`,
      ),
      input('width', width, 'mm', filmStanding(film, 'widthsMm'), `film/${film.id}/widthsMm`),
      ...(whole
        ? [input('length', length, 'mm', filmStanding(film, 'rollLengthsMm'), `film/${film.id}/rollLengthsMm`)]
        : []),
    ],
    standing: 'common_practice',
  })
}

/** What all of some panels cost in a film, out of what each does. */
export const costTogether = (filmId: string, parts: readonly PanelFitness[]): Figure =>
  figure({
    id: `fitness/${filmId}/cost`,
    value: parts.reduce((s, p) => s + p.cost, 0),
    unit: 'money',
    formula: 'Σ inputs',
    inputs: parts.flatMap((p, i) =>
      p.figures.filter((f) => f.id === `fitness/${filmId}/${p.panelId}/cost`).map((f) => from(`n${i + 1}`, f)),
    ),
  })
