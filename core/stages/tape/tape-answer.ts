import { gapOrSpan } from '../../model/plan/gaps-and-spans'
import type { Plan } from '../../model/plan/schema'
import { measuresFromOtherSide, otherSideId } from '../../model/vehicle/mirror'
import { setSize, taped } from '../../model/vehicle/resize'
import { straightedgeMm } from '../../model/vehicle/straightedge'
import { SEALS, USUAL_GAP_MM } from '../../model/edge/cut-rules'
import { TIGHTNESS } from '../../model/vehicle/kinds'
import type { Edge, Panel } from '../../model/vehicle/schema'

/** One figure that the tape, the straightedge or the rule can give. */
export interface TapeQuestion {
  field: string
  /** What is asked, as a code of the words, and the name of the edge or feature it is about. */
  ask:
    | 'width'
    | 'height'
    | 'crown'
    | 'crown_down'
    | 'corner_radius'
    | 'edge'
    | 'recess_depth'
    | 'body_line'
    | 'raised'
    | 'nose'
    | 'wraps'
    | 'gap'
    | 'seal'
  about: string
  mm: number
  /** Length of the straightedge that a crown is taken under. */
  overMm: number | null
  assumed: boolean
  /** Answered by a word, not a figure; null: nobody looked. */
  words?: { options: readonly NonNullable<Edge['tightness']>[]; chosen: Edge['tightness'] }
}

/** A crown taken under one straightedge as it reads under another, on a round of the same radius. All mm. */
function crownUnder(crownMm: number, takenMm: number, overMm: number): number {
  if (crownMm <= 0 || takenMm <= 0 || takenMm === overMm) return crownMm
  const radius = (takenMm ** 2 / 4 + crownMm ** 2) / (2 * crownMm)
  return radius - Math.sqrt(Math.max(0, radius ** 2 - overMm ** 2 / 4))
}

/** Between two sheets, or a sheet and a seal: what lies there can be gauged. */
const GAUGED: readonly Edge['meets'][] = ['opening', 'fixed_gap', 'rubber_seal']
const isSealed = (e: Edge): boolean => SEALS.includes(e.meets)
const hasGap = (e: Edge): boolean => GAUGED.includes(e.meets) && e.spanMm === null

/** Every figure of a panel that can be asked for, in the order one takes them. */
export function questionsOf(panel: Panel, { inches = false }: { inches?: boolean } = {}): TapeQuestion[] {
  const q = (
    field: string,
    ask: TapeQuestion['ask'],
    mm: number,
    about = '',
    overMm: number | null = null,
  ): TapeQuestion => ({
    field,
    ask,
    about,
    mm,
    overMm,
    assumed: panel.assumed.includes(field),
  })
  // A crown that is only assumed is asked for under a straightedge that there is.
  const crown = (field: string, ask: 'crown' | 'crown_down', crownMm: number, takenMm: number, sideMm: number) => {
    const overMm = straightedgeMm(sideMm, { inches, takenMm: panel.assumed.includes(field) ? 0 : takenMm })
    return q(field, ask, crownUnder(crownMm, takenMm, overMm), '', overMm)
  }
  return [
    q('widthMm', 'width', panel.widthMm),
    q('heightMm', 'height', panel.heightMm),
    crown('crownMm', 'crown', panel.crownMm, panel.crownOverMm, panel.widthMm),
    ...(panel.crownDownMm === null
      ? []
      : [crown('crownDownMm', 'crown_down', panel.crownDownMm, panel.crownDownOverMm, panel.heightMm)]),
    ...(panel.cornerRadiusMm === null ? [] : [q('cornerRadiusMm', 'corner_radius', panel.cornerRadiusMm)]),
    ...panel.edges.map((e) => q(`edges.${e.id}`, 'edge', e.lengthMm, e.id)),
    ...panel.recesses.map((r) => q(`recesses.${r.id}`, 'recess_depth', r.depthMm, r.name)),
    ...panel.bodyLines.map((l) => q(`bodyLines.${l.id}`, 'body_line', l.atMm, l.name)),
    ...(panel.nose ? [q('nose', 'nose', panel.nose.radiusMm)] : []),
    ...(panel.wraps[0] ? [q('wraps', 'wraps', panel.wraps[0].radiusMm)] : []),
    ...panel.edges.filter(hasGap).map((e) => ({
      ...q(`gaps.${e.id}`, 'gap', e.gapMm ?? USUAL_GAP_MM[e.meets], e.id),
      assumed: e.gapMm === null,
    })),
    ...panel.edges.filter(isSealed).map((e) => ({
      ...q(`seals.${e.id}`, 'seal', 0, e.id),
      assumed: e.tightness === null,
      words: { options: TIGHTNESS, chosen: e.tightness },
    })),
  ]
}

/** A panel with one figure as taped. Zero and less are kept only where they mean something (a crown, a place). */
export function withAnswer(panel: Panel, field: string, mm: number, overMm: number | null = null): Panel {
  const [head = '', id = ''] = field.split('.')
  const done = (p: Panel): Panel => taped(p, field)
  switch (head) {
    case 'widthMm':
    case 'heightMm':
      return setSize(panel, head, mm)
    case 'crownMm':
      return done({
        ...panel,
        crownMm: mm,
        crownOverMm: overMm ?? (panel.crownOverMm > 0 || mm === 0 ? panel.crownOverMm : straightedgeMm(panel.widthMm)),
      })
    case 'crownDownMm':
      return done({
        ...panel,
        crownDownMm: mm,
        crownDownOverMm:
          overMm ?? (panel.crownDownOverMm > 0 || mm === 0 ? panel.crownDownOverMm : straightedgeMm(panel.heightMm)),
      })
    case 'cornerRadiusMm':
      return done({ ...panel, cornerRadiusMm: mm })
    case 'edges':
      return done({ ...panel, edges: panel.edges.map((e) => (e.id === id ? { ...e, lengthMm: mm } : e)) })
    case 'gaps':
      return done({
        ...panel,
        edges: panel.edges.map((e) => (e.id === id ? { ...e, ...gapOrSpan(mm) } : e)),
      })
    case 'recesses':
      return done({ ...panel, recesses: panel.recesses.map((r) => (r.id === id ? { ...r, depthMm: mm } : r)) })
    case 'bodyLines':
      return done({ ...panel, bodyLines: panel.bodyLines.map((l) => (l.id === id ? { ...l, atMm: mm } : l)) })
    case 'wraps':
      // One gauge for all its ends: where they differ, the panel's sheet takes each.
      return done({ ...panel, wraps: panel.wraps.map((w) => ({ ...w, radiusMm: mm })) })
    case 'nose':
      return done({ ...panel, nose: panel.nose && { ...panel.nose, radiusMm: mm } })
    default:
      return done(panel)
  }
}

const FEATURES = ['recesses', 'raised', 'holes', 'zones', 'edges'] as const
/**
 * A size of something on a panel typed: `recesses.cup.mouthWidthMm`, `raised.handle.heightMm`,
 * `edges.bottom-2.riseMm`.
 */
export function withMeasure(panel: Panel, key: string, mm: number): Panel {
  const [head, id = '', field = ''] = key.split('.')
  const list = FEATURES.find((f) => f === head)
  if (!list) return panel
  const rows = (panel[list] as readonly { id: string }[]).map((r) => (r.id === id ? { ...r, [field]: mm } : r))
  return taped({ ...panel, [list]: rows }, `${list}.${id}`)
}

/** Gaps that nobody took are not marked in the panel: they are the usual ones. */
const isUntakenGap = (panel: Panel, field: string): boolean =>
  panel.edges.some((e) => field === `gaps.${e.id}` && e.gapMm === null)

/** A figure taped; the mirrored panel takes it too while its own is still assumed and both are said to mirror. */
export function answerTape(plan: Plan, panelId: string, field: string, mm: number, overMm: number | null = null): Plan {
  const panel = plan.panels.find((p) => p.id === panelId)
  if (!panel) return plan
  const twinId = otherSideId(panelId)
  const twin = twinId === panelId || !panel.mirrored ? undefined : plan.panels.find((p) => p.id === twinId)
  // Runs of a mirrored outline keep their ids, so one answer fits both.
  const alike = twin?.mirrored && (twin.assumed.includes(field) || isUntakenGap(twin, field))
  return {
    ...plan,
    panels: plan.panels.map((p) =>
      p.id === panelId || (alike && p.id === twinId) ? withAnswer(p, field, mm, overMm) : p,
    ),
  }
}

/** All measures of the panel across taken over. */
export function sameAsOtherSide(plan: Plan, panelId: string): Plan {
  const own = plan.panels.find((p) => p.id === panelId)
  const from = plan.panels.find((p) => p.id === otherSideId(panelId) && p.id !== panelId)
  if (!own || !from) return plan
  return { ...plan, panels: plan.panels.map((p) => (p.id === panelId ? measuresFromOtherSide(own, from) : p)) }
}

/** Everything still assumed about a panel taken as it stands: somebody looked, and it is so. */
export const acceptPanel = (panel: Panel): Panel => ({ ...panel, assumed: [] })

/** How a seal sits, felt with a soft tool; the mirrored panel takes it too while nobody looked at its own. */
export function answerSeal(
  plan: Plan,
  panelId: string,
  field: string,
  tightness: NonNullable<Edge['tightness']>,
): Plan {
  const edgeId = field.slice('seals.'.length)
  const panel = plan.panels.find((p) => p.id === panelId)
  const twinId = panel?.mirrored ? otherSideId(panelId) : panelId
  const felt = (p: Panel, isAsked: boolean): Panel => ({
    ...p,
    edges: p.edges.map((e) => (e.id === edgeId && (isAsked || e.tightness === null) ? { ...e, tightness } : e)),
  })
  return {
    ...plan,
    panels: plan.panels.map((p) =>
      p.id === panelId ? felt(p, true) : p.id === twinId && p.mirrored ? felt(p, false) : p,
    ),
  }
}
