import { daysBetween } from '../../kit/civil'
import type { Plan } from '../../model/plan/schema'
import { finding, type DetailsOf, type Finding, type FindingLevel } from '../../model/finding/finding'
import type { FindingCode } from '../../model/finding/finding-facts'
import {
  CLEAN_REMOVAL_YEARS,
  CONTRAST_WRAP_MM,
  REPAINT_GAS_OUT_DAYS,
  STRONG_CONTRAST_DE,
} from '../../model/vehicle/paint-data'
import { blockedPanels, BLOCKING } from '../../engines/paint/blocked-panels'
import { bodyContrast } from '../../engines/paint/contrast'
import { signedMark } from '../../model/plan/signed-mark'

/** What the walkaround warns of: paint, removal, damage, contrast. Common practice, no source. */
export function walkaroundFindings(plan: Plan, now: string): Finding[] {
  const out: Finding[] = []
  const { hardware, neverCover, signature } = plan.walkaround
  const add: Add = (code, level, ...details) => void out.push(finding(code, level, 'walkaround', ...details))
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

type Add = <C extends FindingCode>(code: C, level: FindingLevel, ...details: DetailsOf<C>) => void

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
