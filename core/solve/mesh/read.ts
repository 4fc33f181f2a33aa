import { err, ok, type Fault, type Result } from '../../kit/result'
import type { TriMesh } from './mesh'

/** Larger files are no panel. */
export const MOST_TRIANGLES = 1_000_000
type Format = 'obj' | 'stl' | 'ply'

/**
 * A mesh from the bytes of an OBJ, STL (both kinds) or PLY (ascii, binary little and big) file. Faces of more corners
 * are split into fans. Vertices are as the file has them; a triangle soup is welded by equal places. Errors:
 * empty_file, unknown_format, bad_line (line), bad_count, truncated, list_type, too_many_triangles, bad_index.
 */
export function readMesh(bytes: Uint8Array, name = ''): Result<TriMesh> {
  if (bytes.length === 0) return err({ code: 'empty_file' })
  const format = formatOf(bytes, name)
  if (!format) return err({ code: 'unknown_format' })
  const read = format === 'obj' ? readObj(text(bytes)) : format === 'stl' ? readStl(bytes) : readPly(bytes)
  if (!read.ok) return read
  const { positions, triangles } = read.value
  if (triangles.length / 3 > MOST_TRIANGLES)
    return err({ code: 'too_many_triangles', facts: { limit: MOST_TRIANGLES } })
  const mesh: TriMesh = { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) }
  return ok(format === 'stl' || mesh.positions.length / 3 === mesh.triangles.length ? weld(mesh) : mesh)
}

const text = (bytes: Uint8Array): string => {
  let out = ''
  for (let i = 0; i < bytes.length; i += 8192) out += String.fromCharCode(...bytes.subarray(i, i + 8192))
  return out
}
function formatOf(bytes: Uint8Array, name: string): Format | null {
  const head = text(bytes.subarray(0, 400))
  if (/^ply\s/.test(head)) return 'ply'
  if (/\.stl$/i.test(name) || (/^\s*solid\b/.test(head) && /\bfacet\b/.test(text(bytes.subarray(0, 2000)))))
    return 'stl'
  if (/\.obj$/i.test(name) || /^\s*(#|v |o |g |mtllib )/m.test(head)) return 'obj'
  return bytes.length >= 84 && bytes.length === 84 + 50 * u32(bytes, 80) ? 'stl' : null
}
const u32 = (b: Uint8Array, at: number): number =>
  new DataView(b.buffer, b.byteOffset, b.byteLength).getUint32(at, true)

interface Raw {
  positions: number[]
  triangles: number[]
}
const badLine = (line: number) => err<Fault>({ code: 'bad_line', at: `line ${line}` })

function readObj(source: string): Result<Raw> {
  const positions: number[] = []
  const triangles: number[] = []
  const lines = source.split('\n')
  for (let i = 0; i < lines.length; i++) {
    const line = lines[i].trim()
    if (line.startsWith('v ')) {
      const xyz = line.slice(2).trim().split(/\s+/).slice(0, 3).map(Number)
      if (xyz.length < 3) return badLine(i + 1)
      if (!xyz.every(Number.isFinite)) return err({ code: 'bad_number', at: `line ${i + 1}` })
      positions.push(...xyz)
    } else if (line.startsWith('f ')) {
      const face: number[] = []
      for (const word of line.slice(2).trim().split(/\s+/)) {
        const n = Number(word.split('/')[0])
        if (n === 0)
          return err({ code: 'face_index_zero', at: `line ${i + 1}`, facts: { face: triangles.length / 3 + 1 } })
        if (!Number.isInteger(n)) return badLine(i + 1)
        const v = n > 0 ? n - 1 : positions.length / 3 + n
        if (v < 0) return err({ code: 'bad_index', at: `line ${i + 1}`, facts: { index: n } })
        face.push(v)
      }
      if (face.length < 3)
        return err({ code: 'face_too_few_corners', at: `line ${i + 1}`, facts: { corners: face.length } })
      for (let k = 1; k + 1 < face.length; k++) triangles.push(face[0], face[k], face[k + 1])
      if (triangles.length > 3 * MOST_TRIANGLES)
        return err({ code: 'too_many_triangles', facts: { limit: MOST_TRIANGLES } })
    }
  }
  const n = positions.length / 3
  if (triangles.some((v) => v >= n)) return err({ code: 'bad_index', facts: { vertices: n } })
  return ok({ positions, triangles })
}

function readStl(bytes: Uint8Array): Result<Raw> {
  const head = text(bytes.subarray(0, 2000))
  const said = bytes.length >= 84 ? u32(bytes, 80) : -1
  const binary = bytes.length >= 84 && bytes.length === 84 + 50 * said
  if (!binary && /^\s*solid\b/.test(head) && /\bfacet\b/.test(head)) return readAsciiStl(text(bytes))
  if (bytes.length < 84) return err({ code: 'truncated' })
  if (said > MOST_TRIANGLES)
    return err({ code: 'bad_count', facts: { said, holds: Math.floor((bytes.length - 84) / 50) } })
  if (!binary) return err({ code: 'bad_count', facts: { said, holds: Math.floor((bytes.length - 84) / 50) } })
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const positions: number[] = []
  const triangles: number[] = []
  for (let t = 0; t < said; t++)
    for (let k = 0; k < 3; k++) {
      triangles.push(positions.length / 3)
      for (let i = 0; i < 3; i++) positions.push(view.getFloat32(84 + 50 * t + 12 + 12 * k + 4 * i, true))
    }
  return ok({ positions, triangles })
}
function readAsciiStl(source: string): Result<Raw> {
  const positions: number[] = []
  const triangles: number[] = []
  const lines = source.split('\n')
  for (let i = 0; i < lines.length; i++) {
    const words = lines[i].trim().split(/\s+/)
    if (words[0] !== 'vertex') continue
    const xyz = words.slice(1, 4).map(Number)
    if (xyz.length < 3 || !xyz.every(Number.isFinite)) return badLine(i + 1)
    triangles.push(positions.length / 3)
    positions.push(...xyz)
  }
  if (triangles.length % 3 !== 0) return err({ code: 'truncated' })
  if (!/endsolid/.test(source)) return err({ code: 'truncated' })
  return ok({ positions, triangles })
}

const SIZES: Record<string, number> = {
  char: 1,
  uchar: 1,
  int8: 1,
  uint8: 1,
  short: 2,
  ushort: 2,
  int16: 2,
  uint16: 2,
  int: 4,
  uint: 4,
  int32: 4,
  uint32: 4,
  float: 4,
  float32: 4,
  double: 8,
  float64: 8,
}
interface Property {
  name: string
  type: string
  /** Type of the count, where it is a list. */
  list: string | null
}
interface Element {
  name: string
  count: number
  properties: Property[]
}

function readPly(bytes: Uint8Array): Result<Raw> {
  const ending = /end_header\r?\n/.exec(text(bytes.subarray(0, 20_000)))
  if (!ending) return err({ code: 'truncated' })
  const body = ending.index + ending[0].length
  const elements: Element[] = []
  let format = ''
  const lines = text(bytes.subarray(0, ending.index)).split('\n')
  for (let i = 0; i < lines.length; i++) {
    const words = lines[i].trim().split(/\s+/)
    if (words[0] === 'format') format = words[1] ?? ''
    else if (words[0] === 'element') elements.push({ name: words[1] ?? '', count: Number(words[2]), properties: [] })
    else if (words[0] === 'property') {
      const list = words[1] === 'list'
      const [count, type, name] = list
        ? [words[2] ?? '', words[3] ?? '', words[4] ?? '']
        : [null, words[1] ?? '', words[2] ?? '']
      if (!(type in SIZES) || (count !== null && !(count in SIZES)))
        return err({
          code: 'list_type',
          at: `line ${i + 1}`,
          facts: { type: count !== null && !(count in SIZES) ? count : type },
        })
      elements.at(-1)?.properties.push({ name, type, list: count })
    }
  }
  if (!['ascii', 'binary_little_endian', 'binary_big_endian'].includes(format))
    return err({ code: 'unknown_format', facts: { format } })
  if (elements.some((e) => !Number.isInteger(e.count) || e.count < 0 || e.count > 20 * MOST_TRIANGLES))
    return err({ code: 'bad_count' })
  const next =
    format === 'ascii'
      ? asciiReader(text(bytes.subarray(body)))
      : binaryReader(bytes, body, format === 'binary_little_endian')
  const positions: number[] = []
  const triangles: number[] = []
  for (const e of elements) {
    const axes = ['x', 'y', 'z'].map((axis) => e.properties.findIndex((p) => p.name === axis))
    if (e.name === 'vertex' && axes.some((a) => a < 0))
      return err({ code: 'bad_line', at: 'header: a vertex has no x, y and z' })
    for (let i = 0; i < e.count; i++) {
      const row: number[] = []
      for (const p of e.properties) {
        const count = p.list ? next(p.list) : 1
        if (count === null || count < 0 || count > 1000)
          return err({ code: 'truncated', facts: { element: e.name, number: i + 1 } })
        const face: number[] = []
        for (let k = 0; k < count; k++) {
          const v = next(p.type)
          if (v === null) return err({ code: 'truncated', facts: { element: e.name, number: i + 1 } })
          if (p.list) face.push(v)
          else row.push(v)
        }
        if (p.list) {
          row.push(NaN)
          if (e.name === 'face' && /^vert(ex|ices)|^vertex_ind/.test(p.name))
            for (let k = 1; k + 1 < face.length; k++) triangles.push(face[0], face[k], face[k + 1])
        }
      }
      if (e.name === 'vertex') positions.push(...axes.map((a) => row[a]))
      if (triangles.length > 3 * MOST_TRIANGLES)
        return err({ code: 'too_many_triangles', facts: { limit: MOST_TRIANGLES } })
    }
  }
  const n = positions.length / 3
  if (triangles.some((v) => !Number.isInteger(v) || v < 0 || v >= n))
    return err({ code: 'bad_index', facts: { vertices: n } })
  return ok({ positions, triangles })
}
function asciiReader(source: string): (type: string) => number | null {
  const words = source.split(/\s+/).filter((w) => w !== '')
  let at = 0
  return () => {
    const word = words[at++]
    return word === undefined ? null : Number(word)
  }
}
function binaryReader(bytes: Uint8Array, from: number, little: boolean): (type: string) => number | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  let at = from
  return (type) => {
    const size = SIZES[type]
    if (at + size > bytes.length) return null
    const here = at
    at += size
    if (/^(double|float64)$/.test(type)) return view.getFloat64(here, little)
    if (/^(float|float32)$/.test(type)) return view.getFloat32(here, little)
    const signed = !type.startsWith('u')
    if (size === 1) return signed ? view.getInt8(here) : view.getUint8(here)
    if (size === 2) return signed ? view.getInt16(here, little) : view.getUint16(here, little)
    return signed ? view.getInt32(here, little) : view.getUint32(here, little)
  }
}

/** Vertices at equal places become one. */
export function weld(mesh: TriMesh): TriMesh {
  const ids = new Map<string, number>()
  const positions: number[] = []
  const triangles = new Uint32Array(mesh.triangles.length)
  for (let c = 0; c < mesh.triangles.length; c++) {
    const v = mesh.triangles[c]
    const place = [0, 1, 2].map((i) => mesh.positions[3 * v + i])
    const key = place.join(' ')
    let id = ids.get(key)
    if (id === undefined) {
      id = positions.length / 3
      ids.set(key, id)
      positions.push(...place)
    }
    triangles[c] = id
  }
  return { positions: Float64Array.from(positions), triangles }
}
