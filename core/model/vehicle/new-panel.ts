import { PANEL_FACTS } from './panel-data'
import type { Panel, Edge } from './schema'

/** What nobody has said of an edge: it is as its kind usually is, and laid by the rules. */
export const UNDECIDED = { tightness: null, opens: null, cutAs: null, leaveMm: null } as const

/** A panel of a kind with its four edges as that kind usually meets its neighbours, sizes as given. */
export function newPanel({
  id,
  name,
  kind,
  side,
  widthMm,
  heightMm,
}: Pick<Panel, 'id' | 'name' | 'kind' | 'side' | 'widthMm' | 'heightMm'>): Panel {
  const meets = PANEL_FACTS[kind].edges
  const edge = (at: Edge['at'], lengthMm: number, i: number): Edge => ({
    id: at,
    at,
    lengthMm,
    meets: meets[i] ?? 'fixed_gap',
    neighbour: null,
    riseMm: 0,
    gapMm: null,
    spanMm: null,
    cornerDeg: null,
    cornerRadiusMm: null,
    grab: 'usual',
    ...UNDECIDED,
  })
  return {
    id,
    name,
    kind,
    side,
    widthMm,
    heightMm,
    crownMm: 0,
    crownOverMm: 0,
    cornerRadiusMm: null,
    edges: [edge('top', widthMm, 0), edge('right', heightMm, 1), edge('bottom', widthMm, 2), edge('left', heightMm, 3)],
    recesses: [],
    wrap: true,
    filmId: null,
    assumed: [],
    note: '',
    crownDownMm: null,
    crownDownOverMm: 0,
    nose: null,
    wraps: [],
    bodyLines: [],
    raised: [],
    holes: [],
    zones: [],
    surface: { material: 'unknown', thicknessMm: null },
    paintNote: '',
    mirrored: true,
  }
}
