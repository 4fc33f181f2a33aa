import { REPAINT_GAS_OUT_DAYS } from '../../model/vehicle/paint-data'
import type { Plan } from '../../model/plan/schema'
import { daysBetween } from '../../kit/civil'
import type { Walkaround } from '../../model/vehicle/walkaround-schema'

export const BLOCKING: readonly Walkaround['damage'][number]['kind'][] = ['rust', 'peeling_clear']
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
