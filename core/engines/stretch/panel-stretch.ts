import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import { EDGE_RULES } from '../../model/edge/edge-data'
import { choiceFor } from '../../model/plan/new-plan'
import type { Plan } from '../../model/plan/schema'
import { figure, from, input, type Figure } from '../../model/figure/figure'
import { finding, type Finding, type WayOut } from '../../model/finding/finding'
import { measureStanding } from '../pieces/pieces'
import type { Panel, Recess } from '../../model/vehicle/schema'
import { offeredPreStretch, stretchAsMade } from './pre-stretch'
import { stretchKey, type SolvedStretch, type SolvedTable } from '../../model/catalogue/solved-stretch'
import {
  bridgeStrain,
  capStretch,
  cornerSqueeze180,
  cornerSqueeze90,
  recessProfileMm,
  sagittaRadiusMm,
} from './closed-forms'

/** Wrinkles over less than this are not told, mm². Assumed. */
const WRINKLES_MM2 = 200
/** Lock-and-gap distance that spreads a bridge, mm. Common practice, no source. */
const WIDE_GAP_MM = 200
const GEOMETRY = 'docs/sources.md#geometry'
const MILNOR = 'docs/sources.md#milnor-1969'

export interface PanelStretch {
  worst: Figure
  all: Figure[]
  findings: Finding[]
}

/** Rule-based stretch of a panel in a film: its crown as a cap, its recesses bridged or fed, its corners' squeeze. */
export function panelStretch(
  plan: Plan,
  panel: Panel,
  film: FilmSheet,
  solved: SolvedTable = {},
  scan = '',
): PanelStretch {
  const choice = choiceFor(plan, panel.id)
  const limit = {
    value: film.stretchLimit,
    unit: 'fraction',
    kind: 'max',
    standing: filmStanding(film, 'stretchLimit'),
    at: `film/${film.id}/stretchLimit`,
  } as const
  const { crown, parts: crownParts } = crownStretch(panel, choice.parts, choice.along)
  const recesses = panel.recesses.map((r) => ({ r, ...recessStretch(panel, r) }))
  const stretches = [crown, ...recesses.map((x) => x.f)]
  const relax = plan.method.tension === 'relax_first' ? film.rollResidue : 0
  const taken = Math.max(...stretches.map((f) => f.value as number))
  const pre = choice.preStretch
  // Relaxed film has its own slack to give; what pre-stretched film keeps after heat counts against the sheet as made.
  const value = stretchAsMade((1 + taken) * (1 - relax) - 1, pre, film)
  const known = solved[stretchKey(plan, panel, film, scan)]
  const byRule = figure(
    `stretch/${panel.id}/${known ? 'rule' : 'worst'}`,
    value,
    'fraction',
    `(1 + max(${stretches.map((_, i) => `{s${i + 1}}`).join(', ')}))${relax > 0 ? ' × (1 − {residue})' : ''}${pre > 0 ? ' × (1 + {pre} × (1 − {recovers})) × (1 − min({shrink}, {pre}))' : ''} − 1, not below 0`,
    [
      ...stretches.map((f, i) => from(`s${i + 1}`, f)),
      ...(relax > 0
        ? [input('residue', relax, 'fraction', filmStanding(film, 'rollResidue'), `film/${film.id}/rollResidue`)]
        : []),
      ...(pre > 0
        ? [
            input('pre', pre, 'fraction', 'measured', `pieces/${panel.id}/preStretch`),
            input('recovers', film.recovers, 'fraction', filmStanding(film, 'recovers'), `film/${film.id}/recovers`),
            input(
              'shrink',
              film.heatShrink,
              'fraction',
              filmStanding(film, 'heatShrink'),
              `film/${film.id}/heatShrink`,
            ),
          ]
        : []),
    ],
    { limit, standing: 'common_practice', source: GEOMETRY },
  )
  const worst = known ? solvedFigure(panel, byRule, known, limit, scan !== '') : byRule
  const corners = cornerFigures(plan, panel, film)
  const findings: Finding[] = preStretchFindings(panel, film, pre)
  const now = worst.value as number
  if (now > film.stretchLimit + 1e-9) {
    const worstRecess = recesses.find((x) => x.f.value === taken)
    findings.push(
      finding('stretch_over_limit', 'stop', 'pieces', {
        panelId: panel.id,
        facts: {
          panel: panel.name,
          value: now,
          limit: film.stretchLimit,
          where: known?.spot
            ? `spot:${known.spot.row}:${known.spot.column}`
            : worstRecess
              ? worstRecess.r.name
              : 'crown',
        },
        figureId: worst.id,
        limit,
        // Ways by the closed forms would not compare with a solved figure: those are solved on the surface too.
        waysOut: known ? [] : waysOut(plan, panel, film, worstRecess?.r ?? null),
      }),
    )
  } else if (now > film.postHeatOver + 1e-9)
    findings.push(
      finding('stretch_needs_post_heat', 'note', 'pieces', {
        panelId: panel.id,
        facts: {
          panel: panel.name,
          value: now,
          limit: film.postHeatOver,
          min_c: film.postHeatC.min,
          max_c: film.postHeatC.max,
        },
        figureId: worst.id,
      }),
    )
  if (known && known.wrinklesMm2 > WRINKLES_MM2)
    findings.push(
      finding('stretch_wrinkles', 'note', 'pieces', {
        panelId: panel.id,
        facts: { panel: panel.name, area_mm2: known.wrinklesMm2, limit: film.heatShrink },
        figureId: `stretch/${panel.id}/wrinkles`,
      }),
    )
  const tight = corners.filter((c) => (c.value as number) > film.heatShrink)
  if (tight.length > 0)
    findings.push(
      finding('corner_needs_relief', 'note', 'pieces', {
        panelId: panel.id,
        facts: { panel: panel.name, value: Math.max(...tight.map((c) => c.value as number)), limit: film.heatShrink },
        figureId: tight[0]?.id ?? null,
      }),
    )
  return {
    worst,
    all: [
      ...crownParts,
      ...recesses.flatMap((x) => x.parts),
      ...stretches,
      ...corners,
      ...(known ? [byRule, ...areaFigures(panel, film, known)] : []),
      worst,
    ],
    findings,
  }
}

/** A pre-stretch past what the film takes is refused; past what it takes cold, the piece has to be warmed. */
function preStretchFindings(panel: Panel, film: FilmSheet, pre: number): Finding[] {
  const { cold, warm } = film.preStretchMax
  const say = (code: string, level: 'stop' | 'note', bound: number): Finding =>
    finding(code, level, 'pieces', {
      panelId: panel.id,
      facts: { panel: panel.name, film: film.name, value: pre, limit: bound },
      limit: {
        value: bound,
        unit: 'fraction',
        kind: 'max',
        standing: filmStanding(film, 'preStretchMax'),
        at: `film/${film.id}/preStretchMax`,
      },
    })
  if (pre > warm + 1e-9) return [say('pre_stretch_past_bound', 'stop', warm)]
  return pre > cold + 1e-9 ? [say('pre_stretch_warm', 'note', cold)] : []
}

/** Of the solved surface what is to be post-heated, and where film is squeezed past what heat takes. */
function areaFigures(panel: Panel, film: FilmSheet, known: SolvedStretch): Figure[] {
  const area = input('area', known.areaMm2, 'mm2', 'measured', 'data/mesh')
  const of = (id: string, mm2: number, formula: string, field: 'postHeatOver' | 'heatShrink') =>
    figure(
      `stretch/${panel.id}/${id}`,
      mm2,
      'mm2',
      formula,
      [area, input('over', film[field], 'fraction', filmStanding(film, field), `film/${film.id}/${field}`)],
      { standing: 'common_practice', source: MILNOR },
    )
  return [
    of('post_heat', known.toPostHeatMm2, 'of a surface of {area}: triangles stretched past {over}', 'postHeatOver'),
    of(
      'wrinkles',
      known.wrinklesMm2,
      'of a surface of {area}: triangles squeezed past the {over} that heat takes',
      'heatShrink',
    ),
  ]
}

/** The worst stretch as it was solved on the panel's surface, beside what the rule makes of the same tape. */
function solvedFigure(
  panel: Panel,
  byRule: Figure,
  known: SolvedStretch,
  limit: NonNullable<Figure['limit']>,
  scanned: boolean,
): Figure {
  return figure(
    `stretch/${panel.id}/worst`,
    known.worst,
    'fraction',
    scanned
      ? 'solved on the scanned surface of {triangles} triangles, laid in the method’s order (the rule alone makes it {rule})'
      : 'solved on a surface of {triangles} triangles with the taped lengths, laid in the method’s order (the rule alone makes it {rule})',
    [input('triangles', known.triangles, 'count', 'measured', 'data/mesh'), from('rule', byRule)],
    { limit, standing: 'common_practice', source: MILNOR },
  )
}

/**
 * A crowned panel as part of a sphere through its straightedge reading; its piece as the cap that covers it (half the
 * diagonal), so that the true least worst stretch is at most this.
 */
function crownStretch(panel: Panel, parts: number, along: 'width' | 'height'): { crown: Figure; parts: Figure[] } {
  const id = `stretch/${panel.id}/crown`
  const at = (f: string) => `panels/${panel.id}/${f}`
  if (panel.crownMm <= 0 || panel.crownOverMm <= 0)
    return {
      crown: figure(id, 0, 'fraction', '{crown} = 0: taken as flat', [
        input('crown', panel.crownMm, 'mm', measureStanding(panel, 'crownMm'), at('crownMm')),
      ]),
      parts: [],
    }
  const across = sagittaRadiusMm(panel.crownMm, panel.crownOverMm)
  const down = crownDown(panel)
  if (down === 0)
    return {
      crown: figure(id, 0, 'fraction', '{down} = 0: curved one way only, so film lies on it without stretch', [
        input('down', 0, 'mm', measureStanding(panel, 'crownDownMm'), at('crownDownMm')),
      ]),
      parts: [],
    }
  // Two curvatures: the sphere of the same product of both bends film as much (Gauss); the stretch is then an estimate.
  const radiusMm = down === null ? across : Math.sqrt(across * down)
  const [w, h] = [
    along === 'width' ? panel.widthMm / parts : panel.widthMm,
    along === 'height' ? panel.heightMm / parts : panel.heightMm,
  ]
  const single = '({over}² ÷ 4 + {crown}²) ÷ (2 × {crown})'
  const taken = [
    input('over', panel.crownOverMm, 'mm', measureStanding(panel, 'crownOverMm'), at('crownOverMm')),
    input('crown', panel.crownMm, 'mm', measureStanding(panel, 'crownMm'), at('crownMm')),
  ]
  const radius = figure(
    `stretch/${panel.id}/radius`,
    radiusMm,
    'mm',
    down === null ? single : `√(${single} × ({over_down}² ÷ 4 + {down}²) ÷ (2 × {down}))`,
    down === null
      ? taken
      : [
          ...taken,
          input('over_down', panel.crownDownOverMm, 'mm', measureStanding(panel, 'crownDownMm'), at('crownDownOverMm')),
          input('down', panel.crownDownMm, 'mm', measureStanding(panel, 'crownDownMm'), at('crownDownMm')),
        ],
    { standing: down === null ? 'measured' : 'common_practice', source: GEOMETRY },
  )
  // A reading over a short straightedge can ask for more than a half sphere: no panel is that.
  const alphaRad = Math.min(Math.hypot(w, h) / 2 / radiusMm, Math.PI / 2)
  const alpha = figure(
    `stretch/${panel.id}/alpha`,
    alphaRad,
    'rad',
    '√({width}² + {height}²) ÷ 2 ÷ {radius}, at most π ÷ 2',
    [
      input('width', w, 'mm', measureStanding(panel, 'widthMm'), at('widthMm')),
      input('height', h, 'mm', measureStanding(panel, 'heightMm'), at('heightMm')),
      from('radius', radius),
    ],
  )
  const crown = figure(id, capStretch(alphaRad), 'fraction', '{alpha} ÷ sin({alpha}) − 1', [from('alpha', alpha)], {
    source: MILNOR,
    standing: 'published',
  })
  return { crown, parts: [radius, alpha] }
}

/** Radius along the height; 0 where it was found flat, null where it was not taken. */
function crownDown(panel: Panel): number | null {
  if (panel.crownDownMm === null) return null
  if (panel.crownDownMm === 0 || panel.crownDownOverMm <= 0) return 0
  return sagittaRadiusMm(panel.crownDownMm, panel.crownDownOverMm)
}

function recessStretch(panel: Panel, r: Recess): { f: Figure; parts: Figure[] } {
  const id = `stretch/${panel.id}/${r.id}`
  const at = (f: string) => `panels/${panel.id}/recesses/${r.id}/${f}`
  const standing = (f: string) => measureStanding(panel, `recesses.${r.id}.${f}`)
  if (r.way !== 'bridge')
    return {
      f: figure(
        id,
        0,
        'fraction',
        r.way === 'feed'
          ? 'fed from the open side: {depth} deep, no stretch'
          : 'inlay: a piece of its own, {depth} deep',
        [input('depth', r.depthMm, 'mm', standing('depthMm'), at('depthMm'))],
        { standing: 'common_practice' },
      ),
      parts: [],
    }
  const narrow = r.mouthWidthMm <= r.mouthHeightMm ? 'mouthWidthMm' : 'mouthHeightMm'
  const profileMm = recessProfileMm(r[narrow], r.depthMm, r.wallDeg)
  const profile = figure(
    `${id}/profile`,
    profileMm,
    'mm',
    'across a mouth of {mouth}: walls of {wall}° down {depth}, the floor between, and up again',
    [
      input('mouth', r[narrow], 'mm', standing(narrow), at(narrow)),
      input('depth', r.depthMm, 'mm', standing('depthMm'), at('depthMm')),
      input('wall', r.wallDeg, 'count', standing('wallDeg'), at('wallDeg')),
    ],
  )
  const bridge = figure(
    id,
    bridgeStrain(profileMm, r[narrow], r.gapMm),
    'fraction',
    '({profile} + 2 × {gap}) ÷ ({mouth} + 2 × {gap}) − 1',
    [
      from('profile', profile),
      input('mouth', r[narrow], 'mm', standing(narrow), at(narrow)),
      input('gap', r.gapMm, 'mm', 'common_practice', at('gapMm')),
    ],
    { source: GEOMETRY },
  )
  return { f: bridge, parts: [profile] }
}

function cornerFigures(plan: Plan, panel: Panel, film: FilmSheet): Figure[] {
  const radius = panel.cornerRadiusMm
  if (radius === null) return []
  const rules = panel.edges.map((e) => EDGE_RULES[e.meets]).filter((r) => r.wrapUnderMm > 0)
  const deepest = rules.sort((a, b) => b.wrapUnderMm * (b.under ? 2 : 1) - a.wrapUnderMm * (a.under ? 2 : 1))[0]
  if (!deepest) return []
  const value = (deepest.under ? cornerSqueeze180 : cornerSqueeze90)(deepest.wrapUnderMm, radius)
  return [
    figure(
      `squeeze/${panel.id}/corner`,
      value,
      'fraction',
      deepest.under ? '2 × {flange} ÷ ({radius} + {flange})' : '{flange} ÷ ({radius} + {flange})',
      [
        input('flange', deepest.wrapUnderMm, 'mm', 'common_practice', `panels/${panel.id}/edges`),
        input('radius', radius, 'mm', measureStanding(panel, 'cornerRadiusMm'), `panels/${panel.id}/cornerRadiusMm`),
      ],
      {
        source: GEOMETRY,
        limit: {
          value: film.heatShrink,
          unit: 'fraction',
          kind: 'max',
          standing: filmStanding(film, 'heatShrink'),
          at: `film/${film.id}/heatShrink`,
        },
      },
    ),
  ]
}

/** Answers to a stretch past the limit, each computed; those that do not bring it down are left out. */
function waysOut(plan: Plan, panel: Panel, film: FilmSheet, recess: Recess | null): WayOut[] {
  const now = panelWorst(plan, panel, film)
  const choice = choiceFor(plan, panel.id)
  const candidates: Omit<WayOut, 'becomes'>[] = []
  if (recess) {
    const set = (change: Partial<Recess>) => ({
      kind: 'recess' as const,
      panelId: panel.id,
      recessId: recess.id,
      set: change,
    })
    if (recess.open) candidates.push({ code: 'feed', change: set({ way: 'feed' }), facts: { recess: recess.name } })
    if (recess.gapMm < WIDE_GAP_MM)
      candidates.push({
        code: 'wider_gap',
        change: set({ gapMm: WIDE_GAP_MM }),
        facts: { recess: recess.name, gap_mm: WIDE_GAP_MM },
      })
    candidates.push({ code: 'inlay', change: set({ way: 'inlay' }), facts: { recess: recess.name } })
  } else {
    for (const along of ['height', 'width'] as const)
      for (const parts of [2, 3])
        if (parts > choice.parts || along !== choice.along)
          candidates.push({
            code: 'seam',
            change: { kind: 'piece', panelId: panel.id, set: { parts, along } },
            facts: { parts, along },
          })
  }
  const offered = offeredPreStretch(film)
  if (choice.preStretch === 0 && offered > 0)
    candidates.push({
      code: 'pre_stretch',
      change: { kind: 'piece', panelId: panel.id, set: { preStretch: offered } },
      facts: { stretch: offered },
    })
  if (plan.method.tension !== 'relax_first' && film.rollResidue > 0)
    candidates.push({ code: 'relax_first', change: { kind: 'method', set: { tension: 'relax_first' } }, facts: {} })
  return candidates
    .map((c) => ({ ...c, becomes: afterChange(plan, panel, film, c.change) }))
    .filter((c) => c.becomes < now - 1e-4)
    .sort(
      (a, b) => Number(a.becomes > film.stretchLimit) - Number(b.becomes > film.stretchLimit) || a.becomes - b.becomes,
    )
    .slice(0, 4)
}

function panelWorst(plan: Plan, panel: Panel, film: FilmSheet): number {
  const choice = choiceFor(plan, panel.id)
  const taken = Math.max(
    crownStretch(panel, choice.parts, choice.along).crown.value as number,
    ...panel.recesses.map((r) => recessStretch(panel, r).f.value as number),
  )
  const relax = plan.method.tension === 'relax_first' ? film.rollResidue : 0
  return stretchAsMade((1 + taken) * (1 - relax) - 1, choice.preStretch, film)
}

function afterChange(plan: Plan, panel: Panel, film: FilmSheet, change: WayOut['change']): number {
  if (change.kind === 'recess')
    return panelWorst(
      plan,
      { ...panel, recesses: panel.recesses.map((r) => (r.id === change.recessId ? { ...r, ...change.set } : r)) },
      film,
    )
  if (change.kind === 'piece')
    return panelWorst({ ...plan, pieces: [{ ...choiceFor(plan, panel.id), ...change.set }] }, panel, film)
  if (change.kind === 'method') return panelWorst({ ...plan, method: { ...plan.method, ...change.set } }, panel, film)
  return panelWorst(plan, panel, film)
}
