import { nth } from '../../kit/known'
import type { SurfaceMap } from './surface-map'

export interface Spot {
  /** Row and column of thirds as the panel is looked at. */
  row: 'top' | 'middle' | 'bottom'
  column: 'left' | 'middle' | 'right'
  stretch: number
  areaMm2: number
  xMm: number
  yMm: number
}
/** Places past the limit: triangles that hang together, the worst first. */
export function spotsOver(map: SurfaceMap, limit: number): Spot[] {
  const { triangles, stretch, area, taped } = map
  const over = new Set<number>()
  stretch.forEach((s, t) => s > limit && over.add(t))
  const byVertex = new Map<number, number[]>()
  for (const t of over)
    for (let k = 0; k < 3; k++)
      byVertex.set(nth(triangles, 3 * t + k), [...(byVertex.get(nth(triangles, 3 * t + k)) ?? []), t])
  const [w, h] = [0, 1].map((d) => taped.reduce((m, x, i) => (i % 2 === d ? Math.max(m, x) : m), 0)) as [number, number]
  const spots: Spot[] = []
  while (over.size > 0) {
    const first = Number(over.values().next().value)
    over.delete(first)
    const own = [first]
    for (let i = 0; i < own.length; i++)
      for (let k = 0; k < 3; k++)
        for (const t of byVertex.get(nth(triangles, 3 * nth(own, i) + k)) ?? []) if (over.delete(t)) own.push(t)
    const worst = own.reduce((a, t) => (nth(stretch, t) > nth(stretch, a) ? t : a))
    const at = (d: number) => [0, 1, 2].reduce((s, k) => s + nth(taped, 2 * nth(triangles, 3 * worst + k) + d) / 3, 0)
    const [x, y] = [at(0), at(1)]
    spots.push({
      row: y < h / 3 ? 'top' : y > (2 * h) / 3 ? 'bottom' : 'middle',
      column: x < w / 3 ? 'left' : x > (2 * w) / 3 ? 'right' : 'middle',
      stretch: nth(stretch, worst),
      areaMm2: own.reduce((s, t) => s + nth(area, t), 0),
      xMm: x,
      yMm: y,
    })
  }
  return spots.sort((a, b) => b.stretch - a.stretch)
}
