import { nth } from './known'
/** Points and figures in a plane. mm, y downward as on a screen; polygons clockwise as seen. */
export interface Point {
  x: number
  y: number
}

/**
 * Length of a circular arc by its chord and rise (sagitta), at most a half circle: 4·atan(2s/c)·R with R = (c²/4 +
 * s²)/(2s). Source: docs/sources.md#geometry.
 */
export function arcLengthMm(chordMm: number, riseMm: number): number {
  const s = Math.abs(riseMm)
  if (s < 1e-9) return chordMm
  const radius = (chordMm ** 2 / 4 + s ** 2) / (2 * s)
  return radius * 4 * Math.atan2(2 * s, chordMm)
}

/** The chord of an arc of known length and rise; null where the rise asks for more than a half circle. */
export function chordMm(arcMm: number, riseMm: number): number | null {
  const s = Math.abs(riseMm)
  if (s < 1e-9) return arcMm
  if (arcMm < Math.PI * s - 1e-6) return null
  let [low, high] = [2 * s, arcMm]
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2
    if (arcLengthMm(mid, s) < arcMm) low = mid
    else high = mid
  }
  return (low + high) / 2
}

/** Area between an arc and its chord, mm². */
export function segmentAreaMm2(chord: number, riseMm: number): number {
  const s = Math.abs(riseMm)
  if (s < 1e-9) return 0
  const radius = (chord ** 2 / 4 + s ** 2) / (2 * s)
  const angle = 4 * Math.atan2(2 * s, chord)
  return (radius ** 2 / 2) * (angle - Math.sin(angle)) * Math.sign(riseMm)
}

/** Signed area of a polygon, positive clockwise with y downward (shoelace formula). */
export const polygonAreaMm2 = (points: readonly Point[]): number =>
  points.reduce((sum, p, i) => {
    const q = nth(points, (i + 1) % points.length)
    return sum + (p.x * q.y - q.x * p.y) / 2
  }, 0)

/**
 * What of a polygon lies up to a line `axis` = `at`: its points beyond are drawn back on to the line, where they enclose
 * no area.
 */
export const upToLine = (points: readonly Point[], axis: 'x' | 'y', at: number): Point[] =>
  points.flatMap((p, i) => {
    const q = nth(points, (i + 1) % points.length)
    const on = p[axis] > at ? { ...p, [axis]: at } : p
    if ((p[axis] - at) * (q[axis] - at) >= 0) return [on]
    const share = (at - p[axis]) / (q[axis] - p[axis])
    return [on, { x: p.x + (q.x - p.x) * share, y: p.y + (q.y - p.y) * share }]
  })

export interface Box {
  left: number
  top: number
  right: number
  bottom: number
}
export function boxOf(points: readonly Point[]): Box {
  const box = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity }
  for (const { x, y } of points) {
    box.left = Math.min(box.left, x)
    box.right = Math.max(box.right, x)
    box.top = Math.min(box.top, y)
    box.bottom = Math.max(box.bottom, y)
  }
  return box
}

/** Points along an arc from a to b that bulges by `rise` to the left of the line (outward, on a clockwise polygon). */
export function arcPoints(a: Point, b: Point, riseMm: number, steps = 16): Point[] {
  if (Math.abs(riseMm) < 1e-9) return [b]
  const chord = Math.hypot(b.x - a.x, b.y - a.y)
  const [ux, uy] = [(b.x - a.x) / chord, (b.y - a.y) / chord]
  const out = { x: uy, y: -ux }
  const s = Math.abs(riseMm)
  const radius = (chord ** 2 / 4 + s ** 2) / (2 * s)
  const half = 2 * Math.atan2(2 * s, chord)
  return Array.from({ length: steps }, (_, i) => {
    if (i === steps - 1) return b
    const t = -half + ((i + 1) / steps) * 2 * half
    const along = chord / 2 + radius * Math.sin(t)
    const up = (radius * Math.cos(t) - radius * Math.cos(half)) * Math.sign(riseMm)
    return { x: a.x + ux * along + out.x * up, y: a.y + uy * along + out.y * up }
  })
}

/** Whether a place lies within a ring, by how often a level line from it crosses the ring. */
export function within(ring: readonly Point[], x: number, y: number): boolean {
  let inside = false
  for (let i = 0, j = ring.length - 1; i < ring.length; j = i++) {
    const [a, b] = [nth(ring, i), nth(ring, j)]
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside
  }
  return inside
}
