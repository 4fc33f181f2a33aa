import { heatKey } from '../../model/catalogue/heat-key'
import type { SolvedHeat } from '../../model/catalogue/solved-heat'
import type { SolutionTables } from '../../model/catalogue/solution-tables'
import type { Lack } from '../../model/catalogue/solutions'
import type { FilmSheet } from '../../model/film/schema'
import type { ShopSettings } from '../../model/shop/shop'
import type { Panel } from '../../model/vehicle/schema'
import type { Piece } from '../pieces/piece'
import type { HeatPoint } from './heat-points'

/** How the gun goes along the edges of each panel, as far as that is solved, and what of it is to be solved still. */
export interface GunSweeps {
  byPanel: ReadonlyMap<string, SolvedHeat>
  /** Panels whose sweep is being solved: the usual pace stands in. */
  waiting: ReadonlySet<string>
  wanted: number
  lacks: readonly Lack[]
}

/** Of every panel with an edge to be read, in its film, by the shop's measured guns; one for all that share it. */
export function gunSweeps(c: {
  points: readonly HeatPoint[]
  pieces: readonly Piece[]
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  guns: ShopSettings['guns']
  solutions: SolutionTables | undefined
}): GunSweeps {
  const filmOf = new Map(c.pieces.map((p) => [p.id, c.films.get(p.filmId)]))
  const byPanel = new Map<string, SolvedHeat>()
  const waiting = new Set<string>()
  const keys = new Set<string>()
  const lacks = new Map<string, Lack>()
  for (const { kind, panelId, pieceId } of c.points) {
    const [panel, film] = [c.panels.get(panelId), filmOf.get(pieceId)]
    if (kind !== 'edge' || !panel || !film || byPanel.has(panelId)) continue
    const key = heatKey(panel.surface, film, c.guns)
    if (key === null) continue
    keys.add(key)
    const solved = c.solutions?.heat[key]
    if (solved) byPanel.set(panelId, solved)
    // What cannot be solved is not asked for again: the usual pace is final then.
    else if (c.solutions && !c.solutions.fault[key]) {
      waiting.add(panelId)
      if (!lacks.has(key)) lacks.set(key, { kind: 'heat', key, of: panelId })
    }
  }
  return { byPanel, waiting, wanted: keys.size, lacks: [...lacks.values()] }
}
