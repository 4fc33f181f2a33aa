import { primedMm2, wantsPrimer, type TapeUse } from '../../engines/edge/consumables'
import { TAPE_KINDS, type EdgeDecision } from '../../engines/edge/edge-plan'
import { groupedBy } from '../../kit/grouped'
import { keptFor } from '../../kit/kept'
import type { EdgesOfJob } from '../../engines/edge/edges-of-job'
import type { Piece } from '../../engines/pieces/pieces'
import { EDGE_M_PER_BLADE, M2_PER_FELT } from '../../model/edge/cut-rules'
import { figure, from, input, weakest, type Figure, type FigureInput } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel } from '../../model/vehicle/schema'

/** Metres of each tape, what is counted beside it, edge by edge and seam by seam, and the corners' own figures. */
export function edgeFigures(
  { tapes, corners, edges, consumables }: EdgesOfJob,
  panels: ReadonlyMap<string, Panel>,
  pieces: readonly Piece[],
): Figure[] {
  const ofKind = groupedBy(tapes, (t) => t.kind)
  const told = TAPE_KINDS.flatMap((kind) => {
    const inputs = (ofKind.get(kind) ?? []).map((t) => tapeInput(t, panels.get(t.panelId)))
    const lengthMm = inputs.reduce((sum, i) => sum + Number(i.value), 0)
    return inputs.length === 0
      ? []
      : [
          figure({
            id: `supply/${kind}`,
            value: lengthMm,
            unit: 'mm',
            formula: 'Σ inputs',
            inputs,
            standing: 'common_practice',
          }),
        ]
  })
  return [...told, ...countedFigures(consumables, edges, panels, pieces), ...corners.flatMap((c) => c.figures)]
}

const tapeInput = keptFor(({ pieceId, panelId, edgeId, lengthMm }: TapeUse, panel: Panel | undefined): FigureInput =>
  edgeId === null
    ? input(`${pieceId}_seam`, lengthMm, 'mm', 'measured', `pieces/${panelId}/parts`)
    : edgeInput({ pieceId, panelId, edgeId, lengthMm }, panel),
)
const edgeInput = (e: { pieceId: string; panelId: string; edgeId: string; lengthMm: number }, panel?: Panel) =>
  input(
    // A piece over several panels has an edge of one name on each.
    e.pieceId.split('.')[0] === e.panelId ? `${e.pieceId}_${e.edgeId}` : `${e.pieceId}_${e.panelId}_${e.edgeId}`,
    e.lengthMm,
    'mm',
    panel ? measureStanding(panel, `edges.${e.edgeId}`) : 'assumed',
    `panels/${e.panelId}/edges`,
  )
const runInput = keptFor((e: EdgeDecision, panel: Panel | undefined): FigureInput => edgeInput(e, panel))

const cutInput = keptFor((p: Piece) =>
  input(p.id, p.acrossMm * p.alongMm, 'mm2', 'measured', `pieces/${p.panelId}/parts`),
)

/** Primer, liner, felts and blades: each with what it is counted from. */
function countedFigures(
  consumables: EdgesOfJob['consumables'],
  edges: EdgesOfJob['edges'],
  panels: ReadonlyMap<string, Panel>,
  pieces: readonly Piece[],
): Figure[] {
  const of = (kind: string) => consumables.find((c) => c.kind === kind)
  const count = (kind: string): number => {
    const found = of(kind)
    return found && 'count' in found ? found.count : 0
  }
  if (pieces.length === 0) return []
  const covered = [...new Set(pieces.flatMap((p) => p.covers ?? [p.panelId]))].flatMap((id) => panels.get(id) ?? [])
  const cuts = pieces.map((p) => cutInput(p))
  const sum = (list: readonly FigureInput[]): number => list.reduce((total, i) => total + Number(i.value), 0)
  const liner = figure({ id: 'supply/liner', value: sum(cuts), unit: 'mm2', formula: 'Σ inputs', inputs: cuts })
  const runs = edges.map((e) => runInput(e, panels.get(e.panelId)))
  const edgeMm = input('edges', sum(runs), 'mm', weakest(runs.map((r) => r.standing)), 'panels')
  return [
    ...primerFigure(covered),
    liner,
    figure({
      id: 'supply/felts',
      value: count('felts'),
      unit: 'count',
      formula: call('rounded_up', 'liner', 'each'),
      inputs: [from('liner', liner), input('each', M2_PER_FELT * 1e6, 'mm2', 'assumed', 'data/supplies')],
    }),
    figure({
      id: 'supply/blades',
      value: count('blades'),
      unit: 'count',
      formula: call('blades_for', 'covered', 'edges', 'each'),
      inputs: [
        input('covered', covered.length, 'count', 'measured', 'panels'),
        edgeMm,
        input('each', EDGE_M_PER_BLADE * 1000, 'mm', 'common_practice', 'data/supplies'),
      ],
    }),
  ]
}

/** Walls of deep recesses with no open side: length of the mouth's rim by depth. */
function primerFigure(covered: readonly Panel[]): Figure[] {
  const walls = covered.flatMap((p) =>
    p.recesses.filter(wantsPrimer).map((r) => {
      const at = `panels/${p.id}/recesses/${r.id}/depthMm`
      return input(`${p.id}_${r.id}`, primedMm2(r), 'mm2', measureStanding(p, `recesses.${r.id}.depthMm`), at)
    }),
  )
  const total = walls.reduce((sum, w) => sum + Number(w.value), 0)
  return walls.length === 0
    ? []
    : [figure({ id: 'supply/primer', value: total, unit: 'mm2', formula: 'Σ inputs', inputs: walls })]
}
