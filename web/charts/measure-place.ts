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

/** Where one measure is drawn: sizes outside, edges close to their edge, the rest at what they measure. */
export function placeMeasure(q: TapeQuestion, panel: Panel, r: Room): Mark | null {
  const { w, h, unit } = r
  const line = (from: Point, to: Point, at: Point, turnDeg = 0, leads: Mark['leads'] = []): Mark => ({
    from,
    to,
    at,
    turnDeg,
    leads,
  })
  const id = q.field.split('.')[1] ?? ''
  switch (q.ask) {
    case 'width':
      return line({ x: 0, y: -r.out }, { x: w, y: -r.out }, { x: w / 2, y: -r.out - unit * 0.45 }, 0, [
        [
          { x: 0, y: -unit * 0.4 },
          { x: 0, y: -r.out - unit * 0.3 },
        ],
        [
          { x: w, y: -unit * 0.4 },
          { x: w, y: -r.out - unit * 0.3 },
        ],
      ])
    case 'height':
      return line({ x: -r.out, y: 0 }, { x: -r.out, y: h }, { x: -r.out - unit * 0.45, y: h / 2 }, -90, [
        [
          { x: -unit * 0.4, y: 0 },
          { x: -r.out - unit * 0.3, y: 0 },
        ],
        [
          { x: -unit * 0.4, y: h },
          { x: -r.out - unit * 0.3, y: h },
        ],
      ])
    case 'crown': {
      const half = Math.min((q.overMm ?? w) / 2, w / 2)
      const y = h * 0.62
      return line({ x: w / 2 - half, y }, { x: w / 2 + half, y }, { x: w / 2, y: y - unit * 0.35 })
    }
    case 'crown_down': {
      const half = Math.min((q.overMm ?? h) / 2, h / 2)
      const x = w * 0.86
      return line({ x, y: h / 2 - half }, { x, y: h / 2 + half }, { x: x - unit * 0.35, y: h / 2 }, -90)
    }
    case 'corner_radius':
      return line({ x: unit * 0.8, y: unit * 0.8 }, { x: unit * 0.8, y: unit * 0.8 }, { x: unit * 2.4, y: unit * 1.7 })
    case 'edge': {
      const side = outlineOf(panel).edges.find((e) => e.edge.id === id)
      if (!side) return null
      const { from, to } = side
      const length = Math.hypot(to.x - from.x, to.y - from.y) || 1
      const [nx, ny] = [(to.y - from.y) / length, -(to.x - from.x) / length]
      const rise = Math.max(0, side.edge.riseMm)
      const away = unit * 1.15 + rise
      const upright = Math.abs(to.y - from.y) > Math.abs(to.x - from.x)
      const tilt = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI
      const flat = tilt > 90 ? tilt - 180 : tilt <= -90 ? tilt + 180 : tilt
      const at = { x: (from.x + to.x) / 2 + nx * away, y: (from.y + to.y) / 2 + ny * away }
      return line(from, to, { x: at.x, y: at.y + (upright ? 0 : unit * 0.3) }, upright ? -90 : flat)
    }
    case 'recess_depth': {
      const box = r.recesses.find((x) => x.id === id)
      return box
        ? line(
            { x: box.x, y: box.y + box.h },
            { x: box.x + box.w, y: box.y + box.h },
            { x: box.x + box.w / 2, y: box.y + box.h + unit * 1.1 },
          )
        : null
    }
    case 'body_line': {
      const l = r.lines.find((x) => x.id === id)
      if (!l) return null
      const level = l.from.y === l.to.y
      return level
        ? line(l.from, l.to, { x: w * 0.2, y: l.from.y - unit * 0.3 })
        : line(l.from, l.to, { x: l.from.x - unit * 0.3, y: h * 0.68 }, -90)
    }
    case 'wraps':
      return line({ x: 0, y: h * 0.56 }, { x: 0, y: h * 0.56 }, { x: w * 0.14, y: h * 0.56 })
    case 'nose':
      return line(
        { x: 0, y: h },
        { x: 0, y: h },
        { x: w * 0.22, y: panel.nose?.at === 'top' ? unit * 1.4 : h - unit * 0.7 },
      )
    default:
      return null
  }
}
