import type { FilmSheet } from '../../model/film/schema'
import type { EdgeSetting } from '../../model/edge/edge-leave'
import { GRIP_MM, INLAY_TURN_MM } from '../../model/edge/edge-data'
import { choiceFor } from '../../model/plan/piece-choice'
import type { BesidePanels } from '../../model/plan/schema'
import { figure, input } from '../../model/figure/figure'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import { recessProfileMm } from '../stretch/closed-forms'
import type { Edge, Panel, Recess } from '../../model/vehicle/schema'
import type { Point } from '../../kit/plane'
import { flatMark } from '../stretch/flat-outline'
import { measureStanding } from '../../model/vehicle/measure-standing'
import { behindObjects, behindPiece } from './behind'
import { NO_OUTLINES, type Margins, type Piece, type PieceOutlines } from './piece'
import { smallPiece, type OnRoll } from './small-piece'
import { shinglePieces } from './shingle-pieces'
import { cutSize, HEIGHT, WIDTH, type CutTask } from './cut-size'

export type { Piece } from './piece'

/** What the cut sizes hang on beside plan, panel and film. */
export type Around = Omit<EdgeSetting, 'method'>

/**
 * The pieces of one panel in one film. Bleed, wrap-under, seams and the roll's shrink are put in here and nowhere
 * else. Without `outlines` they are cut as their rectangles.
 */
export function piecesOf(
  plan: BesidePanels,
  panel: Panel,
  film: FilmSheet,
  around: Around,
  outlines: PieceOutlines = NO_OUTLINES,
): Piece[] {
  const sheets = shinglePieces(plan, panel, film)
  if (sheets) return sheets
  const task = cutTask(plan, panel, film, around)
  const { choice, solved } = task
  const free = plan.layout.cutting === 'free'
  const main = Array.from({ length: choice.parts }, (_, index) => mainPiece(task, index, outlines))
  const inlays = panel.recesses.flatMap((r, i) => {
    if (r.way !== 'inlay') return []
    const { fixed, widthAlong } = task
    const flat = solved?.inlays.find((o) => o.recess === r.id)?.outline.map(([x, y]) => ({ x, y })) ?? null
    const outline = free && flat ? outlines.flat(flat, INLAY_MARGINS, { x: 1, y: 1 }) : null
    return [inlayPiece(panel, r, i, { film, fixed, widthAlong, flat, outline })]
  })
  const behind = behindObjects(panel, plan.method).map((object) => behindPiece(panel, object, { ...task, free }))
  return [...main, ...inlays, ...behind]
}

function cutTask(plan: BesidePanels, panel: Panel, film: FilmSheet, around: Around): CutTask {
  const choice = choiceFor(plan, panel, film)
  const facts = PANEL_FACTS[panel.kind]
  // Directional film, or a school that lays all film one way: sides and bumpers the same way up the roll.
  const isOneDirection = plan.method.direction === 'always' || film.directional
  const isSolved =
    choice.flat && choice.flat.parts.length === choice.parts && choice.flat.mark === flatMark(panel, choice)
  return {
    plan,
    panel,
    film,
    choice,
    bleedMm: choice.bleedMm ?? plan.method.bleedMm,
    bleedAt: choice.bleedMm === null ? 'method/bleedMm' : `pieces/${panel.id}/bleedMm`,
    setting: { method: plan.method, ...around },
    fixed: (isOneDirection && facts.sameWayUp) || plan.method.direction === 'always' || facts.rollAlongWidth === true,
    widthAlong: facts.sameWayUp || facts.rollAlongWidth === true,
    relax: plan.method.tension === 'relax_first' ? film.rollResidue : 0,
    solved: isSolved ? choice.flat : null,
  }
}

/** One part of a panel, cut as large as its edges, seams and stretch ask. */
function mainPiece(task: CutTask, index: number, outlines: PieceOutlines): Piece {
  const { plan, panel, film, choice, widthAlong } = task
  const facts = PANEL_FACTS[panel.kind]
  const flat = task.solved?.parts[index]?.map(([x, y]) => ({ x, y })) ?? null
  const id = choice.parts === 1 ? panel.id : `${panel.id}.${index + 1}`
  const [across, down] = [cutSize(task, id, index, WIDTH, flat), cutSize(task, id, index, HEIGHT, flat)]
  const [width, height] = [across.shown, down.shown]
  const [w, h] = [Number(width.value), Number(height.value)]
  const margins = { left: across.margins[0], right: across.margins[1], top: down.margins[0], bottom: down.margins[1] }
  const stretch = { x: across.stretch, y: down.stretch }
  const outline = () =>
    flat
      ? outlines.flat(flat, margins, stretch)
      : outlines.measured(
          panel,
          { x: across.from, y: down.from, width: across.own, height: down.own },
          margins,
          stretch,
        )
  return {
    id,
    panelId: panel.id,
    part: index + 1,
    parts: choice.parts,
    along: choice.along,
    filmId: film.id,
    name: choice.parts === 1 ? panel.name : `${panel.name} ${index + 1}/${choice.parts}`,
    cutWidthMm: w,
    cutHeightMm: h,
    acrossMm: widthAlong ? h : w,
    alongMm: widthAlong ? w : h,
    top: widthAlong ? 'across' : 'along',
    turn: task.fixed ? 'fixed' : 'quarter',
    upsideDown: !(plan.method.direction === 'always' || (film.directional && facts.sameWayUp)),
    seamMm: index === 0 ? 0 : choice.along === 'height' ? panel.widthMm : panel.heightMm,
    figures: { width, height },
    outline: plan.layout.cutting === 'free' ? outline() : null,
  }
}

/** Film of an inlay beyond its walls, all round [mm]. */
const INLAY_BEYOND_MM = INLAY_TURN_MM + GRIP_MM
const INLAY_MARGINS: Margins = {
  left: INLAY_BEYOND_MM,
  top: INLAY_BEYOND_MM,
  right: INLAY_BEYOND_MM,
  bottom: INLAY_BEYOND_MM,
}

/**
 * A recess that is inlaid takes a small piece of its own: its floor and walls, turned round the corner, and a grip to
 * lay it by.
 */
function inlayPiece(
  panel: Panel,
  recess: Recess,
  index: number,
  how: OnRoll & { flat: Point[] | null; outline: Point[] | null },
): Piece {
  const { flat, outline } = how
  const id = `${panel.id}.i${index + 1}`
  const at = (f: string) => `panels/${panel.id}/recesses/${recess.id}/${f}`
  const standing = (f: string) => measureStanding(panel, `recesses.${recess.id}.${f}`)
  const size = (name: 'width' | 'height', field: 'mouthWidthMm' | 'mouthHeightMm') => {
    const own = flat
      ? Math.max(...flat.map((p) => (name === 'width' ? p.x : p.y)))
      : recessProfileMm(recess[field], recess.depthMm, recess.wallDeg)
    return figure({
      id: `piece/${id}/${name}`,
      value: own + 2 * INLAY_BEYOND_MM,
      unit: 'mm',
      formula: flat ? '{flat} + 2 × ({turn} + {grip})' : '{profile} + 2 × ({turn} + {grip})',
      inputs: [
        flat
          ? input('flat', own, 'mm', 'common_practice', `pieces/${panel.id}/flat`)
          : input('profile', own, 'mm', standing(field), at(field)),
        input('turn', INLAY_TURN_MM, 'mm', 'common_practice', 'data/inlay'),
        input('grip', GRIP_MM, 'mm', 'assumed', 'data/inlay'),
      ],
    })
  }
  return smallPiece(panel, how, {
    id,
    name: `${panel.name}, inlay ${recess.name}`,
    width: size('width', 'mouthWidthMm'),
    height: size('height', 'mouthHeightMm'),
    seamMm: 2 * (recess.mouthWidthMm + recess.mouthHeightMm),
    outline,
  })
}

/** The share of an edge of a panel that lies on a piece [–]: inner parts of a divided panel do not reach the ends. */
export function edgeShare(piece: Piece, panelId: string, at: Edge['at']): number {
  if (piece.shares) return piece.shares[panelId]?.[at] ?? 0
  return reaches(piece, at) ? 1 / sharing(piece, at) : 0
}

/** Whether a piece reaches an edge of its panel: inner parts of a divided panel do not reach the ends. */
function reaches(piece: Piece, at: Edge['at']): boolean {
  if (piece.inlay) return false
  if (piece.reach) return piece.reach[at]
  const [first, last] = piece.along === 'width' ? ['left', 'right'] : ['top', 'bottom']
  if (at === first) return piece.part === 1
  return at === last ? piece.part === piece.parts : true
}

/** How many pieces share a side of their panel that this one reaches. */
function sharing(piece: Piece, at: Edge['at']): number {
  const level = at === 'top' || at === 'bottom'
  if (piece.reach) return level ? piece.reach.columns : piece.reach.rows
  return level === (piece.along === 'width') ? piece.parts : 1
}
