import type { Point } from '../../kit/plane'
import { figure, input } from '../../model/figure/figure'
import { GRIP_MM } from '../../model/edge/edge-data'
import type { Method } from '../../model/method/schema'
import { measureStanding } from '../../model/vehicle/measure-standing'
import type { Panel } from '../../model/vehicle/schema'
import type { Piece } from './piece'
import { smallPiece, type OnRoll } from './small-piece'

type Raised = Panel['raised'][number]

/** So far a small piece shows beyond the object that it lies behind. Assumed. [mm] */
export const BEHIND_MM = 20
/** Lap of inlay and overlay. Common practice, no source. [mm] */
export const BEHIND_LAP_MM = 3
/** Handles and aerials are round at their ends; all else is cut with a blade's smallest turn. Assumed. [mm] */
const TURN_MM = 6
const ARC_STEPS = 16

/** Objects that stay on and behind which film lies as a small piece of its own. */
export const behindObjects = (panel: Panel, method: Pick<Method, 'hardware'>): Raised[] =>
  panel.raised.filter((r) => r.behind !== 'tucked' && (!r.removable || method.hardware === 'wrap_round'))

/** The object's foot, `beyond` it all round: from the top left of that outline, clockwise. mm */
export function footOutline(object: Pick<Raised, 'kind' | 'widthMm' | 'heightMm'>, beyond: number): Point[] {
  const [w, h] = [object.widthMm + 2 * beyond, object.heightMm + 2 * beyond]
  const own =
    object.kind === 'handle' || object.kind === 'aerial' ? Math.min(object.widthMm, object.heightMm) / 2 : TURN_MM
  const r = Math.min(w / 2, h / 2, own + beyond)
  const corners: [x: number, y: number, fromDeg: number][] = [
    [r, r, 180],
    [w - r, r, 270],
    [w - r, h - r, 0],
    [r, h - r, 90],
  ]
  return corners.flatMap(([x, y, from]) =>
    Array.from({ length: ARC_STEPS + 1 }, (_, i) => {
      const turn = ((from + (90 * i) / ARC_STEPS) * Math.PI) / 180
      return { x: x + r * Math.cos(turn), y: y + r * Math.sin(turn) }
    }),
  )
}

const idOf = (panel: Panel, object: Raised): string => `${panel.id}.b-${object.id}`

/** The small piece behind an object: its foot, what shows beyond it, and a grip to lay it by. */
export function behindPiece(panel: Panel, object: Raised, how: OnRoll & { free: boolean }): Piece {
  const id = idOf(panel, object)
  const size = (name: 'width' | 'height', field: 'widthMm' | 'heightMm') =>
    figure({
      id: `piece/${id}/${name}`,
      value: object[field] + 2 * (BEHIND_MM + GRIP_MM),
      unit: 'mm',
      formula: '{object} + 2 × ({beyond} + {grip})',
      inputs: [
        input(
          'object',
          object[field],
          'mm',
          measureStanding(panel, `raised.${object.id}`),
          `panels/${panel.id}/raised/${object.id}/${field}`,
        ),
        input('beyond', BEHIND_MM, 'mm', 'assumed', 'data/inlay'),
        input('grip', GRIP_MM, 'mm', 'assumed', 'data/inlay'),
      ],
    })
  const piece = smallPiece(panel, how, {
    id,
    name: `${panel.name}, ${object.behind === 'overlay' ? 'overlay' : 'inlay'} ${object.name}`,
    width: size('width', 'widthMm'),
    height: size('height', 'heightMm'),
    seamMm: perimeterMm(footOutline(object, BEHIND_MM - BEHIND_LAP_MM)),
    outline: how.free ? footOutline(object, BEHIND_MM + GRIP_MM) : null,
  })
  return object.behind === 'overlay' ? { ...piece, over: true } : piece
}

const perimeterMm = (ring: readonly Point[]): number =>
  ring.reduce((sum, p, i) => {
    const q = ring[(i + 1) % ring.length] ?? p
    return sum + Math.hypot(q.x - p.x, q.y - p.y)
  }, 0)

/** What is cut and laid by, true to size; all rings about one middle. mm */
export interface InlayTemplate {
  pieceId: string
  name: string
  laid: 'inlay' | 'overlay'
  /** Of the small piece, its own size. */
  widthMm: number
  heightMm: number
  /** The object's foot; the small piece as it lies; the edge of the panel's film. */
  rings: { id: 'object' | 'piece' | 'main'; points: Point[] }[]
}

/** A template for each small piece behind an object: tape it to the panel round the object, cut both films by it. */
export function inlayTemplates(
  panels: readonly Panel[],
  method: Pick<Method, 'hardware'>,
  pieces: readonly Piece[],
): InlayTemplate[] {
  return panels.flatMap((panel) =>
    behindObjects(panel, method).flatMap((object): InlayTemplate[] => {
      const piece = pieces.find((p) => p.id === idOf(panel, object))
      if (!piece) return []
      const ring = (beyond: number): Point[] =>
        footOutline(object, beyond).map((p) => ({ x: p.x + BEHIND_MM - beyond, y: p.y + BEHIND_MM - beyond }))
      return [
        {
          pieceId: piece.id,
          name: piece.name,
          laid: object.behind === 'overlay' ? 'overlay' : 'inlay',
          widthMm: object.widthMm + 2 * BEHIND_MM,
          heightMm: object.heightMm + 2 * BEHIND_MM,
          rings: [
            { id: 'object', points: ring(0) },
            { id: 'piece', points: ring(BEHIND_MM) },
            { id: 'main', points: ring(BEHIND_MM - BEHIND_LAP_MM) },
          ],
        },
      ]
    }),
  )
}
