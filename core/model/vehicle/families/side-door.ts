import type { Panel } from '../schema'
import { GAP_MM, pillarWidth, type Lines } from './car-lines'
import { crownOn, cup, shape, type Run } from './shape'

/** One door of the side, from the line before it to the next. */
export interface Door {
  id: string
  name: string
  from: number
  to: number
  next: string
  before: string
  withPillar: boolean
}

export function sideDoor(l: Lines, { id, name, from, to, next, before, withPillar }: Door): Panel {
  const pillar = pillarWidth(l)
  const w = to - from
  return shape({
    id,
    name,
    kind: 'door',
    side: 'left',
    start: [0, 0],
    runs: [
      { at: 'top', to: [withPillar ? w - pillar : w, 0], meets: 'window_trim', neighbour: 'roof', gapMm: l.window },
      ...(withPillar
        ? [{ at: 'top', to: [w, 0], meets: 'window_trim', neighbour: 'pillar-left', gapMm: GAP_MM } as Run]
        : []),
      { at: 'right', to: [w, l.doorHeight], meets: 'opening', neighbour: next, gapMm: GAP_MM },
      { at: 'bottom', to: [0, l.doorHeight], meets: 'opening', neighbour: 'sill-left', gapMm: GAP_MM },
      { at: 'left', to: [0, 0], meets: 'opening', neighbour: before, gapMm: GAP_MM },
    ],
    features: {
      ...crownOn(w, l.doorHeight, 10, 22),
      recesses: [cup(w - 150, Math.min(130, l.doorHeight / 3))],
      surface: { material: 'steel', thicknessMm: 0.8 },
      bodyLines: [
        {
          id: 'waist',
          name: 'Waist line',
          along: 'width',
          atMm: l.doorHeight * 0.4,
          radiusMm: 10,
          seam: true,
          foldDeg: 8,
        },
      ],
      raised: [
        {
          id: 'handle',
          name: 'Handle',
          kind: 'handle',
          widthMm: 220,
          heightMm: 40,
          xMm: w - 150,
          yMm: Math.min(130, l.doorHeight / 3),
          removable: true,
          minutes: 15,
          riseMm: null,
          behind: 'tucked' as const,
        },
      ],
    },
  })
}
