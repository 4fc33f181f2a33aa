import { civilToMinutes } from '../../kit/civil'
import { textHash } from '../../kit/random'
import type { Plan } from '../../model/plan/schema'
import { finding, type Finding } from '../../model/finding/finding'
import { hexDifference } from '../../model/vehicle/colour'
import type { Walkaround } from '../../model/vehicle/schema'

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

/** A mark of all that a customer signs for; another mark later means that something was changed since. */
export function signedMark(plan: Plan): string {
  const { signature: _, ...walk } = plan.walkaround
  return textHash(JSON.stringify([plan.vehicle.name, plan.vehicle.colour, walk]))
}

const BLOCKING: readonly Walkaround['damage'][number]['kind'][] = ['rust', 'peeling_clear']

/**
 * Panels that may not be wrapped as they are, and why: rust or loose clear coat nobody waived, paint still gassing
 * out.
 */
export function blockedPanels(plan: Plan, now: string): Map<string, 'rust' | 'peeling_clear' | 'repaint'> {
  const out = new Map<string, 'rust' | 'peeling_clear' | 'repaint'>()
  for (const r of plan.walkaround.repaints) {
    const days = r.on ? daysBetween(r.on, now) : null
    if (r.panelId && days !== null && days >= 0 && days < REPAINT_GAS_OUT_DAYS) out.set(r.panelId, 'repaint')
  }
  for (const d of plan.walkaround.damage)
    if (d.panelId && BLOCKING.includes(d.kind) && !d.waived) out.set(d.panelId, d.kind as 'rust')
  return out
}

/** What the walkaround warns of: paint, removal, damage, contrast. Common practice, no source. */
export function walkaroundFindings(plan: Plan, now: string): Finding[] {
  const out: Finding[] = []
  const { hardware, neverCover, signature } = plan.walkaround
  const add = (code: string, level: Finding['level'], over: Parameters<typeof finding>[3] = {}) =>
    out.push(finding(code, level, 'walkaround', over))
  paintFindings(plan, now, add)
  damageFindings(plan, add)
  const timeless = hardware.filter((h) => h.way === 'remove' && h.minutes === 0).length
  if (timeless > 0) add('hardware_without_minutes', 'note', { facts: { count: timeless } })
  const contrast = bodyContrast(plan)
  if (contrast !== null && contrast >= STRONG_CONTRAST_DE)
    add('strong_contrast', 'warn', {
      figureId: 'walkaround/contrast',
      facts: { delta_e: Math.round(contrast), extra_mm: CONTRAST_WRAP_MM },
    })
  if (neverCover.length > 0) add('never_cover_listed', 'note', { facts: { count: neverCover.length } })
  if (signature && signature.mark !== signedMark(plan))
    add('signed_before_change', 'warn', { facts: { name: signature.name } })
  const blocked = blockedPanels(plan, now)
  const wrapped = plan.panels.filter((p) => p.wrap && blocked.has(p.id))
  if (wrapped.length > 0)
    for (const stage of ['pieces', 'bay'] as const)
      out.push(
        finding('panels_blocked', 'stop', stage, {
          id: `panels_blocked/${stage}`,
          facts: { count: wrapped.length, first: wrapped[0]?.name ?? '' },
        }),
      )
  return out
}

type Add = (code: string, level: Finding['level'], over?: Parameters<typeof finding>[3]) => void

function paintFindings(plan: Plan, now: string, add: Add): void {
  const { paint, repaints } = plan.walkaround
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
  for (const r of repaints) {
    const panel = plan.panels.find((p) => p.id === r.panelId)?.name ?? ''
    const days = r.on ? daysBetween(r.on, now) : null
    const own = { id: `panel_repaint/${r.id}`, panelId: r.panelId }
    if (days === null) add('panel_repaint_undated', 'warn', { ...own, facts: { panel } })
    else if (days < 0) add('repaint_in_future', 'warn', { ...own, facts: { date: r.on ?? '' } })
    else if (days < REPAINT_GAS_OUT_DAYS)
      add('panel_repaint_fresh', 'stop', { ...own, facts: { panel, days, wait: REPAINT_GAS_OUT_DAYS - days } })
    else add('panel_repaint_may_lift', 'note', { ...own, facts: { panel } })
  }
  if (paint.ageYears !== null && paint.ageYears >= CLEAN_REMOVAL_YEARS)
    add('paint_old', 'note', { facts: { years: paint.ageYears, clean: CLEAN_REMOVAL_YEARS } })
  if (paint.condition === 'peeling' || paint.condition === 'rust')
    add('paint_unsound', 'stop', { facts: { condition: paint.condition } })
  if (paint.condition === 'dull') add('paint_dull', 'note')
}

function damageFindings(plan: Plan, add: Add): void {
  const { damage } = plan.walkaround
  for (const d of damage) {
    if (!BLOCKING.includes(d.kind)) continue
    const facts = { kind: d.kind, panel: plan.panels.find((p) => p.id === d.panelId)?.name ?? '' }
    if (d.waived)
      add('damage_waived', 'warn', {
        id: `damage_waived/${d.id}`,
        panelId: d.panelId,
        facts: { ...facts, by: d.waived.by, reason: d.waived.reason },
      })
    else add('damage_blocks', 'stop', { id: `damage_blocks/${d.id}`, panelId: d.panelId, facts })
  }
  if (damage.length > 0) add('damage_recorded', 'note', { facts: { count: damage.length } })
}
