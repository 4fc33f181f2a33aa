import { err, ok, type Fault, type Result } from '../../kit/result'
import type { TriMesh } from './mesh'

/** A triangle whose height is less than this share of its longest side has collapsed: no map of it means anything. */
const COLLAPSED = 1e-3
/** More repairs than this share of the triangles, and the mesh is no surface but a heap. */
const MOST_SHARE = 0.05
const LEAST_REPAIRS = 8

export interface Repaired {
  mesh: TriMesh
  /** Vertex of the repaired mesh for each vertex as it was (length n). */
  vertexOf: Uint32Array
  /** Triangles that had collapsed and were taken out. */
  collapsed: number
}

type Triangle = [number, number, number]

/** Sides of a triangle as lengths: from corner k to the next. */
function sidesOf(positions: Float64Array, t: Triangle): [number, number, number] {
  const length = (a: number, b: number): number =>
    Math.hypot(
      positions[3 * a] - positions[3 * b],
      positions[3 * a + 1] - positions[3 * b + 1],
      positions[3 * a + 2] - positions[3 * b + 2],
    )
  return [length(t[0], t[1]), length(t[1], t[2]), length(t[2], t[0])]
}

/** Height over the longest side, as a share of that side (Heron's formula in Kahan's stable order). */
function flatness(sides: readonly number[]): number {
  const [a, b, c] = [...sides].sort((x, y) => y - x) as [number, number, number]
  const square = (a + (b + c)) * (c - (a - b)) * (c + (a - b)) * (a + (b - c))
  return a > 0 ? Math.sqrt(Math.max(0, square)) / 2 / (a * a) : 0
}

/**
 * A mesh without collapsed triangles: where two corners lie in one place they become one vertex; where a corner lies on
 * the opposite side, that side is turned to the other diagonal, or the triangle goes where it is at the rim. No vertex
 * moves. A mesh with none comes back as it is. Errors: degenerate (triangle), where more than a few have collapsed, or
 * nothing else is there.
 */
export function withoutCollapsed(mesh: TriMesh): Result<Repaired> {
  const count = mesh.triangles.length / 3
  const vertices = mesh.positions.length / 3
  const list: (Triangle | null)[] = Array.from({ length: count }, (_, t) => [
    mesh.triangles[3 * t],
    mesh.triangles[3 * t + 1],
    mesh.triangles[3 * t + 2],
  ])
  const isCollapsed = (t: Triangle): boolean => flatness(sidesOf(mesh.positions, t)) < COLLAPSED
  const queue = list.flatMap((t, i) => (t && isCollapsed(t) ? [i] : []))
  const vertexOf = Uint32Array.from({ length: vertices }, (_, v) => v)
  if (queue.length === 0) return ok({ mesh, vertexOf, collapsed: 0 })
  const collapsed = queue.length
  const first = queue[0]
  const refuse = (t: number) => err<Fault>({ code: 'degenerate', facts: { triangle: t + 1 } })
  if (collapsed > Math.max(LEAST_REPAIRS, count * MOST_SHARE)) return refuse(first)
  const around = new Map<number, Set<number>>()
  const put = (i: number, t: Triangle | null) => {
    for (const v of list[i] ?? []) around.get(v)?.delete(i)
    list[i] = t
    for (const v of t ?? []) (around.get(v) ?? around.set(v, new Set()).get(v))?.add(i)
  }
  list.forEach((t, i) => put(i, t))
  for (let turns = 0; queue.length > 0; turns++) {
    const i = queue.shift() as number
    const t = list[i]
    if (!t || !isCollapsed(t)) continue
    if (turns > 20 * collapsed + 100) return refuse(i)
    const sides = sidesOf(mesh.positions, t)
    const longest = sides.indexOf(Math.max(...sides))
    const shortest = sides.indexOf(Math.min(...sides))
    if (sides[shortest] < COLLAPSED * sides[longest]) {
      const [keep, gone] = [t[shortest], t[(shortest + 1) % 3]]
      for (const j of [...(around.get(gone) ?? [])]) {
        const other = list[j] as Triangle
        const moved = other.map((v) => (v === gone ? keep : v)) as Triangle
        put(j, new Set(moved).size < 3 ? null : moved)
        if (list[j]) queue.push(j)
      }
      vertexOf.forEach((v, k) => {
        if (v === gone) vertexOf[k] = keep
      })
      continue
    }
    // The corner c lies on the side from a to b.
    const [a, b, c] = [t[longest], t[(longest + 1) % 3], t[(longest + 2) % 3]]
    const beyond = [...(around.get(a) ?? [])].find((j) => j !== i && list[j]?.includes(b) && !list[j]?.includes(c))
    if (beyond === undefined) {
      put(i, null)
      continue
    }
    const d = (list[beyond] as Triangle).find((v) => v !== a && v !== b) as number
    put(i, [a, d, c])
    put(beyond, [d, b, c])
    queue.push(i, beyond)
  }
  const triangles = Uint32Array.from(list.flatMap((t) => t ?? []))
  if (triangles.length === 0) return refuse(first)
  return ok({ mesh: { positions: mesh.positions, triangles }, vertexOf, collapsed })
}
