import type { Plan } from '../../model/plan/schema'
import {
  CHANNEL_C,
  CHANNEL_RECESS,
  GLIDE_LAY,
  LINER_HALVES_LAY,
  RIM_SHRUNK_LAY,
  WARM_C,
  WARM_LAY,
  WRAP_ROUND_MIN,
} from '../../model/method/method-data'
import { CHROME_CLASS } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import { groupedBy } from '../../kit/grouped'
import { keptFor, keptWith } from '../../kit/kept'
import type { CornerDecision } from '../edge/corner-plan'
import type { EdgeDecision } from '../edge/edge-plan'
import type { Panel } from '../../model/vehicle/schema'
import { EDGE_RULES } from '../../model/edge/edge-data'
import { choiceFor } from '../../model/plan/piece-choice'
import { panelAreaMm2 } from '../../model/vehicle/outline'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import { heatStep } from './heat-step'
import type { OnPanel } from './on-panel'
import type { HeatPoint } from '../heat/heat-points'
import type { Piece } from '../pieces/pieces'
import {
  ALONE_FACTOR,
  CORNER_MIN,
  DRY_FIT_MIN,
  INLAY_MIN,
  LAST_WIPE,
  RECESS_MIN,
  RELAX_MIN,
  RELIEF_CUT_MIN,
  SEAM_MIN_PER_M,
} from './step-data'
import { ROUGH_LEAVE_MM, roughCuts } from './rough-cuts'
import { layingOrder } from './laying-order'
import { stepOf, type Context, type Skill, type Step } from './step'

/** Surface to reach while laying: the film's shaping range where it is shaped, warmer where the school lays warm. */
export function layRange(
  { layWarm, tension }: Pick<Plan['method'], 'layWarm' | 'tension'>,
  film: FilmSheet,
  shaping: boolean | undefined,
  recessed: boolean,
): Step['range'] {
  // Slack is shrunk out with the gun: the film is warmed wherever it lies loose.
  if (tension === 'rim_shrunk' && layWarm === 'room') return film.shapingC
  // The film's sheet wins over the school: nothing is heated past what it is shaped at.
  if (layWarm === 'channel_65' && recessed && film.shapingC.max >= CHANNEL_C.min)
    return { min: CHANNEL_C.min, max: Math.min(CHANNEL_C.max, film.shapingC.max) }
  if (layWarm === 'room') return null
  if (shaping) return film.shapingC
  return layWarm === 'warm_40' && film.shapingC.max >= WARM_C
    ? { min: Math.max(WARM_C, film.shapingC.min), max: film.shapingC.max }
    : null
}

/** What the steps of each panel are made from, gathered once for all of them. */
export interface ByPanel {
  edges: ReadonlyMap<string, readonly EdgeDecision[]>
  corners: ReadonlyMap<string, readonly CornerDecision[]>
  points: ReadonlyMap<string, readonly HeatPoint[]>
}
export const byPanel = ({ edges, points }: Pick<Context, 'edges' | 'points'>): ByPanel => ({
  edges: groupedBy(edges.edges, (e) => e.panelId),
  corners: groupedBy(edges.corners, (k) => k.panelId),
  points: groupedBy(points, (p) => p.panelId),
})

/** The steps of one panel: its last degrease, laying, corners and edges, post-heat in the film's window. */
export function panelSteps(c: Context, own: ByPanel, panelId: string, pieces: readonly Piece[]): readonly Step[] {
  const panel = c.panels.get(panelId)
  const film = c.films.get(pieces[0]?.filmId ?? '')
  if (!panel || !film) return []
  return keptSteps(panel, {
    plan: c.beside,
    film,
    pieces: piecesOn(panel, ...pieces),
    edges: edgesOn(panel, ...(own.edges.get(panelId) ?? [])),
    corners: cornersOn(panel, ...(own.corners.get(panelId) ?? [])),
    points: pointsOn(panel, ...(own.points.get(panelId) ?? [])),
    sweep: c.sweeps.get(panelId),
  })
}

// A list with the same things in it is the same list: what was made of it stands.
const piecesOn = keptFor((_: Panel, ...list: Piece[]): readonly Piece[] => list)
const edgesOn = keptFor((_: Panel, ...list: EdgeDecision[]): readonly EdgeDecision[] => list)
const cornersOn = keptFor((_: Panel, ...list: CornerDecision[]): readonly CornerDecision[] => list)
const pointsOn = keptFor((_: Panel, ...list: HeatPoint[]): readonly HeatPoint[] => list)

type Beside = Omit<OnPanel, 'panel' | 'edges'> & OnPanel['edges']
const keptSteps = keptWith((panel: Panel, { edges, corners, ...beside }: Beside): readonly Step[] => {
  const on: OnPanel = { ...beside, panel, edges: { edges, corners } }
  return [...relaxStep(on), degreaseStep(on), ...laySteps(on), trimStep(on), ...heatStep(on)]
})

function degreaseStep({ plan, panel }: OnPanel): Step {
  const minutes = LAST_WIPE.startMin + (panelAreaMm2(panel) / 1e6) * LAST_WIPE.perM2Min
  return stepOf({
    id: `degrease:${panel.id}`,
    code: 'degrease_panel',
    panelId: panel.id,
    name: panel.name,
    minutes: minutes * plan.runSheet.paceFactor,
    cautions: ['solvent'],
    tools: ['alcohol', 'tack_cloth'],
  })
}

/** Liner in halves where the film grabs, whatever the school. */
export const linerOf = (plan: Pick<Plan, 'method'>, film: FilmSheet): Plan['method']['liner'] =>
  film.firstTack === 'high' ? 'halves' : plan.method.liner

/** People that a panel wants: more for all chrome and for film that grabs, one less where a hinge holds it. */
function handsFor({ plan, panel, film }: OnPanel): { people: number; aloneFactor: number | null; skills: Skill[] } {
  const facts = PANEL_FACTS[panel.kind]
  const mirror = CHROME_CLASS.includes(film.kind)
  const grabs = film.firstTack === 'high'
  const hinged = linerOf(plan, film) === 'halves' && !mirror && !grabs ? Math.max(1, facts.people - 1) : facts.people
  const people = mirror || grabs ? Math.max(2, hinged) : hinged
  const bumper = panel.kind === 'front_bumper' || panel.kind === 'rear_bumper'
  return {
    people,
    // A bonnet or a roof of chrome is never laid by one alone.
    aloneFactor: people < 2 ? null : mirror && facts.people > 1 ? null : ALONE_FACTOR,
    skills: [
      ...(mirror ? (['chrome'] as const) : []),
      ...(film.kind === 'printed_cast' ? (['print'] as const) : []),
      ...(film.kind === 'sheet_goods' ? (['sheets'] as const) : []),
      ...(bumper ? (['bumpers'] as const) : []),
    ],
  }
}

/** Film relaxed off the panel: cap sheet off, free on its liner, heated evenly until the roll's tension is gone. */
function relaxStep({ plan, panel, film, pieces }: OnPanel): Step[] {
  if (plan.method.tension !== 'relax_first' || film.rollResidue === 0) return []
  return [
    stepOf({
      id: `relax:${panel.id}`,
      code: 'relax',
      panelId: panel.id,
      name: panel.name,
      minutes: pieces.length * RELAX_MIN * plan.runSheet.paceFactor,
      people: Math.min(2, PANEL_FACTS[panel.kind].people),
      aloneFactor: PANEL_FACTS[panel.kind].people > 1 ? ALONE_FACTOR : null,
      cautions: ['hot'],
      tools: ['gun'],
      range: film.shapingC,
      facts: { film: film.name, residue: film.rollResidue, ...(film.capSheet ? { cap: 1 } : {}) },
    }),
  ]
}

/** What the schools and the film change in the minutes of laying. */
function paceOf(method: Plan['method'], liner: Plan['method']['liner']): number {
  return (
    (liner === 'halves' ? LINER_HALVES_LAY : 1) *
    (method.wet === 'glide' ? GLIDE_LAY : 1) *
    (method.layWarm === 'warm_40' ? WARM_LAY : 1) *
    (method.tension === 'rim_shrunk' ? RIM_SHRUNK_LAY : 1)
  )
}

/** The laying of a panel; piece by piece where it has several, each by its share of the film. */
function laySteps(on: OnPanel): Step[] {
  const { plan, panel, film, pieces } = on
  const { method } = plan
  const facts = PANEL_FACTS[panel.kind]
  const liner = linerOf(plan, film)
  const order = layingOrder(panel, pieces)
  const single = order.length === 1
  const areaOf = (p: Piece): number => p.acrossMm * p.alongMm
  const filmMm2 = order.reduce((sum, p) => sum + areaOf(p), 0)
  const recesses = panel.recesses.length * RECESS_MIN * (method.layWarm === 'channel_65' ? CHANNEL_RECESS : 1)
  const cuts = choiceFor(plan, panel, film).slits.length * RELIEF_CUT_MIN
  const shaping = panel.recesses.length > 0 || panel.crownMm > 0 || facts.compound
  const lay = ((panelAreaMm2(panel) / 1e6) * facts.layMinPerM2 + recesses) * paceOf(method, liner) + cuts
  const rough = roughCuts(panel, choiceFor(plan, panel, film).bleedMm ?? method.bleedMm).length
  const steps = order.map((piece, i) =>
    stepOf({
      id: `lay:${piece.id}`,
      code: 'lay',
      panelId: panel.id,
      name: single ? panel.name : piece.name,
      ...handsFor(on),
      minutes:
        (DRY_FIT_MIN + (piece.inlay ? INLAY_MIN : 0) + (lay * areaOf(piece)) / filmMm2) * plan.runSheet.paceFactor,
      // Nothing is cut before the last piece lies.
      waitMin: i === order.length - 1 ? Math.max(0, ...on.edges.edges.map((e) => e.waitMin), film.waitBeforeCutMin) : 0,
      cautions: ['hot'],
      tools: [
        'squeegee',
        ...(panel.recesses.length > 0 || method.tension === 'rim_shrunk' ? ['gun'] : []),
        ...(panel.recesses.length > 0 ? ['glove'] : []),
        ...holdingTools(panel),
      ],
      range: layRange(method, film, shaping, panel.recesses.length > 0),
      facts: {
        film: film.name,
        pieces: pieces.length,
        recesses: panel.recesses.length,
        order: method.order,
        tension: method.tension,
        liner,
        wet: method.wet,
        ...(single ? {} : { number: i + 1, of: order.length }),
        ...(piece.over ? { overlay: 1 } : piece.inlay ? { inlay: 1 } : {}),
        ...(rough > 0 && !piece.inlay ? { rough, rough_mm: ROUGH_LEAVE_MM } : {}),
        // At room temperature only what is shaped is warmed.
        ...(method.layWarm === 'room' && shaping
          ? { shape_min_c: film.shapingC.min, shape_max_c: film.shapingC.max }
          : {}),
      },
    }),
  )
  return [...steps, ...seamStep(on)]
}

/** Where two pieces meet: the one below trimmed to the line, the one above cut on tape that gauges the lap. */
function seamStep({ plan, panel, film, pieces }: OnPanel): Step[] {
  const seamM = pieces.reduce((sum, p) => sum + p.seamMm, 0) / 1000
  if (seamM === 0) return []
  const mirror = CHROME_CLASS.includes(film.kind)
  return [
    stepOf({
      id: `seam:${panel.id}`,
      code: 'seam',
      panelId: panel.id,
      name: panel.name,
      minutes: seamM * SEAM_MIN_PER_M * plan.runSheet.paceFactor,
      cautions: ['blade'],
      tools: [mirror ? 'wire' : 'filament', 'squeegee'],
      facts: { film: film.name, length_mm: seamM * 1000 },
    }),
  ]
}

/** Magnets hold on steel, tape on everything else. Common practice, no source. */
const holdingTools = ({ surface: { material } }: Panel): string[] =>
  material === 'steel' ? ['magnets'] : material === 'unknown' ? ['magnets', 'holding'] : ['holding']

function trimStep({ plan, panel, film, edges }: OnPanel): Step {
  const staysOn = panel.raised.filter((r) => !r.removable || plan.method.hardware === 'wrap_round').length
  const runs = edges.edges.reduce((sum, e) => sum + (e.lengthMm / 1000) * EDGE_RULES[e.meets].trimMinPerM, 0)
  const corners = edges.corners.reduce((sum, k) => sum + CORNER_MIN[k.method], 0)
  return stepOf({
    id: `trim:${panel.id}`,
    code: 'trim',
    panelId: panel.id,
    name: panel.name,
    minutes: (runs + corners + staysOn * WRAP_ROUND_MIN) * plan.runSheet.paceFactor,
    cautions: ['blade', 'hot'],
    tools: ['blade', 'soft_tool', ...(edges.edges.some((e) => e.cut === 'filament') ? ['filament'] : [])],
    facts: { order: film.edgeOrder, corners: edges.corners.length },
  })
}
