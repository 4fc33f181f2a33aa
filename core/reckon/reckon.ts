import { civilToMinutes, minutesToCivil, nextOpen } from '../kit/civil'
import { EDGE_RULES } from '../model/edge/edge-data'
import { conditionsOf } from '../stages/film/conditions'
import { filmFitness } from '../stages/film/fitness'
import type { FilmSheet } from '../model/film/schema'
import { vetoes } from '../model/method/method-data'
import { heatPoints, type HeatPoint } from '../engines/heat/heat-points'
import type { LogRow } from '../model/log/schema'
import { layOutFilm, purchase, type FilmLayout, type Purchase } from '../engines/roll/film-layout'
import { cutPieces, takenOff } from '../model/log/cut-pieces'
import { riskOf } from '../engines/roll/risk'
import { withDrops } from '../engines/pieces/drop-pieces'
import { measureStanding, piecesOf, type Piece } from '../engines/pieces/pieces'
import { readyAt, stepsOf, type Step } from '../engines/run-sheet/steps'
import { panelStretch } from '../engines/stretch/panel-stretch'
import type { Plan } from '../model/plan/schema'
import { outlineOf, panelAreaMm2 } from '../model/vehicle/outline'
import { bodyContrast, STRONG_CONTRAST_DE, walkaroundFindings } from '../stages/walkaround/findings'
import { panelFindings } from '../stages/tape/findings'
import type { Panel } from '../model/vehicle/schema'
import { contrastFigure } from '../engines/paint/contrast'
import { filmAreaMm2, filmFigures, restFigures, sourceFigures } from '../stages/roll/figures'
import { layoutFindings, layoutNotes } from '../stages/roll/findings'
import type { Catalogue } from '../model/catalogue/catalogue'
import { figure, from, input, type Figure } from '../model/figure/figure'
import { finding, type Finding } from '../model/finding/finding'
import { logFindings, recheckDueAt } from '../stages/bay/findings'
import { stageStates, type StageState } from './stages'

/** Everything that follows from a plan, the shop's catalogue and what has happened so far. */
export interface Reckoning {
  figures: Map<string, Figure>
  findings: Finding[]
  pieces: Piece[]
  layouts: FilmLayout[]
  purchases: Map<string, Purchase>
  points: HeatPoint[]
  steps: Step[]
  stages: StageState[]
  stretch: ReadonlyMap<string, number>
  recheckDueAt: string | null
}

/**
 * The one entry of the core: every figure and finding of a job. Pure; runs while one types and again before a save.
 * Times are UTC wall times without a zone; `runSheet.startAt` is the shop's own.
 */
export function reckon(plan: Plan, catalogue: Catalogue, ledger: readonly LogRow[]): Reckoning {
  const figures = new Map<string, Figure>()
  const keep = (f: Figure): Figure => (figures.set(f.id, f), f)
  const findings: Finding[] = [...walkaroundFindings(plan, catalogue.now), ...panelFindings(plan)]
  const films = new Map(plan.film.sheets.map((s) => [s.id, s]))
  const panels = new Map(plan.panels.map((p) => [p.id, p]))
  const contrast = bodyContrast(plan)
  const main = films.get(plan.film.mainId ?? '')
  if (contrast !== null && main) keep(contrastFigure('walkaround/contrast', plan, main, contrast))
  const wrapped = plan.panels.filter((p) => p.wrap)
  const filmOf = (panel: Panel): FilmSheet | undefined => films.get(panel.filmId ?? plan.film.mainId ?? '')

  const pieces: Piece[] = []
  const stretch = new Map<string, number>()
  const worst: Figure[] = []
  for (const panel of wrapped) {
    const film = filmOf(panel)
    keep(areaFigure(panel))
    if (!film) continue
    for (const piece of piecesOf(plan, panel, film, contrast !== null && contrast >= STRONG_CONTRAST_DE)) {
      pieces.push(piece)
      keep(piece.figures.width)
      keep(piece.figures.height)
    }
    const s = panelStretch(plan, panel, film, catalogue.solved, catalogue.scans?.[panel.id])
    s.all.forEach(keep)
    worst.push(s.worst)
    stretch.set(panel.id, s.worst.value as number)
    findings.push(...s.findings)
  }
  findings.push(...filmFindings(plan, films, catalogue))

  const layouts: FilmLayout[] = []
  const purchases = new Map<string, Purchase>()
  for (const film of films.values()) {
    const { pieces: own, figures: working } = withDrops(
      plan,
      film,
      pieces.filter((p) => p.filmId === film.id),
    )
    if (own.length === 0) continue
    working.forEach(keep)
    const risk = new Map(own.map((p) => [p.id, riskOf(plan, film, stretch.get(p.panelId) ?? null)]))
    const layout = layOutFilm(plan, film, own, {
      stock: catalogue.stock,
      cut: cutPieces(ledger),
      risk,
      taken: takenOff(ledger),
    })
    layouts.push(layout)
    const bought = purchase(film, layout, catalogue.stock, ledger)
    purchases.set(film.id, bought)
    filmFigures(layout, bought, panels).forEach(keep)
    sourceFigures(layout).forEach(keep)
    restFigures(layout).forEach(keep)
    findings.push(...layoutFindings(layout, bought, panels, takenOff(ledger)), ...layoutNotes(plan, layout, panels))
  }
  const points = heatPoints(pieces, panels, films, stretch, ledger)
  const steps = stepsOf({ plan, panels, films, pieces, points }, ledger)
  findings.push(...crewFindings(plan, steps))
  const conditions = conditionsOf(plan, catalogue, workFrom(plan, steps, catalogue))
  conditions.figures.forEach(keep)
  findings.push(...conditions.findings)
  railFigures(plan, catalogue, { wrapped, pieces, worst, layouts, points, steps, figures }).forEach(keep)
  findings.push(...logFindings({ plan, layouts, points, steps, catalogue }, ledger))
  const due = recheckDueAt(steps)
  const stages = stageStates({ plan, pieces, layouts, steps, findings, ledger, points })
  return { figures, findings, pieces, layouts, purchases, points, steps, stages, stretch, recheckDueAt: due }
}

/** Steps that need more people than the crew has: told, not shortened. */
function crewFindings(plan: Plan, steps: readonly Step[]): Finding[] {
  const { crew } = plan.runSheet
  const short = steps.filter((s) => s.state !== 'skipped' && s.people > crew)
  const [first] = short
  if (!first) return []
  const facts = { count: short.length, first: first.name, need: Math.max(...short.map((s) => s.people)), crew }
  return [finding('crew_short', 'warn', 'run-sheet', { facts })]
}

/** When the run sheet comes to the first work on the vehicle: after it is brought in and has stood. */
function workFrom(plan: Plan, steps: readonly Step[], catalogue: Catalogue): string | null {
  const first = steps.findIndex((s) => s.code !== 'bring_in' && s.state !== 'skipped')
  const stood =
    plan.runSheet.startAt && first >= 0 ? readyAt(steps.slice(0, first), plan.runSheet.startAt, catalogue.hours) : null
  const minutes = stood ? civilToMinutes(stood) : null
  return minutes === null ? null : minutesToCivil(nextOpen(minutes, catalogue.hours))
}

function areaFigure(panel: Panel): Figure {
  const outline = outlineOf(panel)
  const size = (key: 'width' | 'height') =>
    input(key, panel[`${key}Mm`], 'mm', measureStanding(panel, `${key}Mm`), `panels/${panel.id}/${key}Mm`)
  const holes = panel.holes.reduce((t, h) => t + h.widthMm * h.heightMm, 0)
  // How full the outline makes its box: 1 for a plain rectangle.
  const fill = outline.areaMm2 / (outline.widthMm * outline.heightMm)
  const loose = panel.edges.some((e) => measureStanding(panel, `edges.${e.id}`) === 'assumed')
  return figure(
    `panel/${panel.id}/area`,
    panelAreaMm2(panel),
    'mm2',
    `{width} × {height}${outline.measured ? ' × {outline}' : ''}${holes > 0 ? ' − {holes}' : ''}`,
    [
      size('width'),
      size('height'),
      ...(outline.measured
        ? [input('outline', fill, 'fraction', loose ? 'assumed' : 'measured', `panels/${panel.id}/edges`)]
        : []),
      ...(holes > 0 ? [input('holes', holes, 'mm2', 'measured', `panels/${panel.id}/holes`)] : []),
    ],
  )
}

function filmFindings(plan: Plan, films: ReadonlyMap<string, FilmSheet>, catalogue: Catalogue): Finding[] {
  const out: Finding[] = []
  if (!plan.film.mainId) out.push(finding('no_film', 'stop', 'film'))
  const used = new Set([plan.film.mainId, ...plan.panels.filter((p) => p.wrap).map((p) => p.filmId)])
  for (const film of films.values()) {
    if (!used.has(film.id)) continue
    for (const unfit of filmFitness(film, plan, catalogue.now))
      out.push(
        finding(unfit.code, unfit.level, 'film', {
          id: `${unfit.code}/film:${film.id}`,
          facts: { film: film.name, ...unfit.facts },
        }),
      )
    for (const veto of vetoes(plan.method, film))
      out.push(finding(veto.code, 'warn', 'film', { id: `${veto.code}/film:${film.id}`, facts: veto.facts }))
  }
  return out
}

interface RailContext {
  wrapped: Panel[]
  pieces: Piece[]
  worst: Figure[]
  layouts: FilmLayout[]
  points: HeatPoint[]
  steps: Step[]
  figures: Map<string, Figure>
}

/** The rail that is always there in a job. */
function railFigures(plan: Plan, catalogue: Catalogue, c: RailContext): Figure[] {
  const of = (suffix: string) => c.layouts.flatMap((l) => c.figures.get(`roll/${l.film.id}/${suffix}`) ?? [])
  const total = (id: string, unit: Figure['unit'], parts: Figure[]): Figure =>
    figure(
      id,
      parts.length === 0 || parts.some((f) => f.value === null)
        ? null
        : parts.reduce((s, f) => s + Number(f.value ?? 0), 0),
      unit,
      'Σ inputs',
      parts.map((f, i) => ({ ...from(`n${i + 1}`, f) })),
    )
  const worst = c.worst.reduce<Figure | null>((a, b) => (!a || (b.value as number) > (a.value as number) ? b : a), null)
  const useful = of('yield')
  const film = c.layouts.reduce((s, l) => s + filmAreaMm2(l), 0)
  const net = c.layouts.reduce((s, l, i) => s + Number(useful[i]?.value ?? 0) * filmAreaMm2(l), 0)
  const edges = c.wrapped.flatMap((p) =>
    p.edges.map((e) =>
      input(`${p.id}_${e.id}`, e.lengthMm, 'mm', measureStanding(p, `edges.${e.id}`), `panels/${p.id}/edges`),
    ),
  )
  const tape = c.wrapped.flatMap((p) =>
    p.edges
      .filter((e) => EDGE_RULES[e.meets].sealTape || EDGE_RULES[e.meets].cutTape)
      .map((e) => input(`${p.id}_${e.id}`, e.lengthMm, 'mm', 'measured', `panels/${p.id}/edges`)),
  )
  const seams = c.pieces
    .filter((p) => p.seamMm > 0)
    .map((p) => input(p.id, p.seamMm, 'mm', 'measured', `pieces/${p.panelId}/parts`))
  const due = c.points.filter((p) => p.state === 'due').length
  const work = c.steps
    .filter((s) => s.state !== 'skipped')
    .map((s) => input(s.id, s.minutes * s.people, 'min', 'assumed', `steps/${s.id}`))
  const sum = (list: { value: number | string | null }[]) => list.reduce((s, i) => s + Number(i.value ?? 0), 0)
  const start = plan.runSheet.startAt
  return [
    total('rail/film_used', 'mm', of('used')),
    total('rail/film_order', 'mm', of('order')),
    total('rail/cost', 'money', of('cost')),
    figure('rail/yield', film > 0 ? net / film : null, 'fraction', '{net} ÷ {film}', [
      input('net', net, 'mm2', 'measured', 'panels'),
      input('film', film, 'mm2', 'measured', 'layout'),
    ]),
    worst
      ? figure(
          'rail/worst_stretch',
          worst.value,
          'fraction',
          'max over {panels} panels: {worst}',
          [input('panels', c.worst.length, 'count', 'measured', 'panels'), from('worst', worst)],
          { limit: worst.limit, source: worst.source },
        )
      : figure('rail/worst_stretch', null, 'fraction', 'no panel measured', []),
    figure('rail/seams', sum(seams), 'mm', seams.length === 0 ? 'no panel is split' : 'Σ inputs', seams),
    figure('rail/edges', sum(edges), 'mm', 'Σ inputs', edges),
    figure('rail/tape', sum(tape), 'mm', tape.length === 0 ? 'no edge asks for tape' : 'Σ inputs', tape, {
      standing: 'common_practice',
    }),
    figure('rail/heat_points', due, 'count', '{all} − {done}', [
      input('all', c.points.length, 'count', 'common_practice', 'points'),
      input('done', c.points.length - due, 'count', 'measured', 'log'),
    ]),
    figure('rail/crew_minutes', sum(work), 'min', 'Σ inputs', work),
    figure(
      'rail/ready_at',
      start ? readyAt(c.steps, start, catalogue.hours) : null,
      'wall_time',
      start ? '{start} + the steps in open hours + their waits' : 'no start set',
      start
        ? [
            input('start', start, 'wall_time', 'measured', 'runSheet/startAt'),
            input('steps', c.steps.length, 'count', 'assumed', 'steps'),
          ]
        : [],
    ),
  ]
}
