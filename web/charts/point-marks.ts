import polylabel from 'polylabel'
import type { HeatPoint } from '@/core/engines/heat/heat-points'
import { arcPoints, type Point } from '@/core/kit/plane'
import { outlineOf } from '@/core/model/vehicle/outline'
import type { Panel } from '@/core/model/vehicle/schema'

/** A heat point on the flat panel: along its edge, or a place. mm. */
export interface PointMark {
  id: string
  line: Point[]
  at: Point
  /** Of an area. */
  rings: Point[][]
}

/** The edge of a panel as points along its curve; empty where there is no such edge. */
export function edgeLine(panel: Panel, edgeId: string): Point[] {
  const side = outlineOf(panel).edges.find((e) => e.edge.id === edgeId)
  return side ? [side.from, ...arcPoints(side.from, side.to, side.edge.riseMm), side.to] : []
}

/** The place at a share of a line's length; before its start and past its end it goes straight on. */
export function along(line: readonly Point[], share: number): Point {
  const lengths = line.slice(1).map((p, i) => Math.hypot(p.x - (line[i]?.x ?? 0), p.y - (line[i]?.y ?? 0)))
  const total = lengths.reduce((s, l) => s + l, 0)
  let left = share * total
  let i = 0
  while (i < lengths.length - 1 && left > (lengths[i] ?? 0)) left -= lengths[i++] ?? 0
  const [a, b] = [line[i], line[i + 1]]
  if (!a || !b) return a ?? { x: 0, y: 0 }
  const t = left / (lengths[i] || 1)
  return { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t }
}

/** Where each point of a panel lies; several places without an edge stand in the panel's middle, side by side. */
export function pointMarks(panel: Panel, points: readonly HeatPoint[]): PointMark[] {
  const { widthMm: w, heightMm: h } = outlineOf(panel)
  const [kx, ky] = [w / panel.widthMm, h / panel.heightMm]
  let loose = 0
  return points.map((p) => {
    const line = p.edgeId ? edgeLine(panel, p.edgeId) : []
    if (p.kind === 'edge' && line.length > 1) return { id: p.id, line, at: along(line, 0.5), rings: [] }
    const end = line.at(-1)
    if (p.kind === 'corner' && end) return { id: p.id, line: [], at: end, rings: [] }
    const recess = p.kind === 'recess' ? panel.recesses.find((r) => r.name === p.name) : undefined
    if (recess?.xMm != null && recess.yMm != null)
      return { id: p.id, line: [], at: { x: recess.xMm * kx, y: recess.yMm * ky }, rings: [] }
    const rings = (p.outlines ?? []).map((ring) => ring.map((q) => ({ x: q.x * kx, y: q.y * ky })))
    const [largest] = rings
    if (largest) return { id: p.id, line: [], at: inside(largest), rings }
    loose++
    return { id: p.id, line: [], at: { x: (w * loose) / (loose + 1), y: h / 2 }, rings: [] }
  })
}

/** A place within a ring, as far from its rim as can be. */
function inside(ring: readonly Point[]): Point {
  const [x, y] = polylabel([ring.map((p): [number, number] => [p.x, p.y])], 1)
  return { x: x ?? 0, y: y ?? 0 }
}
