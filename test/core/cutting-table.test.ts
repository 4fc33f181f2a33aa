import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { layoutDrawing, layoutSvg } from '@/core/engines/roll/drawing'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { reckon } from '@/core/reckon/reckon'
import type { FilmLayout } from '@/core/engines/roll/film-layout'
import { folderTable } from '@/outside/cutting-table'
import { layoutDxf } from '@/web/roll/layout-dxf'
import { readDrawing, watchFolder } from '../../scripts/cutting-table.mjs'
import { handCar } from '../fixtures/plans'

const dir = mkdtempSync(join(tmpdir(), 'table-'))
afterAll(() => rmSync(dir, { recursive: true, force: true }))
const layout = reckon(handCar(), EMPTY_CATALOGUE, []).layouts[0] as FilmLayout
const drawing = layoutDrawing(layout)
const round = drawing.pieces.reduce(
  (sum, p) =>
    sum +
    p.points.reduce((s, [x, y], i) => {
      const [u, v] = p.points[(i + 1) % p.points.length] as [number, number]
      return s + Math.hypot(u - x, v - y)
    }, 0),
  0,
)

describe('the simulated cutting table', () => {
  it('finds the same outlines, and the same way to cut, in both of our drawings', () => {
    for (const [name, text] of [
      ['a.svg', layoutSvg(drawing)],
      ['a.dxf', layoutDxf(drawing)],
    ] as const) {
      const read = readDrawing(name, text)
      expect(read.pieces).toBe(drawing.pieces.length)
      expect(read.cutMm).toBeCloseTo(round, 0)
    }
  })
  it('takes what is put in, tells how far it is, and is done when its blade has gone all the way', async () => {
    let now = 1_000_000
    const turn = watchFolder(dir, { now: () => now, bladeMmS: 1000 })
    const table = folderTable(dir)
    await table.send('shop_job_a.svg', layoutSvg(drawing))
    turn()
    expect((await table.reports('shop_job_'))[0]).toMatchObject({ state: 'cutting', doneMm: 0 })
    now += 5000
    turn()
    expect((await table.reports('shop_job_'))[0]).toMatchObject({ state: 'cutting', doneMm: 5000 })
    now += round
    turn()
    expect((await table.reports('shop_job_'))[0]).toMatchObject({ state: 'done', pieces: drawing.pieces.length })
    expect(await table.reports('another_')).toEqual([])
    expect(readdirSync(join(dir, 'in'))).toEqual([])
  })
  it('refuses what it cannot cut, with the reason', async () => {
    const turn = watchFolder(dir)
    const table = folderTable(dir)
    await table.send('bad_1.svg', '<html></html>')
    await table.send('bad_2.dxf', layoutDxf(drawing).slice(0, 400))
    await table.send('bad_3.svg', layoutSvg({ ...drawing, pieces: [] }))
    writeFileSync(join(dir, 'in', 'bad_4.txt'), 'cut me')
    turn()
    const said = await table.reports('bad_')
    expect(said.map((r) => r.state)).toEqual(['rejected', 'rejected', 'rejected', 'rejected'])
    expect(said.map((r) => r.reason)).toEqual([
      'not an SVG drawing',
      'not a whole DXF drawing',
      'no outline on the layer pieces',
      'only SVG and DXF drawings are cut',
    ])
    await expect(table.send('../out.svg', '')).rejects.toThrow('bad file name')
  })
})
