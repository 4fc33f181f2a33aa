import { newPanel } from '@/core/model/vehicle/new-panel'
import type { Panel, Recess } from '@/core/model/vehicle/schema'

type Over = Partial<Omit<Panel, 'edges'>> & { crown?: [number, number] }

type Sized = Pick<Panel, 'id' | 'name' | 'kind' | 'side' | 'widthMm' | 'heightMm'>

export function panel({ id, name, kind, side, widthMm, heightMm, crown, ...over }: Sized & Over): Panel {
  return {
    ...newPanel({ id, name, kind, side, widthMm, heightMm }),
    crownMm: crown?.[0] ?? 0,
    crownOverMm: crown?.[1] ?? 0,
    ...over,
  }
}

/** The same on both sides: left and right mirror each other. */
export const pair = ({
  id,
  name,
  kind,
  widthMm,
  heightMm,
  over = {},
}: {
  id: string
  name: string
  kind: Panel['kind']
  widthMm: number
  heightMm: number
  over?: Over
}): Panel[] =>
  (['left', 'right'] as const).map((side) =>
    panel({ id: `${id}-${side}`, name: `${name} ${side}`, kind, side, widthMm, heightMm, ...over }),
  )

export const recess = ({
  id,
  name,
  mouthWidthMm,
  mouthHeightMm,
  depthMm,
  over = {},
}: {
  id: string
  name: string
  mouthWidthMm: number
  mouthHeightMm: number
  depthMm: number
  over?: Partial<Recess>
}): Recess => ({
  id,
  name,
  mouthWidthMm,
  mouthHeightMm,
  depthMm,
  wallDeg: 45,
  open: false,
  way: 'bridge',
  gapMm: 60,
  bendRadiusMm: null,
  openAt: null,
  xMm: null,
  yMm: null,
  ...over,
})
