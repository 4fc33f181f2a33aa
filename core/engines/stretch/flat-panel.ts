import { err, ok, type Fault, type Result } from '../../kit/result'
import {
  cutAlong,
  flatten,
  flattenRest,
  overlaps,
  quantile,
  readMesh,
  strainOf,
  topologyOf,
  withoutCollapsed,
  type Flat,
  type Repaired,
  type Topology,
  type TriMesh,
} from '../../solve/mesh'
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
  /**
   * Triangles, numbered from 0, that are stuck first and move no more: they get the least worst stretch of their own.
   */
  laid?: readonly number[]
  /** How much the film beside what is laid may be squeezed, where that differs from `shrink`. */
  restShrink?: number
  /** `tightest` (default): the least worst stretch; `even`: an even pull over the whole. */
  pull?: 'tightest' | 'even'
  /** Fewer steps, for previews and for many maps to be compared. */
  quick?: boolean
  /** As in `FlattenOptions`. */
  thorough?: boolean
  spent?: () => boolean
  progress?: (share: number) => void
}

/** More squeeze than this beyond what film bears is told. */
const SQUEEZED = 0.001
/** Larger meshes are thinned first: they would take many minutes and show nothing more. */
const MOST_TRIANGLES = 200_000
/** Parts stuck first, each by itself, at most. */
const MOST_PARTS = 24
/** Free film between pieces laid beside one another, as a share of their width. */
const BETWEEN = 0.05
/** A panel smaller or larger than this across is probably in other units, mm. */
const SMALL_MM = 80
const LARGE_MM = 20_000

/** Film for a surface read from the bytes of a mesh file. Errors: bad_file and those of `flatPanel`. */
export function flatFromFile(bytes: Uint8Array, name: string, options: StretchOptions): Result<FlatPanel> {
  const read = meshFromFile(bytes, name)
  return read.ok ? flatPanel(read.value, options) : read
}
/** A mesh read from the bytes of its file. Errors: bad_file, bad_number, with why. */
export function meshFromFile(bytes: Uint8Array, name: string): Result<TriMesh> {
  const read = readMesh(bytes, name)
  if (read.ok) return read
  return err({
    code: read.error.code === 'bad_number' ? 'bad_number' : 'bad_file',
    ...(read.error.at ? { at: read.error.at } : {}),
    facts: { ...read.error.facts, why: read.error.code },
  })
}

/**
 * Film for a surface, each part that hangs together a piece: the least worst stretch with no squeeze past `shrink`.
 * Errors: too_many_triangles, empty_mesh, bad_number, degenerate, not_manifold, closed_surface, handles,
 * no_such_line, cannot_flatten.
 */
export function flatPanel(mesh: TriMesh, options: StretchOptions): Result<FlatPanel> {
  const triangles = mesh.triangles.length / 3
  if (triangles > MOST_TRIANGLES)
    return err({ code: 'too_many_triangles', facts: { triangles, limit: MOST_TRIANGLES } })
  // Seams and what is laid first name vertices and triangles: there a collapsed triangle is refused, not mended.
  const named = (options.lines ?? []).length > 0 || (options.laid ?? []).length > 0
  if (named || triangles === 0) return flatSound(mesh, options)
  const finite = mesh.positions.every(Number.isFinite) && mesh.triangles.every((v) => 3 * v < mesh.positions.length)
  const mended = finite ? withoutCollapsed(mesh) : null
  if (mended && !mended.ok) return mended
  if (!mended || mended.value.collapsed === 0) return flatSound(mesh, options)
  return flatMended(mesh, mended.value, options)
}

/** Film of a mended mesh, told for the triangles as they were: each corner lies where its vertex does. */
function flatMended(
  mesh: TriMesh,
  { mesh: sound, vertexOf, collapsed }: Repaired,
  options: StretchOptions,
): Result<FlatPanel> {
  const flat = flatSound(sound, options)
  if (!flat.ok) return flat
  const places = new Map<number, [number, number]>()
  sound.triangles.forEach((v, c) => {
    places.set(v, [flat.value.corners[2 * c] as number, flat.value.corners[2 * c + 1] as number])
  })
  const corners = Float64Array.from([...mesh.triangles].flatMap((v) => places.get(vertexOf[v] as number) ?? [0, 0]))
  const { report } = flat.value
  const said = `${collapsed} ${collapsed === 1 ? 'triangle' : 'triangles'} without area: mended, and left out of the figures`
  return ok({
    mesh,
    corners,
    filmVertex: mesh.triangles,
    filmVertices: mesh.positions.length / 3,
    report: { ...report, triangles: mesh.triangles.length / 3, warnings: [said, ...report.warnings] },
  })
}

function flatSound(mesh: TriMesh, options: StretchOptions): Result<FlatPanel> {
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
  const laid = new Set(options.laid ?? [])
  for (const t of laid)
    if (!Number.isInteger(t) || t < 0 || t >= count)
      return err({ code: 'no_such_triangle', facts: { triangle: t, triangles: count } })
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
    const how = {
      shrink: options.shrink,
      restShrink: options.restShrink ?? options.shrink,
      ...(options.pull ? { pull: options.pull } : {}),
      ...(options.quick ? { quick: true } : {}),
      ...(options.thorough ? { thorough: true } : {}),
      ...(options.spent ? { spent: options.spent } : {}),
      progress: (p: number) => options.progress?.(done + p * share),
    }
    const stuck = part.flatMap((t, i) => (laid.has(t) ? [i] : []))
    const flat =
      stuck.length === 0 || stuck.length === part.length
        ? flatten(own, there.value, how)
        : afterLaid(own, there.value, stuck, how)
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
  if (max(strain.squeeze) > Math.max(options.shrink, options.restShrink ?? 0) + SQUEEZED)
    warnings.push(
      `beside what is laid the film would have to be squeezed by ${(100 * max(strain.squeeze)).toFixed(1)} %: it wrinkles there`,
    )
  const area = strain.area.reduce((s, a) => s + a, 0)
  const mean = strain.stretch.reduce((s, x, i) => s + x * (strain.area[i] as number), 0) / area
  return ok({
    mesh,
    corners,
    filmVertex: cut.mesh.triangles,
    filmVertices: cut.mesh.positions.length / 3,
    report: {
      format: 'cuirass/stretch@1',
      triangles: count,
      area_mm2: area,
      stretch: {
        max: Math.max(0, max(strain.stretch)),
        p99: Math.max(0, quantile(strain.stretch, strain.area, 0.99)),
        mean: Math.max(0, mean),
      },
      squeeze: { max: Math.max(0, max(strain.squeeze)) },
      over_limit_mm2: strain.stretch.reduce((s, x, i) => (x > options.limit ? s + (strain.area[i] as number) : s), 0),
      overlaps: overlap,
      pieces: topology.parts.length,
      warnings,
    },
  })
}
const max = (list: Float64Array): number => list.reduce((m, x) => Math.max(m, x), -Infinity)

/**
 * A region with the triangles whose corners all lie in it: these have no freedom of their own, so they are laid with
 * it.
 */
function filled(mesh: TriMesh, region: readonly number[]): number[] {
  const held = new Set<number>()
  for (const t of region) for (let k = 0; k < 3; k++) held.add(mesh.triangles[3 * t + k] as number)
  const out: number[] = []
  for (let t = 0; t < mesh.triangles.length / 3; t++)
    if ([0, 1, 2].every((k) => held.has(mesh.triangles[3 * t + k] as number))) out.push(t)
  return out
}

/**
 * Film in two stages: what is stuck first by itself, then the rest beside it. Errors: laid_in_parts, and those of
 * both.
 */
function afterLaid(
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
  const stuck = filled(mesh, asked)
  const first = topologyOf(extract(mesh, stuck))
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
    const own = part.map((i) => stuck[i] as number)
    const alone = extract(mesh, own)
    const there = topologyOf(alone)
    if (!there.ok) return there
    const flat = flatten(alone, there.value, { ...how, progress: (s) => how.progress(s * 0.2) })
    if (!flat.ok) return flat
    own.forEach((t, i) => {
      triangles[t] = 1
      for (let k = 0; k < 3; k++) {
        const [v, w] = [mesh.triangles[3 * t + k] as number, alone.triangles[3 * i + k] as number]
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
