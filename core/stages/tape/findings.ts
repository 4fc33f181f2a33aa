import { nth } from '../../kit/known'
import type { Plan } from '../../model/plan/schema'
import { finding, placed, type Finding, type FindingLevel, type Said } from '../../model/finding/finding'
import type { FindingCode, FindingFacts } from '../../model/finding/finding-facts'
import { familyPanels } from '../../model/vehicle/families'
import { otherSideId } from '../../model/vehicle/mirror'
import { edgeChordMm, edgesInOrder, outlineOf } from '../../model/vehicle/outline'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Edge, Panel } from '../../model/vehicle/schema'

/** Across a gap wider than this (a window) facing edges need not be alike, mm (assumed). */
const FACING_GAP_MM = 100
/** An outline with assumed figures in it may miss closing by this share of its girth before it is said (assumed). */
const LOOSE_CLOSURE = 0.15
/** Taped figures further than this from what the key lengths say are looked at again (assumed). */
const AGAINST_STYLE = 0.4

/** One figure that may be wrong, and what other figures say it should be. */
interface Suspect {
  panel: Panel
  field: string
  value: number
  expected: number[]
}

/** Panels that slope are a little longer than the length they cover (assumed). */
const SLOPE_ROOM = 1.03

const assumed = (panel: Panel, field: string): boolean => panel.assumed.includes(field)
const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)] ?? 0
}

/**
 * Which of several figures that do not agree is probably wrong: one that was only assumed before one that was taped,
 * then
 * the one furthest from what everything else says of it.
 */
export function probablyWrong(suspects: readonly Suspect[]): Suspect | null {
  const off = (s: Suspect): number =>
    s.expected.length === 0 ? 0 : Math.abs(Math.log(Math.max(1, s.value) / Math.max(1, middle(s.expected))))
  return (
    [...suspects].sort(
      (a, b) => Number(assumed(b.panel, b.field)) - Number(assumed(a.panel, a.field)) || off(b) - off(a),
    )[0] ?? null
  )
}

/**
 * 1 where of two figures one was taped and the other, which is named as wrong, only assumed: a guess to be taped, no
 * error.
 */
function onlyOneAssumed(wrong: Suspect | null, ...sides: [Panel, string][]): 0 | 1 {
  const guesses = sides.filter(([panel, field]) => assumed(panel, field))
  return guesses.length === 1 && wrong !== null && guesses[0]?.[0] === wrong.panel ? 1 : 0
}

/** How a slip of pen or tape would explain the difference; null where none does. */
export function slipOf(
  value: number,
  expected: number,
  toleranceMm: number,
): 'tenth' | 'tenfold' | 'inches' | 'digits' | null {
  const near = (v: number): boolean => Math.abs(v - expected) <= Math.max(toleranceMm, expected * 0.03)
  if (near(value * 10)) return 'tenth'
  if (near(value / 10)) return 'tenfold'
  if (near(value * 25.4) || near(value * 2.54)) return 'inches'
  const digits = String(Math.round(value))
  for (let i = 0; i + 1 < digits.length; i++) {
    const swapped = Number(digits.slice(0, i) + digits[i + 1] + digits[i] + digits.slice(i + 2))
    if (swapped !== value && near(swapped)) return 'digits'
  }
  return null
}

/** The edge of the panel across that mirrors this one. */
function twinEdge(panel: Panel, edge: Edge, other: Panel): Edge | undefined {
  const at = edge.at === 'left' ? 'right' : edge.at === 'right' ? 'left' : edge.at
  const own = panel.edges.filter((e) => e.at === edge.at)
  const twins = other.edges.filter((e) => e.at === at)
  // Top and bottom runs stand the other way round on the mirrored panel; so do those of the sides.
  return own.length === twins.length ? [...twins].reverse()[own.indexOf(edge)] : undefined
}

const facing = (panel: Panel, edge: Edge, byId: ReadonlyMap<string, Panel>): { other: Panel; edge: Edge } | null => {
  const other = edge.neighbour ? byId.get(edge.neighbour) : undefined
  if (!other || (edge.gapMm ?? 0) > FACING_GAP_MM || edge.meets === 'glass') return null
  const back = other.edges.filter((e) => e.neighbour === panel.id && (e.gapMm ?? 0) <= FACING_GAP_MM)
  const mine = panel.edges.filter((e) => e.neighbour === other.id)
  return back.length === 1 && mine.length === 1 ? { other, edge: nth(back, 0) } : null
}

/** What other figures say an edge's length should be. */
function expectedLength(
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

/** The style's own panels for the key lengths that were taped; empty where none was. */
function styleOf(plan: Plan): ReadonlyMap<string, Panel> {
  const { kind, keys, keysAssumed } = plan.vehicle
  if (kind === 'other' || Object.keys(keys).length === 0 || keysAssumed.length === Object.keys(keys).length)
    return new Map()
  return new Map(familyPanels(kind, keys).map((p) => [p.id, p]))
}

/** Measures that do not agree with each other or with what a panel of that kind can be. */
export function panelFindings(plan: Plan): Finding[] {
  const out: Finding[] = []
  if (plan.panels.length === 0) out.push(finding('no_panels', 'stop', 'tape'))
  const open = plan.panels.filter((p) => p.assumed.length > 0)
  if (open.length > 0)
    out.push(finding('figures_assumed', 'note', 'tape', { facts: { count: open.length, first: open[0]?.name ?? '' } }))
  const byId = new Map(plan.panels.map((p) => [p.id, p]))
  const family = styleOf(plan)
  for (const panel of plan.panels) {
    out.push(...sizeFindings(panel, family.get(panel.id), plan.vehicle))
    out.push(...outlineFindings(panel, plan.vehicle.toleranceMm))
    out.push(...featureFindings(panel))
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

/** Codes about one panel: its name is among their facts. */
type PanelCode = { [C in FindingCode]: 'panel' extends keyof FindingFacts[C] ? C : never }[FindingCode]

function say<C extends PanelCode>(
  panel: Panel,
  code: C,
  level: FindingLevel,
  facts: Omit<FindingFacts[C], 'panel'>,
  key = '',
): Finding {
  // With the panel's name the facts are whole again, which `Omit` of an open code cannot show.
  return placed({ code, level, facts: { panel: panel.name, ...facts } } as Said, 'tape', {
    id: `${code}/${panel.id}${key ? `/${key}` : ''}`,
    panelId: panel.id,
  })
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

function neighbourFindings(
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

function mirrorFindings(
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

/** A side's panels end to end are no longer than the vehicle; the one that grew most against its style is named. */
function girthFindings(plan: Plan, byId: ReadonlyMap<string, Panel>, family: ReadonlyMap<string, Panel>): Finding[] {
  const length = plan.vehicle.keys.length
  if (!length || plan.vehicle.keysAssumed.includes('length')) return []
  return (['left', 'right'] as const).flatMap((side) => {
    const chain = chainOf(plan, side, byId)
    const sum = chain.reduce((s, p) => s + p.widthMm, 0)
    if (chain.length < 2 || sum <= length * SLOPE_ROOM + plan.vehicle.toleranceMm) return []
    const wrong = probablyWrong(
      chain.map((panel) => ({
        panel,
        field: 'widthMm',
        value: panel.widthMm,
        expected: [family.get(panel.id)?.widthMm ?? length / chain.length],
      })),
    )
    return finding('girth_impossible', 'warn', 'tape', {
      id: `girth_impossible/${side}`,
      panelId: wrong?.panel.id ?? null,
      facts: {
        side,
        sum_mm: sum,
        length_mm: length,
        panel: wrong?.panel.name ?? '',
        value_mm: wrong?.value ?? 0,
        likely_mm: wrong?.expected[0] ?? 0,
      },
    })
  })
}

/** Panels of a side that follow each other end to end, each counted once. */
function chainOf(plan: Plan, side: 'left' | 'right', byId: ReadonlyMap<string, Panel>): Panel[] {
  const aft = side === 'left' ? 'right' : 'left'
  const own = plan.panels.filter((p) => p.side === side)
  const next = (p: Panel): Panel | undefined =>
    p.edges
      .filter((e) => e.at === aft && e.neighbour)
      .map((e) => byId.get(e.neighbour ?? ''))
      .find((n) => n?.side === side && n.kind !== 'sill')
  const followed = new Set(own.map(next))
  const chains = own
    .filter((p) => !followed.has(p) && next(p))
    .map((start) => {
      const chain = [start]
      for (let p = next(start); p && !chain.includes(p); p = next(p)) chain.push(p)
      return chain
    })
  return chains.sort((a, b) => b.length - a.length)[0] ?? []
}
