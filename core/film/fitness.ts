import { climateOf } from '../conditions/conditions'
import type { Plan } from '../plan/schema'
import type { Catalogue } from '../reckon/catalogue'
import { piecesOf } from '../roll/pieces'
import { panelStretch } from '../stretch/panel-stretch'
import { hexDifference } from '../vehicle/colour'
import { PANEL_FACTS } from '../vehicle/panel-data'
import type { Panel } from '../vehicle/schema'
import { blockedPanels, daysBetween, REPAINT_GAS_OUT_DAYS, STRONG_CONTRAST_DE } from '../vehicle/walkaround-rules'
import { CHROME_CLASS, isFormed } from './film-data'
import type { FilmSheet } from './schema'

export interface Unfit {
  code: string
  level: 'stop' | 'warn' | 'note'
  facts: Record<string, string | number>
}

const isCompound = (p: Panel): boolean => {
  if (p.recesses.length > 0 || PANEL_FACTS[p.kind].compound) return true
  // A panel curved one way only is rolled, not stretched.
  return p.crownMm > 0 && p.crownDownMm !== 0
}

/** What the paint itself rules out, whatever the film. */
function paintUnfit(plan: Plan, now: string): Unfit[] {
  const { paint } = plan.walkaround
  const out: Unfit[] = []
  if (paint.condition === 'peeling' || paint.condition === 'rust')
    out.push({ code: 'unfit_paint', level: 'stop', facts: { condition: paint.condition } })
  const days = paint.repaintedOn ? daysBetween(paint.repaintedOn, now) : null
  if (paint.origin === 'repaint' && days !== null && days < REPAINT_GAS_OUT_DAYS)
    out.push({ code: 'unfit_fresh_repaint', level: 'stop', facts: { days, need: REPAINT_GAS_OUT_DAYS } })
  return out
}

/** Why a film does not suit this vehicle as the walkaround and the tape describe it; empty where it does. */
export function filmFitness(film: FilmSheet, plan: Plan, now: string): Unfit[] {
  const out: Unfit[] = paintUnfit(plan, now)
  const wrapped = plan.panels.filter((p) => p.wrap && (p.filmId ?? plan.film.mainId ?? film.id) === film.id)
  const compound = wrapped.filter(isCompound)
  const deep = wrapped.filter((p) => p.recesses.some((r) => r.depthMm > 10 && r.way === 'bridge'))
  const about = (panels: readonly Panel[]) => ({ panels: panels.length, first: panels[0]?.name ?? '' })
  const add = (code: string, level: Unfit['level'], facts: Unfit['facts'] = {}) => out.push({ code, level, facts })
  if (film.kind === 'calendered' && compound.length > 0) add('unfit_calendered_curves', 'warn', about(compound))
  if (film.kind === 'sheet_goods' && compound.length > 0) add('unfit_sheet_curves', 'warn', about(compound))
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
  /** Film cut for this panel at the sheet's price, in the shop's currency; the layout may do better or worse. */
  cost: number
  warrantyMonths: number | null
  contrast: number | null
}

const RANK = { fits: 0, note: 1, warn: 2, stop: 3 } as const

/** A plastic part heated past this softens (assumed: the part's own maker decides). */
const PLASTIC_HEAT_C = 100

/** One film on one panel, every criterion looked at: forming, direction, width, temperature, paint, surface, contrast, warranty, price. */
export function panelFitness(film: FilmSheet, panel: Panel, plan: Plan, catalogue: Catalogue): PanelFitness {
  const reasons: Unfit[] = []
  const add = (code: string, level: Unfit['level'], facts: Unfit['facts'] = {}) =>
    reasons.push({ code, level, facts: { film: film.name, panel: panel.name, ...facts } })
  const facts = PANEL_FACTS[panel.kind]
  const own: Plan = { ...plan, film: { mainId: film.id, sheets: [film] } }
  for (const u of paintUnfit(plan, catalogue.now)) add(u.code, u.level, u.facts)
  const blocked = blockedPanels(plan, catalogue.now).get(panel.id)
  if (blocked) add('fit_blocked', 'stop', { why: blocked })
  const stretch = panelStretch(own, panel, film).worst.value as number
  if (stretch > film.stretchLimit + 1e-9) add('fit_stretch', 'warn', { value: stretch, limit: film.stretchLimit })
  if (!isFormed(film.kind) && isCompound(panel))
    add(film.kind === 'sheet_goods' ? 'fit_sheet_curve' : CHROME_CLASS.includes(film.kind) ? 'fit_chrome_curve' : 'fit_calendered_curve', CHROME_CLASS.includes(film.kind) ? 'note' : 'warn') // prettier-ignore
  if (!isFormed(film.kind) && panel.recesses.some((r) => r.depthMm > 10 && r.way === 'bridge')) add('fit_deep_recess', 'warn') // prettier-ignore
  const pieces = piecesOf(own, panel, film, false)
  const widest = Math.max(...film.widthsMm)
  for (const piece of pieces) {
    const least = piece.turn === 'fixed' ? piece.acrossMm : Math.min(piece.acrossMm, piece.alongMm)
    if (least > widest) add('fit_width', 'warn', { piece_mm: least, roll_mm: widest })
    const longest = Math.max(...film.rollLengthsMm)
    if (Math.max(piece.acrossMm, piece.alongMm) > Math.max(longest, widest))
      add('fit_length', 'warn', { piece_mm: Math.max(piece.acrossMm, piece.alongMm), roll_mm: longest })
  }
  if (CHROME_CLASS.includes(film.kind)) add('chrome_law', 'note')
  if (film.gasOutHours) add('print_gas_out', 'note', { min: film.gasOutHours.min, max: film.gasOutHours.max })
  if (film.directional && facts.sameWayUp) add('fit_direction', 'note')
  const { air } = climateOf(plan, catalogue)
  if (air && (air.value < film.airC.min || air.value > film.airC.max))
    add('fit_air', 'warn', { c: air.value, min_c: film.airC.min, max_c: film.airC.max })
  if (panel.surface.material === 'plastic' && film.postHeatC.min >= PLASTIC_HEAT_C)
    add('fit_plastic_heat', 'warn', { min_c: film.postHeatC.min })
  const contrast = hexDifference(plan.vehicle.colour.hex, film.colour.hex)
  if (contrast !== null && contrast >= STRONG_CONTRAST_DE)
    add('fit_contrast', 'note', { delta_e: Math.round(contrast) })
  const warranty = film.warrantyMonths.find((w) => w.zone === plan.walkaround.zone && w.surface === facts.surface)
  if (!warranty || warranty.months === 0) add('fit_no_warranty', 'warn', { zone: plan.walkaround.zone, surface: facts.surface }) // prettier-ignore
  const areaMm2 = pieces.reduce((s, p) => s + p.acrossMm * p.alongMm, 0)
  const level = reasons.reduce<PanelFitness['level']>((w, r) => (RANK[r.level] > RANK[w] ? r.level : w), 'fits')
  return {
    panelId: panel.id,
    filmId: film.id,
    level,
    reasons: reasons.sort((a, b) => RANK[b.level] - RANK[a.level]),
    stretch,
    cost: (areaMm2 / 1e6) * pricePerM2(film),
    warrantyMonths: warranty?.months ?? null,
    contrast,
  }
}

/** What a square metre costs off the sheet's own unit of sale. */
export function pricePerM2(film: FilmSheet): number {
  const widthM = Math.max(...film.widthsMm) / 1000
  const lengthM = film.soldBy.unit === 'roll' || film.soldBy.unit === 'sheet' ? (film.rollLengthsMm[0] ?? 1000) / 1000 : 1 // prettier-ignore
  return film.soldBy.price / (widthM * lengthM)
}
