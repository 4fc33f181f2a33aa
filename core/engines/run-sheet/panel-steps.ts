import type { Plan } from '../../model/plan/schema'
import {
  CHANNEL_C,
  LINER_HALVES_LAY,
  GLIDE_LAY,
  CHANNEL_RECESS,
  WARM_C,
  WRAP_ROUND_MIN,
  WARM_LAY,
} from '../../model/method/method-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Panel } from '../../model/vehicle/schema'
import { EDGE_RULES } from '../../model/edge/edge-data'
import { choiceFor } from '../../model/plan/new-plan'
import { panelAreaMm2 } from '../../model/vehicle/outline'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Piece } from '../pieces/pieces'
import { RECESS_MIN, RELIEF_CUT_MIN, INLAY_MIN, DRY_FIT_MIN, SEAM_MIN_PER_M, HEAT_POINT_MIN } from './step-data'
import type { HeatPoint } from '../heat/heat-points'

/** Rear forward, so that overlaps lie with the airflow; mirrors and handles last. Common practice, no source. */
export const LAY_ORDER: readonly Panel['kind'][] = [
  'rear_bumper',
  'tailgate',
  'hatch',
  'boot_lid',
  'spoiler',
  'bed_side',
  'quarter',
  'van_side',
  'box_side',
  'hull_side',
  'tank_shell',
  'fairing',
  'sill',
  'door',
  'pillar',
  'roof',
  'wing',
  'bonnet',
  'front_bumper',
  'fuel_flap',
  'other',
  'mirror',
  'handle',
]

export const layRank = (panel: Panel | undefined): number => (panel ? LAY_ORDER.indexOf(panel.kind) : 99)
/** Surface to reach while laying: the film's shaping range where it is shaped, warmer where the school lays warm. */
export function layRange(
  layWarm: Plan['method']['layWarm'],
  film: FilmSheet,
  shaping: boolean | undefined,
  recessed: boolean,
): Step['range'] {
  // The film's sheet wins over the school: nothing is heated past what it is shaped at.
  if (layWarm === 'channel_65' && recessed && film.shapingC.max >= CHANNEL_C.min)
    return { min: CHANNEL_C.min, max: Math.min(CHANNEL_C.max, film.shapingC.max) }
  if (layWarm === 'room') return null
  if (shaping) return film.shapingC
  return layWarm === 'warm_40' && film.shapingC.max >= WARM_C
    ? { min: Math.max(WARM_C, film.shapingC.min), max: film.shapingC.max }
    : null
}

export const blank = ({
  id,
  code,
  panelId,
  name,
  people,
  minutes,
  waitMin,
  cautions,
}: {
  id: string
  code: string
  panelId: string | null
  name: string
  people: number
  minutes: number
  waitMin: number
  cautions: string[]
}): Step => ({
  id,
  code,
  panelId,
  name,
  people,
  minutes: Math.ceil(minutes),
  waitMin,
  range: null,
  facts: {},
  cautions,
  state: 'to_do',
  startedAt: null,
  doneAt: null,
})

export function panelSteps({ plan, panels, films }: Context, panelId: string, pieces: Piece[]): Step[] {
  const panel = panels.get(panelId)
  const film = films.get(pieces[0]?.filmId ?? '')
  if (!panel || !film) return []
  const facts = PANEL_FACTS[panel.kind]
  const pace = plan.runSheet.paceFactor
  const areaM2 = panelAreaMm2(panel) / 1e6
  const seamM = pieces.reduce((sum, p) => sum + p.seamMm, 0) / 1000
  const { method } = plan
  const staysOn = panel.raised.filter((r) => !r.removable || method.hardware === 'wrap_round').length
  const trim =
    panel.edges.reduce((sum, e) => sum + (e.lengthMm / 1000) * EDGE_RULES[e.meets].trimMinPerM, 0) +
    staysOn * WRAP_ROUND_MIN
  const recesses = panel.recesses.length * RECESS_MIN * (method.layWarm === 'channel_65' ? CHANNEL_RECESS : 1)
  const school =
    (method.liner === 'halves' ? LINER_HALVES_LAY : 1) *
    (method.wet === 'glide' ? GLIDE_LAY : 1) *
    (method.layWarm === 'warm_40' ? WARM_LAY : 1)
  const cuts = choiceFor(plan, panelId).slits.length * RELIEF_CUT_MIN
  const inlays = panel.recesses.filter((r) => r.way === 'inlay').length * INLAY_MIN
  const lay = DRY_FIT_MIN + (areaM2 * facts.layMinPerM2 + recesses) * school + seamM * SEAM_MIN_PER_M + cuts + inlays
  const chrome = film.kind === 'hybrid_chrome'
  // A piece held by its hinge needs one hand less than one whose liner comes off whole.
  const hands = method.liner === 'halves' && !chrome ? Math.max(1, facts.people - 1) : facts.people
  // What the step needs: a smaller crew does not make it less work.
  const people = chrome ? Math.max(2, hands) : hands
  const shaping = panel.recesses.length > 0 || panel.crownMm > 0 || facts.compound
  return [
    {
      ...blank({
        id: `lay:${panelId}`,
        code: 'lay',
        panelId,
        name: panel.name,
        people,
        minutes: lay * pace,
        waitMin: film.waitBeforeCutMin,
        cautions: ['hot'],
      }),
      range: layRange(method.layWarm, film, shaping, panel.recesses.length > 0),
      facts: {
        film: film.name,
        pieces: pieces.length,
        recesses: panel.recesses.length,
        order: method.order,
        liner: method.liner,
        wet: method.wet,
        // At room temperature only what is shaped is warmed.
        ...(method.layWarm === 'room' && shaping
          ? { shape_min_c: film.shapingC.min, shape_max_c: film.shapingC.max }
          : {}),
      },
    },
    {
      ...blank({
        id: `trim:${panelId}`,
        code: 'trim',
        panelId,
        name: panel.name,
        people: 1,
        minutes: trim * pace,
        waitMin: 0,
        cautions: ['blade', 'hot'],
      }),
      facts: { order: film.edgeOrder },
    },
  ]
}

export function heatSteps({ plan, points, pieces }: Context, used: FilmSheet[]): Step[] {
  const filmOf = new Map(pieces.map((p) => [p.id, p.filmId]))
  return used.flatMap((film) => {
    const own = points.filter((p) => filmOf.get(p.pieceId) === film.id)
    if (own.length === 0) return []
    const step = blank({
      id: `post_heat:${film.id}`,
      code: 'post_heat',
      panelId: null,
      name: film.name,
      people: 1,
      minutes: own.length * HEAT_POINT_MIN * plan.runSheet.paceFactor,
      waitMin: 0,
      cautions: ['hot', ...(plan.method.heatSource === 'torch' ? ['torch'] : [])],
    })
    return [
      {
        ...step,
        range: film.postHeatC,
        facts: {
          film: film.name,
          points: own.length,
          from_min: film.postHeatFromMin,
          until_min: film.postHeatUntilMin ?? 0,
        },
      },
    ]
  })
}

export interface Context {
  plan: Plan
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  pieces: readonly Piece[]
  points: readonly HeatPoint[]
}

export interface Step {
  id: string
  code: string
  panelId: string | null
  name: string
  /** People that the step needs, whatever the crew. */
  people: number
  minutes: number
  /** Unattended wait after it, minutes. */
  waitMin: number
  /** Surface range to reach, °C. */
  range: { min: number; max: number } | null
  facts: Record<string, string | number>
  cautions: string[]
  state: 'to_do' | 'running' | 'done' | 'skipped'
  startedAt: string | null
  doneAt: string | null
}
