import { nth } from '../../kit/known'
import type { Panel } from '../../model/vehicle/schema'
import { proposals, Proposal } from './proposals'
import { reliefPlaces } from './relief-places'
import type { SurfaceMap } from './surface-map'
import { freeRound } from './sticking-order'
import type { Plan } from '../../model/plan/schema'
import type { FilmSheet } from '../../model/film/schema'
import { choiceFor, filmOf } from '../../model/plan/piece-choice'
import type { PlanChange } from '../../model/plan/plan-change'
import { offeredPreStretch } from './pre-stretch'

/** Relief cuts no longer than this end under the edge's own shadow, mm. Assumed. */
export const SHORT_CUT_MM = 40
/** The gap that spreads a bridge, mm. Common practice, no source. */
export const WIDE_GAP_MM = 200
/** Within so much of a body line or of the rim (as a share of the side) a seam lies on it. */
export const ON_LINE_MM = 12
export const NEAR_RIM = 0.12
/** The worst place of a pressed-in recess lies in it or this near to its free film, mm. */
export const ROUND_RECESS_MM = 30
export type Candidate = Pick<SolvedWayOut, 'code' | 'change' | 'facts'> & {
  seamMm: number
  seen: SeamSeen
  proposal?: Proposal
}

export const crossesRecess = (panel: Panel, p: Proposal): boolean =>
  panel.recesses.some((r) => {
    const [at, half] =
      p.along === 'width'
        ? [r.xMm ?? panel.widthMm / 2, r.mouthWidthMm / 2]
        : [r.yMm ?? panel.heightMm / 2, r.mouthHeightMm / 2]
    return Math.abs((p.atMm?.[0] ?? Infinity) - at) < half
  })

/** Whether a panel's worst place lies in a recess: cuts from its rim are then no help. */
export function inRecess(panel: Panel, map: SurfaceMap): boolean {
  const worst = map.stretch.reduce((a, s, t) => (s > nth(map.stretch, a) ? t : a), 0)
  const [x, y] = [0, 1].map((d) => nth(map.taped, 2 * nth(map.triangles, 3 * worst) + d)) as [number, number]
  return panel.recesses.some((r) => {
    const b = freeRound(panel, { ...r, way: 'bridge', gapMm: r.gapMm + ROUND_RECESS_MM })
    return x > b.x0 && x < b.x1 && y > b.y0 && y < b.y1
  })
}

export const parted = (p: Proposal) => ({
  parts: (p.atMm?.length ?? 0) + 1,
  along: p.along ?? ('height' as const),
  seamsAtMm: p.atMm ?? [],
})

export const slitsOf = (panel: Panel, lines: Proposal['lines']): Plan['pieces'][number]['slits'] => {
  const held = (v: number, most: number) => Math.round(Math.max(0, Math.min(most, v)) * 10) / 10
  return lines.map(([a, b]) => ({
    fromXMm: held(a.x, panel.widthMm),
    fromYMm: held(a.y, panel.heightMm),
    toXMm: held(b.x, panel.widthMm),
    toYMm: held(b.y, panel.heightMm),
  }))
}

export const lengthOf = (slits: Plan['pieces'][number]['slits']): number =>
  slits.reduce((s, c) => s + Math.hypot(c.toXMm - c.fromXMm, c.toYMm - c.fromYMm), 0)
export const longest = (p: Proposal): number =>
  Math.round(Math.max(...p.lines.map(([a, b]) => Math.hypot(a.x - b.x, a.y - b.y))))
export const seamLength = (panel: Panel, p: Proposal): number =>
  (p.atMm?.length ?? 0) * (p.along === 'width' ? panel.heightMm : panel.widthMm)
export function lineUnder(panel: Panel, p: Proposal, mm: number): Panel['bodyLines'][number] | undefined {
  const runs = p.along === 'width' ? 'height' : 'width'
  return panel.bodyLines.find((l) => l.along === runs && Math.abs(l.atMm - mm) <= ON_LINE_MM)
}

export function seenAt(panel: Panel, p: Proposal): SeamSeen {
  const size = p.along === 'width' ? panel.widthMm : panel.heightMm
  const each = (p.atMm ?? []).map((mm): SeamSeen =>
    lineUnder(panel, p, mm) ? 'body_line' : Math.min(mm, size - mm) < NEAR_RIM * size ? 'near_edge' : 'open',
  )
  return each.includes('open') ? 'open' : each.includes('near_edge') ? 'near_edge' : 'body_line'
}

export function seamFacts(panel: Panel, p: Proposal): Record<string, string | number> {
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

export function ofProposal(panel: Panel, p: Proposal): Candidate {
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

export function bothOf(panel: Panel, seam: Candidate, slits: Candidate, both: Proposal): Candidate {
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

export function candidates(plan: Plan, panel: Panel, map: SurfaceMap, films: readonly FilmSheet[]): Candidate[] {
  const film = filmOf(plan, panel) as FilmSheet
  const choice = choiceFor(plan, panel, film)
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
    for (const p of proposals(map, usable, reliefPlaces(panel)))
      if (!deep || (p.kind === 'seam' && p.atMm?.length === 1 && crossesRecess(panel, p)))
        out.push(ofProposal(panel, p))
  return out
}

/** A way out that was solved: the change of the plan, and what the film then feels. Fractions, mm, mm². */
export interface SolvedWayOut {
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

/** How much of a seam is seen: on a body line it is lost in the crease, near the rim in the shadow of the gap. */
export type SeamSeen = 'none' | 'body_line' | 'near_edge' | 'open'
/** Other films solved at most, and seams combined with cuts. */
export const OTHER_FILMS = 4
