import { nth } from '../../kit/known'
import { err, type Result } from '../../kit/result'
import { flatten, flattenRest, topologyOf, type Flat, type Topology, type TriMesh } from '../../solve/mesh'
import { partOfMesh } from './mesh-checks'

/** Parts stuck first, each by itself, at most. */
const MOST_PARTS = 24

/**
 * A region with the triangles whose corners all lie in it: these have no freedom of their own, so they are laid with
 * it.
 */
function withTrianglesBetween(mesh: TriMesh, region: readonly number[]): number[] {
  const held = new Set<number>()
  for (const t of region) for (let k = 0; k < 3; k++) held.add(nth(mesh.triangles, 3 * t + k))
  const out: number[] = []
  for (let t = 0; t < mesh.triangles.length / 3; t++)
    if ([0, 1, 2].every((k) => held.has(nth(mesh.triangles, 3 * t + k)))) out.push(t)
  return out
}

/**
 * Film in two stages: what is stuck first by itself, then the rest beside it. Errors: laid_in_parts, and those of
 * both.
 */
export function layRestBeside(
  mesh: TriMesh,
  topology: Topology,
  asked: readonly number[],
  how: {
    shrink: number
    restShrink: number
    pull?: 'tightest' | 'even'
    spent?: () => boolean
    progress: (share: number) => void
  },
): Result<Flat> {
  const stuck = withTrianglesBetween(mesh, asked)
  const first = topologyOf(partOfMesh(mesh, stuck))
  if (!first.ok) return first
  const whole = flatten(mesh, topology, { ...how, progress: (p) => how.progress(0.2 + p * 0.4) })
  if (!whole.ok) return whole
  const n = mesh.positions.length / 3
  const places = new Float64Array(2 * n)
  const fixed = new Uint8Array(n)
  const triangles = new Uint8Array(mesh.triangles.length / 3)
  // Parts that are stuck apart from one another are each laid by themselves; past 255 they would not fit the marks.
  if (first.value.parts.length > MOST_PARTS)
    return err({ code: 'laid_in_parts', facts: { parts: first.value.parts.length } })
  for (const [p, part] of first.value.parts.entries()) {
    const own = part.map((i) => nth(stuck, i))
    const alone = partOfMesh(mesh, own)
    const there = topologyOf(alone)
    if (!there.ok) return there
    const flat = flatten(alone, there.value, { ...how, progress: (s) => how.progress(s * 0.2) })
    if (!flat.ok) return flat
    own.forEach((t, i) => {
      triangles[t] = 1
      for (let k = 0; k < 3; k++) {
        const [v, w] = [nth(mesh.triangles, 3 * t + k), nth(alone.triangles, 3 * i + k)]
        fixed[v] = p + 1
        places.set(flat.value.places.subarray(2 * w, 2 * w + 2), 2 * v)
      }
    })
  }
  return flattenRest(
    mesh,
    whole.value.places,
    { places, fixed, triangles },
    { ...how, shrink: how.restShrink, progress: (p) => how.progress(0.6 + p * 0.4) },
  )
}
