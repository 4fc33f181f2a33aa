import type { SurfaceMap } from './surface-map'

export const SURFACE_BANDS = ['slight', 'fine', 'post_heat', 'past_limit'] as const
/** Ordered bands: up to half of what must be post-heated, up to it, up to the film's limit, past it. */
export const bandOf = (stretch: number, postHeatOver: number, limit: number): number =>
  stretch > limit ? 3 : stretch > postHeatOver ? 2 : stretch > postHeatOver / 2 ? 1 : 0

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
      byVertex.set(triangles[3 * t + k] as number, [...(byVertex.get(triangles[3 * t + k] as number) ?? []), t])
  const [w, h] = [0, 1].map((d) => taped.reduce((m, x, i) => (i % 2 === d ? Math.max(m, x) : m), 0)) as [number, number]
  const spots: Spot[] = []
  while (over.size > 0) {
    const first = over.values().next().value as number
    over.delete(first)
    const own = [first]
    for (let i = 0; i < own.length; i++)
      for (let k = 0; k < 3; k++)
        for (const t of byVertex.get(triangles[3 * (own[i] as number) + k] as number) ?? [])
          if (over.delete(t)) own.push(t)
    const worst = own.reduce((a, t) => ((stretch[t] as number) > (stretch[a] as number) ? t : a))
    const at = (d: number) =>
      [0, 1, 2].reduce((s, k) => s + (taped[2 * (triangles[3 * worst + k] as number) + d] as number) / 3, 0)
    const [x, y] = [at(0), at(1)]
    spots.push({
      row: y < h / 3 ? 'top' : y > (2 * h) / 3 ? 'bottom' : 'middle',
      column: x < w / 3 ? 'left' : x > (2 * w) / 3 ? 'right' : 'middle',
      stretch: stretch[worst] as number,
      areaMm2: own.reduce((s, t) => s + (area[t] as number), 0),
      xMm: x,
      yMm: y,
    })
  }
  return spots.sort((a, b) => b.stretch - a.stretch)
}
