import { civilToMinutes } from '../kit/civil'
import type { Plan } from '../plan/schema'
import { finding, type Finding } from '../reckon/finding'
import { hexDifference } from './colour'

/** Days that a repaint stands before film goes on (assumed: the paint's own sheet decides). */
export const REPAINT_GAS_OUT_DAYS = 60
/** Paint younger than this comes off clean at removal. Common practice, no source. */
export const CLEAN_REMOVAL_YEARS = 5
/** ΔE00 from which body and film differ at every edge (assumed). */
export const STRONG_CONTRAST_DE = 25
/** Deeper wrap-under that a strong contrast asks for, mm (assumed). */
export const CONTRAST_WRAP_MM = 5

export function daysBetween(from: string, to: string): number | null {
  const [a, b] = [civilToMinutes(from), civilToMinutes(to)]
  return a === null || b === null ? null : Math.floor((b - a) / 1440)
}

export function bodyContrast(plan: Plan): number | null {
  const main = plan.film.sheets.find((s) => s.id === plan.film.mainId)
  return main ? hexDifference(plan.vehicle.colour.hex, main.colour.hex) : null
}

/** What the walkaround warns of: paint, removal, damage, contrast. Common practice, no source. */
export function walkaroundFindings(plan: Plan, now: string): Finding[] {
  const out: Finding[] = []
  const { paint, damage, hardware } = plan.walkaround
  const add = (code: string, level: Finding['level'], over: Parameters<typeof finding>[3] = {}) =>
    out.push(finding(code, level, 'walkaround', over))
  if (paint.origin === 'unknown') add('paint_unknown', 'warn')
  if (paint.condition === 'unknown') add('condition_unknown', 'warn')
  if (paint.origin === 'repaint') {
    const days = paint.repaintedOn ? daysBetween(paint.repaintedOn, now) : null
    if (days === null) add('repaint_undated', 'warn')
    else if (days < 0) add('repaint_in_future', 'warn', { facts: { date: paint.repaintedOn ?? '' } })
    else if (days < REPAINT_GAS_OUT_DAYS)
      add('repaint_fresh', 'stop', { facts: { days, need: REPAINT_GAS_OUT_DAYS, wait: REPAINT_GAS_OUT_DAYS - days } })
    add('repaint_may_lift', 'warn')
  }
  if (paint.ageYears !== null && paint.ageYears >= CLEAN_REMOVAL_YEARS)
    add('paint_old', 'note', { facts: { years: paint.ageYears, clean: CLEAN_REMOVAL_YEARS } })
  if (paint.condition === 'peeling' || paint.condition === 'rust')
    add('paint_unsound', 'stop', { facts: { condition: paint.condition } })
  if (paint.condition === 'dull') add('paint_dull', 'note')
  for (const d of damage) {
    const name = plan.panels.find((p) => p.id === d.panelId)?.name ?? ''
    if (d.kind === 'rust' || d.kind === 'peeling_clear')
      add('damage_blocks', 'stop', {
        id: `damage_blocks/${d.id}`,
        panelId: d.panelId,
        facts: { kind: d.kind, panel: name },
      })
  }
  if (damage.length > 0) add('damage_recorded', 'note', { facts: { count: damage.length } })
  if (hardware.some((h) => h.way === 'remove' && h.minutes === 0))
    add('hardware_without_minutes', 'note', {
      facts: { count: hardware.filter((h) => h.way === 'remove' && h.minutes === 0).length },
    })
  const contrast = bodyContrast(plan)
  if (contrast !== null && contrast >= STRONG_CONTRAST_DE)
    add('strong_contrast', 'warn', {
      figureId: 'walkaround/contrast',
      facts: { delta_e: Math.round(contrast), extra_mm: CONTRAST_WRAP_MM },
    })
  return out
}
