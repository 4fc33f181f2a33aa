import type { TriMesh } from '@/core/solve/mesh'

const PX = 420

export const SHADES = ['#8d8676', '#aaa290', '#c6beaa', '#ddd6c3', '#efe9d9']

/** Front-facing triangles in five shades by how far they lean, for a picture; places in px. */
export function shades({ positions: p, triangles }: TriMesh) {
  let [x0, x1, y0, y1] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let i = 0; i < p.length; i += 3) {
    x0 = Math.min(x0, p[i] as number)
    x1 = Math.max(x1, p[i] as number)
    y0 = Math.min(y0, p[i + 1] as number)
    y1 = Math.max(y1, p[i + 1] as number)
  }
  const scale = PX / Math.max(x1 - x0, (y1 - y0) * 1.1, 1e-9)
  const paths = SHADES.map((): string[] => [])
  for (let t = 0; t < triangles.length; t += 3) {
    const v = [0, 1, 2].map((k) => 3 * (triangles[t + k] as number))
    const at = (k: number, d: number) => p[(v[k] as number) + d] as number
    const [u, w] = [1, 2].map((k) => [0, 1, 2].map((d) => at(k, d) - at(0, d))) as [number[], number[]]
    const n = [0, 1, 2].map(
      (i) =>
        (u[(i + 1) % 3] as number) * (w[(i + 2) % 3] as number) -
        (u[(i + 2) % 3] as number) * (w[(i + 1) % 3] as number),
    ) as [number, number, number]
    if (n[2] <= 0) continue
    const light = (0.25 * n[1] - 0.25 * n[0] + 0.93 * n[2]) / (Math.hypot(...n) || 1)
    const shade = Math.max(0, Math.min(SHADES.length - 1, Math.floor(light * SHADES.length)))
    const place = (k: number) => `${((at(k, 0) - x0) * scale).toFixed(1)} ${((y1 - at(k, 1)) * scale).toFixed(1)}`
    paths[shade]?.push(`M${place(0)}L${place(1)}L${place(2)}Z`)
  }
  return {
    scale,
    left: x0,
    top: y1,
    width: (x1 - x0) * scale,
    height: (y1 - y0) * scale,
    paths: paths.map((d) => d.join('')),
  }
}
