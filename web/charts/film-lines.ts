import type { SurfaceMap } from '@/core/engines/stretch/surface-map'

const GRID_MM = 100

/**
 * The film's own 100 mm grid as pieces of lines: each crosses one triangle, its ends as shares of the triangle's
 * three corners.
 */
export function gridPieces(
  map: Pick<SurfaceMap, 'triangles' | 'film'>,
): { corners: [number, number, number]; ends: [number[], number[]] }[] {
  const { triangles, film } = map
  const out: { corners: [number, number, number]; ends: [number[], number[]] }[] = []
  for (let t = 0; t < triangles.length / 3; t++) {
    const v = [0, 1, 2].map((k) => triangles[3 * t + k] as number) as [number, number, number]
    for (const d of [0, 1]) {
      const f = v.map((i) => film[2 * i + d] as number) as [number, number, number]
      for (let line = Math.ceil(Math.min(...f) / GRID_MM) * GRID_MM; line < Math.max(...f); line += GRID_MM) {
        const ends: number[][] = []
        for (let k = 0; k < 3; k++) {
          const [a, b] = [f[k] as number, f[(k + 1) % 3] as number]
          if (a === b || (line - a) * (line - b) > 0) continue
          const s = (line - a) / (b - a)
          const share = [0, 0, 0]
          share[k] = 1 - s
          share[(k + 1) % 3] = s
          ends.push(share)
        }
        if (ends.length >= 2) out.push({ corners: v, ends: [ends[0] as number[], ends[1] as number[]] })
      }
    }
  }
  return out
}
