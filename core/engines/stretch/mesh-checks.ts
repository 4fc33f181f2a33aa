import { nth } from '../../kit/known'
import type { Fault } from '../../kit/result'
import type { Topology, TriMesh } from '../../solve/mesh'
import type { FlatWarning } from './flat-warning'

/** A panel smaller or larger than this across is probably in other units, mm. */
const SMALL_MM = 80
const LARGE_MM = 20_000

/** Why one part is no panel: it has no edge, or a handle that no flat film has. */
export function whyNoPanel(mesh: TriMesh, topology: Topology, first: number): Fault | null {
  const facts = { triangle: first + 1 }
  if (topology.loops.length === 0) return { code: 'closed_surface', facts }
  const vertices = mesh.positions.length / 3
  const inner = topology.opposite.reduce((s, o) => s + (o >= 0 ? 1 : 0), 0) / 2
  const sides = inner + topology.opposite.reduce((s, o) => s + (o < 0 ? 1 : 0), 0)
  const handles = (2 - topology.loops.length - (vertices - sides + mesh.triangles.length / 3)) / 2
  return handles > 0 ? { code: 'handles', facts: { ...facts, handles } } : null
}

/** Some triangles of a mesh as a mesh of their own. */
export function partOfMesh(mesh: TriMesh, part: readonly number[]): TriMesh {
  const ids = new Map<number, number>()
  const positions: number[] = []
  const triangles = new Uint32Array(3 * part.length)
  part.forEach((t, i) => {
    for (let k = 0; k < 3; k++) {
      const v = nth(mesh.triangles, 3 * t + k)
      let id = ids.get(v)
      if (id === undefined) {
        id = ids.size
        ids.set(v, id)
        positions.push(nth(mesh.positions, 3 * v), nth(mesh.positions, 3 * v + 1), nth(mesh.positions, 3 * v + 2))
      }
      triangles[3 * i + k] = id
    }
  })
  return { positions: Float64Array.from(positions), triangles }
}

/** Edges of the film's rim, x1 y1 x2 y2. */
export function rimOf(mesh: TriMesh, topology: Topology, places: Float64Array): Float64Array {
  const out: number[] = []
  topology.opposite.forEach((o, s) => {
    if (o >= 0) return
    const t = Math.floor(s / 3)
    for (const k of [s % 3, (s + 1) % 3]) {
      const v = nth(mesh.triangles, 3 * t + k)
      out.push(nth(places, 2 * v), nth(places, 2 * v + 1))
    }
  })
  return Float64Array.from(out)
}

/** Whether a mesh is probably in other units than mm. */
export function sizeWarnings(mesh: TriMesh): FlatWarning[] {
  const span = [0, 1, 2].map((d) => {
    let [low, high] = [Infinity, -Infinity]
    for (let i = d; i < mesh.positions.length; i += 3) {
      low = Math.min(low, nth(mesh.positions, i))
      high = Math.max(high, nth(mesh.positions, i))
    }
    return high - low
  })
  const size = Math.max(...span)
  if (size < SMALL_MM) return [{ code: 'very_small', acrossMm: size }]
  return size > LARGE_MM ? [{ code: 'very_large', acrossMm: size }] : []
}
