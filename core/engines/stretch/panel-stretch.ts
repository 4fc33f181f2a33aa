import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import { figure, from, input, type Figure } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import { stretchKey } from '../../model/catalogue/stretch-key'
import type { SolvedStretch, SolvedTable } from '../../model/catalogue/solved-stretch'
import { shingledAs } from '../sheets/shingled-as'
import { choiceFor } from '../../model/plan/piece-choice'
import type { BesidePanels } from '../../model/plan/schema'
import type { Panel, Recess } from '../../model/vehicle/schema'
import { crownStretch } from './crown-stretch'
import { stretchAsMade } from './pre-stretch'
import { recessStretch } from './recess-stretch'
import { GEOMETRY, MILNOR } from './sources'

/** Stretch of one panel in a film, with its working. */
export interface PanelStretch {
  worst: Figure
  /** Every figure, inputs before what is made of them. */
  all: Figure[]
  /** The recess that takes most; null where the crown does. */
  worstRecess: Recess | null
  /** As it was solved on the panel's surface; undefined while the closed forms stand in. */
  solved: SolvedStretch | undefined
  key: string
  /** The closed forms stand in until it is solved. */
  settling: boolean
}

/** Solved stretches of the shop, where there are any to come, and the mark of the panel's scan where it has one. */
export interface KnownStretch {
  solved?: SolvedTable | undefined
  /** Those that cannot be solved: the closed forms are final for them. */
  faults?: Readonly<Record<string, unknown>> | undefined
  scan?: string | undefined
}

/** Rule-based stretch of a panel in a film: its crown as a cap, its recesses bridged or fed. */
export function panelStretch(
  plan: BesidePanels,
  panel: Panel,
  film: FilmSheet,
  { solved, faults, scan = '' }: KnownStretch = {},
): PanelStretch {
  const sheets = shingledAs(plan, panel, film)
  const choice = choiceFor(plan, panel, film)
  // Sheets lie side by side: each has its own share of the panel to take, and nothing else is solved.
  const { crown, parts: crownParts } = sheets
    ? crownStretch(panel, sheets.columns, 'width')
    : crownStretch(panel, choice.parts, choice.along)
  const recesses = panel.recesses.map((r) => ({ r, ...recessStretch(panel, r) }))
  const stretches = [crown, ...recesses.map((x) => x.f)]
  const key = stretchKey(plan, panel, film, scan)
  const known = sheets ? undefined : solved?.[key]
  const settling = !sheets && solved !== undefined && !known && !faults?.[key]
  const byRule = ruleFigure({ plan, panel, film, stretches, part: known ? 'rule' : 'worst', settling })
  const worst = known ? solvedFigure(panel, film, byRule, known, scan !== '') : byRule
  const taken = greatest(stretches)
  return {
    worst,
    all: [
      ...crownParts,
      ...recesses.flatMap((x) => x.parts),
      ...stretches,
      ...(known ? [byRule, ...areaFigures(panel, film, known)] : []),
      worst,
    ],
    worstRecess: recesses.find((x) => x.f.value === taken)?.r ?? null,
    solved: known,
    key,
    settling,
  }
}

/** The worst stretch by the closed forms alone, as a fraction. */
export function worstByRule(plan: BesidePanels, panel: Panel, film: FilmSheet): number {
  const choice = choiceFor(plan, panel, film)
  const { crown } = crownStretch(panel, choice.parts, choice.along)
  return afterMethod(plan, panel, film, [crown, ...panel.recesses.map((r) => recessStretch(panel, r).f)])
}

const greatest = (stretches: readonly Figure[]): number => Math.max(...stretches.map((f) => Number(f.value)))

/** Tension that relaxing takes out of the roll first, as a fraction; 0 where the method leaves it. */
const relaxedFirst = (plan: BesidePanels, film: FilmSheet): number =>
  plan.method.tension === 'relax_first' ? film.rollResidue : 0

/**
 * Relaxed film has its own slack to give; what pre-stretched film keeps after heat counts against the sheet as made.
 */
const afterMethod = (plan: BesidePanels, panel: Panel, film: FilmSheet, stretches: readonly Figure[]): number =>
  stretchAsMade(
    (1 + greatest(stretches)) * (1 - relaxedFirst(plan, film)) - 1,
    choiceFor(plan, panel, film).preStretch,
    film,
  )

const limitOf = (film: FilmSheet): NonNullable<Figure['limit']> => ({
  value: film.stretchLimit,
  unit: 'fraction',
  kind: 'max',
  standing: filmStanding(film, 'stretchLimit'),
  at: `film/${film.id}/stretchLimit`,
})

function ruleFigure({
  plan,
  panel,
  film,
  stretches,
  part,
  settling,
}: {
  plan: BesidePanels
  panel: Panel
  film: FilmSheet
  stretches: readonly Figure[]
  part: 'rule' | 'worst'
  settling: boolean
}): Figure {
  const relax = relaxedFirst(plan, film)
  const pre = choiceFor(plan, panel, film).preStretch
  const ofFilm = (key: string, field: 'rollResidue' | 'recovers' | 'heatShrink', value: number) =>
    input(key, value, 'fraction', filmStanding(film, field), `film/${film.id}/${field}`)
  const formula = [
    `(1 + max(${stretches.map((_, i) => `{s${i + 1}}`).join(', ')}))`,
    relax > 0 ? ' × (1 − {residue})' : '',
    pre > 0 ? ' × (1 + {pre} × (1 − {recovers})) × (1 − min({shrink}, {pre}))' : '',
    ' − 1',
  ].join('')
  return figure({
    id: `stretch/${panel.id}/${part}`,
    value: afterMethod(plan, panel, film, stretches),
    unit: 'fraction',
    formula: `max(0, ${formula})`,
    inputs: [
      ...stretches.map((f, i) => from(`s${i + 1}`, f)),
      ...(relax > 0 ? [ofFilm('residue', 'rollResidue', relax)] : []),
      ...(pre > 0
        ? [
            input('pre', pre, 'fraction', 'measured', `pieces/${panel.id}/preStretch`),
            ofFilm('recovers', 'recovers', film.recovers),
            ofFilm('shrink', 'heatShrink', film.heatShrink),
          ]
        : []),
    ],
    limit: limitOf(film),
    standing: 'common_practice',
    source: GEOMETRY,
    settling,
  })
}

/** Of the solved surface what is to be post-heated, and where film is squeezed past what heat takes. */
function areaFigures(panel: Panel, film: FilmSheet, known: SolvedStretch): Figure[] {
  const area = input('area', known.areaMm2, 'mm2', 'measured', 'data/mesh')
  const of = (id: string, mm2: number, formula: string, field: 'postHeatOver' | 'heatShrink') =>
    figure({
      id: `stretch/${panel.id}/${id}`,
      value: mm2,
      unit: 'mm2',
      formula,
      inputs: [area, input('over', film[field], 'fraction', filmStanding(film, field), `film/${film.id}/${field}`)],
      standing: 'common_practice',
      source: MILNOR,
    })
  return [
    of('post_heat', known.toPostHeatMm2, call('area_stretched', 'area', 'over'), 'postHeatOver'),
    of('wrinkles', known.wrinklesMm2, call('area_squeezed', 'area', 'over'), 'heatShrink'),
  ]
}

/** The worst stretch as it was solved on the panel's surface, beside what the rule makes of the same tape. */
const solvedFigure = (panel: Panel, film: FilmSheet, byRule: Figure, known: SolvedStretch, scanned: boolean): Figure =>
  figure({
    id: `stretch/${panel.id}/worst`,
    value: known.worst,
    unit: 'fraction',
    formula: call(scanned ? 'solved_on_scan' : 'solved_on_tape', 'triangles', 'rule'),
    inputs: [input('triangles', known.triangles, 'count', 'measured', 'data/mesh'), from('rule', byRule)],
    limit: limitOf(film),
    standing: 'common_practice',
    source: MILNOR,
  })
