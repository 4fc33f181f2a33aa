import { mustGet } from '../../kit/known'
import type { FilmSheet } from '../../model/film/schema'
import { ok, type Result } from '../../kit/result'
import { choiceFor, filmOf } from '../../model/plan/piece-choice'
import type { Plan } from '../../model/plan/schema'
import { applyChange } from '../../model/plan/plan-change'
import { feelOf, type Feel } from './feel'
import { laidPanel } from './sticking-order'
import { shrinkCapacity } from './pre-stretch'
import { seamWithSlits } from './proposals'
import type { ScanSurface } from '../../solve/mesh/scan'
import type { SurfaceMap } from './surface-map'
import { bothOf, Candidate, candidates, SeamSeen, SolvedWayOut } from './way-candidates'

export interface WaysOutOptions {
  /** Triangles of each map: few, since many are solved. */
  triangles?: number
  films?: readonly FilmSheet[]
  scan?: ScanSurface | null
  spent?: () => boolean
  /** Told as each is solved. */
  found?: (way: SolvedWayOut, done: number, of: number) => void
}

const COARSE = 600
/** A recess is small on its panel: it takes a finer mesh to be seen. */
const WITH_RECESS = 1000
/** The best are solved once more on a mesh this many times finer. */
const CONFIRMED = 3
const FINER = 2
/** A way that betters the worst stretch by less than this is none. */
const BETTER = 0.002
const BOTH = 2

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
  const choice = choiceFor(plan, panel, film)
  // Film pre-stretched gives back what heat returns; the map itself takes no squeeze for it.
  const made = laidPanel(panel, choice, {
    pull: 'even',
    quick: true,
    ...options,
    order: plan.method.order,
    limit: film.stretchLimit,
    shrink: 0,
    restShrink: shrinkCapacity(choiceFor(plan, panel, film).preStretch, film),
  })
  if (!made.ok) return made
  return ok({ map: made.value, feel: feelOf({ map: made.value, panel, film, choice, method: plan.method }) })
}

/**
 * The ways out of too much stretch on one panel, each solved on a coarse mesh of its own: seams on body lines, at even
 * shares and through the worst places, relief cuts, both together, inlay, feed, a wider gap, pre-stretch, relax first,
 * another film. Sorted: those that answer first, least seam seen, least stretch. Errors: those of the map as it is.
 */
export function waysOutFor(
  plan: Plan,
  panelId: string,
  options: WaysOutOptions = {},
): Result<{ now: SolvedWayOut | null; ways: SolvedWayOut[] }> {
  const { films = [], scan = null, spent = () => false, found } = options
  const panel = plan.panels.find((p) => p.id === panelId)
  const pressed = panel?.recesses.some((r) => r.way !== 'inlay') ?? false
  const triangles = options.triangles ?? (pressed ? WITH_RECESS : COARSE)
  const now = mapInPlan(plan, panelId, { triangles, spent, scan })
  if (!panel || !now) return ok({ now: null, ways: [] })
  if (!now.ok) return now
  const list = candidates(plan, panel, now.value.map, films)
  const ways: SolvedWayOut[] = []
  const solved = new Map<SolvedWayOut, Candidate>()
  let confirmed = 0
  let of = list.length + BOTH + CONFIRMED
  const before = now.value.feel.worst
  const solve = (c: Candidate) => {
    if (spent()) return
    const way = solvedWayOut({ plan, panelId, c, triangles, spent, scan })
    if (!way || (way.worst > before - BETTER && !(way.wrinklesMm2 === 0 && now.value.feel.areaMm2[4] !== 0)))
      return void of--
    ways.push(way)
    solved.set(way, c)
    found?.(way, ways.length, of)
  }
  list.forEach(solve)
  // The best seam that is not enough by itself, with the best cuts.
  const best = (code: SolvedWayOut['code'], n: number) => bestOf(ways, code, n).map((w) => mustGet(solved, w))
  for (const seam of best('seam', 1))
    for (const slits of best('slits', BOTH))
      if (seam.proposal && slits.proposal)
        solve(bothOf(panel, seam, slits, seamWithSlits(seam.proposal, slits.proposal)))
  sortInPlace(ways)
  for (const way of ways.slice(0, CONFIRMED)) {
    // A scan is as fine as it is.
    const again =
      spent() || scan
        ? null
        : solvedWayOut({ plan, panelId, c: mustGet(solved, way), triangles: triangles * FINER, spent, scan: null })
    if (!again) continue
    ways[ways.indexOf(way)] = again
    found?.(again, ++confirmed + ways.length, of)
  }
  sortInPlace(ways)
  return ok({ now: asItIs(now.value, panelId), ways })
}

/** So many ways of one kind, those with the least stretch. */
const bestOf = (ways: readonly SolvedWayOut[], code: SolvedWayOut['code'], n: number): SolvedWayOut[] =>
  ways
    .filter((w) => w.code === code)
    .sort((a, b) => a.worst - b.worst)
    .slice(0, n)

/** The panel as the plan has it, to be held against the ways out. */
const asItIs = (now: Parameters<typeof measured>[0], panelId: string): SolvedWayOut => ({
  ...measured(now),
  code: 'seam',
  change: { kind: 'piece', panelId, set: {} },
  facts: {},
  seamMm: 0,
  seen: 'none',
  answers: false,
})

/** Those that answer first: least of a seam to be seen, then the shortest, then the least stretch. */
function sortInPlace(ways: SolvedWayOut[]): void {
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

function solvedWayOut({
  plan,
  panelId,
  c,
  triangles,
  spent,
  scan,
}: {
  plan: Plan
  panelId: string
  c: Candidate
  triangles: number
  spent: () => boolean
  scan: ScanSurface | null
}): SolvedWayOut | null {
  const made = mapInPlan(applyChange(plan, c.change), panelId, { triangles, spent, scan })
  if (!made?.ok || made.value.map.report.overlaps) return null
  const m = measured(made.value)
  const { code, change, facts, seamMm, seen } = c
  return { code, change, facts, seamMm, seen, ...m, answers: m.overLimitMm2 === 0 && m.wrinklesMm2 === 0 }
}
