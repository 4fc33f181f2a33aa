import { checkPlaces, type CheckPlace } from '../engines/heat/check-places'
import { defectsOf } from '../engines/heat/defects'
import type { LogRow } from '../model/log/schema'
import type { Plan } from '../model/plan/schema'
import type { Reckoning } from './reckon'

/** Places of a job that are looked at all round, and once more a day later. */
export const placesOf = (
  plan: Plan,
  { edges, points, stretch, laid }: Pick<Reckoning, 'edges' | 'points' | 'stretch' | 'laid'>,
  ledger: readonly LogRow[],
): CheckPlace[] =>
  checkPlaces({
    panels: plan.panels.filter((p) => p.wrap),
    edges: edges.edges,
    corners: edges.corners,
    points,
    stretch,
    defects: defectsOf(ledger, points),
    seams: laid.filter((p) => p.seamMm > 0).map((p) => ({ id: p.id, panelId: p.covers?.[0] ?? p.panelId })),
    ledger,
  })
