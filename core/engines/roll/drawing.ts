import type { FilmLayout } from './film-layout'
import { moved, onRoll } from '../pieces/shape'

/** A layout as plain lines in mm, y down; rolls beside one another. Layers: pieces, cuts, marks, text. */
export interface LayoutDrawing {
  widthMm: number
  heightMm: number
  pieces: { id: string; name: string; points: [number, number][] }[]
  cuts: { number: number; from: [number, number]; to: [number, number] }[]
  /** Arrows to each panel's top or front, roll outlines, registration crosses. */
  marks: { points: [number, number][]; closed: boolean }[]
  text: { x: number; y: number; heightMm: number; text: string }[]
}

const BETWEEN_ROLLS_MM = 200
const ARROW_MM = 60

/** x across the roll, y along it from its end. */
export function layoutDrawing(layout: FilmLayout): LayoutDrawing {
  const out: LayoutDrawing = { widthMm: 0, heightMm: 0, pieces: [], cuts: [], marks: [], text: [] }
  const byId = new Map(layout.pieces.map((p) => [p.id, p]))
  let x0 = 0
  for (const roll of layout.rolls) {
    const at = (x: number, y: number): [number, number] => [x0 + x, y]
    out.marks.push({
      points: [at(0, 0), at(roll.widthMm, 0), at(roll.widthMm, roll.usedMm), at(0, roll.usedMm)],
      closed: true,
    })
    for (const p of roll.placements) {
      const piece = byId.get(p.pieceId)
      const [r, b] = [p.xMm + p.widthMm, p.yMm + p.lengthMm]
      out.pieces.push({
        id: p.pieceId,
        name: piece?.name ?? p.pieceId,
        points: piece?.outline
          ? moved(onRoll(piece, p.turnDeg), p.xMm, p.yMm).map((q) => at(q.x, q.y))
          : [at(p.xMm, p.yMm), at(r, p.yMm), at(r, b), at(p.xMm, b)],
      })
      const size = Math.min(ARROW_MM, p.widthMm / 3, p.lengthMm / 3)
      const [cx, cy] = [p.xMm + p.widthMm / 2, p.yMm + p.lengthMm / 2]
      // Before any turn a piece's top lies towards +y (along the roll) or −x (across it).
      const quarter = (((piece?.top === 'along' ? 0 : 1) + p.turnDeg / 90) % 4) as 0 | 1 | 2 | 3
      const [dx, dy] = (
        [
          [0, 1],
          [-1, 0],
          [0, -1],
          [1, 0],
        ] as const
      )[quarter]
      const tip: [number, number] = [cx + dx * size, cy + dy * size]
      out.marks.push({ points: [at(cx - dx * size, cy - dy * size), at(...tip)], closed: false })
      out.marks.push({
        points: [
          at(tip[0] - dx * size * 0.4 - dy * size * 0.25, tip[1] - dy * size * 0.4 + dx * size * 0.25),
          at(...tip),
          at(tip[0] - dx * size * 0.4 + dy * size * 0.25, tip[1] - dy * size * 0.4 - dx * size * 0.25),
        ],
        closed: false,
      })
      const heightMm = Math.max(8, Math.min(40, p.widthMm / 8))
      out.text.push({ x: at(p.xMm + 8, 0)[0], y: p.yMm + heightMm + 4, heightMm, text: piece?.name ?? p.pieceId })
    }
    for (const c of roll.cutting.cuts)
      out.cuts.push({ number: c.number, from: at(c.from.xMm, c.from.yMm), to: at(c.to.xMm, c.to.yMm) })
    x0 += roll.widthMm + BETWEEN_ROLLS_MM
    out.heightMm = Math.max(out.heightMm, roll.usedMm)
  }
  out.widthMm = Math.max(0, x0 - BETWEEN_ROLLS_MM)
  return out
}

const escape = (text: string): string =>
  text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`).replace(/[^\x20-\uFFFF]/g, ' ')
const n = (v: number): string => String(Math.round(v * 1000) / 1000)

/** The drawing as SVG: one user unit is one millimetre, and so is the size on paper. */
export function layoutSvg(d: LayoutDrawing): string {
  const path = (points: [number, number][], closed: boolean) =>
    `M${points.map(([x, y]) => `${n(x)} ${n(y)}`).join('L')}${closed ? 'Z' : ''}`
  const layer = (id: string, stroke: string, body: string) =>
    `<g id="${id}" fill="none" stroke="${stroke}" stroke-width="1">${body}</g>`
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(d.widthMm)}mm" height="${n(d.heightMm)}mm" ` +
      `viewBox="0 0 ${n(d.widthMm)} ${n(d.heightMm)}">`,
    layer(
      'pieces',
      '#16202e',
      d.pieces.map((p) => `<path data-piece="${escape(p.id)}" d="${path(p.points, true)}"/>`).join(''),
    ),
    layer(
      'cuts',
      '#b3261e',
      d.cuts.map((c) => `<path data-cut="${c.number}" d="${path([c.from, c.to], false)}"/>`).join(''),
    ),
    layer('marks', '#7a5910', d.marks.map((m) => `<path d="${path(m.points, m.closed)}"/>`).join('')),
    '<g id="text" fill="#16202e" font-family="sans-serif">',
    ...d.text.map((t) => `<text x="${n(t.x)}" y="${n(t.y)}" font-size="${n(t.heightMm)}">${escape(t.text)}</text>`),
    '</g>',
    '</svg>',
    '',
  ].join('\n')
}
