import { beforeAll, expect, it } from 'vitest'
import { Atlas, Initialize } from 'watlas'
import { strainOf, type TriMesh } from '@/core/solve/mesh'
import { flatPanel } from '@/core/engines/stretch/flat-panel'
import { panelMesh } from '@/core/engines/stretch/panel-mesh'
import { newPanel } from '@/core/model/vehicle/new-panel'
import { cap, sheet } from '../fixtures/meshes'

/*
 * A second opinion: the charts of a general-purpose atlas library, which flattens conformally. Its map of the same mesh
 * is measured by the same ratios; ours may never be worse, and where conformal maps are known both must agree with
 * that.
 */
beforeAll(async () => {
  await Initialize()
})

/**
 * Worst stretch of the library's map, scaled so that nothing is squeezed; null where it cut the mesh into several
 * charts.
 */
function theirs(mesh: TriMesh): number | null {
  const atlas = new Atlas()
  const count = mesh.positions.length / 3
  atlas.addMesh({
    vertexPositionData: Float32Array.from(mesh.positions),
    vertexCount: count,
    vertexPositionStride: 12,
    indexData: mesh.triangles,
    indexCount: mesh.triangles.length,
  })
  atlas.computeCharts({ maxCost: 1e6, maxIterations: 4 })
  atlas.packCharts({ texelsPerUnit: 1 })
  const own = atlas.getMesh(0)
  const charts = own.chartCount
  const indices = new Uint32Array(own.indexCount)
  own.getIndexArray(indices)
  const corners = new Float64Array(2 * indices.length)
  indices.forEach((v, c) => corners.set(own.getVertex(v).uv, 2 * c))
  atlas.delete()
  if (charts !== 1) return null
  const strain = strainOf(mesh, corners)
  const other = strainOf(
    mesh,
    corners.map((x, i) => (i % 2 ? -x : x)),
  )
  const map = strain.flipped === 0 ? strain : other
  expect(map.flipped).toBe(0)
  const least = Math.min(...map.squeeze.map((q) => 1 - q))
  return (1 + map.stretch.reduce((m, x) => Math.max(m, x), -1)) / least - 1
}
const ours = (mesh: TriMesh): number => {
  const flat = flatPanel(mesh, { limit: 0.1, shrink: 0 })
  if (!flat.ok) throw new Error(flat.error.code)
  return flat.value.report.stretch.max
}

it('a spherical cap: the library’s conformal map stretches by 1/cos²(α/2) − 1 as it must, ours by α/sin α − 1', () => {
  const alpha = Math.PI / 4
  const mesh = cap(14, alpha)
  const other = theirs(mesh)
  expect(other).not.toBeNull()
  expect(other ?? 0).toBeGreaterThan((1 / Math.cos(alpha / 2) ** 2 - 1) * 0.9)
  expect(ours(mesh)).toBeLessThan(other ?? 0)
  expect(Math.abs(ours(mesh) / (alpha / Math.sin(alpha) - 1) - 1)).toBeLessThan(0.03)
})
it('a cylinder: both find that it costs nothing', () => {
  const bent = sheet(24, 12, (u, v) => [500 * Math.sin(2 * u), 700 * v, 500 * Math.cos(2 * u)])
  expect(theirs(bent) ?? 1).toBeLessThan(0.01)
  expect(ours(bent)).toBeLessThan(1e-4)
})
it('saddles, bumps and taped panels: never worse than the library’s map', () => {
  const bonnet = panelMesh(
    {
      ...newPanel({ id: 'p', name: 'P', kind: 'bonnet', side: 'centre', widthMm: 1300, heightMm: 900 }),
      crownMm: 60,
      crownOverMm: 1000,
    },
    900,
  )
  if (!bonnet.ok) throw new Error(bonnet.error.code)
  const meshes = [
    sheet(24, 24, (u, v) => [1000 * u, 1000 * v, 250 * (u - 0.5) * (v - 0.5)]),
    sheet(24, 24, (u, v) => [1000 * u, 1000 * v, 80 * Math.exp(-20 * ((u - 0.5) ** 2 + (v - 0.5) ** 2))]),
    bonnet.value.mesh,
  ]
  const pairs = meshes
    .map((m) => [ours(m), theirs(m)] as const)
    .filter((p): p is readonly [number, number] => p[1] !== null)
  expect(pairs.length).toBeGreaterThan(0)
  for (const [own, other] of pairs) expect(own).toBeLessThanOrEqual(other * 1.001 + 1e-6)
})
