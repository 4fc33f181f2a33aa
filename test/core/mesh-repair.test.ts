import { describe, expect, it } from 'vitest'
import { flatFromFile, flatObj } from '@/core/engines/stretch/flat-file'
import { flatPanel } from '@/core/engines/stretch/flat-panel'
import { withoutCollapsed, type TriMesh } from '@/core/solve/mesh'
import { sheet } from '../fixtures/meshes'

const bytes = (text: string) => new TextEncoder().encode(text)
const saddle = (steps = 16) =>
  sheet(steps, steps, (x, y) => [300 * x, 300 * y, 0.0012 * ((300 * x - 150) ** 2 - (300 * y - 150) ** 2)])
const dome = (steps = 16) =>
  sheet(steps, steps, (x, y) => [300 * x, 300 * y, 40 - 0.0005 * ((300 * x - 150) ** 2 + (300 * y - 150) ** 2)])
const flat = (mesh: TriMesh, shrink = 0) => {
  const out = flatPanel(mesh, { limit: 0.1, shrink })
  if (!out.ok) throw new Error(out.error.code)
  return out.value
}

describe('film is never shrunk for nothing', () => {
  it('where less than the capacity is wanted, the worst stretch is none and the file says the same as the report', () => {
    const bare = flat(saddle())
    const m = bare.report.stretch.max
    expect(m).toBeGreaterThan(0.001)
    expect(m).toBeLessThan(0.05)
    const shrunk = flat(saddle(), 0.05)
    expect(shrunk.report.stretch.max).toBeLessThan(1e-9)
    expect(shrunk.report.squeeze.max).toBeCloseTo(1 - 1 / (1 + m), 2)
    // Length of film along a row in the written file against that in the report's own map.
    const places = (out: typeof bare) =>
      flatObj(out)
        .split('\n')
        .filter((l) => l.startsWith('vt '))
        .map((l) => l.split(' ').slice(1).map(Number))
    const span = (out: typeof bare) =>
      Math.max(...places(out).map((p) => p[0] ?? 0)) - Math.min(...places(out).map((p) => p[0] ?? 0))
    expect(span(shrunk) / span(bare)).toBeLessThanOrEqual(1 + m + 1e-3)
  })
  it('where all of it is wanted, the worst stretch falls by the closed form', () => {
    const m = flat(dome()).report.stretch.max
    const s = 0.01
    expect(flat(dome(), s).report.stretch.max).toBeCloseTo(Math.max(0, (1 - s) * (1 + m) - 1), 3)
  })
})

describe('a collapsed triangle', () => {
  const sound = flat(dome()).report.stretch.max
  /** One inner vertex moved onto the next, or onto the side across. */
  const spoilt = (how: 'onto' | 'across'): TriMesh => {
    const mesh = dome()
    const positions = Float64Array.from(mesh.positions)
    const [t0, t1, t2] = [...mesh.triangles.slice(3 * 200, 3 * 203)] as [number, number, number]
    for (let i = 0; i < 3; i++) {
      const [a, b] = [positions[3 * t1 + i] as number, positions[3 * t2 + i] as number]
      positions[3 * t0 + i] = how === 'onto' ? a + (b - a) * 1e-5 : (a + b) / 2 + (i === 2 ? 1e-4 : 0)
    }
    return { positions, triangles: mesh.triangles }
  }
  it.each(['onto', 'across'] as const)(
    '%s its neighbour is mended and said; the rest comes out as without it',
    (how) => {
      const mesh = spoilt(how)
      const out = flat(mesh)
      expect(out.report.warnings[0]).toMatchObject({ code: 'collapsed_mended' })
      expect(out.report.stretch.max).toBeLessThan(sound * 1.6 + 0.005)
      expect(out.report.triangles).toBe(mesh.triangles.length / 3)
      expect(
        flatObj(out)
          .split('\n')
          .filter((l) => l.startsWith('f ')),
      ).toHaveLength(mesh.triangles.length / 3)
    },
  )
  it('of a sound mesh there is none, and it comes back as it is', () => {
    const mesh = dome()
    expect(withoutCollapsed(mesh)).toMatchObject({ ok: true, value: { mesh, collapsed: 0 } })
  })
  it('many of them are no surface: refused with the first', () => {
    const mesh = dome()
    const heap = { positions: mesh.positions.map((x, i) => (i % 3 === 1 ? x : x * 1e-6)), triangles: mesh.triangles }
    expect(withoutCollapsed(heap)).toMatchObject({ ok: false, error: { code: 'degenerate', facts: { triangle: 1 } } })
  })
  it('is refused where seams name the vertices of the mesh', () => {
    const mesh = spoilt('onto')
    const positions = Float64Array.from(mesh.positions)
    const [a, b] = [...mesh.triangles.slice(3 * 200)] as [number, number]
    for (let i = 0; i < 3; i++) positions[3 * a + i] = positions[3 * b + i] as number
    const out = flatPanel({ positions, triangles: mesh.triangles }, { limit: 0.1, shrink: 0, lines: [[0, 1]] })
    expect(out).toMatchObject({ ok: false, error: { code: 'degenerate' } })
  })
})

describe('a mesh file at fault', () => {
  const read = (face: string) =>
    flatFromFile(bytes(`v 0 0 0\nv 100 0 0\nv 0 100 0\n${face}\n`), 'p.obj', { limit: 0.1, shrink: 0 })
  it.each([
    ['f 0 1 2', { why: 'face_index_zero', face: 1 }],
    ['f 1 2', { why: 'face_too_few_corners', corners: 2 }],
    ['f 1 2 -9', { why: 'bad_index', index: -9 }],
  ])('%s is told with its line and what is wrong', (face, facts) =>
    expect(read(face)).toMatchObject({ ok: false, error: { code: 'bad_file', at: 'line 4', facts } }),
  )
})
