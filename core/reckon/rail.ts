import { handedOver } from '../model/log/handed-over'
import type { HeatPoint } from '../engines/heat/heat-points'
import { TAPE_KINDS } from '../engines/edge/edge-plan'
import type { Piece } from '../engines/pieces/pieces'
import { plannedSteps } from '../engines/run-sheet/steps'
import { type Step } from '../engines/run-sheet/step'
import { hoursInShort, type OpenHours } from '../kit/civil'
import { keptFor } from '../kit/kept'
import { figure, from, input, weakest, type Figure, type FigureInput } from '../model/figure/figure'
import type { FigureId } from '../model/figure/figure-id'
import { call } from '../model/figure/formula'
import type { Plan } from '../model/plan/schema'
import { measureStanding } from '../model/vehicle/measure-standing'
import type { Panel } from '../model/vehicle/schema'
import { filmAreaMm2 } from '../stages/roll/figures'
import type { Parts } from './parts'

interface RailInputs {
  plan: Plan
  pieces: readonly Piece[]
  /** Worst stretch of each wrapped panel. */
  worst: readonly Figure[]
  roll: Parts['roll']
  stretch: Parts['stretch']
  solutions: Parts['solutions']
  ledger: Parts['ledger']
  edges: Parts['edges']
  points: readonly HeatPoint[]
  heat: Parts['heat']
  steps: readonly Step[]
  schedule: Parts['schedule']
  hours: OpenHours
}

/** The rail that is always there in a job. */
export function railFigures(c: RailInputs): Figure[] {
  const wrapped = c.plan.panels.filter((p) => p.wrap)
  // Points, and with them minutes and the hour of being ready, hang on the stretch of panels.
  const settling = c.solutions !== undefined && c.stretch.lacks.some((lack) => lack.kind === 'stretch')
  return [
    ...rollFigures(c.roll),
    worstFigure(c.worst),
    ...edgeFigures(
      wrapped,
      c.pieces,
      c.edges.figures.filter((f) => TAPE_KINDS.some((kind) => f.id === `supply/${kind}`)),
    ),
    heatPointsFigure(c.points, settling),
    crewFigure(c.steps, settling || c.heat.lacks.length > 0),
    readyFigure(c, settling || c.heat.lacks.length > 0),
  ]
}

const sum = (list: readonly { value: number | string | null }[]): number =>
  list.reduce((total, item) => total + Number(item.value ?? 0), 0)

/** Film used, to order, its cost, and how much of it lies on the vehicle in the end. */
function rollFigures({ layouts, figures }: Parts['roll']): Figure[] {
  const of = (suffix: string) =>
    layouts.flatMap((l) => figures.find((f) => f.id === `roll/${l.film.id}/${suffix}`) ?? [])
  const total = (id: FigureId, unit: Figure['unit'], parts: Figure[]): Figure => {
    const [only, more] = parts
    // Of one film the sum is its own figure, with its own working.
    if (only && !more) return { ...only, id }
    const known = parts.length > 0 && parts.every((f) => f.value !== null)
    const inputs = parts.map((f, i) => from(`n${i + 1}`, f))
    return figure({ id, value: known ? sum(parts) : null, unit, formula: 'Σ inputs', inputs })
  }
  const useful = of('yield')
  const film = layouts.reduce((s, l) => s + filmAreaMm2(l), 0)
  const net = layouts.reduce((s, l, i) => s + Number(useful[i]?.value ?? 0) * filmAreaMm2(l), 0)
  return [
    total('rail/film_used', 'mm', of('used')),
    total('rail/film_order', 'mm', of('order')),
    total('rail/cost', 'money', of('cost')),
    figure({
      id: 'rail/yield',
      value: film > 0 ? net / film : null,
      unit: 'fraction',
      formula: '{net} ÷ {film}',
      inputs: [
        input('net', net, 'mm2', weakest(useful.map((f) => f.standing)), 'panels'),
        input('film', film, 'mm2', 'measured', 'layout'),
      ],
      settling: useful.some((f) => f.settling),
    }),
  ]
}

function worstFigure(all: readonly Figure[]): Figure {
  const settling = all.some((f) => f.settling)
  const worst = all.reduce<Figure | null>((a, b) => (!a || Number(b.value) > Number(a.value) ? b : a), null)
  if (!worst)
    return figure({
      id: 'rail/worst_stretch',
      value: null,
      unit: 'fraction',
      formula: call('no_panel_measured'),
      inputs: [],
    })
  const inputs = [input('panels', all.length, 'count', 'measured', 'panels'), from('worst', worst)]
  return figure({
    id: 'rail/worst_stretch',
    value: worst.value,
    unit: 'fraction',
    formula: call('max_over_panels', 'panels', 'worst'),
    inputs,
    limit: worst.limit,
    source: worst.source,
    settling,
  })
}

const edgeInputs = keptFor((p: Panel): readonly FigureInput[] =>
  p.edges.map((e) =>
    input(`${p.id}_${e.id}`, e.lengthMm, 'mm', measureStanding(p, `edges.${e.id}`), `panels/${p.id}/edges`),
  ),
)

/** Seams, edges and all tape of the job, mm: each kind has its own figure with its edges and seams. */
function edgeFigures(wrapped: readonly Panel[], pieces: readonly Piece[], tapes: readonly Figure[]): Figure[] {
  const edges = wrapped.flatMap((p) => edgeInputs(p))
  const seams = pieces
    .filter((p) => p.seamMm > 0)
    .map((p) => input(p.id, p.seamMm, 'mm', 'measured', `pieces/${p.panelId}/parts`))
  return [
    figure({
      id: 'rail/seams',
      value: sum(seams),
      unit: 'mm',
      formula: seams.length === 0 ? call('no_panel_split') : 'Σ inputs',
      inputs: seams,
    }),
    figure({ id: 'rail/edges', value: sum(edges), unit: 'mm', formula: 'Σ inputs', inputs: edges }),
    tapeFigure(tapes),
  ]
}

function tapeFigure(tapes: readonly Figure[]): Figure {
  const [only, more] = tapes
  if (only && !more) return { ...only, id: 'rail/tape' }
  const inputs = tapes.map((f) => from(f.id.slice('supply/'.length), f))
  return figure({
    id: 'rail/tape',
    value: sum(tapes),
    unit: 'mm',
    formula: inputs.length === 0 ? call('no_edge_taped') : 'Σ inputs',
    inputs,
    standing: 'common_practice',
  })
}

function heatPointsFigure(points: readonly HeatPoint[], settling: boolean): Figure {
  const due = points.filter((p) => p.state === 'due').length
  const inputs = [
    input('all', points.length, 'count', 'common_practice', 'points'),
    input('done', points.length - due, 'count', 'measured', 'log'),
  ]
  return figure({ id: 'rail/heat_points', value: due, unit: 'count', formula: '{all} − {done}', inputs, settling })
}

const workInput = keptFor((s: Step) => input(s.id, s.minutes * s.people, 'min', 'assumed', `steps/${s.id}`))

function crewFigure(steps: readonly Step[], settling: boolean): Figure {
  const work = plannedSteps(steps).map((s) => workInput(s))
  return figure({ id: 'rail/crew_minutes', value: sum(work), unit: 'min', formula: 'Σ inputs', inputs: work, settling })
}

function readyFigure({ plan, steps, schedule, hours, ledger }: RailInputs, settling: boolean): Figure {
  if (handedOver(ledger))
    return figure({ id: 'rail/ready_at', value: null, unit: 'wall_time', formula: call('handed_over'), inputs: [] })
  const start = plan.runSheet.startAt
  if (!start || !schedule)
    return figure({ id: 'rail/ready_at', value: null, unit: 'wall_time', formula: call('no_start_set'), inputs: [] })
  const open = hoursInShort(hours)
  const inputs = [
    input('start', start, 'wall_time', 'measured', 'runSheet/startAt'),
    input('steps', plannedSteps(steps).length, 'count', 'assumed', 'steps'),
    input('crew', plan.runSheet.crew, 'count', 'measured', 'runSheet/crew'),
    input('chain', schedule.chain.length, 'count', 'assumed', 'steps'),
    input('work', schedule.workMin, 'min', 'assumed', 'steps'),
    input('opens', open.opens, 'min', 'measured', 'shop/opens'),
    input('closes', open.closes, 'min', 'measured', 'shop/closes'),
    input('week', open.week, 'min', 'measured', 'shop/week'),
    input('waits', schedule.waitMin, 'min', 'assumed', 'steps'),
  ]
  const formula = call('open_hours', 'start', 'chain', 'work', 'opens', 'closes', 'week', 'waits')
  return figure({ id: 'rail/ready_at', value: schedule.readyAt, unit: 'wall_time', formula, inputs, settling })
}
