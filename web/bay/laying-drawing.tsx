import type { LayingCard } from '@/core/engines/run-sheet/laying-card'
import { boxOf, type Point } from '@/core/kit/plane'
import { word } from '@/web/words/names'

const ring = (points: readonly Point[]): string =>
  `M${points.map((p) => `${p.x.toFixed(1)} ${p.y.toFixed(1)}`).join('L')}Z`
const MARK = { cold_hook: 'H', shaped: 'F', shrunk: 'S', relief: 'R', seam: '—' } as const

/** How a panel is laid, drawn on its flat outline: hinge, order, where air leaves, where heat goes, corners. */
export function LayingDrawing({ card, name }: { card: LayingCard; name: string }) {
  const box = boxOf(card.path)
  const [w, h] = [box.right - box.left, box.bottom - box.top]
  const u = Math.max(w, h * 1.4) / 22
  return (
    <svg
      className="laying"
      viewBox={`${box.left - u} ${box.top - u} ${w + 2 * u} ${h + 2 * u}`}
      role="img"
      aria-label={`How ${name} is laid: ${describe(card)}`}
    >
      <path className="sheet-outline" d={ring(card.path)} />
      {card.rough.map((line, i) => (
        <polyline
          key={i}
          className="rough-cut"
          points={line.map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(' ')}
        />
      ))}
      {card.air.map((a, i) => (
        <Arrow key={i} from={a.from} to={a.to} u={u} />
      ))}
      {card.heat.map((k, i) => (
        <circle key={i} className="heat-spot" cx={k.at.x} cy={k.at.y} r={u * 0.95} />
      ))}
      <line className="hinge" x1={card.hinge.from.x} y1={card.hinge.from.y} x2={card.hinge.to.x} y2={card.hinge.to.y} />
      {card.corners.map((c, i) => (
        <g key={i} className="corner-mark" transform={`translate(${c.at.x} ${c.at.y})`}>
          <rect x={-u * 0.6} y={-u * 0.6} width={u * 1.2} height={u * 1.2} />
          <text fontSize={u} dy={u * 0.36} textAnchor="middle">
            {MARK[c.method]}
          </text>
        </g>
      ))}
      {card.zones
        .filter((z) => z.code !== 'corner')
        .map((z) => (
          <g key={z.number} className="order-mark" transform={`translate(${z.at.x} ${z.at.y})`}>
            <circle r={u * 0.85} />
            <text fontSize={u * 1.1} dy={u * 0.4} textAnchor="middle">
              {z.number}
            </text>
          </g>
        ))}
    </svg>
  )
}

/** An arrow that stops short of the mark it points at. */
function Arrow({ from, to, u }: { from: Point; to: Point; u: number }) {
  const length = Math.hypot(to.x - from.x, to.y - from.y) || 1
  const [dx, dy] = [(to.x - from.x) / length, (to.y - from.y) / length]
  const end = { x: to.x + dx * u * 2.4, y: to.y + dy * u * 2.4 }
  const wing = (side: number) => `${end.x - dx * u - dy * side * u * 0.5} ${end.y - dy * u + dx * side * u * 0.5}`
  return (
    <g className="air">
      <line x1={from.x} y1={from.y} x2={end.x} y2={end.y} />
      <path d={`M${wing(1)}L${end.x} ${end.y}L${wing(-1)}`} />
    </g>
  )
}

function describe(card: LayingCard): string {
  const order = card.zones.map((z) => `${z.number} ${z.name || z.code}`).join(', ')
  const corners = [...new Set(card.corners.map((c) => word('cornerMethod', c.method)))].join(', ')
  const rough = card.rough.length > 0 ? '; rough cut-outs first' : ''
  return `${order}${corners ? `; corners: ${corners}` : ''}${rough}`
}
