import type { Panel } from '../schema'
import { ALU, GAP_MM, range } from './body-parts'
import { rect } from './shape'

/** Doors over the whole rear end of a box, under its last roof panel and between the last side panels. */
export const rearDoorPanels = ({
  doors,
  width,
  height,
  roof,
  lastSide,
}: {
  doors: number
  width: number
  height: number
  roof: string
  /** Id of the last side panel, without its side. */
  lastSide: string
}): Panel[] =>
  range(doors).map((i) =>
    rect({
      id: `rear-door-${i + 1}`,
      name: doors === 1 ? 'Rear door' : `Rear door ${i === 0 ? 'left' : 'right'}`,
      kind: 'door',
      side: 'rear',
      widthMm: width / doors,
      heightMm: height,
      meets: ['rubber_seal', 'opening', 'rubber_seal', 'opening'],
      neighbours: [
        roof,
        i + 1 < doors ? `rear-door-${i + 2}` : `${lastSide}-right`,
        undefined,
        i > 0 ? `rear-door-${i}` : `${lastSide}-left`,
      ],
      features: { gaps: [20, GAP_MM, undefined, GAP_MM], surface: ALU },
    }),
  )
