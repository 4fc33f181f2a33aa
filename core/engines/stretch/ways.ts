import { mustGet, nth } from '../../kit/known'
import type { FilmSheet } from '../../model/film/schema'
import { ok, type Result } from '../../kit/result'
import { choiceFor } from '../../model/plan/new-plan'
import type { Plan } from '../../model/plan/schema'
import { applyChange, type PlanChange } from '../../model/plan/plan-change'
import type { Panel } from '../../model/vehicle/schema'
import { feelOf, type Feel } from './feel'
import { freeRound, laidPanel } from './sticking-order'
import { offeredPreStretch, shrinkCapacity } from './pre-stretch'
import { proposals, together, type Proposal } from './proposals'
import type { ScanSurface } from '../../solve/mesh/scan'
import type { SurfaceMap } from './surface-map'

/** How much of a seam is seen: on a body line it is lost in the crease, near the rim in the shadow of the gap. */
export type SeamSeen = 'none' | 'body_line' | 'near_edge' | 'open'

/** A way out that was solved: the change of the plan, and what the film then feels. Fractions, mm, mm². */
export interface SolvedWay {
  code: 'seam' | 'slits' | 'seam_and_slits' | 'inlay' | 'feed' | 'wider_gap' | 'pre_stretch' | 'relax_first' | 'film'
  change: PlanChange
  facts: Record<string, string | number>
  worst: number
  overLimitMm2: number
  toPostHeatMm2: number
  wrinklesMm2: number
  /** Of the surface that it was solved on. */
  triangles: number
  seamMm: number
  seen: SeamSeen
  /** Within the limit of its film, and no wrinkle. */
  answers: boolean
}

/** What a finding shows of a solved way out. */
export type FoundWay = Pick<SolvedWay, 'code' | 'change' | 'facts'> & { becomes: number }

export interface WaysOptions {
  /** Triangles of each map: few, since many are solved. */
  triangles?: number
  films?: readonly FilmSheet[]
  scan?: ScanSurface | null
  spent?: () => boolean
  /** Told as each is solved. */
  found?: (way: SolvedWay, done: number, of: number) => void
}

const COARSE = 600
/** A recess is small on its panel: it takes a finer mesh to be seen. */
const WITH_RECESS = 1000
/** The best are solved once more on a mesh this many times finer. */
const CONFIRMED = 3
const FINER = 2
/** A way that betters the worst stretch by less than this is none. */
const BETTER = 0.002
/** Relief cuts no longer than this end under the edge's own shadow, mm. Assumed. */
const SHORT_CUT_MM = 40
/** The gap that spreads a bridge, mm. Common practice, no source. */
const WIDE_GAP_MM = 200
/** Within so much of a body line or of the rim (as a share of the side) a seam lies on it. */
const ON_LINE_MM = 12
const NEAR_RIM = 0.12
/** The worst place of a pressed-in recess lies in it or this near to its free film, mm. */
const ROUND_RECESS_MM = 30
/** Other films solved at most, and seams combined with cuts. */
const OTHER_FILMS = 4
const BOTH = 2

type Candidate = Pick<SolvedWay, 'code' | 'change' | 'facts'> & { seamMm: number; seen: SeamSeen; proposal?: Proposal }

export const filmOf = (plan: Plan, panel: Panel): FilmSheet | undefined =>
  plan.film.sheets.find((s) => s.id === (panel.filmId ?? plan.film.mainId))

/**
 * The map of a panel as a plan has it, and what its film feels. Errors: those of `laidPanel`; null without panel or
 * film.
 */
export function mapInPlan(
  plan: Plan,
  panelId: string,
  options: {
    triangles: number
    pull?: 'tightest' | 'even'
    /** A coarser relaxing, for previews; on by default. */
    quick?: boolean
    spent?: () => boolean
    progress?: (share: number) => void
    scan?: ScanSurface | null
  },
): Result<{ map: SurfaceMap; feel: Feel }> | null {
  const panel = plan.panels.find((p) => p.id === panelId)
  const film = panel && filmOf(plan, panel)
  if (!panel || !film) return null
  const choice = choiceFor(plan, panelId)
  // Film pre-stretched gives back what heat returns; the map itself takes no squeeze for it.
  const made = laidPanel(panel, choice, {
    pull: 'even',
    quick: true,
    ...options,
    order: plan.method.order,
    limit: film.stretchLimit,
    shrink: 0,
    restShrink: shrinkCapacity(choiceFor(plan, panel.id).preStretch, film),
  })
  if (!made.ok) return made
  return ok({ map: made.value, feel: feelOf(made.value, panel, film, choice, plan.method) })
}

/**
 * The ways out of too much stretch on one panel, each solved on a coarse mesh of its own: seams on body lines, at even
 * shares and through the worst places, relief cuts, both together, inlay, feed, a wider gap, pre-stretch, relax first,
 * another film. Sorted: those that answer first, least seam seen, least stretch. Errors: those of the map as it is.
 */
export function waysFor(
  plan: Plan,
  panelId: string,
  options: WaysOptions = {},
): Result<{ now: SolvedWay | null; ways: SolvedWay[] }> {
  const { films = [], scan = null, spent = () => false, found } = options
  const panel = plan.panels.find((p) => p.id === panelId)
  const pressed = panel?.recesses.some((r) => r.way !== 'inlay') ?? false
  const triangles = options.triangles ?? (pressed ? WITH_RECESS : COARSE)
  const now = mapInPlan(plan, panelId, { triangles, spent, scan })
  if (!panel || !now) return ok({ now: null, ways: [] })
  if (!now.ok) return now
  const list = candidates(plan, panel, now.value.map, films)
  const ways: SolvedWay[] = []
  const solved = new Map<SolvedWay, Candidate>()
  let confirmed = 0
  let of = list.length + BOTH + CONFIRMED
  const before = now.value.feel.worst
  const solve = (c: Candidate) => {
    if (spent()) return
    const way = solvedWay(plan, panelId, c, triangles, spent, scan)
    if (!way || (way.worst > before - BETTER && !(way.wrinklesMm2 === 0 && now.value.feel.areaMm2[4] !== 0)))
      return void of--
    ways.push(way)
    solved.set(way, c)
    found?.(way, ways.length, of)
  }
  list.forEach(solve)
  // The best seam that is not enough by itself, with the best cuts.
  const best = (code: SolvedWay['code'], n: number) =>
    ways
      .filter((w) => w.code === code)
      .sort((a, b) => a.worst - b.worst)
      .slice(0, n)
      .map((w) => mustGet(solved, w))
  for (const seam of best('seam', 1))
    for (const slits of best('slits', BOTH))
      if (seam.proposal && slits.proposal) solve(bothOf(panel, seam, slits, together(seam.proposal, slits.proposal)))
  sortInPlace(ways)
  for (const way of ways.slice(0, CONFIRMED)) {
    // A scan is as fine as it is.
    const again =
      spent() || scan ? null : solvedWay(plan, panelId, mustGet(solved, way), triangles * FINER, spent, null)
    if (!again) continue
    ways[ways.indexOf(way)] = again
    found?.(again, ++confirmed + ways.length, of)
  }
  sortInPlace(ways)
  return ok({
    now: {
      ...measured(now.value),
      code: 'seam',
      change: { kind: 'piece', panelId, set: {} },
      facts: {},
      seamMm: 0,
      seen: 'none',
      answers: false,
    },
    ways,
  })
}

/** Those that answer first: least of a seam to be seen, then the shortest, then the least stretch. */
function sortInPlace(ways: SolvedWay[]): void {
  const rank: SeamSeen[] = ['none', 'body_line', 'near_edge', 'open']
  ways.sort(
    (a, b) =>
      Number(b.answers) - Number(a.answers) ||
      (a.answers ? rank.indexOf(a.seen) - rank.indexOf(b.seen) || a.seamMm - b.seamMm : 0) ||
      a.worst - b.worst,
  )
}

function measured({ map, feel }: { map: SurfaceMap; feel: Feel }) {
  const [, , heat = 0, over = 0, wrinkles = 0] = feel.areaMm2
  return {
    worst: feel.worst,
    toPostHeatMm2: heat + over,
    overLimitMm2: over,
    wrinklesMm2: wrinkles,
    triangles: map.report.triangles,
  }
}

function solvedWay(
  plan: Plan,
  panelId: string,
  c: Candidate,
  triangles: number,
  spent: () => boolean,
  scan: ScanSurface | null,
): SolvedWay | null {
  const made = mapInPlan(applyChange(plan, c.change), panelId, { triangles, spent, scan })
  if (!made?.ok || made.value.map.report.overlaps) return null
  const m = measured(made.value)
  const { code, change, facts, seamMm, seen } = c
  return { code, change, facts, seamMm, seen, ...m, answers: m.overLimitMm2 === 0 && m.wrinklesMm2 === 0 }
}

function candidates(plan: Plan, panel: Panel, map: SurfaceMap, films: readonly FilmSheet[]): Candidate[] {
  const choice = choiceFor(plan, panel.id)
  const film = filmOf(plan, panel) as FilmSheet
  const none = { seamMm: 0, seen: 'none' as const }
  const out: Candidate[] = []
  for (const r of panel.recesses) {
    const set = (over: Partial<typeof r>): PlanChange => ({
      kind: 'recess',
      panelId: panel.id,
      recessId: r.id,
      set: over,
    })
    const round = 2 * (r.mouthWidthMm + r.mouthHeightMm)
    if (r.open && r.openAt && r.way !== 'feed')
      out.push({ code: 'feed', change: set({ way: 'feed' }), facts: { recess: r.name }, ...none })
    if (r.way === 'bridge' && r.gapMm < WIDE_GAP_MM)
      out.push({
        code: 'wider_gap',
        change: set({ gapMm: WIDE_GAP_MM }),
        facts: { recess: r.name, gap_mm: WIDE_GAP_MM },
        ...none,
      })
    if (r.way !== 'inlay')
      out.push({
        code: 'inlay',
        change: set({ way: 'inlay' }),
        facts: { recess: r.name },
        seamMm: round,
        seen: 'near_edge',
      })
  }
  const pre = offeredPreStretch(film)
  if (choice.preStretch === 0 && pre > 0)
    out.push({
      code: 'pre_stretch',
      change: { kind: 'piece', panelId: panel.id, set: { preStretch: pre } },
      facts: { stretch: pre },
      ...none,
    })
  if (plan.method.tension !== 'relax_first' && film.rollResidue > 0)
    out.push({ code: 'relax_first', change: { kind: 'method', set: { tension: 'relax_first' } }, facts: {}, ...none })
  const deep = inRecess(panel, map)
  const usable = panel.bodyLines.filter((l) => l.seam)
  const others = films.filter(
    (f) => f.id !== film.id && (f.stretchLimit > film.stretchLimit || f.heatShrink > film.heatShrink),
  )
  for (const f of others.slice(0, OTHER_FILMS))
    out.push({
      code: 'film',
      change: { kind: 'film', panelId: panel.id, sheet: f },
      facts: { film: f.name, limit: f.stretchLimit },
      ...none,
    })
  if (choice.parts === 1 && choice.slits.length === 0)
    // A recess is helped by a seam through it, not by one elsewhere, nor by cuts from the rim.
    for (const p of proposals(map, usable))
      if (!deep || (p.kind === 'seam' && p.atMm?.length === 1 && crossesRecess(panel, p)))
        out.push(ofProposal(panel, p))
  return out
}
const crossesRecess = (panel: Panel, p: Proposal): boolean =>
  panel.recesses.some((r) => {
    const [at, half] =
      p.along === 'width'
        ? [r.xMm ?? panel.widthMm / 2, r.mouthWidthMm / 2]
        : [r.yMm ?? panel.heightMm / 2, r.mouthHeightMm / 2]
    return Math.abs((p.atMm?.[0] ?? Infinity) - at) < half
  })
/** Whether a panel's worst place lies in a recess: cuts from its rim are then no help. */
function inRecess(panel: Panel, map: SurfaceMap): boolean {
  const worst = map.stretch.reduce((a, s, t) => (s > nth(map.stretch, a) ? t : a), 0)
  const [x, y] = [0, 1].map((d) => nth(map.taped, 2 * nth(map.triangles, 3 * worst) + d)) as [number, number]
  return panel.recesses.some((r) => {
    const b = freeRound(panel, { ...r, way: 'bridge', gapMm: r.gapMm + ROUND_RECESS_MM })
    return x > b.x0 && x < b.x1 && y > b.y0 && y < b.y1
  })
}

function ofProposal(panel: Panel, p: Proposal): Candidate {
  return p.kind === 'slits'
    ? {
        code: 'slits',
        change: { kind: 'piece', panelId: panel.id, set: { slits: slitsOf(panel, p.lines) } },
        facts: { count: p.lines.length, mm: longest(p), where: p.where ?? 'corners' },
        seamMm: lengthOf(slitsOf(panel, p.lines)),
        seen: longest(p) > SHORT_CUT_MM ? 'open' : 'near_edge',
        proposal: p,
      }
    : {
        code: 'seam',
        change: { kind: 'piece', panelId: panel.id, set: parted(p) },
        facts: seamFacts(panel, p),
        seamMm: seamLength(panel, p),
        seen: seenAt(panel, p),
        proposal: p,
      }
}

function bothOf(panel: Panel, seam: Candidate, slits: Candidate, both: Proposal): Candidate {
  const cut = (slits.proposal as Proposal).lines
  return {
    code: 'seam_and_slits',
    change: { kind: 'piece', panelId: panel.id, set: { ...parted(both), slits: slitsOf(panel, cut) } },
    facts: { ...seam.facts, ...slits.facts },
    seamMm: seam.seamMm + slits.seamMm,
    seen: slits.seen === 'open' ? 'open' : seam.seen,
    proposal: both,
  }
}
const parted = (p: Proposal) => ({
  parts: (p.atMm?.length ?? 0) + 1,
  along: p.along ?? ('height' as const),
  seamsAtMm: p.atMm ?? [],
})
const slitsOf = (panel: Panel, lines: Proposal['lines']): Plan['pieces'][number]['slits'] => {
  const held = (v: number, most: number) => Math.round(Math.max(0, Math.min(most, v)) * 10) / 10
  return lines.map(([a, b]) => ({
    fromXMm: held(a.x, panel.widthMm),
    fromYMm: held(a.y, panel.heightMm),
    toXMm: held(b.x, panel.widthMm),
    toYMm: held(b.y, panel.heightMm),
  }))
}
const lengthOf = (slits: Plan['pieces'][number]['slits']): number =>
  slits.reduce((s, c) => s + Math.hypot(c.toXMm - c.fromXMm, c.toYMm - c.fromYMm), 0)
const longest = (p: Proposal): number =>
  Math.round(Math.max(...p.lines.map(([a, b]) => Math.hypot(a.x - b.x, a.y - b.y))))
const seamLength = (panel: Panel, p: Proposal): number =>
  (p.atMm?.length ?? 0) * (p.along === 'width' ? panel.heightMm : panel.widthMm)
function lineUnder(panel: Panel, p: Proposal, mm: number): Panel['bodyLines'][number] | undefined {
  const runs = p.along === 'width' ? 'height' : 'width'
  return panel.bodyLines.find((l) => l.along === runs && Math.abs(l.atMm - mm) <= ON_LINE_MM)
}

function seenAt(panel: Panel, p: Proposal): SeamSeen {
  const size = p.along === 'width' ? panel.widthMm : panel.heightMm
  const each = (p.atMm ?? []).map((mm): SeamSeen =>
    lineUnder(panel, p, mm) ? 'body_line' : Math.min(mm, size - mm) < NEAR_RIM * size ? 'near_edge' : 'open',
  )
  return each.includes('open') ? 'open' : each.includes('near_edge') ? 'near_edge' : 'body_line'
}

function seamFacts(panel: Panel, p: Proposal): Record<string, string | number> {
  const at = p.atMm ?? []
  const line = at.length === 1 ? lineUnder(panel, p, nth(at, 0)) : undefined
  return {
    parts: at.length + 1,
    along: p.along ?? 'height',
    ...(line ? { line: line.name } : {}),
    at_mm: Math.round(at[0] ?? 0),
    ...(at.length > 1 ? { to_mm: Math.round(nth(at, at.length - 1)) } : {}),
  }
}
