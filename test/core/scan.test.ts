import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { topologyOf, type TriMesh } from '@/core/solve/mesh'
import { meshFromFile } from '@/core/engines/stretch/flat-file'
import { panelMesh } from '@/core/engines/stretch/panel-mesh'
import { cleaned, cropped, facing, girths, guessUnit, main, onPanel } from '@/core/solve/mesh/scan'
import { packScan, unpackScan } from '@/core/engines/stretch/scan-file'
import { sheet, stlOf } from '../fixtures/meshes'

const bonnet = (): TriMesh => {
  const made = panelMesh(
    {
      ...newPanel({ id: 'p', name: 'P', kind: 'bonnet', side: 'centre', widthMm: 1200, heightMm: 800 }),
      crownMm: 40,
      crownOverMm: 1000,
    },
    2000,
  )
  if (!made.ok) throw new Error(made.error.code)
  return made.value.mesh
}

/** The same surface somewhere in space, in another unit. */
const elsewhere = (mesh: TriMesh, k: number): TriMesh => {
  const [c, s] = [Math.cos(0.7), Math.sin(0.7)]
  const positions = mesh.positions.slice()
  for (let i = 0; i < positions.length; i += 3) {
    const [x, y, z] = [positions[i], positions[i + 1], positions[i + 2]].map((v) => (v as number) * k) as [
      number,
      number,
      number,
    ]
    const [a, b] = [c * x - s * z, s * x + c * z]
    positions.set([a + 5 * k, c * y - s * b - 80 * k, s * y + c * b + 30 * k], i)
  }
  return { positions, triangles: mesh.triangles }
}
const value = <T>(r: { ok: true; value: T } | { ok: false; error: { code: string } }): T => {
  if (!r.ok) throw new Error(r.error.code)
  return r.value
}

describe('scans of panels', () => {
  it('the unit is guessed from the tape, and turned to be looked at its girths are those of the panel', () => {
    for (const [k, unit] of [
      [1, 'mm'],
      [0.1, 'cm'],
      [0.001, 'm'],
      [1 / 25.4, 'inch'],
    ] as const) {
      const scan = elsewhere(bonnet(), k)
      expect(guessUnit(scan, 1200)).toBe(unit)
      const { widthMm, heightMm } = girths(facing(scan, unit))
      expect(Math.abs(widthMm / 1200 - 1)).toBeLessThan(0.005)
      expect(Math.abs(heightMm / 800 - 1)).toBeLessThan(0.005)
    }
    const turned = girths(facing(elsewhere(bonnet(), 1), 'mm', 1))
    expect(Math.abs(turned.widthMm / 800 - 1)).toBeLessThan(0.005)
  })
  it('a soup of triangles is joined, slivers and doubles go, those wound against their neighbours are turned, holes stay', () => {
    const good = sheet(12, 10, (u, v) => [1000 * u, 800 * v, 40 * u * v], {
      skip: (u, v) => u > 0.4 && u < 0.6 && v > 0.4 && v < 0.6,
    })
    const triangles = [...good.triangles]
    for (const t of [3, 40, 77])
      [triangles[3 * t + 1], triangles[3 * t + 2]] = [triangles[3 * t + 2] as number, triangles[3 * t + 1] as number]
    triangles.push(...triangles.slice(0, 3), 5, 5, 6)
    const soup: TriMesh = {
      positions: Float64Array.from(triangles.flatMap((v) => [...good.positions.slice(3 * v, 3 * v + 3)])),
      triangles: Uint32Array.from(triangles, (_, i) => i),
    }
    const out = value(cleaned(soup))
    expect(out.mesh.triangles.length).toBe(good.triangles.length)
    expect(out.dropped).toBe(2)
    expect(out.turned % (good.triangles.length / 3 - 6)).toBe(3)
    expect(out.welded).toBeGreaterThan(500)
    const there = topologyOf(out.mesh)
    expect(there.ok && there.value.loops.length).toBe(2)
    expect(topologyOf(soup).ok && topologyOf({ ...good, triangles: Uint32Array.from(triangles) }).ok).toBe(false)
  })
  it('what lies within a drawn ring is cut out; what faces away or lies apart is left', () => {
    const mesh = sheet(40, 20, (u, v) => [1000 * u - 500, 500 * v - 250, 0])
    const ring = [
      { x: -100, y: -100 },
      { x: 150, y: -100 },
      { x: 150, y: 120 },
      { x: -100, y: 120 },
    ]
    const { widthMm, heightMm } = girths(value(cropped(mesh, ring)))
    expect(widthMm).toBeCloseTo(250, -1.5)
    expect(heightMm).toBeCloseTo(225, -1.5)
    const away: TriMesh = {
      positions: mesh.positions,
      triangles: mesh.triangles.map((_, i, all) => all[i - (i % 3) + ([0, 2, 1][i % 3] ?? 0)] as number),
    }
    expect(cropped(away, ring)).toMatchObject({ ok: false, error: { code: 'nothing_within' } })
    const two: TriMesh = {
      positions: Float64Array.from([...mesh.positions, 900, 0, 0, 950, 0, 0, 900, 50, 0]),
      triangles: Uint32Array.from([...mesh.triangles, ...[0, 1, 2].map((k) => mesh.positions.length / 3 + k)]),
    }
    expect(main(two).triangles.length).toBe(mesh.triangles.length)
  })
  it('goes to the server and back as it was; bytes that are no scan are refused with why', () => {
    const scan = onPanel(bonnet())
    const bytes = packScan(scan)
    const back = value(unpackScan(bytes))
    expect([...back.triangles]).toEqual([...scan.triangles])
    expect(back.positions.every((x, i) => Math.abs(x - (scan.positions[i] as number)) < 1e-3)).toBe(true)
    expect(Math.min(...back.taped)).toBeGreaterThanOrEqual(0)
    const why = (b: Uint8Array) => {
      const out = unpackScan(b)
      return out.ok ? 'ok' : out.error.facts?.why
    }
    expect(why(bytes.slice(0, 5))).toBe('short')
    expect(why(bytes.slice(0, -4))).toBe('length')
    const broken = bytes.slice()
    new DataView(broken.buffer).setUint32(broken.length - 4, 9_999_999, true)
    expect(why(broken)).toBe('corner')
    new DataView(broken.buffer).setFloat32(12, NaN, true)
    expect(why(broken)).toBe('number')
    fc.assert(fc.property(fc.uint8Array({ maxLength: 200 }), (junk) => why(junk) !== 'ok'))
  })
  it('an STL scan in metres reads, cleans and lies as its panel', () => {
    const small = elsewhere(bonnet(), 0.001)
    const read = value(meshFromFile(stlOf(small), 'bonnet.stl'))
    const clean = value(cleaned(read))
    expect(clean.mesh.triangles.length).toBe(small.triangles.length)
    expect(girths(facing(clean.mesh, 'm')).widthMm).toBeCloseTo(1200, -1)
  })
})
