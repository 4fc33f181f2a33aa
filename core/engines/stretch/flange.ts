import { nth } from '../../kit/known'
import { topologyOf, type TriMesh } from '../../solve/mesh'
import type { Point } from '../../kit/plane'
import type { PanelMesh } from './panel-lines'
import type { PanelSurface } from './panel-surface'

/** Film turns over a sheet-metal edge round this radius, mm. Common practice, no source. */
const EDGE_RADIUS_MM = 1.5
/** Strips in which a flange is meshed: over the bend, then down behind it. */
const OVER_BEND = 3
const BEHIND = 3

/**
 * A panel's mesh with its film turned under by `flangeMm` all round the outer edge: round the edge, then straight
 * back.
 */
export function flanged(made: PanelMesh, surface: PanelSurface, flangeMm: number): PanelMesh {
  const { mesh, taped, chains } = made
  const there = topologyOf(mesh)
  if (!there.ok) return made
  const place = (v: number): Point => ({ x: nth(taped, 2 * v), y: nth(taped, 2 * v + 1) })
  // The outer edge is the longest loop.
  const long = (loop: number[]) =>
    loop.reduce((s, v, i) => s + apart(place(v), place(nth(loop, (i + 1) % loop.length))), 0)
  const rim = there.value.loops.reduce((a, b) => (long(b) > long(a) ? b : a))
  const bendMm = Math.min(flangeMm, (EDGE_RADIUS_MM * Math.PI) / 2)
  const marks = [
    ...Array.from({ length: OVER_BEND }, (_, k) => (bendMm * (k + 1)) / OVER_BEND),
    ...(flangeMm > bendMm
      ? Array.from({ length: BEHIND }, (_, k) => bendMm + ((flangeMm - bendMm) * (k + 1)) / BEHIND)
      : []),
  ]
  const positions = [...mesh.positions]
  const places = [...taped]
  const triangles = [...mesh.triangles]
  let before = rim
  for (const mm of marks) {
    const ring = rim.map((v, i) => {
      const out = outward(
        place(nth(rim, (i + rim.length - 1) % rim.length)),
        place(v),
        place(nth(rim, (i + 1) % rim.length)),
      )
      const p = place(v)
      const { normal } = surface.on(p)
      const flat = tangent(surface, p, out)
      const turn = Math.min(mm, bendMm) / EDGE_RADIUS_MM
      const [ahead, back] = [
        EDGE_RADIUS_MM * Math.sin(turn),
        EDGE_RADIUS_MM * (1 - Math.cos(turn)) + Math.max(0, mm - bendMm),
      ]
      for (let d = 0; d < 3; d++)
        positions.push(nth(mesh.positions, 3 * v + d) + ahead * nth(flat, d) - back * nth(normal, d))
      places.push(p.x + out.x * mm, p.y + out.y * mm)
      return places.length / 2 - 1
    })
    rim.forEach((_, i) => {
      const j = (i + 1) % rim.length
      const [a, b, c, d] = [before[i], before[j], ring[i], ring[j]] as [number, number, number, number]
      // The loop runs with the mesh on its left, so the new strip lies on its right.
      triangles.push(a, c, b, b, c, d)
    })
    before = ring
  }
  const grown: TriMesh = { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) }
  return { mesh: grown, taped: Float64Array.from(places), chains }
}
const apart = (a: Point, b: Point): number => Math.hypot(a.x - b.x, a.y - b.y)

/** Outward direction at a place of the outer edge, in the plane of the tape. */
function outward(before: Point, at: Point, after: Point): Point {
  const side = (a: Point, b: Point): Point => {
    const l = apart(a, b) || 1
    // y runs down and the loop runs counter-clockwise in space: its right is outside.
    return { x: -(b.y - a.y) / l, y: (b.x - a.x) / l }
  }
  const [u, v] = [side(before, at), side(at, after)]
  const l = Math.hypot(u.x + v.x, u.y + v.y) || 1
  return { x: (u.x + v.x) / l, y: (u.y + v.y) / l }
}
/** The direction in space of a direction on the taped panel. */
function tangent(surface: PanelSurface, p: Point, toward: Point): [number, number, number] {
  const step = 0.1
  const [a, b] = [surface.on({ x: p.x - toward.x * step, y: p.y - toward.y * step }).at, surface.on(p).at]
  const d = b.map((x, i) => x - nth(a, i)) as [number, number, number]
  const l = Math.hypot(...d) || 1
  return d.map((x) => x / l) as [number, number, number]
}
