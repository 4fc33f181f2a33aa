import { MeshoptSimplifier } from 'meshoptimizer'
import type { Fault } from '@/core/kit/result'
import { meshFromFile } from '@/core/engines/stretch/flat-file'
import { cleaned } from '@/core/solve/mesh/scan'
import type { TriMesh } from '@/core/solve/mesh'

export type ScanAsk =
  { kind: 'read'; bytes: Uint8Array; name: string } | { kind: 'thin'; mesh: TriMesh; triangles: number }
export type ScanNews =
  | { kind: 'step'; step: 'read' | 'clean' | 'thin'; share: number }
  | { kind: 'mesh'; mesh: TriMesh; was: number; welded: number; dropped: number; turned: number }
  | { kind: 'fault'; fault: Fault }

/** A scan is shown with so many triangles; its panel is thinned further once it is cut out. */
const SHOWN = 20_000
const MOST = 2_000_000
/** How far thinning may move the surface, as a share of its size. */
const THIN_ERROR = 0.002

const post = (news: ScanNews) => self.postMessage(news)

/** Reads, joins, cleans and thins a scan off the main thread. Stopped by ending the worker. */
self.onmessage = ({ data }: MessageEvent<ScanAsk>) => {
  void (data.kind === 'read' ? read(data.bytes, data.name) : thin(data.mesh, data.triangles))
}
async function read(bytes: Uint8Array, name: string): Promise<void> {
  post({ kind: 'step', step: 'read', share: 0.05 })
  const made = meshFromFile(bytes, name)
  if (!made.ok) return post({ kind: 'fault', fault: made.error })
  const was = made.value.triangles.length / 3
  if (was > MOST)
    return post({ kind: 'fault', fault: { code: 'scan_too_many', facts: { triangles: was, limit: MOST } } })
  post({ kind: 'step', step: 'thin', share: 0.4 })
  // Thinned first, if it is large: cleaning walks every edge.
  const few = was > 4 * SHOWN ? await thinned(made.value, 3 * SHOWN) : made.value
  post({ kind: 'step', step: 'clean', share: 0.6 })
  const clean = cleaned(few)
  if (!clean.ok) return post({ kind: 'fault', fault: clean.error })
  post({ kind: 'step', step: 'thin', share: 0.85 })
  const { mesh, welded, dropped, turned } = clean.value
  const shown = await fit(mesh, SHOWN)
  if (shown) post({ kind: 'mesh', mesh: shown, was, welded, dropped, turned })
}
async function thin(mesh: TriMesh, triangles: number): Promise<void> {
  const made = await fit(mesh, triangles)
  if (made) post({ kind: 'mesh', mesh: made, was: mesh.triangles.length / 3, welded: 0, dropped: 0, turned: 0 })
}
/** Thinned to so many triangles and cleaned again, since thinning may leave slivers. */
async function fit(mesh: TriMesh, triangles: number): Promise<TriMesh | null> {
  if (mesh.triangles.length / 3 <= triangles) return mesh
  const again = cleaned(await thinned(mesh, triangles))
  if (!again.ok) {
    post({ kind: 'fault', fault: again.error })
    return null
  }
  return again.value.mesh
}
async function thinned(mesh: TriMesh, triangles: number): Promise<TriMesh> {
  await MeshoptSimplifier.ready
  const [list] = MeshoptSimplifier.simplify(
    mesh.triangles,
    Float32Array.from(mesh.positions),
    3,
    3 * triangles,
    THIN_ERROR,
  )
  const ids = new Map<number, number>()
  const places: number[] = []
  const own = Uint32Array.from(list, (v) => {
    let id = ids.get(v)
    if (id === undefined) {
      id = ids.size
      ids.set(v, id)
      for (let d = 0; d < 3; d++) places.push(mesh.positions[3 * v + d] as number)
    }
    return id
  })
  return { positions: Float64Array.from(places), triangles: own }
}
