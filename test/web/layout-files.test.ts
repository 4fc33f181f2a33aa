// @vitest-environment jsdom
import DxfParser from 'dxf-parser'
import { describe, expect, it } from 'vitest'
import { EMPTY_CATALOGUE } from '@/core/model/catalogue/catalogue'
import { reckon } from '@/core/reckon/reckon'
import { layoutDrawing, layoutSvg } from '@/core/engines/roll/drawing'
import { layoutDxf } from '@/web/roll/layout-dxf'
import { layoutFileOf } from '@/web/threads/layout-files'
import { fixedHandle, handCar, withPanel } from '../fixtures/plans'

const TOLERANCE_MM = 0.01
const plan = handCar()
const odd = {
  ...plan,
  panels: plan.panels.map((p, i) => ({ ...p, name: `${p.name} <b>&"'%% é`, widthMm: p.widthMm + i * 0.37 })),
}
const layout = reckon(odd, EMPTY_CATALOGUE, []).layouts[0]
if (!layout) throw new Error('no layout')
const drawing = layoutDrawing(layout)
const placed = layout.rolls.flatMap((r) => r.placements)

describe('files of a layout, read back by other readers', () => {
  it('SVG: every piece at its place and size, in millimetres', () => {
    const svg = layoutSvg(drawing)
    const doc = new DOMParser().parseFromString(svg, 'image/svg+xml')
    const root = doc.documentElement
    expect(root.getAttribute('width')).toBe(`${Math.round(drawing.widthMm * 1000) / 1000}mm`)
    expect([...doc.querySelectorAll('g[id]')].map((g) => g.id)).toEqual(['pieces', 'cuts', 'marks', 'text'])
    const paths = [...doc.querySelectorAll('#pieces path')]
    expect(paths).toHaveLength(placed.length)
    for (const path of paths) {
      const spot = placed.find((p) => p.pieceId === path.getAttribute('data-piece'))
      const numbers = (path.getAttribute('d') ?? '').match(/-?[\d.]+/g)?.map(Number) ?? []
      const xs = numbers.filter((_, i) => i % 2 === 0)
      const ys = numbers.filter((_, i) => i % 2 === 1)
      expect(Math.abs(Math.max(...xs) - Math.min(...xs) - (spot?.widthMm ?? 0))).toBeLessThan(TOLERANCE_MM)
      expect(Math.abs(Math.max(...ys) - Math.min(...ys) - (spot?.lengthMm ?? 0))).toBeLessThan(TOLERANCE_MM)
      expect(Math.abs(Math.min(...xs) - (spot?.xMm ?? 0))).toBeLessThan(TOLERANCE_MM)
      expect(Math.abs(Math.min(...ys) - (spot?.yMm ?? 0))).toBeLessThan(TOLERANCE_MM)
    }
    expect([...doc.querySelectorAll('#text text')].map((t) => t.textContent).sort()).toEqual(
      placed.map((p) => layout.pieces.find((x) => x.id === p.pieceId)?.name).sort(),
    )
  })
  it('DXF: layers, closed outlines of the same corners, cuts as lines, nothing mirrored', () => {
    const parsed = new DxfParser().parseSync(layoutDxf(drawing))
    if (!parsed) throw new Error('not a DXF file')
    expect(parsed.header.$INSUNITS).toBe(4) // millimetres
    const on = (layer: string) => parsed.entities.filter((e) => e.layer === layer)
    const outlines = on('pieces') as unknown as { vertices: { x: number; y: number }[]; shape: boolean }[]
    expect(outlines).toHaveLength(drawing.pieces.length)
    outlines.forEach((o, i) => {
      expect(o.shape).toBe(true)
      const want = drawing.pieces[i]?.points ?? []
      o.vertices.forEach((v, k) => {
        expect(Math.abs(v.x - (want[k]?.[0] ?? NaN))).toBeLessThan(TOLERANCE_MM)
        expect(Math.abs(drawing.heightMm - v.y - (want[k]?.[1] ?? NaN))).toBeLessThan(TOLERANCE_MM)
      })
    })
    const cuts = on('cuts') as unknown as { vertices: { x: number; y: number }[] }[]
    expect(cuts).toHaveLength(drawing.cuts.length)
    cuts.forEach((c, i) => {
      expect(Math.abs((c.vertices[0]?.x ?? NaN) - (drawing.cuts[i]?.from[0] ?? 0))).toBeLessThan(TOLERANCE_MM)
      expect(Math.abs(drawing.heightMm - (c.vertices[1]?.y ?? NaN) - (drawing.cuts[i]?.to[1] ?? 0))).toBeLessThan(
        TOLERANCE_MM,
      )
    })
    expect(on('text')).toHaveLength(placed.length)
    expect(on('marks').length).toBeGreaterThan(placed.length)
  })
})

describe('templates of small pieces behind objects', () => {
  const handle = fixedHandle({ behind: 'overlay' })
  const ask = (name: string, raised: (typeof handle)[]) =>
    layoutFileOf({
      jobId: '00000000-0000-4000-8000-000000000abc',
      plan: withPanel(handCar(), 'door', () => ({ raised })),
      handedOver: null,
      catalogue: EMPTY_CATALOGUE,
      ledger: [],
      units: { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' },
      shop: { name: 'Saltmarsh', town: 'Eddermouth' },
      now: '2026-11-20T08:00:00Z',
      appUrl: 'http://127.0.0.1:3000',
      name,
      filmId: null,
      size: null,
    })
  it('come as PDF, SVG and DXF for whoever has some', async () => {
    const made = await ask('templates.pdf', [handle])
    if (made.kind !== 'file') throw new Error(made.said)
    expect(new TextDecoder('latin1').decode(made.body.slice(0, 5))).toBe('%PDF-')
    // Its page is as large as the template takes: 260 and 80 mm, with margins, bar and head, in points.
    const box = /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(new TextDecoder('latin1').decode(made.body))
    expect(Number(box?.[1])).toBeCloseTo(((260 + 24 + 30) * 72) / 25.4, 0)
    for (const name of ['templates.svg', 'templates.dxf']) expect((await ask(name, [handle])).kind).toBe('file')
  })
  it('where there are none, it is said', async () => {
    expect(await ask('templates.pdf', [])).toMatchObject({ kind: 'refused', status: 404 })
  })
})
