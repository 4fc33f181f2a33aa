import { err, ok, type Result } from '../../kit/result'

/**
 * A triangle mesh: vertex places xyz… (length 3n), vertices of each triangle (length 3t), counter-clockwise as seen
 * from outside.
 */
export interface TriMesh {
  positions: Float64Array
  triangles: Uint32Array
}

/** Shortest side over longest of a triangle below which it has no area worth the name. */
const DEGENERATE_HEIGHT = 1e-9

export interface Topology {
  /**
   * For each directed side 3t + k (from corner k to the next) the side on its other face; −1 at an edge of the mesh.
   */
  opposite: Int32Array
  /** Edge loops, each as vertices in order. */
  loops: number[][]
  /** Triangles of each part that hangs together. */
  parts: number[][]
}

export const corner = (mesh: TriMesh, triangle: number, k: number): number => mesh.triangles[3 * triangle + (k % 3)]

/** Area of one triangle. */
export function areaOf(mesh: TriMesh, t: number): number {
  const [a, b, c] = [corner(mesh, t, 0), corner(mesh, t, 1), corner(mesh, t, 2)]
  const p = mesh.positions
  const [ux, uy, uz] = [0, 1, 2].map((i) => p[3 * b + i] - p[3 * a + i]) as [number, number, number]
  const [vx, vy, vz] = [0, 1, 2].map((i) => p[3 * c + i] - p[3 * a + i]) as [number, number, number]
  return Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx) / 2
}

/**
 * How a mesh hangs together; or why it is no surface that can be laid flat. Errors: empty_mesh, bad_number, bad_index,
 * degenerate, not_manifold (each with its place).
 */
export function topologyOf(mesh: TriMesh): Result<Topology> {
  const { positions, triangles } = mesh
  const count = triangles.length / 3
  const vertices = positions.length / 3
  if (count === 0 || vertices === 0) return err({ code: 'empty_mesh' })
  for (let i = 0; i < positions.length; i++)
    if (!Number.isFinite(positions[i])) return err({ code: 'bad_number', facts: { vertex: Math.floor(i / 3) + 1 } })
  for (let i = 0; i < triangles.length; i++)
    if (triangles[i] >= vertices)
      return err({
        code: 'bad_index',
        facts: { triangle: Math.floor(i / 3) + 1, vertex: triangles[i] + 1 },
      })
  const flat = firstFlat(mesh)
  if (flat >= 0) return err({ code: 'degenerate', facts: { triangle: flat + 1 } })
  const opposite = new Int32Array(3 * count).fill(-1)
  const sides = new Map<number, number>()
  for (let s = 0; s < 3 * count; s++) {
    const t = Math.floor(s / 3)
    const [a, b] = [corner(mesh, t, s % 3), corner(mesh, t, (s % 3) + 1)]
    const key = a * vertices + b
    if (sides.has(key))
      return err({
        code: 'not_manifold',
        facts: { triangle: t + 1, other: Math.floor((sides.get(key) as number) / 3) + 1, why: 'two_run_the_same_way' },
      })
    sides.set(key, s)
  }
  for (const [key, s] of sides) {
    const other = sides.get((key % vertices) * vertices + Math.floor(key / vertices))
    if (other !== undefined) opposite[s] = other
  }
  const pinched = pinchedVertex(mesh, opposite)
  if (pinched >= 0) return err({ code: 'not_manifold', facts: { vertex: pinched + 1, why: 'fans_meet_in_a_point' } })
  return ok({ opposite, loops: loopsOf(mesh, opposite), parts: partsOf(count, opposite) })
}

function firstFlat(mesh: TriMesh): number {
  const p = mesh.positions
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const longest = Math.max(
      ...[0, 1, 2].map((k) => {
        const [a, b] = [corner(mesh, t, k), corner(mesh, t, k + 1)]
        return Math.hypot(p[3 * a] - p[3 * b], p[3 * a + 1] - p[3 * b + 1], p[3 * a + 2] - p[3 * b + 2])
      }),
    )
    if (!(2 * areaOf(mesh, t) > DEGENERATE_HEIGHT * longest * longest)) return t
  }
  return -1
}

/** Around a vertex there is one fan of triangles; two fans that touch in a point only are no surface. */
function pinchedVertex(mesh: TriMesh, opposite: Int32Array): number {
  const vertices = mesh.positions.length / 3
  const fans = new Int32Array(vertices)
  const seen = new Uint8Array(opposite.length)
  // Each corner is side s seen from its first vertex; the next corner of the fan lies across side s.
  for (let s = 0; s < opposite.length; s++) {
    if (seen[s]) continue
    const v = corner(mesh, Math.floor(s / 3), s % 3)
    fans[v] = fans[v] + 1
    if (fans[v] > 1) return v
    const walk = (start: number, step: (side: number) => number) => {
      for (let at = start; at >= 0 && !seen[at]; at = step(at)) seen[at] = 1
    }
    const previous = (side: number) => 3 * Math.floor(side / 3) + ((side + 2) % 3)
    walk(s, (side) => opposite[previous(side)])
    // The other way round: across the side itself, then on to the next side, which begins at the same vertex.
    let at = opposite[s]
    while (at >= 0) {
      const next = 3 * Math.floor(at / 3) + ((at + 1) % 3)
      if (seen[next]) break
      seen[next] = 1
      at = opposite[next]
    }
  }
  return -1
}

function loopsOf(mesh: TriMesh, opposite: Int32Array): number[][] {
  const next = new Map<number, number>()
  for (let s = 0; s < opposite.length; s++)
    if (opposite[s] < 0) next.set(corner(mesh, Math.floor(s / 3), s % 3), corner(mesh, Math.floor(s / 3), (s % 3) + 1))
  const out: number[][] = []
  const seen = new Set<number>()
  for (const start of next.keys()) {
    if (seen.has(start)) continue
    const loop: number[] = []
    for (let v: number | undefined = start; v !== undefined && !seen.has(v); v = next.get(v)) {
      seen.add(v)
      loop.push(v)
    }
    out.push(loop)
  }
  return out
}

function partsOf(count: number, opposite: Int32Array): number[][] {
  const part = new Int32Array(count).fill(-1)
  const out: number[][] = []
  for (let t = 0; t < count; t++) {
    if (part[t] >= 0) continue
    const own: number[] = [t]
    part[t] = out.length
    for (let i = 0; i < own.length; i++)
      for (let k = 0; k < 3; k++) {
        const across = opposite[3 * own[i] + k]
        const other = Math.floor(across / 3)
        if (across < 0 || part[other] >= 0) continue
        part[other] = out.length
        own.push(other)
      }
    out.push(own)
  }
  return out
}

/**
 * Corners that share a vertex and no uncut side between them become vertices of their own. `from` names each new
 * vertex's source.
 */
export function cutAlong(
  mesh: TriMesh,
  opposite: Int32Array,
  cut: ReadonlySet<number>,
): { mesh: TriMesh; from: Uint32Array } {
  const corners = mesh.triangles.length
  const root = Int32Array.from({ length: corners }, (_, i) => i)
  const find = (i: number): number => {
    while (root[i] !== i) {
      root[i] = root[root[i]]
      i = root[i]
    }
    return i
  }
  const join = (a: number, b: number) => (root[find(a)] = find(b))
  for (let s = 0; s < corners; s++) {
    const o = opposite[s]
    if (o < 0 || cut.has(s) || cut.has(o)) continue
    // Side s runs from corner s to the next; its opposite runs the other way.
    const nextOf = (side: number) => 3 * Math.floor(side / 3) + ((side + 1) % 3)
    join(s, nextOf(o))
    join(nextOf(s), o)
  }
  const ids = new Map<number, number>()
  const from: number[] = []
  const triangles = new Uint32Array(corners)
  for (let c = 0; c < corners; c++) {
    const r = find(c)
    let id = ids.get(r)
    if (id === undefined) {
      id = from.length
      ids.set(r, id)
      from.push(mesh.triangles[c])
    }
    triangles[c] = id
  }
  const positions = new Float64Array(from.length * 3)
  from.forEach((v, i) => positions.set(mesh.positions.subarray(3 * v, 3 * v + 3), 3 * i))
  return { mesh: { positions, triangles }, from: Uint32Array.from(from) }
}
