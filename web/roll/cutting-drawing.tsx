import type { Cut } from '@/core/engines/roll/cuts'
import type { FilmLayout, RollPlan } from '@/core/engines/roll/film-layout'

/** The stretch of the roll that the cut is in, the cut itself heavy. */
export function StepDrawing({
  layout,
  roll,
  cut,
  done,
}: {
  layout: FilmLayout
  roll: RollPlan
  cut: Cut
  done: (c: Cut) => boolean
}) {
  const first = [...roll.cutting.cuts]
    .filter((c) => c.stage === 1 && c.from.yMm < cut.from.yMm - 1e-6 && c.number < cut.number)
    .at(-1)
  const start = first ? first.from.yMm : 0
  const end = Math.max(
    cut.from.yMm,
    cut.to.yMm,
    ...roll.cutting.cuts
      .filter((c) => c.stage === 1 && c.from.yMm > start + 1e-6)
      .slice(0, 1)
      .map((c) => c.from.yMm),
  )
  const here = roll.placements.filter((p) => p.yMm >= start - 1 && p.yMm < end - 1)
  const pad = 40
  return (
    <svg
      viewBox={`${start - pad} ${-pad} ${end - start + 2 * pad} ${roll.widthMm + 2 * pad}`}
      className="cutting-drawing daylight"
      role="img"
      aria-label={`Cut ${cut.number}, ${cut.runs}`}
    >
      <rect
        x={start}
        y={0}
        width={end - start}
        height={roll.widthMm}
        fill="var(--plate)"
        stroke="var(--ink)"
        strokeWidth={4}
      />
      {here.map((p) => {
        const free = roll.cutting.cuts.some((c) => c.done.includes(p.pieceId) && done(c))
        const now = cut.done.includes(p.pieceId) || cut.pieceIds.includes(p.pieceId)
        const piece = layout.pieces.find((x) => x.id === p.pieceId)
        const size = Math.max(26, Math.min(60, p.lengthMm / 7))
        return (
          <g key={p.pieceId} opacity={free ? 0.35 : 1}>
            <rect
              x={p.yMm}
              y={p.xMm}
              width={p.lengthMm}
              height={p.widthMm}
              fill={now ? 'var(--brass)' : 'none'}
              fillOpacity={0.22}
              stroke="currentColor"
              strokeWidth={3}
            />
            {p.widthMm > size * 1.4 && p.lengthMm > size * 2.5 && (
              <text
                x={p.yMm + p.lengthMm / 2}
                y={p.xMm + p.widthMm / 2}
                fontSize={size}
                textAnchor="middle"
                dominantBaseline="central"
                fill="currentColor"
              >
                {(piece?.name ?? p.pieceId).slice(0, Math.max(3, Math.floor((p.lengthMm / size) * 1.7)))}
              </text>
            )}
          </g>
        )
      })}
      <line x1={cut.from.yMm} y1={cut.from.xMm} x2={cut.to.yMm} y2={cut.to.xMm} stroke="var(--stop)" strokeWidth={14} />
    </svg>
  )
}
