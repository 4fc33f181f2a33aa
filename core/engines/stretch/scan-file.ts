import { err, ok, type Fault, type Result } from '../../kit/result'
import type { ScanSurface } from '../../solve/mesh/scan'

const MOST_VERTICES = 60_000
const MOST_TRIANGLES = 120_000
const HEAD_BYTES = 12
const MAGIC = 0x43534331
/**
 * A scan as bytes: magic, vertices, triangles (uint32, little-endian), then xyz and taped xy as float32, then corners
 * as uint32.
 */
export function packScan({ positions, triangles, taped }: ScanSurface): Uint8Array {
  const n = positions.length / 3
  const view = new DataView(new ArrayBuffer(HEAD_BYTES + 4 * (5 * n + triangles.length)))
  view.setUint32(0, MAGIC, true)
  view.setUint32(4, n, true)
  view.setUint32(8, triangles.length / 3, true)
  let at = HEAD_BYTES
  for (const list of [positions, taped]) list.forEach((x) => view.setFloat32((at += 4) - 4, x, true))
  triangles.forEach((v) => view.setUint32((at += 4) - 4, v, true))
  return new Uint8Array(view.buffer)
}
/** The other way round. Errors: bad_scan, saying why. */
export function unpackScan(bytes: Uint8Array): Result<ScanSurface> {
  const bad = (why: string) => err<Fault>({ code: 'bad_scan', facts: { why } })
  if (bytes.byteLength < HEAD_BYTES) return bad('short')
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (view.getUint32(0, true) !== MAGIC) return bad('not_a_scan')
  const [n, t] = [view.getUint32(4, true), view.getUint32(8, true)]
  if (n < 3 || n > MOST_VERTICES || t < 1 || t > MOST_TRIANGLES) return bad('size')
  if (bytes.byteLength !== HEAD_BYTES + 4 * (5 * n + 3 * t)) return bad('length')
  let at = HEAD_BYTES
  const floats = (count: number) => Float64Array.from({ length: count }, () => view.getFloat32((at += 4) - 4, true))
  const [positions, taped] = [floats(3 * n), floats(2 * n)]
  const triangles = Uint32Array.from({ length: 3 * t }, () => view.getUint32((at += 4) - 4, true))
  if (!positions.every(Number.isFinite) || !taped.every(Number.isFinite)) return bad('number')
  if (!triangles.every((v) => v < n)) return bad('corner')
  return ok({ positions, triangles, taped })
}
