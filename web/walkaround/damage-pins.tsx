import { useState } from 'react'
import { fromSkin, toSkin, type Skin } from '@/core/engines/skin/skin'
import type { Plan } from '@/core/model/plan/schema'
import { useDrag, type Dragged } from '@/web/kit/use-drag'

type Damage = Plan['walkaround']['damage'][number]
interface Place {
  panelId: string
  xMm: number
  yMm: number
}

/** Numbered pins, each as large at any zoom as the map's lettering; dragged to where the damage really is. */
export function DamagePins({
  skin,
  plan,
  onMove,
}: {
  skin: Skin
  plan: Plan
  /** Absent where nothing may be changed. */
  onMove: ((id: string, place: Place) => void) | undefined
}) {
  const size = Math.max(skin.box.right - skin.box.left, skin.box.bottom - skin.box.top) / 46
  return (
    <g aria-hidden pointerEvents={onMove ? undefined : 'none'}>
      {plan.walkaround.damage.map((d, i) => {
        const panel = plan.panels.find((p) => p.id === d.panelId)
        const at = skin.panels.find((p) => p.id === d.panelId)
        if (!panel || !at) return null
        const from = toSkin(at, panel, d.xMm ?? panel.widthMm / 2, d.yMm ?? panel.heightMm / 2)
        const drop = ({ dx, dy }: Dragged) =>
          onMove?.(d.id, { panelId: panel.id, ...fromSkin(at, panel, { x: from.x + dx, y: from.y + dy }) })
        return <Pin key={d.id} damage={d} number={i + 1} at={from} size={size} movable={!!onMove} onDrop={drop} />
      })}
    </g>
  )
}

function Pin({
  damage,
  number,
  at,
  size,
  movable,
  onDrop,
}: {
  damage: Damage
  number: number
  at: { x: number; y: number }
  size: number
  movable: boolean
  onDrop: (by: Dragged) => void
}) {
  const [by, setBy] = useState<Dragged | null>(null)
  const ref = useDrag<SVGGElement>({
    enabled: movable,
    onMove: setBy,
    onEnd: (moved) => {
      setBy(null)
      if (moved) onDrop(moved)
    },
  })
  return (
    <g
      ref={ref}
      data-pin={damage.id}
      transform={`translate(${at.x + (by?.dx ?? 0)} ${at.y + (by?.dy ?? 0)})`}
      style={{ cursor: movable ? 'grab' : 'default', touchAction: 'none' }}
    >
      <circle
        r={size}
        fill={damage.waived ? 'var(--soft)' : 'var(--stop)'}
        stroke="var(--plate)"
        strokeWidth={size / 5}
      />
      <text textAnchor="middle" y={size * 0.45} fontSize={size * 1.3} fontWeight={700} fill="#fff">
        {number}
      </text>
    </g>
  )
}
