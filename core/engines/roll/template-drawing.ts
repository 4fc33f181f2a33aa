import type { InlayTemplate } from '../pieces/behind'
import type { LayoutDrawing } from './drawing'

const APART_MM = 40
const TEXT_MM = 6

/** Templates beside one another as plain lines in mm: the small pieces to cut, foot and film's edge as marks. */
export function templateDrawing(templates: readonly InlayTemplate[]): LayoutDrawing {
  const out: LayoutDrawing = { widthMm: 0, heightMm: 0, pieces: [], cuts: [], marks: [], text: [] }
  let x0 = 0
  for (const t of templates) {
    const placed = (ring: InlayTemplate['rings'][number]): [number, number][] =>
      ring.points.map((p) => [x0 + p.x, TEXT_MM * 2 + p.y])
    for (const ring of t.rings) {
      if (ring.id === 'piece') out.pieces.push({ id: t.pieceId, name: t.name, points: placed(ring) })
      else out.marks.push({ points: placed(ring), closed: true })
    }
    out.text.push({ x: x0, y: TEXT_MM, heightMm: TEXT_MM, text: t.name })
    x0 += t.widthMm + APART_MM
    out.heightMm = Math.max(out.heightMm, t.heightMm + 2 * TEXT_MM)
  }
  return { ...out, widthMm: Math.max(0, x0 - APART_MM) }
}
