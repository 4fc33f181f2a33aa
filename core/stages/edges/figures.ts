import type { EdgesOfJob } from '../../engines/edge/edges-of-job'
import { TAPE_KINDS } from '../../engines/edge/edge-plan'
import type { Piece } from '../../engines/pieces/pieces'
import { TAPE_LEAD_MM } from '../../model/edge/cut-rules'
import { figure, input, type Figure } from '../../model/figure/figure'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel } from '../../model/vehicle/schema'

/** Metres of each tape, edge by edge and seam by seam, and the corners' own figures. */
export function edgeFigures(
  { edges, corners, consumables }: EdgesOfJob,
  pieces: readonly Piece[],
  panels: ReadonlyMap<string, Panel>,
): Figure[] {
  const standing = (panelId: string, edgeId: string) => {
    const panel = panels.get(panelId)
    return panel ? measureStanding(panel, `edges.${edgeId}`) : 'assumed'
  }
  const tapes = TAPE_KINDS.flatMap((kind) => {
    const total = consumables.find((c) => c.kind === kind)
    if (!total || !('lengthMm' in total)) return []
    const laid = edges.flatMap((e) =>
      e.tapes
        .filter((t) => t.kind === kind)
        .map((t) =>
          input(
            `${e.pieceId}_${e.edgeId}`,
            t.lengthMm,
            'mm',
            standing(e.panelId, e.edgeId),
            `panels/${e.panelId}/edges`,
          ),
        ),
    )
    const seams =
      kind === 'filament' || kind === 'wire'
        ? pieces
            .filter((p) => p.seamMm > 0)
            .map((p) => input(`${p.id}_seam`, p.seamMm + TAPE_LEAD_MM, 'mm', 'measured', `pieces/${p.panelId}/parts`))
        : []
    const inputs = [...laid, ...seams]
    const isWhole = Math.abs(inputs.reduce((sum, i) => sum + Number(i.value), 0) - total.lengthMm) < 1e-6
    return [
      figure(`supply/${kind}`, total.lengthMm, 'mm', 'Σ inputs', isWhole ? inputs : laid, {
        standing: 'common_practice',
      }),
    ]
  })
  return [...tapes, ...corners.flatMap((c) => c.figures)]
}
