import type { CornerDecision } from '../edge/corner-plan'
import type { EdgeDecision } from '../edge/edge-plan'
import type { LogRow } from '../../model/log/schema'
import type { Panel } from '../../model/vehicle/schema'
import { isDone } from './verdict'
import type { Defect } from './defects'
import type { HeatPoint } from './heat-points'

export const CHECK_WHY = [
  'recess',
  'over_ten_percent',
  'underside',
  'turned_in_corner',
  'convex',
  'concave',
  'mirror',
  'pillar',
  'seam',
  'not_read',
  'redone',
  'had_defect',
] as const
export type CheckWhy = (typeof CHECK_WHY)[number]

/** One place to look at all round and once more a day later, with why. */
export interface CheckPlace {
  id: string
  panelId: string
  /** Where on the panel, in a word; empty: the panel. */
  name: string
  why: readonly CheckWhy[]
  check: CheckedAs | null
  recheck: CheckedAs | null
}
export interface CheckedAs {
  result: 'holds' | 'pressed' | 'redo'
  at: string
  by: string
}

/** Stretch past this is looked at again after a day. Common practice, no source. */
const LOOK_OVER = 0.1

interface Context {
  panels: readonly Panel[]
  edges: readonly EdgeDecision[]
  corners: readonly CornerDecision[]
  points: readonly HeatPoint[]
  stretch: ReadonlyMap<string, number>
  defects: readonly Defect[]
  seams: readonly { id: string; panelId: string }[]
  ledger: readonly LogRow[]
}

/** Places of this vehicle that may lift, by its own risks; each once, with all that speaks for looking at it. */
export function checkPlaces(c: Context): CheckPlace[] {
  const found = new Map<string, { panelId: string; name: string; why: Set<CheckWhy> }>()
  const add = (panelId: string, key: string, name: string, why: CheckWhy) => {
    const id = key ? `${panelId}/${key}` : panelId
    const place = found.get(id) ?? { panelId, name, why: new Set<CheckWhy>() }
    found.set(id, { ...place, why: place.why.add(why) })
  }
  for (const p of c.panels) {
    for (const r of p.recesses) add(p.id, r.id, r.name, 'recess')
    if ((c.stretch.get(p.id) ?? 0) > LOOK_OVER) add(p.id, 'area', 'most stretched place', 'over_ten_percent')
    if (p.kind === 'mirror' || p.kind === 'pillar') add(p.id, '', '', p.kind)
    for (const z of p.zones) add(p.id, z.id, z.name, z.kind)
  }
  for (const e of c.edges) if (e.meets === 'bumper_underside') add(e.panelId, e.edgeId, 'underside', 'underside')
  for (const k of c.corners)
    if (k.method !== 'shrunk') add(k.panelId, 'corners', 'turned-in corners', 'turned_in_corner')
  for (const s of c.seams) add(s.panelId, 'seam', 'seam', 'seam')
  for (const p of c.points) {
    const read = p.readings.some((r) => isDone(r.verdict))
    if (!read) add(p.panelId, 'unread', 'places not read', 'not_read')
  }
  for (const d of c.defects)
    add(
      d.panelId,
      'mended',
      d.closed?.outcome === 'redone' ? 'laid again' : 'mended place',
      d.closed?.outcome === 'redone' ? 'redone' : 'had_defect',
    )
  const [check, recheck] = [checkedIn(c.ledger, 'check'), checkedIn(c.ledger, 'recheck')]
  return [...found].map(([id, { panelId, name, why }]) => ({
    id,
    panelId,
    name,
    why: [...why],
    check: check.get(id) ?? null,
    recheck: recheck.get(id) ?? null,
  }))
}

/** The last look at each place. */
function checkedIn(ledger: readonly LogRow[], round: 'check' | 'recheck'): Map<string, CheckedAs> {
  const out = new Map<string, CheckedAs>()
  for (const { payload, at, by } of ledger)
    if (payload.kind === 'place_checked' && payload.round === round)
      out.set(payload.placeId, { result: payload.result, at, by })
  return out
}
