import type { TapeUse } from '../../engines/edge/consumables'
import { TAPE_KINDS } from '../../engines/edge/edge-plan'
import type { EdgesOfJob } from '../../engines/edge/edges-of-job'
import { figure, input, type Figure, type FigureInput } from '../../model/figure/figure'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel } from '../../model/vehicle/schema'

/** Metres of each tape, edge by edge and seam by seam, and the corners' own figures. */
export function edgeFigures({ tapes, corners }: EdgesOfJob, panels: ReadonlyMap<string, Panel>): Figure[] {
  const told = TAPE_KINDS.flatMap((kind) => {
    const inputs = tapes.filter((t) => t.kind === kind).map((t) => tapeInput(t, panels))
    const lengthMm = inputs.reduce((sum, i) => sum + Number(i.value), 0)
    return inputs.length === 0
      ? []
      : [figure(`supply/${kind}`, lengthMm, 'mm', 'Σ inputs', inputs, { standing: 'common_practice' })]
  })
  return [...told, ...corners.flatMap((c) => c.figures)]
}

function tapeInput({ pieceId, panelId, edgeId, lengthMm }: TapeUse, panels: ReadonlyMap<string, Panel>): FigureInput {
  if (edgeId === null) return input(`${pieceId}_seam`, lengthMm, 'mm', 'measured', `pieces/${panelId}/parts`)
  const panel = panels.get(panelId)
  const standing = panel ? measureStanding(panel, `edges.${edgeId}`) : 'assumed'
  return input(`${pieceId}_${edgeId}`, lengthMm, 'mm', standing, `panels/${panelId}/edges`)
}
