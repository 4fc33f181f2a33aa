import { describe, expect, it } from 'vitest'
import { readMesh, topologyOf, type TriMesh } from '@/core/solve/mesh'
import { flatFromFile, flatObj } from '@/core/engines/stretch/flat-file'
import { flatPanel, type FlatPanel } from '@/core/engines/stretch/flat-panel'
import { cap, disc, objOf, plyOf, sheet, stlOf } from '../fixtures/meshes'

const OPTIONS = { limit: 0.1, shrink: 0 }
const flat = (mesh: TriMesh, over = {}): FlatPanel => {
  const out = flatPanel(mesh, { ...OPTIONS, ...over })
  if (!out.ok) throw new Error(JSON.stringify(out.error))
  return out.value
}
const fault = (mesh: TriMesh) => {
  const out = flatPanel(mesh, OPTIONS)
  return out.ok ? 'none' : out.error.code
}

/**
 * Strain of a flat mesh worked out another way: the metric tensor of each triangle in film and on the surface, and the
 * roots of its characteristic polynomial. λ² are the eigenvalues of film⁻¹ · surface.
 */
function byMetric(mesh: TriMesh, corners: Float64Array): { stretch: number; squeeze: number; flipped: number } {
  let [stretch, squeeze, flipped] = [-Infinity, -Infinity, 0]
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const p = [0, 1, 2].map((k) =>
      [0, 1, 2].map((i) => mesh.positions[3 * (mesh.triangles[3 * t + k] as number) + i] as number),
    )
    const q = [0, 1, 2].map((k) => [corners[6 * t + 2 * k] as number, corners[6 * t + 2 * k + 1] as number])
    const side = (list: number[][], k: number) =>
      (list[k] as number[]).map((x, i) => x - ((list[0] as number[])[i] as number))
    const dot = (a: number[], b: number[]) => a.reduce((s, x, i) => s + x * (b[i] as number), 0)
    const metric = (list: number[][]) =>
      [dot(side(list, 1), side(list, 1)), dot(side(list, 1), side(list, 2)), dot(side(list, 2), side(list, 2))] as [
        number,
        number,
        number,
      ]
    const [e, f, g] = metric(p)
    const [E, F, G] = metric(q)
    const det = E * G - F * F
    const trace = (e * G - 2 * f * F + g * E) / det
    const product = (e * g - f * f) / det
    const root = Math.sqrt(Math.max(0, (trace / 2) ** 2 - product))
    stretch = Math.max(stretch, Math.sqrt(trace / 2 + root) - 1)
    squeeze = Math.max(squeeze, 1 - Math.sqrt(trace / 2 - root))
    const [[ux = 0, uy = 0], [vx = 0, vy = 0]] = [side(q, 1), side(q, 2)] as [number[], number[]]
    if (ux * vy - uy * vx <= 0) flipped++
  }
  return { stretch, squeeze, flipped }
}

describe('flat film of a surface', () => {
  it('is without stretch where the surface is developable: cylinder, cone, sheet bent on lines', () => {
    const folded = (u: number, v: number): [number, number, number] => [400 * u, 300 * v, 60 * Math.abs(u - 0.5)]
    const shapes = {
      cylinder: sheet(24, 24, (u, v) => [500 * Math.sin(2.6 * u), 900 * v, 500 * Math.cos(2.6 * u)]),
      cone: sheet(24, 24, (u, v) => [
        (200 + 700 * v) * 0.6 * Math.cos(2 * u),
        (200 + 700 * v) * 0.6 * Math.sin(2 * u),
        (200 + 700 * v) * 0.8,
      ]),
      folded: sheet(24, 24, folded),
      flat: sheet(12, 12, (u, v) => [1000 * u, 700 * v, 0], { jitter: 0.6 }),
    }
    for (const [name, mesh] of Object.entries(shapes)) {
      const { report } = flat(mesh)
      expect(report.stretch.max, name).toBeLessThan(1e-4)
      expect(report.squeeze.max, name).toBeLessThan(1e-4)
    }
  })
  it('of a spherical cap comes within 3 % of the least there can be, α/sin α − 1 (Milnor 1969), and never below it', () => {
    for (const degrees of [15, 30, 45, 60]) {
      const alpha = (degrees * Math.PI) / 180
      const least = alpha / Math.sin(alpha) - 1
      const { report } = flat(cap(13, alpha))
      expect(report.triangles).toBe(1014)
      expect(report.stretch.max, `${degrees}°`).toBeLessThan(least * 1.03)
      expect(report.stretch.max, `${degrees}°`).toBeGreaterThan(least * 0.99)
    }
  })
  it('turns no triangle over, squeezes nothing, and says what its own flat mesh shows: by another way of reckoning', () => {
    const shapes = [
      sheet(20, 20, (u, v) => [1000 * (u - 0.5), 1000 * (v - 0.5), 400 * ((u - 0.5) ** 2 - (v - 0.5) ** 2)]),
      sheet(24, 24, (u, v) => [
        600 * u,
        600 * v,
        -40 * Math.max(0, Math.cos(Math.min(Math.PI / 2, 5 * Math.hypot(u - 0.5, v - 0.5)))),
      ]),
      sheet(24, 24, (u, v) => [1000 * u, 1000 * v, -500 * ((u - 0.5) ** 2 + (v - 0.5) ** 2)], {
        skip: (u, v) => Math.hypot(u - 0.5, v - 0.5) < 0.15,
      }),
      cap(9, 1.9),
    ]
    for (const mesh of shapes) {
      const { report, corners } = flat(mesh)
      const twin = byMetric(mesh, corners)
      expect(twin.flipped).toBe(0)
      expect(report.stretch.max).toBeCloseTo(twin.stretch, 6)
      expect(twin.squeeze).toBeLessThan(1e-3)
      expect(report.overlaps).toBe(false)
      expect(report.stretch.mean).toBeLessThanOrEqual(report.stretch.p99)
      expect(report.stretch.p99).toBeLessThanOrEqual(report.stretch.max)
    }
  })
  it('shrink only rescales: (1 − s)(1 + m) − 1', () => {
    const mesh = cap(9, 0.8)
    const m = flat(mesh).report.stretch.max
    for (const shrink of [0.02, 0.05]) {
      const { report, corners } = flat(mesh, { shrink })
      expect(report.stretch.max).toBeCloseTo((1 - shrink) * (1 + m) - 1, 6)
      expect(byMetric(mesh, corners).squeeze).toBeLessThan(shrink + 1e-3)
    }
  })
  it('a seam makes two pieces and less stretch; a slit from the edge opens one', () => {
    const mesh = cap(8, 1)
    const whole = flat(mesh).report.stretch.max
    const rim = (k: number) => 1 + [1, 2, 3, 4, 5, 6, 7].reduce((s, r) => s + 6 * r, 0) + k
    const seam = flat(mesh, { lines: [[rim(0), 0, rim(24)]] })
    expect(seam.report.pieces).toBe(2)
    expect(seam.report.stretch.max).toBeLessThan(whole * 0.75)
    const slit = flat(mesh, { lines: [[rim(0), 0]] })
    expect(slit.report.pieces).toBe(1)
    expect(slit.report.stretch.max).toBeLessThan(whole)
    expect(slit.filmVertices).toBeGreaterThan(mesh.positions.length / 3)
  })
  it('what is stuck first keeps its own film, and the rest takes it up: never less stretch than all laid at once', () => {
    // A dome in a flat: the flats stuck first leave the dome to stretch alone; the dome stuck first costs the flats
    // nothing.
    const dome = sheet(24, 24, (u, v) => [
      600 * u,
      600 * v,
      50 * Math.max(0, Math.cos(Math.min(Math.PI / 2, 6 * Math.hypot(u - 0.5, v - 0.5)))) ** 2,
    ])
    const middle = (t: number) => {
      const at = (d: number) =>
        [0, 1, 2].reduce((s, k) => s + (dome.positions[3 * (dome.triangles[3 * t + k] as number) + d] as number) / 3, 0)
      return Math.hypot(at(0) - 300, at(1) - 300)
    }
    const all = Array.from({ length: dome.triangles.length / 3 }, (_, t) => t)
    const outside = all.filter((t) => middle(t) > 190)
    const whole = flat(dome)
    const after = flat(dome, { laid: outside })
    const twin = byMetric(dome, after.corners)
    expect(twin.flipped).toBe(0)
    expect(twin.squeeze).toBeLessThan(2e-3)
    expect(after.report.stretch.max).toBeGreaterThan(whole.report.stretch.max * 0.985)
    // The flats lie as they would alone: without stretch.
    const film = (t: number) =>
      [0, 1, 2].map(
        (k) => [after.corners[6 * t + 2 * k] as number, after.corners[6 * t + 2 * k + 1] as number] as const,
      )
    for (const t of outside.slice(0, 200)) {
      const [a, b] = [film(t)[0] as readonly [number, number], film(t)[1] as readonly [number, number]]
      const [p, q] = [dome.triangles[3 * t] as number, dome.triangles[3 * t + 1] as number]
      const taped = Math.hypot(
        ...[0, 1, 2].map((i) => (dome.positions[3 * p + i] as number) - (dome.positions[3 * q + i] as number)),
      )
      expect(Math.hypot(a[0] - b[0], a[1] - b[1]) / taped).toBeCloseTo(1, 3)
    }
    const out = flatPanel(dome, { ...OPTIONS, laid: [99_999] })
    expect(out.ok ? '' : out.error.code).toBe('no_such_triangle')
  })
  it('is the same for the same mesh, and parts that do not hang together lie apart', () => {
    const one = cap(5, 0.7)
    const two: TriMesh = {
      positions: Float64Array.from([...one.positions, ...one.positions.map((x, i) => (i % 3 === 0 ? x + 5000 : x))]),
      triangles: Uint32Array.from([...one.triangles, ...one.triangles.map((v) => v + one.positions.length / 3)]),
    }
    expect(flatObj(flat(one))).toBe(flatObj(flat(one)))
    const { report, corners } = flat(two)
    expect(report.pieces).toBe(2)
    expect(report.warnings).toContainEqual({ code: 'parts_apart', parts: 2 })
    const half = corners.length / 2
    const xs = (from: number, to: number) => Array.from(corners.slice(from, to)).filter((_, i) => i % 2 === 0)
    expect(Math.max(...xs(0, half))).toBeLessThan(Math.min(...xs(half, corners.length)))
  })
})

describe('meshes that come in', () => {
  const mesh = sheet(4, 3, (u, v) => [100 * u, 80 * v, 10 * u * v])
  const same = (bytes: Uint8Array, name: string) => {
    const out = readMesh(bytes, name)
    if (!out.ok) throw new Error(JSON.stringify(out.error))
    return out.value
  }
  const text = (t: string) => new TextEncoder().encode(t)
  it('OBJ, PLY of three kinds and STL of both give the same surface', () => {
    const area = flat(mesh).report.area_mm2
    const vertex = (t: number, k: number) => {
      const v = 3 * (mesh.triangles[3 * t + k] as number)
      return `vertex ${[...mesh.positions.subarray(v, v + 3)].join(' ')}`
    }
    const facet = (t: number) =>
      `facet normal 0 0 0\nouter loop\n${[0, 1, 2].map((k) => vertex(t, k)).join('\n')}\nendloop\nendfacet`
    const facets = Array.from({ length: mesh.triangles.length / 3 }, (_, t) => facet(t))
    const ascii = `solid p\n${facets.join('\n')}\nendsolid p\n`
    for (const [name, bytes] of [
      ['a.obj', text(objOf(mesh))],
      ['a.ply', plyOf(mesh, 'ascii')],
      ['b.ply', plyOf(mesh, 'binary_little_endian')],
      ['c.ply', plyOf(mesh, 'binary_big_endian')],
      ['a.stl', stlOf(mesh)],
      ['b.stl', text(ascii)],
    ] as const) {
      const read = same(bytes, name)
      expect(read.triangles.length, name).toBe(mesh.triangles.length)
      expect(read.positions.length, name).toBe(mesh.positions.length)
      expect(flat(read).report.area_mm2, name).toBeCloseTo(area, 2)
    }
    expect(
      same(text(`${objOf(mesh).replace(/^f (\d+) (\d+) (\d+)$/gm, 'f $1/1/1 $2//2 $3')}`), 'x.obj').triangles,
    ).toEqual(mesh.triangles)
  })
  it('what is broken is named: file, place, cause', () => {
    const code = (bytes: Uint8Array, name: string) => {
      const out = flatFromFile(bytes, name, OPTIONS)
      return out.ok ? 'none' : [out.error.code, out.error.facts?.why ?? out.error.at ?? ''].join(' ').trim()
    }
    expect(code(new Uint8Array(), 'a.obj')).toBe('bad_file empty_file')
    expect(code(text('hello'), 'a.txt')).toBe('bad_file unknown_format')
    expect(code(text('v 0 0 0\nv 1 0 0\nf 1 2 x\n'), 'a.obj')).toBe('bad_file bad_line')
    expect(code(text('v 0 0 nan\nf 1 1 1\n'), 'a.obj')).toBe('bad_number bad_number')
    expect(code(text('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n'), 'a.obj')).toBe('bad_file bad_index')
    expect(code(text('v 0 0 0\n'), 'a.obj')).toBe('empty_mesh')
    expect(code(stlOf(mesh, 4_000_000), 'a.stl')).toBe('bad_file bad_count')
    expect(code(stlOf(mesh).subarray(0, 200), 'a.stl')).toBe('bad_file bad_count')
    expect(code(plyOf(mesh, 'ascii', 'huge int'), 'a.ply')).toBe('bad_file list_type')
    expect(code(plyOf(mesh, 'binary_little_endian').subarray(0, 400), 'a.ply')).toBe('bad_file truncated')
  })
  it('what is no panel is named', () => {
    const triangle = (list: number[]): TriMesh => ({
      positions: Float64Array.from([0, 0, 0, 100, 0, 0, 0, 100, 0, 0, 0, 100, 50, 50, 50]),
      triangles: Uint32Array.from(list),
    })
    expect(fault(triangle([0, 1, 2, 0, 2, 3, 0, 3, 1, 1, 3, 2]))).toBe('closed_surface')
    expect(fault(triangle([0, 1, 2, 0, 1, 3, 0, 1, 4]))).toBe('not_manifold')
    expect(fault(triangle([0, 1, 2, 0, 3, 4]))).toBe('not_manifold')
    expect(fault(triangle([0, 1, 1]))).toBe('degenerate')
    const ring = sheet(24, 8, (u, v) => [
      (300 + 80 * Math.cos(2 * Math.PI * v)) * Math.cos(6.2 * u),
      (300 + 80 * Math.cos(2 * Math.PI * v)) * Math.sin(6.2 * u),
      80 * Math.sin(2 * Math.PI * v),
    ])
    expect(topologyOf(ring).ok).toBe(true)
    expect(
      fault({ positions: Float64Array.from([0, 0, NaN, 1, 0, 0, 0, 1, 0]), triangles: Uint32Array.from([0, 1, 2]) }),
    ).toBe('bad_number')
  })
  it('a mesh of a few millimetres is laid, with a word about its units', () => {
    const { report } = flat(disc(3, (r, a) => [r * Math.cos(a), r * Math.sin(a), 0]))
    expect(report.warnings.map((w) => w.code)).toContain('very_small')
    // A bonnet of 1.4 m in inches; a mirror cap in millimetres.
    const across = (size: number) =>
      flat(sheet(4, 4, (u, v) => [size * u, 0.7 * size * v, 0]))
        .report.warnings.map((w) => w.code)
        .join()
    expect(across(1400 / 25.4)).toBe('very_small')
    expect(across(200)).toBe('')
  })
})
