import { aroundOf } from '../engines/paint/contrast'
import { gunSweeps } from '../engines/heat/gun-sweeps'
import { heatPoints, type HeatPoint } from '../engines/heat/heat-points'
import type { SupplyLine } from '../engines/edge/supply-list'
import { edgesOfJob, type EdgesOfJob } from '../engines/edge/edges-of-job'
import { asLaid } from '../engines/pieces/drop-pieces'
import type { PieceOutlines } from '../engines/pieces/piece'
import { piecesOf, type Around, type Piece } from '../engines/pieces/pieces'
import type { FilmLayout } from '../engines/roll/film-layout'
import type { Purchase } from '../engines/roll/purchase'
import { jobSchedule, type JobClock, type JobSchedule } from '../engines/schedule/job-schedule'
import { stepsOf } from '../engines/run-sheet/steps'
import { type Step } from '../engines/run-sheet/step'
import { isSameList, isSameRecord, keptFor } from '../kit/kept'
import type { Catalogue } from '../model/catalogue/catalogue'
import type { Lack } from '../model/catalogue/solutions'
import type { Figure } from '../model/figure/figure'
import type { Finding } from '../model/finding/finding'
import type { StageState } from '../model/finding/stage'
import type { LogRow } from '../model/log/schema'
import type { FilmSheet } from '../model/film/schema'
import type { BesidePanels, Plan } from '../model/plan/schema'
import type { Panel } from '../model/vehicle/schema'
import { NO_RECORD } from '../model/log/learned'
import { DEFAULT_SHOP } from '../model/shop/default-shop'
import { logFindings } from '../stages/bay/findings'
import { edgeFigures } from '../stages/edges/figures'
import { heatFigures } from '../stages/edges/heat-figures'
import { cornerFindings, cutFindings, depthFindings, heatFindings } from '../stages/edges/findings'
import { suppliesOf } from '../stages/edges/supplies'
import { conditionsOf } from '../stages/film/conditions'
import { filmFindings } from '../stages/film/findings'
import { recheckFindings, recheckOf } from '../stages/handover/recheck'
import { stretchOfPanels } from '../stages/pieces/stretch-of-panels'
import { rollOf } from '../stages/roll/roll'
import { workFrom } from '../stages/run-sheet/work-from'
import { cardFigures } from '../stages/run-sheet/figures'
import { crewFindings, timeFindings } from '../stages/run-sheet/findings'
import { areaFigure } from '../stages/tape/figures'
import { panelFindings } from '../stages/tape/findings'
import { contrastFigures } from '../stages/walkaround/figures'
import { walkaroundFindings } from '../stages/walkaround/findings'
import { TOLD, type Parts } from './parts'
import { railFigures } from './rail'
import { runSequence, stepIn } from './sequence'
import type { Solvers } from './solvers'
import { stageStates } from './stages'

/** Everything that follows from a plan, the shop's catalogue and what has happened so far. */
export interface Reckoning {
  figures: ReadonlyMap<string, Figure>
  findings: readonly Finding[]
  pieces: readonly Piece[]
  /** As they are laid: drops of a print in place of the pieces of the sides that they cover. */
  laid: readonly Piece[]
  layouts: readonly FilmLayout[]
  purchases: ReadonlyMap<string, Purchase>
  edges: EdgesOfJob
  supplies: readonly SupplyLine[]
  points: readonly HeatPoint[]
  steps: readonly Step[]
  /** When each step is done by the shop's hours and the job's crew; null where no start is set. */
  schedule: JobSchedule | null
  stages: readonly StageState[]
  stretch: ReadonlyMap<string, number>
  /**
   * Solutions that the plan hangs on: how many, how many of them are not there yet, and which can be solved now. A
   * layout waits for the stretch of its panels.
   */
  settling: { lacks: readonly Lack[]; left: number; of: number }
  /** UTC wall time; null until the rest has begun. */
  recheckDueAt: string | null
  /** What it was made of: a later reckoning takes over each part whose inputs are the same. */
  parts: Parts
}

const step = stepIn<Parts>()
function byId<T extends { id: string }>(...lists: (readonly T[])[]): ReadonlyMap<string, T> {
  const map = new Map<string, T>()
  for (const list of lists) for (const item of list) map.set(item.id, item)
  return map
}
/** One and the same each time: a part that hangs on it is not done again. */
const NO_LEVELS = {}
const none = { figures: [], findings: [] }

/** What is not solved yet raises no Stop by itself: it is told as a warning until its figure is known. */
const knownStop = (f: Finding, figures: ReadonlyMap<string, Figure>): Finding =>
  f.level === 'stop' && f.figureId !== null && figures.get(f.figureId)?.settling ? { ...f, level: 'warn' } : f

/** Layouts that wait for the stretch of their panels are not among what can be solved now, but are left to do. */
function leftOf({ stretch, roll, heat, solutions }: Parts): number {
  if (!solutions) return 0
  const waits = stretch.lacks.some((lack) => lack.kind === 'stretch')
  const layouts = waits
    ? roll.layouts.filter((l) => !solutions.layout[l.key] && !solutions.fault[l.key]).length
    : roll.lacks.length
  return stretch.lacks.length + layouts + heat.lacks.length
}

const clockOf = ({ hours, shop, ledger }: Pick<Parts, 'hours' | 'shop' | 'ledger'>): JobClock => ({
  hours,
  timeZone: shop.timeZone,
  last: ledger.at(-1)?.at ?? null,
  ready: shop.ready,
})

const keptArea = keptFor((panel: Panel) => areaFigure(panel))
const keptPieces = keptFor(
  (panel: Panel, beside: BesidePanels, film: FilmSheet, around: Around, outlines: PieceOutlines) =>
    piecesOf(beside, panel, film, around, outlines),
)

/** The steps of a reckoning in their order. */
const STEPS = [
  step('beside', ['plan'], ({ plan: { panels: _, ...beside } }) => beside, isSameRecord),
  step('films', ['beside'], ({ beside }) => byId(beside.film.sheets)),
  step('around', ['beside', 'shop'], ({ beside, shop }) => aroundOf(beside, shop)),
  step('panels', ['plan'], ({ plan }) => byId(plan.panels)),
  step('walkaround', ['plan', 'now'], ({ plan, now }) => ({
    figures: contrastFigures(plan),
    findings: walkaroundFindings(plan, now),
  })),
  step('tape', ['plan'], ({ plan }) => ({
    figures: plan.panels.filter((p) => p.wrap).map((p) => keptArea(p)),
    findings: panelFindings(plan),
  })),
  step('cutting', ['plan', 'beside', 'films', 'around', 'solvers'], ({ plan, beside, films, around, solvers }) => {
    const pieces = plan.panels.flatMap((panel) => {
      const film = films.get(panel.filmId ?? plan.film.mainId ?? '')
      return panel.wrap && film ? keptPieces(panel, beside, film, around, solvers.outlines) : []
    })
    return { ...none, pieces, figures: pieces.flatMap((p) => [p.figures.width, p.figures.height]) }
  }),
  step('laid', ['plan', 'films', 'cutting'], ({ plan, films, cutting: { pieces } }) => asLaid(plan, films, pieces)),
  step('stretch', ['plan', 'beside', 'films', 'rack', 'solutions', 'scans'], stretchOfPanels),
  step('fitness', ['plan', 'films', 'now'], ({ plan, films, now }) => ({
    ...none,
    findings: filmFindings(plan, films, now),
  })),
  step(
    'roll',
    ['plan', 'films', 'panels', 'cutting', 'stretch', 'stock', 'record', 'ledger', 'solutions', 'solvers'],
    (p) =>
      rollOf({
        ...p,
        pieces: p.cutting.pieces,
        stretch: p.stretch.byPanel,
        layoutSolver: p.solvers.layout,
        settled: !p.stretch.lacks.some((lack) => lack.kind === 'stretch'),
      }),
  ),
  step('edges', ['beside', 'films', 'panels', 'laid', 'around'], ({ beside, films, panels, around, laid: pieces }) => {
    const edges = edgesOfJob({ method: beside.method, panels, films, pieces, around })
    const findings = [
      ...cutFindings(panels),
      ...depthFindings(edges.edges, panels),
      ...cornerFindings(edges.corners, panels),
    ]
    return { ...edges, figures: edgeFigures(edges, panels, pieces), findings }
  }),
  step('supplies', ['edges', 'panels', 'laid', 'shop', 'levels', 'ledger'], (p) =>
    suppliesOf({ ...p, consumables: p.edges.consumables, pieces: p.laid }),
  ),
  step(
    'points',
    ['laid', 'edges', 'panels', 'films', 'stretch', 'ledger'],
    (p) => heatPoints({ ...p, pieces: p.laid, stretch: p.stretch.byPanel, outlines: p.stretch.outlines }),
    isSameList,
  ),
  step('heat', ['points', 'laid', 'panels', 'films', 'shop', 'solutions', 'edges', 'beside'], (p) => {
    const given = { ...p, pieces: p.laid, guns: p.shop.guns }
    const sweeps = gunSweeps(given)
    const { paceFactor } = p.beside.runSheet
    const figures = heatFigures({
      ...given,
      sweeps: sweeps.byPanel,
      waiting: sweeps.waiting,
      edges: p.edges.edges,
      paceFactor,
    })
    return { ...sweeps, figures, findings: heatFindings(sweeps.byPanel, p.panels) }
  }),
  step('steps', ['plan', 'beside', 'panels', 'films', 'laid', 'points', 'heat', 'edges', 'record', 'ledger'], (p) =>
    stepsOf({ ...p, pieces: p.laid, sweeps: p.heat.byPanel }, p.ledger),
  ),
  step('schedule', ['plan', 'steps', 'hours', 'shop', 'ledger'], (p) => jobSchedule(p.plan, p.steps, clockOf(p))),
  step('runSheet', ['plan', 'steps', 'schedule', 'hours', 'shop', 'ledger', 'heat', 'now'], (p) => ({
    figures: cardFigures(p.steps, p.heat.figures),
    findings: [...crewFindings(p.plan, p.steps), ...timeFindings(p.plan, p.steps, p.schedule, clockOf(p), p.now)],
  })),
  step('conditions', ['plan', 'climate', 'steps', 'hours'], ({ plan, climate, steps, hours }) =>
    conditionsOf(plan, climate, workFrom(plan, steps, hours)),
  ),
  step(
    'rail',
    ['plan', 'ledger', 'laid', 'stretch', 'roll', 'edges', 'points', 'heat', 'steps', 'schedule', 'hours', 'solutions'],
    (p) => ({
      ...none,
      figures: railFigures({ ...p, pieces: p.laid, worst: p.stretch.worst }),
    }),
  ),
  step('bay', ['plan', 'roll', 'points', 'stock', 'ledger'], (p) => ({
    ...none,
    findings: logFindings({ ...p, layouts: p.roll.layouts }, p.ledger),
  })),
  step('handover', ['steps', 'now'], ({ steps, now }) => {
    const recheck = recheckOf(steps, now)
    return { ...none, recheck, findings: recheckFindings(recheck) }
  }),
  step('stages', ['plan', 'steps', 'ledger', 'points', ...TOLD], (p) =>
    stageStates({
      ...p,
      pieces: p.cutting.pieces,
      layouts: p.roll.layouts,
      recheck: p.handover.recheck,
      findings: TOLD.flatMap((key) => p[key].findings),
    }),
  ),
]

/** Every figure and finding of a job from its plan, the shop's catalogue and what has happened. */
export type Reckon = (
  plan: Plan,
  catalogue: Catalogue,
  ledger: readonly LogRow[],
  previous?: Reckoning | null,
) => Reckoning

/**
 * Reckons by these solvers. Pure; runs while one types and again before a save. Times are UTC wall times without a zone;
 * `runSheet.startAt` is the shop's own. `previous`: a reckoning before, of which each part is taken over whose inputs are
 * the same.
 */
export const reckoner =
  (solvers: Solvers): Reckon =>
  (plan, catalogue, ledger, previous = null) => {
    const { now, films: rack, stock, hours, climate, solutions, scans } = catalogue
    const shop = catalogue.shop ?? DEFAULT_SHOP
    const levels = catalogue.supplies ?? NO_LEVELS
    const record = catalogue.record ?? NO_RECORD
    const given = { solvers, levels, record, plan, ledger, now, rack, stock, hours, shop, climate, solutions, scans }
    const parts = runSequence<Parts, keyof typeof given>(given, STEPS, previous?.parts ?? null)
    const figures = byId(...TOLD.map((key) => parts[key].figures))
    const lacks = [...parts.stretch.lacks, ...parts.roll.lacks, ...parts.heat.lacks]
    return {
      figures,
      findings: TOLD.flatMap((key) => parts[key].findings).map((f) => knownStop(f, figures)),
      settling: { lacks, left: leftOf(parts), of: parts.stretch.wanted + parts.roll.wanted + parts.heat.wanted },
      pieces: parts.cutting.pieces,
      laid: parts.laid,
      layouts: parts.roll.layouts,
      purchases: parts.roll.purchases,
      edges: parts.edges,
      supplies: parts.supplies.lines,
      points: parts.points,
      steps: parts.steps,
      schedule: parts.schedule,
      stages: parts.stages,
      stretch: parts.stretch.byPanel,
      recheckDueAt: parts.handover.recheck?.dueAt ?? null,
      parts,
    }
  }
