import { filmStanding } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import { GRIP_MM } from '../../model/edge/edge-data'
import { ON_LINE_MM, SEAM_GRIP_MM } from '../../model/edge/cut-rules'
import { edgeCut, type EdgeSetting } from '../../model/edge/edge-leave'
import type { BesidePanels, PieceChoice } from '../../model/plan/schema'
import { figure, input, type Figure } from '../../model/figure/figure'
import type { Edge, Panel } from '../../model/vehicle/schema'
import type { Point } from '../../kit/plane'
import { measureStanding } from '../../model/vehicle/measure-standing'

export const edgesAt = (panel: Panel, at: Edge['at']): Edge[] => panel.edges.filter((e) => e.at === at)

/** Film beyond the panel at one side, mm: the bleed, or the deepest wrap-under there and a grip, whichever is more. */
export function marginMm(
  { panel, film, setting, bleedMm }: Pick<CutTask, 'panel' | 'film' | 'setting' | 'bleedMm'>,
  at: Edge['at'],
): { mm: number; wrapMm: number } {
  const wrapMm = Math.max(0, ...edgesAt(panel, at).map((e) => edgeCut(e, panel, film, setting).leaveMm))
  return { mm: Math.max(bleedMm, wrapMm + GRIP_MM), wrapMm }
}

/**
 * Which end of a part lies over its neighbour at a seam: lower parts are laid before upper ones, rear before front, so
 * that the later one laps over. Sides are looked at from outside: a left side has its front on the left.
 */
export const firstLiesOver = (panel: Pick<Panel, 'side'>, along: PieceChoice['along']): boolean =>
  along === 'height' || panel.side === 'left'

/** How far two parts lap at a seam: less on a body line, more where two long ones meet elsewhere. mm */
export function lapMm({ panel, choice, film }: Pick<CutTask, 'panel' | 'choice' | 'film'>, seam: number): number {
  const atMm = choice.seamsAtMm[seam]
  const axis = choice.along === 'width' ? 'height' : 'width'
  const onLine = panel.bodyLines.some((l) => l.along === axis && Math.abs(l.atMm - (atMm ?? -1e6)) <= ON_LINE_MM)
  return onLine ? film.seamLapMm : film.longLapMm
}

/** Film past a seam: a hand's grip, and on the part that lies over also the lap. */
function seamMarginMm(task: CutTask, index: number, end: number): number {
  const over = firstLiesOver(task.panel, task.choice.along) === (end === 1)
  return SEAM_GRIP_MM + (over ? lapMm(task, end === 0 ? index - 1 : index) : 0)
}

export interface Axis {
  ends: [Edge['at'], Edge['at']]
  field: 'widthMm' | 'heightMm'
  name: 'width' | 'height'
}
export const WIDTH: Axis = { ends: ['left', 'right'], field: 'widthMm', name: 'width' }
export const HEIGHT: Axis = { ends: ['top', 'bottom'], field: 'heightMm', name: 'height' }

/** What the cut sizes of one panel hang on. */
export interface CutTask {
  plan: BesidePanels
  panel: Panel
  film: FilmSheet
  choice: PieceChoice
  bleedMm: number
  bleedAt: string
  setting: EdgeSetting
  /** Lies one way on the roll. */
  fixed: boolean
  /** The panel's width runs along the roll. */
  widthAlong: boolean
  /** Share by which film shrinks once it is off the roll, where the method lets it. */
  relax: number
  /** Flat outlines that were solved for just these pieces. */
  solved: PieceChoice['flat']
}

export interface CutSize {
  shown: Figure
  /** Size on the panel [mm], and where it begins there. */
  own: number
  from: number
  margins: [number, number]
  /** Cut size for a millimetre of panel. */
  stretch: number
}

/** The cut size of one part along one axis: its own size, margins at both ends, what relaxes and what is pulled. */
export function cutSize(task: CutTask, id: string, index: number, axis: Axis, flat: readonly Point[] | null): CutSize {
  const { panel, choice, relax } = task
  const split = choice.parts > 1 && choice.along === axis.name
  const isInner = (end: number): boolean => split && (end === 0 ? index > 0 : index < choice.parts - 1)
  const margins = axis.ends.map((at, end) =>
    isInner(end) ? seamMarginMm(task, index, end) : marginMm(task, at).mm,
  ) as [number, number]
  const residue = relax > 0 && (axis.name === 'width') === task.widthAlong ? relax : 0
  const seams = split && choice.seamsAtMm.length === choice.parts - 1 ? choice.seamsAtMm : null
  const seamBefore = index > 0 ? (seams?.[index - 1] ?? 0) : 0
  const flatMm = flat ? Math.max(...flat.map((p) => (axis.name === 'width' ? p.x : p.y))) : null
  const taped = seams
    ? Math.max(0, (seams[index] ?? panel[axis.field]) - seamBefore)
    : panel[axis.field] / (split ? choice.parts : 1)
  const own = flatMm ?? taped
  const stretch = (1 + residue) / (1 + choice.preStretch)
  const inner = axis.ends.map((_, end) => isInner(end)) as [boolean, boolean]
  const shown = cutSizeFigure(task, id, axis, { own, flatMm, margins, inner, residue, split, bySeams: seams !== null })
  const from = !split ? 0 : seams ? seamBefore : own * index
  return { shown, own, from, margins, stretch }
}

function cutSizeFigure(
  { panel, choice, film, bleedMm, bleedAt }: CutTask,
  id: string,
  axis: Axis,
  size: {
    own: number
    flatMm: number | null
    margins: [number, number]
    /** Ends that are seams. */
    inner: [boolean, boolean]
    residue: number
    split: boolean
    bySeams: boolean
  },
): Figure {
  const { own, flatMm, margins, inner, residue, split, bySeams } = size
  const pre = choice.preStretch
  const base = flatMm !== null ? '{flat}' : bySeams ? '{part}' : `{${axis.name}}${split ? ' ÷ {parts}' : ''}`
  const grown = `${residue > 0 ? ' × (1 + {residue})' : ''}${pre > 0 ? ' ÷ (1 + {pre})' : ''}`
  const at = (part: string) => `pieces/${panel.id}/${part}`
  return figure({
    id: `piece/${id}/${axis.name}`,
    value: ((own + margins[0] + margins[1]) * (1 + residue)) / (1 + pre),
    unit: 'mm',
    formula: `(${base} + {${axis.ends[0]}} + {${axis.ends[1]}})${grown}`,
    inputs: [
      input(axis.name, panel[axis.field], 'mm', measureStanding(panel, axis.field), `panels/${panel.id}/${axis.field}`),
      ...(flatMm !== null ? [input('flat', flatMm, 'mm', 'common_practice', at('flat'))] : []),
      ...(bySeams && flatMm === null ? [input('part', own, 'mm', 'measured', at('seamsAtMm'))] : []),
      ...(split && !bySeams && flatMm === null ? [input('parts', choice.parts, 'count', 'measured', at('parts'))] : []),
      ...axis.ends.map((end, i) =>
        input(
          end,
          margins[i] ?? 0,
          'mm',
          'common_practice',
          inner[i] ? 'data/seam' : margins[i] === bleedMm ? bleedAt : `panels/${panel.id}/edges`,
        ),
      ),
      ...(residue > 0
        ? [input('residue', residue, 'fraction', filmStanding(film, 'rollResidue'), `film/${film.id}/rollResidue`)]
        : []),
      ...(pre > 0 ? [input('pre', pre, 'fraction', 'measured', at('preStretch'))] : []),
    ],
  })
}
