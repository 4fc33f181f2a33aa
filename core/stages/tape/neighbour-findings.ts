import { nth } from '../../kit/known'
import type { Plan } from '../../model/plan/schema'
import type { Finding } from '../../model/finding/finding'
import { otherSideId } from '../../model/vehicle/mirror'
import type { Panel, Edge } from '../../model/vehicle/schema'
import { probablyWrong, onlyOneAssumed, slipOf } from './suspects'
import { say } from './say'
import { edgeChordMm } from '../../model/vehicle/outline'

/** The edge of the panel across that mirrors this one. */
export function twinEdge(panel: Panel, edge: Edge, other: Panel): Edge | undefined {
  const at = edge.at === 'left' ? 'right' : edge.at === 'right' ? 'left' : edge.at
  const own = panel.edges.filter((e) => e.at === edge.at)
  const twins = other.edges.filter((e) => e.at === at)
  // Top and bottom runs stand the other way round on the mirrored panel; so do those of the sides.
  return own.length === twins.length ? [...twins].reverse()[own.indexOf(edge)] : undefined
}

/** The edge across the gap; across a span (a window) facing edges need not be alike. */
export const facing = (
  panel: Panel,
  edge: Edge,
  byId: ReadonlyMap<string, Panel>,
): { other: Panel; edge: Edge } | null => {
  const other = edge.neighbour ? byId.get(edge.neighbour) : undefined
  if (!other || edge.spanMm !== null || edge.meets === 'glass') return null
  const back = other.edges.filter((e) => e.neighbour === panel.id && e.spanMm === null)
  const mine = panel.edges.filter((e) => e.neighbour === other.id)
  return back.length === 1 && mine.length === 1 ? { other, edge: nth(back, 0) } : null
}

/** What other figures say an edge's length should be. */
export function expectedLength(
  panel: Panel,
  edge: Edge,
  byId: ReadonlyMap<string, Panel>,
  family: ReadonlyMap<string, Panel>,
): number[] {
  const out: number[] = []
  const across = panel.mirrored ? byId.get(otherSideId(panel.id)) : undefined
  const twin = across && across !== panel ? twinEdge(panel, edge, across) : undefined
  if (twin) out.push(twin.lengthMm)
  const alone = panel.edges.filter((e) => e.at === edge.at).length === 1
  if (alone && edge.riseMm === 0) out.push(edge.at === 'top' || edge.at === 'bottom' ? panel.widthMm : panel.heightMm)
  const styled = family.get(panel.id)?.edges.find((e) => e.id === edge.id)
  if (styled) out.push(styled.lengthMm)
  return out
}

export function neighbourFindings(
  plan: Plan,
  panel: Panel,
  byId: ReadonlyMap<string, Panel>,
  family: ReadonlyMap<string, Panel>,
): Finding[] {
  const out: Finding[] = []
  for (const edge of panel.edges) {
    if (!edge.neighbour) continue
    const other = byId.get(edge.neighbour)
    if (!other) {
      out.push(say(panel, 'neighbour_missing', 'warn', { at: edge.at, neighbour: edge.neighbour }, edge.id))
      continue
    }
    if (other === panel) out.push(say(panel, 'neighbour_itself', 'warn', { at: edge.at }, edge.id))
    const back = facing(panel, edge, byId)
    if (!back || panel.id >= other.id) continue
    const [a, b] = [edge.lengthMm, back.edge.lengthMm]
    if (Math.abs(a - b) <= plan.vehicle.toleranceMm) continue
    const wrong = probablyWrong([
      { panel, field: `edges.${edge.id}`, value: a, expected: expectedLength(panel, edge, byId, family) },
      {
        panel: other,
        field: `edges.${back.edge.id}`,
        value: b,
        expected: expectedLength(other, back.edge, byId, family),
      },
    ])
    const right = wrong?.panel === panel ? b : a
    const guessed = onlyOneAssumed(wrong, [panel, `edges.${edge.id}`], [other, `edges.${back.edge.id}`])
    out.push(
      say(
        panel,
        'edges_disagree',
        guessed ? 'note' : 'warn',
        {
          guessed,
          at: edge.at,
          a_mm: a,
          b_mm: b,
          other: other.name,
          wrong: wrong?.panel.name ?? '',
          likely_mm: right,
          slip: wrong ? (slipOf(wrong.value, right, plan.vehicle.toleranceMm) ?? '') : '',
        },
        edge.id,
      ),
    )
  }
  return out
}

export function mirrorFindings(
  panel: Panel,
  byId: ReadonlyMap<string, Panel>,
  family: ReadonlyMap<string, Panel>,
  toleranceMm: number,
): Finding[] {
  const other = byId.get(otherSideId(panel.id))
  if (!panel.id.endsWith('-left') || !other || other === panel || !panel.mirrored || !other.mirrored) return []
  return (['widthMm', 'heightMm'] as const).flatMap((field) => {
    const [a, b] = [panel[field], other[field]]
    if (Math.abs(a - b) <= toleranceMm) return []
    const at = field === 'widthMm' ? (['top', 'bottom'] as const) : (['left', 'right'] as const)
    const expected = (p: Panel): number[] => [
      ...at.map((side) => p.edges.filter((e) => e.at === side).reduce((s, e) => s + edgeChordMm(e), 0)),
      ...(family.get(p.id) ? [family.get(p.id)?.[field] ?? 0] : []),
    ]
    const wrong = probablyWrong([
      { panel, field, value: a, expected: expected(panel) },
      { panel: other, field, value: b, expected: expected(other) },
    ])
    const guessed = onlyOneAssumed(wrong, [panel, field], [other, field])
    return say(
      panel,
      'mirror_differs',
      guessed ? 'note' : 'warn',
      {
        guessed,
        other: other.name,
        a_mm: a,
        b_mm: b,
        field,
        wrong: wrong?.panel.name ?? '',
        slip: wrong ? (slipOf(wrong.value, wrong.panel === panel ? b : a, toleranceMm) ?? '') : '',
      },
      field,
    )
  })
}
