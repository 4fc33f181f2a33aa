import type { Plan } from '@/core/model/plan/schema'
import { pair, panel, recess } from './panels'

const side = { crown: [10, 1000] as [number, number] }
const sideRecess = (mouthWidthMm: number) =>
  recess({ id: 'panel', name: 'Side recess', mouthWidthMm, mouthHeightMm: 620, depthMm: 32, over: { gapMm: 40 } })
/** The van of the travelling library. */
export const droverPanels = (): Plan['panels'] => [
  panel({
    id: 'bonnet',
    name: 'Bonnet',
    kind: 'bonnet',
    side: 'centre',
    widthMm: 1450,
    heightMm: 620,
    crown: [30, 1000],
  }),
  ...pair({ id: 'front-door', name: 'Front door', kind: 'door', widthMm: 1180, heightMm: 1150, over: side }),
  ...pair({
    id: 'side-fore',
    name: 'Side, fore',
    kind: 'van_side',
    widthMm: 1400,
    heightMm: 1900,
    over: {
      ...side,
      recesses: [sideRecess(900)],
    },
  }),
  ...pair({
    id: 'side-aft',
    name: 'Side, aft',
    kind: 'van_side',
    widthMm: 1750,
    heightMm: 1900,
    over: {
      ...side,
      recesses: [sideRecess(1100)],
    },
  }),
  ...pair({
    id: 'rear-door',
    name: 'Rear door',
    kind: 'door',
    widthMm: 780,
    heightMm: 1900,
    over: {
      recesses: [
        recess({
          id: 'panel',
          name: 'Door recess',
          mouthWidthMm: 520,
          mouthHeightMm: 120,
          depthMm: 60,
          over: { wallDeg: 80, gapMm: 20 },
        }),
      ],
    },
  }),
]
