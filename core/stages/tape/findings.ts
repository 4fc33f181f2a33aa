import { keptFor } from '../../kit/kept'
import { nth } from '../../kit/known'
import type { Plan } from '../../model/plan/schema'
import { finding, type Finding } from '../../model/finding/finding'
import { familyPanels } from '../../model/vehicle/families'
import { edgeChordMm, edgesInOrder, outlineOf } from '../../model/vehicle/outline'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Edge, Panel } from '../../model/vehicle/schema'
import { assumed, slipOf } from './suspects'
import { say } from './say'
import { mirrorFindings, neighbourFindings } from './neighbour-findings'
import { girthFindings } from './girth-findings'

/** An outline with assumed figures in it may miss closing by this share of its girth before it is said (assumed). */
const LOOSE_CLOSURE = 0.15
/** Taped figures further than this from what the key lengths say are looked at again (assumed). */
const AGAINST_STYLE = 0.4

/** The style's own panels for the key lengths that were taped; empty where none was. */
const styleOf = keptFor(({ kind, keys, keysAssumed }: Plan['vehicle']): ReadonlyMap<string, Panel> => {
  if (kind === 'other' || Object.keys(keys).length === 0 || keysAssumed.length === Object.keys(keys).length)
    return new Map()
  return new Map(familyPanels(kind, keys).map((p) => [p.id, p]))
})

/** What a panel's own figures say against each other, against its style and against what such a panel can be. */
const ownFindings = keptFor((panel: Panel, styled: Panel | undefined, vehicle: Plan['vehicle']): Finding[] => [
  ...sizeFindings(panel, styled, vehicle),
  ...outlineFindings(panel, vehicle.toleranceMm),
  ...featureFindings(panel),
])

/** Measures that do not agree with each other or with what a panel of that kind can be. */
export function panelFindings(plan: Plan): Finding[] {
  const out: Finding[] = []
  if (plan.panels.length === 0) out.push(finding('no_panels', 'stop', 'tape'))
  const open = plan.panels.filter((p) => p.assumed.length > 0)
  if (open.length > 0)
    out.push(finding('figures_assumed', 'note', 'tape', { facts: { count: open.length, first: open[0]?.name ?? '' } }))
  const byId = new Map(plan.panels.map((p) => [p.id, p]))
  const family = styleOf(plan.vehicle)
  for (const panel of plan.panels) {
    out.push(...ownFindings(panel, family.get(panel.id), plan.vehicle))
    out.push(...neighbourFindings(plan, panel, byId, family))
    out.push(...mirrorFindings(panel, byId, family, plan.vehicle.toleranceMm))
  }
  out.push(...girthFindings(plan, byId, family))
  const loose = plan.panels.flatMap((p) => p.edges.filter((e) => e.meets === 'fixed_gap' && !e.neighbour).map(() => p))
  if (loose.length > 0 && plan.panels.some((p) => p.edges.some((e) => e.neighbour)))
    out.push(
      finding('edges_meet_nothing', 'note', 'tape', { facts: { count: loose.length, first: loose[0]?.name ?? '' } }),
    )
  return out
}

function sizeFindings(
  panel: Panel,
  styled: Panel | undefined,
  { toleranceMm, keysAssumed }: Plan['vehicle'],
): Finding[] {
  const out: Finding[] = []
  const plausible = PANEL_FACTS[panel.kind].plausibleMm
  const largest = Math.max(panel.widthMm, panel.heightMm)
  if (largest > plausible)
    out.push(say(panel, 'panel_too_large', 'warn', { size_mm: largest, plausible_mm: plausible }))
  for (const field of ['widthMm', 'heightMm'] as const) {
    if (!styled || assumed(panel, field)) continue
    const [value, expected] = [panel[field], styled[field]]
    if (Math.abs(Math.log(value / expected)) <= Math.log(1 + AGAINST_STYLE)) continue
    const slip = slipOf(value, expected, toleranceMm)
    // What was taped is not wrong because a key length was only assumed, unless a slip explains it.
    const guessed = keysAssumed.length > 0 && slip === null ? 1 : 0
    out.push(
      say(
        panel,
        'against_style',
        guessed ? 'note' : 'warn',
        { field, value_mm: value, expected_mm: expected, slip: slip ?? '', guessed },
        field,
      ),
    )
  }
  const outline = outlineOf(panel)
  for (const at of ['top', 'right', 'bottom', 'left'] as const) {
    const edges = panel.edges.filter((e) => e.at === at)
    if (edges.length === 0) out.push(say(panel, 'edge_missing', 'warn', { at }, at))
    if (edges.length === 0 || (outline.measured && (at === 'bottom' || at === 'left'))) continue
    const across = at === 'top' || at === 'bottom'
    const side = across ? panel.widthMm : panel.heightMm
    const sum = outline.measured
      ? outline[across ? 'widthMm' : 'heightMm']
      : edges.reduce((s, e) => s + edgeChordMm(e), 0)
    // Width and height are taken over the highest point: an edge may be a good deal shorter, hardly longer.
    if (sum > side * 1.25 || sum < side * (outline.measured ? 0.6 : 0.4)) {
      const guessedSize = assumed(panel, across ? 'widthMm' : 'heightMm')
      const guessedEdge = edges.some((e) => assumed(panel, `edges.${e.id}`))
      // Of a taped figure and an assumed one the assumed one is off.
      const guess = guessedSize === guessedEdge ? '' : guessedSize ? 'size' : 'edge'
      out.push(
        say(
          panel,
          'edge_against_size',
          guess ? 'note' : 'warn',
          { at, edge_mm: sum, size_mm: side, guess, slip: guess ? '' : (slipOf(sum, side, toleranceMm) ?? '') },
          at,
        ),
      )
    }
  }
  return out
}

function outlineFindings(panel: Panel, toleranceMm: number): Finding[] {
  const edges = edgesInOrder(panel)
  for (const e of edges)
    if (Math.abs(e.riseMm) * Math.PI > e.lengthMm + 1e-6)
      return [
        say(panel, 'rise_too_large', 'stop', { at: e.at, rise_mm: Math.abs(e.riseMm), length_mm: e.lengthMm }, e.id),
      ]
  const chords = edges.map(edgeChordMm)
  const girth = chords.reduce((a, b) => a + b, 0)
  const longest = Math.max(...chords)
  if (longest > girth - longest + 1e-6) {
    const edge = nth(edges, chords.indexOf(longest))
    return [
      say(panel, 'outline_impossible', 'stop', { at: edge.at, edge_mm: longest, others_mm: girth - longest }, edge.id),
    ]
  }
  const outline = outlineOf(panel)
  const loose = edges.some((e) => assumed(panel, `edges.${e.id}`))
  if (!outline.measured || outline.closureMm <= (loose ? Math.max(toleranceMm, girth * LOOSE_CLOSURE) : toleranceMm))
    return []
  // Where some edges were only assumed, none that was taped is blamed.
  const guessed = edges.filter((e) => assumed(panel, `edges.${e.id}`))
  const suspects = (guessed.length > 0 ? guessed : edges).map((e) => closing(panel, e))
  const best = [...suspects].sort((a, b) => a.left - b.left)[0]
  return [
    say(panel, 'outline_open', 'stop', {
      gap_mm: outline.closureMm,
      guessed: guessed.length > 0 ? 1 : 0,
      at: best?.edge.at ?? '',
      edge_mm: best?.edge.lengthMm ?? 0,
      likely_mm: Math.max(1, Math.round(best?.likely ?? 0)),
    }),
  ]
}

/** What would be left open if only this edge were wrong, and the length that comes closest. */
function closing(panel: Panel, edge: Edge): { edge: Edge; left: number; likely: number } {
  const gapWith = (lengthMm: number): number =>
    outlineOf({ ...panel, edges: panel.edges.map((e) => (e.id === edge.id ? { ...e, lengthMm } : e)) }).closureMm
  let [low, high] = [Math.max(1, Math.abs(edge.riseMm) * Math.PI), edge.lengthMm * 3 + 500]
  // The gap as a function of one length is a distance to a point along a line: it has one lowest place.
  for (let i = 0; i < 40; i++) {
    const [a, b] = [low + (high - low) / 3, high - (high - low) / 3]
    if (gapWith(a) < gapWith(b)) high = b
    else low = a
  }
  return { edge, left: gapWith((low + high) / 2), likely: (low + high) / 2 }
}

function featureFindings(panel: Panel): Finding[] {
  const out: Finding[] = []
  const diagonal = Math.hypot(panel.widthMm, panel.heightMm)
  for (const [rise, over, key] of [
    [panel.crownMm, panel.crownOverMm, 'crown'],
    [panel.crownDownMm ?? 0, panel.crownDownOverMm, 'crown-down'],
  ] as const)
    if (rise > 0 && over > diagonal + 1)
      out.push(say(panel, 'straightedge_too_long', 'warn', { over_mm: over, size_mm: diagonal }, key))
  const off = (x: { xMm: number | null; yMm: number | null }, w: number, h: number): boolean =>
    (x.xMm !== null && (x.xMm - w / 2 < -1 || x.xMm + w / 2 > panel.widthMm + 1)) ||
    (x.yMm !== null && (x.yMm - h / 2 < -1 || x.yMm + h / 2 > panel.heightMm + 1))
  for (const r of panel.recesses)
    if (off(r, r.mouthWidthMm, r.mouthHeightMm))
      out.push(say(panel, 'feature_off_panel', 'warn', { what: r.name }, r.id))
  for (const x of [...panel.raised, ...panel.holes, ...panel.zones])
    if (off(x, x.widthMm, x.heightMm)) out.push(say(panel, 'feature_off_panel', 'warn', { what: x.name }, x.id))
  for (const l of panel.bodyLines)
    if (l.atMm > (l.along === 'width' ? panel.heightMm : panel.widthMm) + 1)
      out.push(say(panel, 'feature_off_panel', 'warn', { what: l.name }, l.id))
  const taken = panel.holes.reduce((s, h) => s + h.widthMm * h.heightMm, 0)
  const area = outlineOf(panel).areaMm2
  if (taken >= area && taken > 0) out.push(say(panel, 'holes_take_all', 'stop', {}))
  if (panel.edges.every((e) => e.cornerDeg !== null) && area > panel.widthMm * panel.heightMm * 1.1)
    out.push(say(panel, 'area_impossible', 'warn', { area_mm2: area, box_mm2: panel.widthMm * panel.heightMm }))
  return out
}
