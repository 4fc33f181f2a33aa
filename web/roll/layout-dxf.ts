import { Colors, DxfWriter, LWPolylineFlags, point2d, point3d, Units } from '@tarikjabiri/dxf'
import type { LayoutDrawing } from '@/core/engines/roll/drawing'

/** The drawing as DXF in millimetres, y up (so that nothing is mirrored); layers pieces, cuts, marks, text. */
export function layoutDxf(d: LayoutDrawing): string {
  const dxf = new DxfWriter()
  dxf.setUnits(Units.Millimeters)
  dxf.addLayer('pieces', Colors.White, 'Continuous')
  dxf.addLayer('cuts', Colors.Red, 'Continuous')
  dxf.addLayer('marks', Colors.Yellow, 'Continuous')
  dxf.addLayer('text', Colors.Cyan, 'Continuous')
  const y = (v: number) => d.heightMm - v
  for (const p of d.pieces)
    dxf.addLWPolyline(
      p.points.map(([px, py]) => ({ point: point2d(px, y(py)) })),
      { flags: LWPolylineFlags.Closed, layerName: 'pieces' },
    )
  for (const c of d.cuts)
    dxf.addLine(point3d(c.from[0], y(c.from[1])), point3d(c.to[0], y(c.to[1])), { layerName: 'cuts' })
  for (const m of d.marks)
    dxf.addLWPolyline(
      m.points.map(([px, py]) => ({ point: point2d(px, y(py)) })),
      { flags: m.closed ? LWPolylineFlags.Closed : LWPolylineFlags.None, layerName: 'marks' },
    )
  // Text of the drawing exchange format is one line; line breaks and its control marks are taken out.
  for (const t of d.text)
    dxf.addText(point3d(t.x, y(t.y)), t.heightMm, t.text.replace(/[\r\n]+/g, ' ').replace(/%%/g, '% %'), {
      layerName: 'text',
    })
  return dxf.stringify()
}
