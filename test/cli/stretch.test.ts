import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, expect, it } from 'vitest'
import { cap, objOf, stlOf } from '../fixtures/meshes'

const bin = fileURLToPath(new URL('../../cli/bin/cuirass.mjs', import.meta.url))
const run = (args: string[], input = '') => spawnSync(process.execPath, [bin, ...args], { input, encoding: 'utf8' })
const dir = mkdtempSync(join(tmpdir(), 'mesh-'))
afterAll(() => rmSync(dir, { recursive: true, force: true }))

it('stretch: figures by the contract, and the flat film beside the same triangles in the same order', () => {
  const mesh = cap(6, 0.7)
  const [file, out] = [join(dir, 'cap.obj'), join(dir, 'flat.obj')]
  writeFileSync(file, objOf(mesh))
  const r = run(['stretch', file, '--limit', '0.05', '--shrink', '0', '--tightest', '--out', out])
  expect(r.status).toBe(0)
  const report = JSON.parse(r.stdout) as Record<string, unknown> & { stretch: { max: number } }
  expect(Object.keys(report)).toEqual([
    'format',
    'triangles',
    'area_mm2',
    'stretch',
    'squeeze',
    'over_limit_mm2',
    'overlaps',
    'pieces',
    'warnings',
  ])
  expect(report).toMatchObject({
    format: 'cuirass/stretch@1',
    triangles: 216,
    overlaps: false,
    pieces: 1,
    warnings: [],
  })
  const least = 0.7 / Math.sin(0.7) - 1
  expect(Math.abs(report.stretch.max / least - 1)).toBeLessThan(0.04)
  const lines = readFileSync(out, 'utf8').split('\n')
  const faces = lines
    .filter((l) => l.startsWith('f '))
    .map((l) =>
      l
        .slice(2)
        .split(' ')
        .map((w) => Number(w.split('/')[0]) - 1),
    )
  expect(faces.flat()).toEqual([...mesh.triangles])
  expect(lines.filter((l) => l.startsWith('vt '))).toHaveLength(mesh.positions.length / 3)
})

it('stretch: what is wrong is named with its place; no trace, no half-written file', () => {
  const lying = join(dir, 'lying.stl')
  writeFileSync(lying, stlOf(cap(2, 0.5), 999))
  const twisted = join(dir, 'twice.obj')
  writeFileSync(twisted, 'v 0 0 0\nv 100 0 0\nv 0 100 0\nv 0 0 100\nf 1 2 3\nf 1 2 4\n')
  for (const [args, status, code] of [
    [[lying], 2, 'bad_file'],
    [[join(dir, 'nowhere.obj')], 2, 'unreadable'],
    [[twisted], 3, 'not_manifold'],
    [[twisted, '--limit', 'much'], 2, 'bad_option'],
    [[twisted, '--fold', '1'], 2, 'bad_option'],
  ] as const) {
    const r = run(['stretch', ...args])
    expect([r.status, (JSON.parse(r.stdout) as { code: string }).code]).toEqual([status, code])
    expect(r.stderr.trim().split('\n')).toHaveLength(1)
    expect(r.stderr).not.toContain('    at ')
  }
})
