import type { Point } from '@/core/kit/plane'
import { outlineOf } from '@/core/model/vehicle/outline'
import type { Panel } from '@/core/model/vehicle/schema'
import type { TapeQuestion } from '@/core/stages/tape/tape-answer'

/** A measure as it is drawn: a line with its figure, which can be pressed and typed. */
export interface DimensionMark {
  question: TapeQuestion
  from: Point
  to: Point
  /** Where the figure stands, and how it is turned. */
  at: Point
  turnDeg: number
  /** Short lines from the panel to the dimension. */
  leads: [Point, Point][]
}
/** The panel as it is drawn, which its measures keep clear of. mm. */
interface Room {
  w: number
  h: number
  unit: number
  out: number
  recesses: readonly { id: string; x: number; y: number; w: number; h: number }[]
  lines: readonly { id: string; from: Point; to: Point }[]
}
type Mark = Omit<DimensionMark, 'question'>

/** One measure of a panel to be placed; `id`: of the edge, recess or line that it is of. */
interface Asked {
  question: TapeQuestion
  panel: Panel
  room: Room
  id: string
}

const mark = (from: Point, to: Point, at: Point, turnDeg = 0, leads: Mark['leads'] = []): Mark => ({
  from,
  to,
  at,
  turnDeg,
  leads,
})
/** A dot with its figure beside it. */
const dot = (point: Point, at: Point): Mark => mark(point, point, at)

const PLACES: Partial<Record<TapeQuestion['ask'], (asked: Asked) => Mark | null>> = {
  width: ({ room: { w, unit, out } }) => {
    const lead = (x: number): [Point, Point] => [
      { x, y: -unit * 0.4 },
      { x, y: -out - unit * 0.3 },
    ]
    return mark({ x: 0, y: -out }, { x: w, y: -out }, { x: w / 2, y: -out - unit * 0.45 }, 0, [lead(0), lead(w)])
  },
  height: ({ room: { h, unit, out } }) => {
    const lead = (y: number): [Point, Point] => [
      { x: -unit * 0.4, y },
      { x: -out - unit * 0.3, y },
    ]
    return mark({ x: -out, y: 0 }, { x: -out, y: h }, { x: -out - unit * 0.45, y: h / 2 }, -90, [lead(0), lead(h)])
  },
  crown: ({ question, room: { w, h, unit } }) => {
    const half = Math.min((question.overMm ?? w) / 2, w / 2)
    const y = h * 0.62
    return mark({ x: w / 2 - half, y }, { x: w / 2 + half, y }, { x: w / 2, y: y - unit * 0.35 })
  },
  crown_down: ({ question, room: { w, h, unit } }) => {
    const half = Math.min((question.overMm ?? h) / 2, h / 2)
    const x = w * 0.86
    return mark({ x, y: h / 2 - half }, { x, y: h / 2 + half }, { x: x - unit * 0.35, y: h / 2 }, -90)
  },
  corner_radius: ({ room: { unit } }) => dot({ x: unit * 0.8, y: unit * 0.8 }, { x: unit * 2.4, y: unit * 1.7 }),
  edge: besideEdge,
  gap: besideEdge,
  seal: besideEdge,
  recess_depth: ({ room: { recesses, unit }, id }) => {
    const box = recesses.find((x) => x.id === id)
    if (!box) return null
    const y = box.y + box.h
    return mark({ x: box.x, y }, { x: box.x + box.w, y }, { x: box.x + box.w / 2, y: y + unit * 1.1 })
  },
  body_line: ({ room: { lines, w, h, unit }, id }) => {
    const l = lines.find((x) => x.id === id)
    if (!l) return null
    const level = l.from.y === l.to.y
    return level
      ? mark(l.from, l.to, { x: w * 0.2, y: l.from.y - unit * 0.3 })
      : mark(l.from, l.to, { x: l.from.x - unit * 0.3, y: h * 0.68 }, -90)
  },
  wraps: ({ room: { w, h } }) => dot({ x: 0, y: h * 0.56 }, { x: w * 0.14, y: h * 0.56 }),
  nose: ({ panel, room: { w, h, unit } }) =>
    dot({ x: 0, y: h }, { x: w * 0.22, y: panel.nose?.at === 'top' ? unit * 1.4 : h - unit * 0.7 }),
}

/** Along an edge, outside of it and past its rise; the figure never stands on its head. */
function besideEdge({ panel, room: { unit }, id }: Asked): Mark | null {
  const side = outlineOf(panel).edges.find((e) => e.edge.id === id)
  if (!side) return null
  const { from, to } = side
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1
  const [nx, ny] = [(to.y - from.y) / length, -(to.x - from.x) / length]
  const away = unit * 1.15 + Math.max(0, side.edge.riseMm)
  const upright = Math.abs(to.y - from.y) > Math.abs(to.x - from.x)
  const tilt = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI
  const flat = tilt > 90 ? tilt - 180 : tilt <= -90 ? tilt + 180 : tilt
  const at = { x: (from.x + to.x) / 2 + nx * away, y: (from.y + to.y) / 2 + ny * away }
  return mark(from, to, { x: at.x, y: at.y + (upright ? 0 : unit * 0.3) }, upright ? -90 : flat)
}

/** Where one measure is drawn: sizes outside, edges close to their edge, the rest at what they measure. */
export const placeMeasure = (question: TapeQuestion, panel: Panel, room: Room): Mark | null =>
  PLACES[question.ask]?.({ question, panel, room, id: question.field.split('.')[1] ?? '' }) ?? null
