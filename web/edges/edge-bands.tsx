import type { CornerDecision } from '@/core/engines/edge/corner-plan'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import type { Skin } from '@/core/engines/skin/skin'
import { CUT_LETTERS } from './cut-mark'

/** So thin a band would not be seen on the whole vehicle: it is drawn as wide as this, mm of the map. */
const LEAST_BAND_MM = 14
const LETTER_MM = 52

/** Every edge as a band as wide as its film is left, told apart by cut side; corners as marks. Drawn over the skin. */
export function EdgeBands({
  skin,
  edges,
  corners,
  picked,
  onPick,
}: {
  skin: Skin
  edges: readonly EdgeDecision[]
  corners: readonly CornerDecision[]
  picked: EdgeDecision | undefined
  onPick: (edge: EdgeDecision) => void
}) {
  const byEdge = new Map(edges.map((e) => [`${e.panelId}/${e.edgeId}`, e]))
  const byCorner = new Map(corners.map((c) => [`${c.panelId}/${c.between[0]}`, c]))
  return (
    <g className="edge-bands">
      {skin.panels.flatMap((p) =>
        p.edges.flatMap((line) => {
          const edge = byEdge.get(`${p.id}/${line.id}`)
          if (!edge) return []
          const corner = byCorner.get(`${p.id}/${line.id}`)
          const [x, y] = [(line.from.x + line.to.x) / 2, (line.from.y + line.to.y) / 2]
          const long = Math.hypot(line.to.x - line.from.x, line.to.y - line.from.y) > 3 * LETTER_MM
          return [
            <g
              key={`${p.id}/${line.id}`}
              data-cut={edge.cut}
              data-picked={edge === picked}
              onClick={(event) => {
                event.stopPropagation()
                onPick(edge)
              }}
            >
              <line
                className="band"
                x1={line.from.x}
                y1={line.from.y}
                x2={line.to.x}
                y2={line.to.y}
                strokeWidth={Math.max(LEAST_BAND_MM, edge.leaveMm)}
              />
              {long && (
                <text x={x} y={y} dy={LETTER_MM * 0.36} fontSize={LETTER_MM} textAnchor="middle">
                  {CUT_LETTERS[edge.cut]}
                </text>
              )}
              {corner && (
                <rect
                  className="corner"
                  data-method={corner.method}
                  x={line.to.x - LETTER_MM / 3}
                  y={line.to.y - LETTER_MM / 3}
                  width={(2 * LETTER_MM) / 3}
                  height={(2 * LETTER_MM) / 3}
                />
              )}
            </g>,
          ]
        }),
      )}
    </g>
  )
}
