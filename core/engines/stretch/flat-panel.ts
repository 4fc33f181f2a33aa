import { nth } from '../../kit/known'
import { err, ok, type Fault, type Result } from '../../kit/result'
import {
  cutAlong,
  flatten,
  overlaps,
  quantile,
  strainOf,
  topologyOf,
  withoutCollapsed,
  type Repaired,
  type Topology,
  type TriMesh,
} from '../../solve/mesh'
import type { FlatWarning } from './flat-warning'
import { layRestBeside } from './laid-first'
import { pathSides } from '../../solve/mesh/lines'
import { partOfMesh, rimOf, sizeWarnings, whyNoPanel } from './mesh-checks'

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
  warnings: FlatWarning[]
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
/** Free film between pieces laid beside one another, as a share of their width. */
const BETWEEN = 0.05

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
    places.set(v, [nth(flat.value.corners, 2 * c), nth(flat.value.corners, 2 * c + 1)])
  })
  const corners = Float64Array.from([...mesh.triangles].flatMap((v) => places.get(nth(vertexOf, v)) ?? [0, 0]))
  const { report } = flat.value
  return ok({
    mesh,
    corners,
    filmVertex: mesh.triangles,
    filmVertices: mesh.positions.length / 3,
    report: {
      ...report,
      triangles: mesh.triangles.length / 3,
      warnings: [{ code: 'collapsed_mended', collapsed }, ...report.warnings],
    },
  })
}

function flatSound(mesh: TriMesh, options: StretchOptions): Result<FlatPanel> {
  const cut = cutByLines(mesh, options.lines)
  if (!cut.ok) return cut
  const { topology } = cut.value
  const count = mesh.triangles.length / 3
  const laid = new Set(options.laid ?? [])
  for (const t of laid)
    if (!Number.isInteger(t) || t < 0 || t >= count)
      return err({ code: 'no_such_triangle', facts: { triangle: t, triangles: count } })
  const sheet: Sheet = {
    corners: new Float64Array(6 * count),
    right: 0,
    overlap: false,
    warnings: sizeWarnings(mesh),
  }
  if (topology.parts.length > 1) sheet.warnings.push({ code: 'parts_apart', parts: topology.parts.length })
  let done = 0
  for (const part of topology.parts) {
    const share = part.length / count
    const progress = (p: number) => options.progress?.(done + p * share)
    const fault = layPart(sheet, cut.value.mesh, part, { laid, options: { ...options, progress } })
    if (fault) return err(fault)
    done += share
  }
  return ok({
    mesh,
    corners: sheet.corners,
    filmVertex: cut.value.mesh.triangles,
    filmVertices: cut.value.mesh.positions.length / 3,
    report: reportOf(mesh, sheet, { pieces: topology.parts.length, options }),
  })
}

/** The mesh parted along seams and slits, and how it hangs together then. */
function cutByLines(mesh: TriMesh, lines: StretchOptions['lines']): Result<{ mesh: TriMesh; topology: Topology }> {
  const whole = topologyOf(mesh)
  if (!whole.ok) return whole
  if (!lines || lines.length === 0) return ok({ mesh, topology: whole.value })
  const sides = pathSides(mesh, whole.value, lines)
  if (!sides.ok) return sides
  const cut = cutAlong(mesh, whole.value.opposite, sides.value)
  const topology = topologyOf(cut.mesh)
  return topology.ok ? ok({ mesh: cut.mesh, topology: topology.value }) : topology
}

/** Parts that were laid flat so far, side by side: three corners a triangle. */
interface Sheet {
  corners: Float64Array
  /** Where the next part begins. */
  right: number
  /** Some part lies on itself. */
  overlap: boolean
  warnings: FlatWarning[]
}

/** Lays one part flat beside those before; what of it cannot be. */
function layPart(
  sheet: Sheet,
  mesh: TriMesh,
  part: readonly number[],
  { laid, options }: { laid: ReadonlySet<number>; options: StretchOptions },
): Fault | null {
  const own = partOfMesh(mesh, part)
  const there = topologyOf(own)
  if (!there.ok) return there.error
  const fault = whyNoPanel(own, there.value, nth(part, 0))
  if (fault) return fault
  const how = {
    shrink: options.shrink,
    restShrink: options.restShrink ?? options.shrink,
    ...(options.pull ? { pull: options.pull } : {}),
    ...(options.quick ? { quick: true } : {}),
    ...(options.thorough ? { thorough: true } : {}),
    ...(options.spent ? { spent: options.spent } : {}),
    progress: (share: number) => options.progress?.(share),
  }
  const stuck = part.flatMap((t, i) => (laid.has(t) ? [i] : []))
  const flat =
    stuck.length === 0 || stuck.length === part.length
      ? flatten(own, there.value, how)
      : layRestBeside(own, there.value, stuck, how)
  if (!flat.ok) return { ...flat.error, facts: { triangle: nth(part, 0) + 1 } }
  if (!flat.value.whole) sheet.warnings.push({ code: 'stopped_early' })
  const { places } = flat.value
  const least = (d: number) => places.reduce((m, x, i) => (i % 2 === d ? Math.min(m, x) : m), Infinity)
  const [low, high] = [least(0), least(1)]
  part.forEach((t, i) => {
    for (let k = 0; k < 3; k++) {
      const v = nth(own.triangles, 3 * i + k)
      sheet.corners[6 * t + 2 * k] = nth(places, 2 * v) - low + sheet.right
      sheet.corners[6 * t + 2 * k + 1] = nth(places, 2 * v + 1) - high
    }
  })
  const width = places.reduce((m, x, i) => (i % 2 === 0 ? Math.max(m, x) : m), -Infinity) - low
  sheet.right += width * (1 + BETWEEN)
  if (overlaps(rimOf(own, there.value, places))) {
    sheet.overlap = true
    sheet.warnings.push({ code: 'lies_on_itself' })
  }
  return null
}

function reportOf(
  mesh: TriMesh,
  { corners, overlap, warnings }: Sheet,
  { pieces, options }: { pieces: number; options: StretchOptions },
): FlatPanel['report'] {
  const strain = strainOf(mesh, corners)
  const most = max(strain.squeeze)
  const area = strain.area.reduce((s, a) => s + a, 0)
  const mean = strain.stretch.reduce((s, x, i) => s + x * nth(strain.area, i), 0) / area
  return {
    format: 'cuirass/stretch@1',
    triangles: mesh.triangles.length / 3,
    area_mm2: area,
    stretch: {
      max: Math.max(0, max(strain.stretch)),
      p99: Math.max(0, quantile(strain.stretch, strain.area, 0.99)),
      mean: Math.max(0, mean),
    },
    squeeze: { max: Math.max(0, most) },
    over_limit_mm2: strain.stretch.reduce((s, x, i) => (x > options.limit ? s + nth(strain.area, i) : s), 0),
    overlaps: overlap,
    pieces,
    warnings:
      most > Math.max(options.shrink, options.restShrink ?? 0) + SQUEEZED
        ? [...warnings, { code: 'squeezed_beside_laid', squeeze: most }]
        : warnings,
  }
}
const max = (list: Float64Array): number => list.reduce((m, x) => Math.max(m, x), -Infinity)
