import { nth } from '../../kit/known'
import { err, type Result } from '../../kit/result'
import { readMesh, type TriMesh } from '../../solve/mesh'
import { flatPanel, type FlatPanel, type StretchOptions } from './flat-panel'

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

/** The surface with its film places as an OBJ file: the same triangles in the same order, `vt` in mm. */
export function flatObj({ mesh, corners, filmVertex, filmVertices }: FlatPanel): string {
  const lines = ['# film places in mm as vt']
  const p = mesh.positions
  for (let v = 0; v < p.length / 3; v++) lines.push(`v ${p[3 * v]} ${p[3 * v + 1]} ${p[3 * v + 2]}`)
  const places = new Float64Array(2 * filmVertices)
  filmVertex.forEach((v, c) => {
    places[2 * v] = nth(corners, 2 * c)
    places[2 * v + 1] = nth(corners, 2 * c + 1)
  })
  for (let v = 0; v < filmVertices; v++) lines.push(`vt ${places[2 * v]} ${places[2 * v + 1]}`)
  for (let t = 0; t < mesh.triangles.length / 3; t++)
    lines.push(
      `f ${[0, 1, 2].map((k) => `${nth(mesh.triangles, 3 * t + k) + 1}/${nth(filmVertex, 3 * t + k) + 1}`).join(' ')}`,
    )
  return `${lines.join('\n')}\n`
}
