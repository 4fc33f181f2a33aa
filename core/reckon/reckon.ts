import { civilToMinutes, minutesToCivil, nextOpen } from '../kit/civil'
import { filmStanding } from '../film/film-data'
import { EDGE_RULES } from '../edge/edge-data'
import { conditionsOf } from '../conditions/conditions'
import { filmFitness } from '../film/fitness'
import type { FilmSheet } from '../film/schema'
import { vetoes } from '../method/method-data'
import { heatPoints, type HeatPoint } from '../heat/heat-points'
import type { LogRow } from '../log/schema'
import { layOutFilm, purchase, type FilmLayout, type Purchase } from '../roll/lay-out'
import { cutPieces, takenOff } from '../roll/cut-pieces'
import { riskOf } from '../roll/risk'
import { measureStanding, piecesOf, type Piece } from '../roll/pieces'
import { readyAt, stepsOf, type Step } from '../run-sheet/steps'
import { panelStretch } from '../stretch/panel-stretch'
import type { Plan } from '../plan/schema'
import { outlineOf, panelAreaMm2 } from '../vehicle/outline'
import { bodyContrast, STRONG_CONTRAST_DE, walkaroundFindings } from '../vehicle/walkaround-rules'
import { panelFindings } from '../vehicle/panel-rules'
import type { Panel } from '../vehicle/schema'
import { contrastFigure } from './contrast'
import type { Catalogue } from './catalogue'
import { figure, from, input, type Figure } from './figure'
import { finding, type Finding } from './finding'
import { logFindings, recheckDueAt } from './log-rules'
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
    const s = panelStretch(plan, panel, film)
    s.all.forEach(keep)
    worst.push(s.worst)
    stretch.set(panel.id, s.worst.value as number)
    findings.push(...s.findings)
  }
  findings.push(...filmFindings(plan, films, catalogue))

  const layouts: FilmLayout[] = []
  const purchases = new Map<string, Purchase>()
  for (const film of films.values()) {
    const own = pieces.filter((p) => p.filmId === film.id)
    if (own.length === 0) continue
    const risk = new Map(own.map((p) => [p.id, riskOf(plan, film, stretch.get(p.panelId) ?? null)]))
    const layout = layOutFilm(plan, film, own, {
      stock: catalogue.stock,
      cut: cutPieces(ledger),
      risk,
      taken: takenOff(ledger),
    })
    layouts.push(layout)
    const bought = purchase(film, layout, catalogue.stock)
    purchases.set(film.id, bought)
    filmFigures(plan, layout, bought, panels).forEach(keep)
    findings.push(...layoutFindings(layout, bought, panels, takenOff(ledger)))
  }
  const points = heatPoints(pieces, panels, films, stretch, ledger)
  const steps = stepsOf({ plan, panels, films, pieces, points }, ledger)
  const conditions = conditionsOf(plan, catalogue, workFrom(plan, steps, catalogue))
  conditions.figures.forEach(keep)
  findings.push(...conditions.findings)
  railFigures(plan, catalogue, { wrapped, pieces, worst, layouts, points, steps, figures }).forEach(keep)
  findings.push(...logFindings({ plan, layouts, points, steps, catalogue }, ledger))
  const due = recheckDueAt(steps)
  const stages = stageStates({ plan, pieces, layouts, steps, findings, ledger, points })
  return { figures, findings, pieces, layouts, purchases, points, steps, stages, stretch, recheckDueAt: due }
}

/** When the run sheet comes to the first work on the vehicle: after it is brought in and has stood. */
function workFrom(plan: Plan, steps: readonly Step[], catalogue: Catalogue): string | null {
  const first = steps.findIndex((s) => s.code !== 'bring_in' && s.state !== 'skipped')
  const stood = plan.runSheet.startAt && first >= 0 ? readyAt(steps.slice(0, first), plan.runSheet.startAt, catalogue.hours) : null // prettier-ignore
  const minutes = stood ? civilToMinutes(stood) : null
  return minutes === null ? null : minutesToCivil(nextOpen(minutes, catalogue.hours))
}

function areaFigure(panel: Panel): Figure {
  const outline = outlineOf(panel)
  const size = (key: 'width' | 'height') => input(key, panel[`${key}Mm`], 'mm', measureStanding(panel, `${key}Mm`), `panels/${panel.id}/${key}Mm`) // prettier-ignore
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
      ...(outline.measured ? [input('outline', fill, 'fraction', loose ? 'assumed' : 'measured', `panels/${panel.id}/edges`)] : []), // prettier-ignore
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

function filmFigures(plan: Plan, layout: FilmLayout, bought: Purchase, panels: ReadonlyMap<string, Panel>): Figure[] {
  const { film } = layout
  const at = (f: string) => `film/${film.id}/${f}`
  const id = (f: string) => `roll/${film.id}/${f}`
  const placed = new Set(layout.rolls.flatMap((r) => r.placements.map((p) => p.pieceId)))
  const placedPanels = new Set(layout.pieces.filter((p) => placed.has(p.id)).map((p) => p.panelId))
  const panelArea = [...placedPanels].reduce((sum, panelId) => {
    const panel = panels.get(panelId)
    const share =
      layout.pieces.filter((p) => p.panelId === panelId && placed.has(p.id)).length /
      Math.max(1, layout.pieces.filter((p) => p.panelId === panelId).length)
    return sum + (panel ? panelAreaMm2(panel) * share : 0)
  }, 0)
  const used = figure(
    id('used'),
    layout.usedMm,
    'mm',
    layout.rolls.length > 1 ? 'Σ inputs' : 'far edge of the last band: {roll_1}',
    layout.rolls.map((r, i) => input(`roll_${i + 1}`, r.usedMm, 'mm', 'measured', 'layout')),
    { standing: 'common_practice' },
  )
  const bound = figure(
    id('bound'),
    layout.boundMm,
    'mm',
    'no plan of {pieces} pieces on {width} can be shorter',
    [
      input('pieces', layout.pieces.length, 'count', 'measured', 'pieces'),
      input('width', layout.rollWidthMm, 'mm', filmStanding(film, 'widthsMm'), at('widthsMm')),
    ],
    { source: 'docs/sources.md#fekete-schepers-2004', standing: 'published' },
  )
  const yieldFigure = figure(
    id('yield'),
    layout.usedMm > 0 ? panelArea / (layout.usedMm * layout.rollWidthMm) : null,
    'fraction',
    '{panels} ÷ ({used} × {width})',
    [
      input('panels', panelArea, 'mm2', 'measured', 'panels'),
      from('used', used),
      input('width', layout.rollWidthMm, 'mm', filmStanding(film, 'widthsMm'), at('widthsMm')),
    ],
  )
  const price = input(
    'price',
    film.soldBy.price,
    film.soldBy.unit === 'roll' || film.soldBy.unit === 'sheet' ? 'money_each' : 'price_per_m',
    filmStanding(film, 'soldBy'),
    at('soldBy'),
  )
  const reserve = figure(
    id('reserve'),
    layout.reserveMm,
    'mm',
    layout.reserveFor.length > 0
      ? 'film for the largest {again} of {risky} pieces that may be done twice'
      : 'no piece is likely to be done twice',
    layout.reserveFor.length > 0
      ? [
          input('risky', layout.reserveFor.length, 'count', 'assumed', 'pieces'),
          input(
            'again',
            Math.ceil(layout.reserveFor.reduce((s, r) => s + r.risk, 0) - 1e-9),
            'count',
            'assumed',
            'layout/reserve',
          ),
        ]
      : [],
  )
  const spare = layout.reserveMm > 0
  const minimum = input('minimum', film.soldBy.minimumMm, 'mm', filmStanding(film, 'soldBy'), at('soldBy'))
  const shelf = bought.shelf[0]
  // With pieces that fit no roll, what to order is not known yet: no figure rather than a wrong one.
  const missing = layout.unplaced.length
  const whole = film.soldBy.unit === 'roll' || film.soldBy.unit === 'sheet'
  const order =
    missing > 0
      ? figure(id('order'), null, 'mm', 'not known while {missing} pieces fit no roll', [
          input('missing', missing, 'count', 'measured', 'layout'),
        ])
      : bought.covered && shelf
        ? figure(id('order'), 0, 'mm', '{shelf} on the shelf in one lot covers {used}', [
            input('shelf', shelf.leftMm, 'mm', 'measured', `stock/${shelf.id}`),
            from('used', used),
          ])
        : figure(
            id('order'),
            bought.orderMm,
            'mm',
            whole
              ? `{units} × {length} for {used}${spare ? ' + {reserve}' : ''}`
              : `max({minimum}, {used}${spare ? ' + {reserve}' : ''} rounded up to the next {step})`,
            whole
              ? [
                  input('units', bought.units, 'count', 'measured', 'layout'),
                  input(
                    'length',
                    film.rollLengthsMm[0] ?? 0,
                    'mm',
                    filmStanding(film, 'rollLengthsMm'),
                    at('rollLengthsMm'),
                  ),
                  from('used', used),
                  ...(spare ? [from('reserve', reserve)] : []),
                ]
              : [
                  minimum,
                  from('used', used),
                  ...(spare ? [from('reserve', reserve)] : []),
                  input(
                    'step',
                    film.soldBy.unit === 'metre' ? 1000 : 500,
                    'mm',
                    filmStanding(film, 'soldBy'),
                    at('soldBy'),
                  ),
                ],
          )
  const cost =
    missing > 0
      ? figure(id('cost'), null, 'money', 'not known while {missing} pieces fit no roll', [
          input('missing', missing, 'count', 'measured', 'layout'),
        ])
      : bought.covered
        ? figure(id('cost'), 0, 'money', 'nothing to buy', [])
        : figure(
            id('cost'),
            bought.cost,
            'money',
            whole ? '{units} × {price}' : '{order} × {price}',
            whole
              ? [input('units', bought.units, 'count', 'measured', 'layout'), price]
              : [from('order', order), price],
          )
  return [used, bound, yieldFigure, reserve, order, cost]
}

function layoutFindings(
  layout: FilmLayout,
  bought: Purchase,
  panels: ReadonlyMap<string, Panel>,
  taken: ReadonlyMap<string, number>,
): Finding[] {
  const { film } = layout
  const out: Finding[] = []
  for (const { piece, why } of layout.unplaced) {
    const panel = panels.get(piece.panelId)
    const facts = {
      piece: piece.name,
      across_mm: piece.turn === 'quarter' ? Math.min(piece.acrossMm, piece.alongMm) : piece.acrossMm,
      roll_mm: layout.rollWidthMm,
      film: film.name,
      why,
    }
    const along: 'width' | 'height' = panel && piece.acrossMm === piece.cutWidthMm ? 'width' : 'height'
    const size = along === 'width' ? piece.cutWidthMm : piece.cutHeightMm
    const parts = Math.min(12, piece.parts * Math.max(2, Math.ceil(size / layout.rollWidthMm)))
    const line =
      panel && piece.parts === 1
        ? seamLine(panel, along, layout.rollWidthMm - (size - panel[`${along}Mm`]) - film.overlapMm)
        : null
    out.push(
      finding('piece_wider_than_roll', 'stop', 'roll', {
        id: `piece_wider_than_roll/${piece.id}`, panelId: piece.panelId, facts,
        limit: { value: layout.rollWidthMm, unit: 'mm', kind: 'max', standing: filmStanding(film, 'widthsMm'), at: `film/${film.id}/widthsMm` }, figureId: piece.acrossMm === piece.cutWidthMm ? piece.figures.width.id : piece.figures.height.id,
        waysOut: [
          ...(line ? [{ code: 'seam_on_line', change: { kind: 'piece' as const, panelId: piece.panelId, set: { parts: 2, along, seamsAtMm: [line.atMm] } }, becomes: null, facts: { line: line.name, at_mm: line.atMm } }] : []),
          { code: 'seam', change: { kind: 'piece', panelId: piece.panelId, set: { parts, along, seamsAtMm: [] } }, becomes: null, facts: { parts, along } },
        ],
      }),
    ) // prettier-ignore
  }
  if (layout.kept === 'stale')
    out.push(
      finding('layout_stale', 'warn', 'roll', {
        id: `layout_stale/film:${film.id}`,
        facts: { film: film.name },
        waysOut: [{ code: 'lay_again', change: { kind: 'drop_kept_layout' }, becomes: null, facts: {} }],
      }),
    )
  for (const r of layout.rolls) {
    const need = r.stock ? r.usedMm - (layout.kept === 'current' ? (taken.get(r.stock.id) ?? 0) : 0) : 0
    if (r.stock && need > r.stock.leftMm + 1)
      out.push(
        finding('stock_short', 'stop', 'roll', {
          id: `stock_short/${r.stock.id}`,
          facts: { label: r.stock.label, left_mm: r.stock.leftMm, need_mm: need },
          waysOut: [{ code: 'lay_again', change: { kind: 'drop_kept_layout' }, becomes: null, facts: {} }],
        }),
      )
  }
  for (const c of layout.spoiled)
    out.push(
      finding('cut_spoiled', 'stop', 'roll', {
        id: `cut_spoiled/${c.id}`,
        facts: {
          piece: layout.pieces.find((p) => p.id === c.id)?.name ?? c.id,
          across_mm: c.acrossMm,
          along_mm: c.alongMm,
          gone: layout.pieces.some((p) => p.id === c.id) ? 0 : 1,
        },
      }),
    )
  for (const r of layout.rolls)
    for (const knot of r.cutting.knots)
      out.push(
        finding('knot', 'warn', 'roll', {
          id: `knot/${knot.join('+')}`,
          facts: {
            film: film.name,
            pieces: knot.map((id) => layout.pieces.find((p) => p.id === id)?.name ?? id).join(', '),
          },
          waysOut: [{ code: 'lay_again', change: { kind: 'drop_kept_layout' }, becomes: null, facts: {} }],
        }),
      )
  if (!bought.covered && bought.shelf.reduce((s, i) => s + i.leftMm, 0) >= layout.usedMm && bought.shelf.length > 1)
    out.push(
      finding('two_lots', 'warn', 'roll', {
        id: `two_lots/film:${film.id}`,
        facts: { film: film.name, lots: new Set(bought.shelf.map((s) => s.lot)).size },
      }),
    )
  if (layout.rolls.length > 1 && film.kind !== 'sheet_goods')
    out.push(
      finding('several_rolls', 'warn', 'roll', {
        id: `several_rolls/film:${film.id}`,
        facts: { film: film.name, rolls: layout.rolls.length },
      }),
    )
  return out
}

/** The usable body line nearest the middle of a panel that leaves both parts no wider than the roll takes. */
function seamLine(panel: Panel, along: 'width' | 'height', mostMm: number): { name: string; atMm: number } | null {
  const whole = panel[`${along}Mm`]
  const able = panel.bodyLines.filter(
    (l) => l.seam && l.along !== along && l.atMm > 0 && l.atMm < whole && Math.max(l.atMm, whole - l.atMm) <= mostMm,
  )
  const best = able.sort((a, b) => Math.abs(a.atMm - whole / 2) - Math.abs(b.atMm - whole / 2))[0]
  return best ? { name: best.name, atMm: best.atMm } : null
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
    figure(id, parts.length === 0 || parts.some((f) => f.value === null) ? null : parts.reduce((s, f) => s + Number(f.value ?? 0), 0), unit, 'Σ inputs', parts.map((f, i) => ({ ...from(`n${i + 1}`, f) }))) // prettier-ignore
  const worst = c.worst.reduce<Figure | null>((a, b) => (!a || (b.value as number) > (a.value as number) ? b : a), null)
  const useful = of('yield')
  const film = c.layouts.reduce((s, l) => s + l.usedMm * l.rollWidthMm, 0)
  const net = c.layouts.reduce((s, l, i) => s + Number(useful[i]?.value ?? 0) * l.usedMm * l.rollWidthMm, 0)
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
