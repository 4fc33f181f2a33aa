import { err, ok, type Fault, type Result } from '../kit/result'
import {
  cutAlong,
  flatten,
  overlaps,
  quantile,
  readMesh,
  strainOf,
  topologyOf,
  type Topology,
  type TriMesh,
} from '../solve/mesh'
import { pathSides } from './mesh-lines'

/** What `npx cuirass stretch` answers. Fractions, weighted by surface area; lengths mm. */
export interface StretchReport {
  format: 'cuirass/stretch@1'
  triangles: number
  area_mm2: number
  stretch: { max: number; p99: number; mean: number }
  squeeze: { max: number }
  over_limit_mm2: number
  overlaps: boolean
  pieces: number
  warnings: string[]
}
export interface FlatPanel {
  mesh: TriMesh
  /** Film place of each corner, xy (length 6t), mm. */
  corners: Float64Array
  /** Vertex of the cut mesh at each corner, and how many there are: film places are alike where these are. */
  filmVertex: Uint32Array
  filmVertices: number
  report: StretchReport
}
export interface StretchOptions {
  limit: number
  shrink: number
  /** Lines along which film is parted (seams) or opened (slits): vertices of the mesh, numbered from 0. */
  lines?: readonly (readonly number[])[]
  spent?: () => boolean
  progress?: (share: number) => void
}

/** Free film between pieces laid beside one another, as a share of their width. */
const BETWEEN = 0.05
/** A panel smaller or larger than this across is probably in other units, mm. */
const SMALL_MM = 20
const LARGE_MM = 20_000

/** Film for a surface read from the bytes of a mesh file. Errors: bad_file and those of `flatPanel`. */
export function flatFromFile(bytes: Uint8Array, name: string, options: StretchOptions): Result<FlatPanel> {
  const read = readMesh(bytes, name)
  if (!read.ok) return err({ code: read.error.code === 'bad_number' ? 'bad_number' : 'bad_file', ...(read.error.at ? { at: read.error.at } : {}), facts: { ...read.error.facts, why: read.error.code } }) // prettier-ignore
  return flatPanel(read.value, options)
}

/**
 * Film for a surface, each part that hangs together a piece: the least worst stretch with no squeeze past `shrink`.
 * Errors: empty_mesh, bad_number, degenerate, not_manifold, closed_surface, handles, no_such_line, cannot_flatten.
 */
export function flatPanel(mesh: TriMesh, options: StretchOptions): Result<FlatPanel> {
  const whole = topologyOf(mesh)
  if (!whole.ok) return whole
  let cut = { mesh, from: null as Uint32Array | null }
  let topology: Topology = whole.value
  if (options.lines && options.lines.length > 0) {
    const sides = pathSides(mesh, whole.value, options.lines)
    if (!sides.ok) return sides
    cut = cutAlong(mesh, whole.value.opposite, sides.value)
    const again = topologyOf(cut.mesh)
    if (!again.ok) return again
    topology = again.value
  }
  const count = mesh.triangles.length / 3
  const corners = new Float64Array(6 * count)
  let right = 0
  let done = 0
  let overlap = false
  const warnings: string[] = sizeWarnings(mesh)
  if (topology.parts.length > 1)
    warnings.push(`${topology.parts.length} parts that do not hang together: each is a piece of its own`)
  for (const part of topology.parts) {
    const own = extract(cut.mesh, part)
    const there = topologyOf(own)
    if (!there.ok) return there
    const fault = noPanel(own, there.value, part[0] as number)
    if (fault) return err(fault)
    const share = part.length / count
    const flat = flatten(own, there.value, {
      shrink: options.shrink,
      ...(options.spent ? { spent: options.spent } : {}),
      progress: (p) => options.progress?.(done + p * share),
    })
    if (!flat.ok) return err({ ...flat.error, facts: { triangle: (part[0] as number) + 1 } })
    if (!flat.value.whole) warnings.push('stopped before the least worst stretch was reached')
    done += share
    const { places } = flat.value
    const [low, high] = [0, 1].map((d) => places.reduce((m, x, i) => (i % 2 === d ? Math.min(m, x) : m), Infinity)) as [
      number,
      number,
    ]
    const width = places.reduce((m, x, i) => (i % 2 === 0 ? Math.max(m, x) : m), -Infinity) - low
    part.forEach((t, i) => {
      for (let k = 0; k < 3; k++) {
        const v = own.triangles[3 * i + k] as number
        corners[6 * t + 2 * k] = (places[2 * v] as number) - low + right
        corners[6 * t + 2 * k + 1] = (places[2 * v + 1] as number) - high
      }
    })
    right += width * (1 + BETWEEN)
    if (overlaps(rim(own, there.value, places))) {
      overlap = true
      warnings.push('the film lies on itself: part it by a seam or a slit')
    }
  }
  const strain = strainOf(mesh, corners)
  const area = strain.area.reduce((s, a) => s + a, 0)
  const mean = strain.stretch.reduce((s, x, i) => s + x * (strain.area[i] as number), 0) / area
  return ok({
    mesh, corners, filmVertex: cut.mesh.triangles, filmVertices: cut.mesh.positions.length / 3,
    report: {
      format: 'cuirass/stretch@1',
      triangles: count,
      area_mm2: area,
      stretch: { max: Math.max(0, max(strain.stretch)), p99: Math.max(0, quantile(strain.stretch, strain.area, 0.99)), mean: Math.max(0, mean) },
      squeeze: { max: Math.max(0, max(strain.squeeze)) },
      over_limit_mm2: strain.stretch.reduce((s, x, i) => (x > options.limit ? s + (strain.area[i] as number) : s), 0),
      overlaps: overlap,
      pieces: topology.parts.length,
      warnings,
    },
  }) // prettier-ignore
}
const max = (list: Float64Array): number => list.reduce((m, x) => Math.max(m, x), -Infinity)

/** Why one part is no panel: it has no edge, or a handle that no flat film has. */
function noPanel(mesh: TriMesh, topology: Topology, first: number): Fault | null {
  const facts = { triangle: first + 1 }
  if (topology.loops.length === 0) return { code: 'closed_surface', facts }
  const vertices = mesh.positions.length / 3
  const inner = topology.opposite.reduce((s, o) => s + (o >= 0 ? 1 : 0), 0) / 2
  const sides = inner + topology.opposite.reduce((s, o) => s + (o < 0 ? 1 : 0), 0)
  const handles = (2 - topology.loops.length - (vertices - sides + mesh.triangles.length / 3)) / 2
  return handles > 0 ? { code: 'handles', facts: { ...facts, handles } } : null
}

function extract(mesh: TriMesh, part: readonly number[]): TriMesh {
  const ids = new Map<number, number>()
  const positions: number[] = []
  const triangles = new Uint32Array(3 * part.length)
  part.forEach((t, i) => {
    for (let k = 0; k < 3; k++) {
      const v = mesh.triangles[3 * t + k] as number
      let id = ids.get(v)
      if (id === undefined) {
        id = ids.size
        ids.set(v, id)
        positions.push(
          mesh.positions[3 * v] as number,
          mesh.positions[3 * v + 1] as number,
          mesh.positions[3 * v + 2] as number,
        )
      }
      triangles[3 * i + k] = id
    }
  })
  return { positions: Float64Array.from(positions), triangles }
}

/** Edges of the film's rim, x1 y1 x2 y2. */
function rim(mesh: TriMesh, topology: Topology, places: Float64Array): Float64Array {
  const out: number[] = []
  topology.opposite.forEach((o, s) => {
    if (o >= 0) return
    const t = Math.floor(s / 3)
    for (const k of [s % 3, (s + 1) % 3]) {
      const v = mesh.triangles[3 * t + k] as number
      out.push(places[2 * v] as number, places[2 * v + 1] as number)
    }
  })
  return Float64Array.from(out)
}

function sizeWarnings(mesh: TriMesh): string[] {
  const span = [0, 1, 2].map((d) => {
    let [low, high] = [Infinity, -Infinity]
    for (let i = d; i < mesh.positions.length; i += 3) {
      low = Math.min(low, mesh.positions[i] as number)
      high = Math.max(high, mesh.positions[i] as number)
    }
    return high - low
  })
  const size = Math.max(...span)
  if (size < SMALL_MM) return [`only ${size.toPrecision(3)} mm across: is the mesh in metres or inches?`]
  return size > LARGE_MM ? [`${size.toPrecision(3)} mm across: is the mesh in other units than mm?`] : []
}

/** The surface with its film places as an OBJ file: the same triangles in the same order, `vt` in mm. */
export function flatObj({ mesh, corners, filmVertex, filmVertices }: FlatPanel): string {
  const lines = ['# film places in mm as vt']
  const p = mesh.positions
  for (let v = 0; v < p.length / 3; v++) lines.push(`v ${p[3 * v]} ${p[3 * v + 1]} ${p[3 * v + 2]}`)
  const places = new Float64Array(2 * filmVertices)
  filmVertex.forEach((v, c) => {
    places[2 * v] = corners[2 * c] as number
    places[2 * v + 1] = corners[2 * c + 1] as number
  })
  for (let v = 0; v < filmVertices; v++) lines.push(`vt ${places[2 * v]} ${places[2 * v + 1]}`)
  for (let t = 0; t < mesh.triangles.length / 3; t++)
    lines.push(
      `f ${[0, 1, 2].map((k) => `${(mesh.triangles[3 * t + k] as number) + 1}/${(filmVertex[3 * t + k] as number) + 1}`).join(' ')}`,
    )
  return `${lines.join('\n')}\n`
}
