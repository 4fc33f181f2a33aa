import { CHROME_CLASS, isFormed } from '../film/film-data'
import type { FilmSheet } from '../film/schema'
import type { Method } from '../method/schema'
import { CONTRAST_WRAP_MM } from '../vehicle/paint-data'
import { WIDEST_GAP_MM } from '../vehicle/kinds'
import type { Edge, Panel } from '../vehicle/schema'
import {
  CUT_RULES,
  FRONT_DEEPER_MM,
  NARROW_GAP_MM,
  SEAL_TUCK,
  USUAL_GAP_MM,
  WINTER_DEEPER_MM,
  type CutCase,
  type CutRule,
  type CutSide,
  type FilmClass,
  type GapClass,
} from './cut-rules'
import { EDGE_RULES } from './edge-data'

/** What of a job every edge of it hangs on. */
export interface EdgeSetting {
  method: Pick<Method, 'wheelArch' | 'seals' | 'plainEdges' | 'coverage'>
  strongContrast: boolean
  /** The shop's winter setting. */
  winter: boolean
  /** Where the shop has figures or cut sides of its own. */
  own?: { leave: Partial<Record<Edge['meets'], number>>; cut: Readonly<Record<string, CutSide>> }
}

/** Why an edge is as it is: the row of the table that decided, and what changed it. */
export type EdgeWhy =
  | CutRule['id']
  | (typeof SEAL_TUCK)[number]['code']
  | 'own_choice'
  | 'shops_own'
  | 'often_grabbed'
  | 'seldom_grabbed'
  | 'front_deeper'
  | 'winter_deeper'
  | 'strong_contrast'
  | 'gap_assumed'
  | 'stiff_held'
  | 'sealed_below'
  | 'layers_heat_all'

/** Where one edge is cut and how much film is left there, mm. */
export interface EdgeCut {
  gapMm: number
  cut: CutSide
  bladeDeg: number
  leaveMm: number
  tuckMm: number
  /** It goes under a seal. */
  sealed: boolean
  why: EdgeWhy[]
}

export const filmClass = (film: Pick<FilmSheet, 'kind'>): FilmClass =>
  CHROME_CLASS.includes(film.kind) ? 'mirror' : isFormed(film.kind) ? 'formable' : 'stiff'
export const gapClass = (gapMm: number): GapClass =>
  gapMm <= NARROW_GAP_MM ? 'narrow' : gapMm <= WIDEST_GAP_MM ? 'open' : 'span'

/** The rows of the table that hold for a case: always exactly one. */
export const rulesFor = (c: CutCase): CutRule[] =>
  CUT_RULES.filter((r) =>
    (Object.keys(c) as (keyof CutCase)[]).every((k) => (r[k] as readonly string[] | undefined)?.includes(c[k]) ?? true),
  )

/** Edges that drive into wind and weather: a bonnet's and a bumper's front. */
export const facesWind = (panel: Pick<Panel, 'kind'>, edge: Pick<Edge, 'at'>): boolean =>
  edge.at === 'top' && (panel.kind === 'bonnet' || panel.kind === 'front_bumper')

/** An edge by the decision table, or as somebody chose it. */
export function edgeCut(
  edge: Edge,
  panel: Pick<Panel, 'kind'>,
  film: Pick<FilmSheet, 'kind'>,
  { method, strongContrast, winter, own }: EdgeSetting,
): EdgeCut {
  const gapMm = edge.spanMm ?? edge.gapMm ?? USUAL_GAP_MM[edge.meets]
  const [rule] = rulesFor({
    meets: edge.meets,
    gap: gapClass(gapMm),
    film: filmClass(film),
    arch: method.wheelArch,
    seals: method.seals,
    wish: method.coverage,
    opens: edge.opens ?? 'none',
    seal: edge.tightness === 'brittle' ? 'brittle' : 'sound',
  })
  const shops = rule ? own?.cut[rule.id] : undefined
  const cut = edge.cutAs ?? shops ?? rule?.cut ?? 'none'
  const why: EdgeWhy[] = [edge.cutAs === null ? (rule?.id ?? '') : 'own_choice']
  if (edge.cutAs === null && (shops !== undefined || own?.leave[edge.meets] !== undefined)) why.push('shops_own')
  if (edge.gapMm === null && edge.spanMm === null) why.push('gap_assumed')
  const seal = cut === 'seal_middle' ? sealOf(edge, gapMm) : undefined
  if (seal) why.push(seal.code)
  const by = leaveBy(edge, panel, {
    cut,
    tuckMm: seal?.tuckMm ?? null,
    strongContrast,
    winter,
    usualMm: own?.leave[edge.meets] ?? EDGE_RULES[edge.meets].wrapUnderMm,
  })
  return {
    gapMm,
    cut,
    bladeDeg: rule?.bladeDeg ?? 45,
    leaveMm: edge.leaveMm ?? by.mm,
    tuckMm: Math.min(seal?.tuckMm ?? Infinity, edge.leaveMm ?? by.mm),
    sealed: seal !== undefined,
    why: [...why, ...(edge.leaveMm === null ? by.why : edge.cutAs === null ? (['own_choice'] as const) : [])],
  }
}

/** A seal as somebody found it, else by its width; glass whose seal nobody measured is taken for a normal one. */
const sealOf = (edge: Edge, gapMm: number) =>
  SEAL_TUCK.find((s) =>
    edge.tightness !== null
      ? s.fits === edge.tightness
      : gapClass(gapMm) === 'span'
        ? s.fits === 'normal'
        : gapMm <= s.upToGapMm,
  )

function leaveBy(
  edge: Edge,
  panel: Pick<Panel, 'kind'>,
  c: { cut: CutSide; tuckMm: number | null; strongContrast: boolean; winter: boolean; usualMm: number },
): { mm: number; why: EdgeWhy[] } {
  const base = EDGE_RULES[edge.meets]
  if (c.cut === 'flush' || c.cut === 'none' || (c.usualMm === 0 && edge.cutAs === null)) return { mm: 0, why: [] }
  const why: EdgeWhy[] = []
  const turned = c.cut === 'own_underside'
  const often = turned && edge.grab === 'high' && base.toMm > c.usualMm
  const seldom = turned && edge.grab === 'low' && base.fromMm < c.usualMm
  if (often) why.push('often_grabbed')
  if (seldom) why.push('seldom_grabbed')
  const usual = c.tuckMm ?? (often ? base.toMm : seldom ? base.fromMm : c.usualMm)
  const front = turned && base.under && facesWind(panel, edge)
  if (front) why.push('front_deeper', ...(c.winter ? (['winter_deeper'] as const) : []))
  const windMm = front ? Math.max(usual, c.usualMm + FRONT_DEEPER_MM) + (c.winter ? WINTER_DEEPER_MM : 0) : usual
  // Old paint shows at the rim of what is turned in; under a seal nothing does.
  const showing = c.strongContrast && c.tuckMm === null ? CONTRAST_WRAP_MM : 0
  if (showing > 0) why.push('strong_contrast')
  return { mm: windMm + showing, why }
}
