import type { ShopSettings } from '../../model/shop/shop'
import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import type { CutSide } from '../../model/edge/cut-rules'
import type { Edge } from '../../model/vehicle/schema'
import { aroundOf } from '../paint/contrast'
import { asLaid } from '../pieces/drop-pieces'
import { piecesOf } from '../pieces/pieces'
import { edgePlan, type EdgeDecision } from './edge-plan'

type Rules = Pick<ShopSettings, 'winter' | 'edgeLeave' | 'edgeCut'>

/** An edge that other rules of the shop decide otherwise. mm. */
export interface EdgeMove {
  panel: string
  at: Edge['at']
  meets: Edge['meets']
  from: { cut: CutSide; leaveMm: number }
  to: { cut: CutSide; leaveMm: number }
}

/** Which edges of a job other rules move, in the order of its panels; an edge chosen by hand stays and is not there. */
export function edgeMoves(plan: Plan, before: Rules, after: Rules): EdgeMove[] {
  const names = new Map(plan.panels.map((p) => [p.id, p.name]))
  const was = new Map(decisions(plan, before).map((e) => [keyOf(e), e]))
  return decisions(plan, after).flatMap((e): EdgeMove[] => {
    const old = was.get(keyOf(e))
    if (!old || (old.cut === e.cut && old.leaveMm === e.leaveMm)) return []
    return [
      {
        panel: names.get(e.panelId) ?? e.panelId,
        at: e.at,
        meets: e.meets,
        from: { cut: old.cut, leaveMm: old.leaveMm },
        to: { cut: e.cut, leaveMm: e.leaveMm },
      },
    ]
  })
}

const keyOf = (e: EdgeDecision): string => `${e.pieceId}/${e.panelId}/${e.edgeId}`

function decisions(plan: Plan, rules: Rules): EdgeDecision[] {
  const films = new Map<string, FilmSheet>(plan.film.sheets.map((f) => [f.id, f]))
  const around = aroundOf(plan, rules)
  const pieces = plan.panels.flatMap((panel) => {
    const film = films.get(panel.filmId ?? plan.film.mainId ?? '')
    return panel.wrap && film ? piecesOf(plan, panel, film, around) : []
  })
  // A printed side is decided as it is laid: drop by drop.
  const laid = asLaid(plan, films, pieces)
  const panels = new Map(plan.panels.map((p) => [p.id, p]))
  return edgePlan({ method: plan.method, panels, films, pieces: laid, around }).flatMap((p) => p.edges)
}
