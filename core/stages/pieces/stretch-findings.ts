import { worstByRule, type PanelStretch } from '../../engines/stretch/panel-stretch'
import { offeredPreStretch } from '../../engines/stretch/pre-stretch'
import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import { finding, type Finding, type WayOut } from '../../model/finding/finding'
import { applyChange } from '../../model/plan/plan-change'
import { choiceFor, usualParts } from '../../model/plan/piece-choice'
import type { Plan } from '../../model/plan/schema'
import type { Panel, Recess } from '../../model/vehicle/schema'

/** Wrinkles over less than this are not told, mm². Assumed. */
const WRINKLES_MM2 = 200
/** Lock-and-gap distance that spreads a bridge, mm. Common practice, no source. */
const WIDE_GAP_MM = 200
/** Answers to a stretch past the limit that are offered at most. */
const MOST_WAYS = 4
/** A way out that betters the worst stretch by less than this is none. */
const BETTER = 1e-4
const ROUNDING = 1e-9

/** What is wrong with a panel's stretch in a film, with ways out of what is past its limit. */
export function stretchFindings(plan: Plan, panel: Panel, film: FilmSheet, stretch: PanelStretch): Finding[] {
  const { worst, solved } = stretch
  const about = { panelId: panel.id }
  const findings = [
    ...preStretchFindings(panel, film, choiceFor(plan, panel, film).preStretch),
    ...partsFindings(plan, panel, film),
  ]
  const value = Number(worst.value)
  if (value > film.stretchLimit + ROUNDING)
    findings.push(
      finding('stretch_over_limit', 'stop', 'pieces', {
        ...about,
        facts: { panel: panel.name, value, limit: film.stretchLimit, where: worstPlace(stretch) },
        figureId: worst.id,
        limit: worst.limit,
        // Ways by the closed forms would not compare with a solved figure: those are solved on the surface too.
        waysOut: solved ? [] : waysOut(plan, panel, film, stretch.worstRecess),
      }),
    )
  else if (value > film.postHeatOver + ROUNDING)
    findings.push(
      finding('stretch_needs_post_heat', 'note', 'pieces', {
        ...about,
        facts: {
          panel: panel.name,
          value,
          limit: film.postHeatOver,
          min_c: film.postHeatC.min,
          max_c: film.postHeatC.max,
        },
        figureId: worst.id,
      }),
    )
  if (solved && solved.wrinklesMm2 > WRINKLES_MM2)
    findings.push(
      finding('stretch_wrinkles', 'note', 'pieces', {
        ...about,
        facts: { panel: panel.name, area_mm2: solved.wrinklesMm2, limit: film.heatShrink },
        figureId: `stretch/${panel.id}/wrinkles`,
      }),
    )
  return findings
}

/** `spot:<row>:<column>` of a solved map, the name of a recess, or `crown`. */
function worstPlace({ solved, worstRecess }: PanelStretch): string {
  if (solved?.spot) return `spot:${solved.spot.row}:${solved.spot.column}`
  return worstRecess ? worstRecess.name : 'crown'
}

/** A pre-stretch past what the film takes is refused; past what it takes cold, the piece has to be warmed. */
function preStretchFindings(panel: Panel, film: FilmSheet, pre: number): Finding[] {
  const { cold, warm } = film.preStretchMax
  const details = (bound: number) => ({
    panelId: panel.id,
    facts: { panel: panel.name, film: film.name, value: pre, limit: bound },
    limit: {
      value: bound,
      unit: 'fraction' as const,
      kind: 'max' as const,
      standing: filmStanding(film, 'preStretchMax'),
      at: `film/${film.id}/preStretchMax`,
    },
  })
  if (pre > warm + ROUNDING) return [finding('pre_stretch_past_bound', 'stop', 'pieces', details(warm))]
  return pre > cold + ROUNDING ? [finding('pre_stretch_warm', 'note', 'pieces', details(cold))] : []
}

/** What hands lay in two or three parts is planned in fewer. */
function partsFindings(plan: Plan, panel: Panel, film: FilmSheet): Finding[] {
  const usual = usualParts(panel, film)
  const { parts } = choiceFor(plan, panel, film)
  if (parts >= usual.parts) return []
  const change = { kind: 'piece', panelId: panel.id, set: usual } as const
  const divided = applyChange(plan, change).panels.find((p) => p.id === panel.id) ?? panel
  return [
    finding('fewer_parts_than_usual', 'note', 'pieces', {
      panelId: panel.id,
      facts: { panel: panel.name, film: film.name, parts, usual: usual.parts },
      waysOut: [
        { code: 'seam', change, becomes: worstByRule(applyChange(plan, change), divided, film), facts: { ...usual } },
      ],
    }),
  ]
}

/** Answers to a stretch past the limit, each computed; those that do not bring it down are left out. */
function waysOut(plan: Plan, panel: Panel, film: FilmSheet, recess: Recess | null): WayOut[] {
  const now = worstByRule(plan, panel, film)
  const after = (way: WayOut): WayOut & { becomes: number } => {
    const then = applyChange(plan, way.change)
    return { ...way, becomes: worstByRule(then, then.panels.find((p) => p.id === panel.id) ?? panel, film) }
  }
  const past = (way: { becomes: number }): number => Number(way.becomes > film.stretchLimit)
  return candidates(plan, panel, film, recess)
    .map(after)
    .filter((c) => c.becomes < now - BETTER)
    .sort((a, b) => past(a) - past(b) || a.becomes - b.becomes)
    .slice(0, MOST_WAYS)
}

function candidates(plan: Plan, panel: Panel, film: FilmSheet, recess: Recess | null): WayOut[] {
  const choice = choiceFor(plan, panel, film)
  const out: WayOut[] = []
  const becomes = null
  if (recess) {
    const set = (change: Partial<Recess>) =>
      ({ kind: 'recess', panelId: panel.id, recessId: recess.id, set: change }) as const
    const about = { recess: recess.name }
    if (recess.open) out.push({ code: 'feed', change: set({ way: 'feed' }), becomes, facts: about })
    if (recess.gapMm < WIDE_GAP_MM)
      out.push({
        code: 'wider_gap',
        change: set({ gapMm: WIDE_GAP_MM }),
        becomes,
        facts: { ...about, gap_mm: WIDE_GAP_MM },
      })
    out.push({ code: 'inlay', change: set({ way: 'inlay' }), becomes, facts: about })
  } else {
    for (const along of ['height', 'width'] as const)
      for (const parts of [2, 3])
        if (parts > choice.parts || along !== choice.along)
          out.push({
            code: 'seam',
            change: { kind: 'piece', panelId: panel.id, set: { parts, along } },
            becomes,
            facts: { parts, along },
          })
  }
  const stretch = offeredPreStretch(film)
  if (choice.preStretch === 0 && stretch > 0)
    out.push({
      code: 'pre_stretch',
      change: { kind: 'piece', panelId: panel.id, set: { preStretch: stretch } },
      becomes,
      facts: { stretch },
    })
  if (plan.method.tension !== 'relax_first' && film.rollResidue > 0)
    out.push({
      code: 'relax_first',
      change: { kind: 'method', set: { tension: 'relax_first' } },
      becomes,
      facts: {},
    })
  return out
}
