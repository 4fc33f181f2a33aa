import type { Piece } from '../pieces/pieces'
import { panelSteps, type ByPanel } from './panel-steps'
import { SEAM_MIN_PER_M } from './step-data'
import { stepOf, type Context, type Step } from './step'

/**
 * The steps of a side that is laid in drops: degreased, laid drop by drop, its seams trimmed, edges trimmed and heated,
 * with the minutes that its panels take together. The drop that lies under is laid first.
 */
export function sideSteps(c: Context, own: ByPanel, sideId: string, drops: readonly Piece[]): Step[] {
  const [first] = drops
  const covers = first?.covers ?? []
  if (!first || covers.length === 0) return []
  // Each panel as if one piece covered it: what it takes by itself.
  const single = ({ shares: _s, covers: _c, ...drop }: Piece, panelId: string): Piece => ({
    ...drop,
    id: panelId,
    panelId,
    part: 1,
    parts: 1,
    seamMm: 0,
  })
  const alone = covers.flatMap((id) => panelSteps(c, own, id, [single(first, id)]))
  const side = sideId.replace('side:', '')
  const name = `${side.charAt(0).toUpperCase()}${side.slice(1)} side`
  const together = (code: string): Step | null =>
    merged(
      alone.filter((s) => s.code === code),
      { panelId: sideId, covers, name },
    )
  const order = c.plan.layout.drops.airflow === 'front_over_rear' ? [...drops].reverse() : drops
  const filmMm2 = order.reduce((sum, p) => sum + p.acrossMm * p.alongMm, 0)
  const lay = together('lay')
  const laid = lay
    ? order.map((p, i): Step => ({
        ...lay,
        id: `lay:${p.id}`,
        name: p.name,
        minutes: Math.ceil((lay.minutes * p.acrossMm * p.alongMm) / filmMm2),
        waitMin: i === order.length - 1 ? lay.waitMin : 0,
        facts: { ...lay.facts, number: i + 1, of: order.length, pieces: order.length },
      }))
    : []
  const seamM = drops.reduce((sum, p) => sum + p.seamMm, 0) / 1000
  const seam = stepOf({
    id: `seam:${sideId}`,
    code: 'seam',
    panelId: sideId,
    covers,
    name,
    minutes: seamM * SEAM_MIN_PER_M * c.plan.runSheet.paceFactor,
    cautions: ['blade'],
    tools: ['filament', 'squeegee'],
    facts: { length_mm: seamM * 1000 },
  })
  const kept = (code: string): Step[] => {
    const step = together(code)
    return step ? [{ ...step, id: `${code === 'degrease_panel' ? 'degrease' : code}:${sideId}` }] : []
  }
  return [
    ...kept('relax'),
    ...kept('degrease_panel'),
    ...laid,
    ...(seamM > 0 ? [seam] : []),
    ...kept('trim'),
    ...kept('post_heat'),
  ]
}

/** Steps of several panels as one: their minutes, the most hands, every skill, tool and caution. */
function merged(
  steps: readonly Step[],
  of: Pick<Step, 'panelId' | 'name'> & { covers: readonly string[] },
): Step | null {
  const [first] = steps
  if (!first) return null
  const sum = (key: string): number => steps.reduce((total, s) => total + Number(s.facts[key] ?? 0), 0)
  const isCounted = first.facts.points !== undefined
  return {
    ...first,
    ...of,
    minutes: steps.reduce((total, s) => total + s.minutes, 0),
    people: Math.max(...steps.map((s) => s.people)),
    aloneFactor: steps.some((s) => s.people > 1 && s.aloneFactor === null)
      ? null
      : (steps.find((s) => s.aloneFactor !== null)?.aloneFactor ?? null),
    skills: [...new Set(steps.flatMap((s) => s.skills))],
    tools: [...new Set(steps.flatMap((s) => s.tools))],
    cautions: [...new Set(steps.flatMap((s) => s.cautions))],
    waitMin: Math.max(...steps.map((s) => s.waitMin)),
    facts: {
      ...first.facts,
      ...(isCounted ? { points: sum('points'), length_mm: sum('length_mm') } : {}),
    },
  }
}
