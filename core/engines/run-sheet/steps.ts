import { addOpenMinutes, civilToMinutes, minutesToCivil, nextOpen, type OpenHours } from '../../kit/civil'
import {
  CHANNEL_C,
  CHANNEL_RECESS,
  GLIDE_LAY,
  LINER_HALVES_LAY,
  WARM_C,
  WARM_LAY,
  WRAP_ROUND_MIN,
} from '../../model/method/method-data'
import { EDGE_RULES } from '../../model/edge/edge-data'
import type { FilmSheet } from '../../model/film/schema'
import type { HeatPoint } from '../heat/heat-points'
import type { LogRow } from '../../model/log/schema'
import { choiceFor } from '../../model/plan/new-plan'
import type { Plan } from '../../model/plan/schema'
import type { Piece } from '../pieces/pieces'
import { panelAreaMm2 } from '../../model/vehicle/outline'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Panel } from '../../model/vehicle/schema'
import {
  AFTER,
  BEFORE,
  CUT_MIN,
  LAMINATE,
  DRY_FIT_MIN,
  HARDWARE_ON_SHARE,
  HEAT_POINT_MIN,
  RECESS_MIN,
  INLAY_MIN,
  RELIEF_CUT_MIN,
  SEAM_MIN_PER_M,
  type StepRule,
} from './step-data'

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

interface Context {
  plan: Plan
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  pieces: readonly Piece[]
  points: readonly HeatPoint[]
}

/** The run sheet: preparation, cutting, then panel by panel from the rear forward, post-heat, check, rest, recheck. */
export function stepsOf(context: Context, ledger: readonly LogRow[]): Step[] {
  const { plan, pieces, films } = context
  const pace = plan.runSheet.paceFactor
  // A shop that wraps round its hardware takes none off; the trimming round it is reckoned with each panel.
  const off =
    plan.method.hardware === 'wrap_round'
      ? 0
      : plan.walkaround.hardware.filter((h) => h.way === 'remove').reduce((sum, h) => sum + h.minutes, 0)
  // What stays on is taped, inlaid or tucked round: that work is done where the rest is masked.
  const stays = plan.walkaround.hardware.filter((h) => h.way !== 'remove').reduce((sum, h) => sum + h.minutes, 0)
  const hardware: Record<string, number> = { hardware_off: off, hardware_on: off * HARDWARE_ON_SHARE }
  const general = (rule: StepRule): Step =>
    blank(
      rule.code,
      rule.code,
      null,
      '',
      rule.people,
      ((hardware[rule.code] ?? rule.minutes) + (rule.code === 'mask' ? stays : 0)) * pace,
      rule.waitMin ?? 0,
      rule.cautions ?? [],
    )
  const steps: Step[] = BEFORE.map(general)
  const used = [...new Set(pieces.map((p) => p.filmId))].flatMap((id) => films.get(id) ?? [])
  for (const film of used)
    if (film.gasOutHours) {
      const areaM2 = pieces.reduce((s, p) => (p.filmId === film.id ? s + (p.acrossMm * p.alongMm) / 1e6 : s), 0)
      steps.push({
        ...blank(`gas_out:${film.id}`, 'gas_out', null, film.name, 1, 10, film.gasOutHours.max * 60, []),
        facts: { film: film.name, hours: film.gasOutHours.max },
      })
      steps.push({
        ...blank(
          `laminate:${film.id}`,
          'laminate',
          null,
          film.name,
          LAMINATE.people,
          (LAMINATE.setUpMin + areaM2 * LAMINATE.perM2Min) * pace,
          0,
          [],
        ),
        facts: { film: film.name },
      })
    }
  if (pieces.length > 0)
    steps.push({
      ...blank('cut', 'cut', null, '', 1, pieces.length * CUT_MIN * pace, 0, ['blade']),
      facts: { pieces: pieces.length },
    })
  const byPanel = new Map<string, Piece[]>()
  for (const piece of pieces) byPanel.set(piece.panelId, [...(byPanel.get(piece.panelId) ?? []), piece])
  const order = [...byPanel.keys()].sort((a, b) => layRank(context.panels.get(a)) - layRank(context.panels.get(b)))
  for (const panelId of order) steps.push(...panelSteps(context, panelId, byPanel.get(panelId) ?? []))
  steps.push(...heatSteps(context, used))
  steps.push(...AFTER.map(general))
  return applyLedger(
    steps.map((s) => ({ ...s, state: plan.runSheet.skip.includes(s.id) ? 'skipped' : s.state })),
    ledger,
  )
}

const blank = (
  id: string,
  code: string,
  panelId: string | null,
  name: string,
  people: number,
  minutes: number,
  waitMin: number,
  cautions: string[],
): Step => ({
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

/** Rear forward, so that overlaps lie with the airflow; mirrors and handles last. Common practice, no source. */
const LAY_ORDER: readonly Panel['kind'][] = [
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
const layRank = (panel: Panel | undefined): number => (panel ? LAY_ORDER.indexOf(panel.kind) : 99)

function panelSteps({ plan, panels, films }: Context, panelId: string, pieces: Piece[]): Step[] {
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
      ...blank(`lay:${panelId}`, 'lay', panelId, panel.name, people, lay * pace, film.waitBeforeCutMin, ['hot']),
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
      ...blank(`trim:${panelId}`, 'trim', panelId, panel.name, 1, trim * pace, 0, ['blade', 'hot']),
      facts: { order: film.edgeOrder },
    },
  ]
}

/** Surface to reach while laying: the film's shaping range where it is shaped, warmer where the school lays warm. */
function layRange(
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

function heatSteps({ plan, points, pieces }: Context, used: FilmSheet[]): Step[] {
  const filmOf = new Map(pieces.map((p) => [p.id, p.filmId]))
  return used.flatMap((film) => {
    const own = points.filter((p) => filmOf.get(p.pieceId) === film.id)
    if (own.length === 0) return []
    const step = blank(
      `post_heat:${film.id}`,
      'post_heat',
      null,
      film.name,
      1,
      own.length * HEAT_POINT_MIN * plan.runSheet.paceFactor,
      0,
      ['hot', ...(plan.method.heatSource === 'torch' ? ['torch'] : [])],
    )
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

function applyLedger(steps: Step[], ledger: readonly LogRow[]): Step[] {
  const started = new Map<string, string>()
  const done = new Map<string, string>()
  for (const { payload, at } of ledger) {
    if (payload.kind === 'step_started' && !started.has(payload.stepId)) started.set(payload.stepId, at)
    if (payload.kind === 'step_done' && !done.has(payload.stepId)) done.set(payload.stepId, at)
    if (payload.kind === 'step_done_taken_back') done.delete(payload.stepId)
  }
  return steps.map((s) => ({
    ...s,
    startedAt: started.get(s.id) ?? null,
    doneAt: done.get(s.id) ?? null,
    state: done.has(s.id) ? 'done' : started.has(s.id) ? 'running' : s.state,
  }))
}

/** When the last step ends if work starts at `startAt` and the crew keeps the shop's hours; waits run on overnight. */
export function readyAt(steps: readonly Step[], startAt: string, hours: OpenHours): string | null {
  const start = civilToMinutes(startAt)
  if (start === null) return null
  let t = nextOpen(start, hours)
  // A wait before cutting is used for the next panel's laying: only waits of an hour and more stop the crew (assumed).
  for (const s of steps) {
    if (s.state === 'skipped') continue
    t = addOpenMinutes(t, s.minutes, hours)
    if (s.waitMin >= 60) t += s.waitMin
  }
  return minutesToCivil(Math.ceil(t))
}
