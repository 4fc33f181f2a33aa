import { MAX_PANEL_MM } from '@/core/model/vehicle/kinds'
import { Recess, type Panel } from '@/core/model/vehicle/schema'
import type { Column } from '@/web/kit/feature-table'

export type Lists = 'recesses' | 'bodyLines' | 'raised' | 'holes' | 'zones'
export const PLACE = [
  { key: 'xMm', label: 'From left', kind: 'length', max: MAX_PANEL_MM, optional: true },
  { key: 'yMm', label: 'From top', kind: 'length', max: MAX_PANEL_MM, optional: true },
] as const

export const EXTENT = [
  { key: 'widthMm', label: 'Width', kind: 'length', max: MAX_PANEL_MM },
  { key: 'heightMm', label: 'Height', kind: 'length', max: MAX_PANEL_MM },
  ...PLACE,
] as const

export const NAME = { key: 'name', label: 'Name', kind: 'text', required: true } as const
export const RECESS: Column<Recess>[] = [
  NAME,
  { key: 'mouthWidthMm', label: 'Mouth width', kind: 'length', max: MAX_PANEL_MM },
  { key: 'mouthHeightMm', label: 'Mouth height', kind: 'length', max: MAX_PANEL_MM },
  { key: 'depthMm', label: 'Depth', kind: 'length', max: 1000 },
  { key: 'wallDeg', label: 'Wall angle', kind: 'number', min: 5, max: 90 },
  { key: 'bendRadiusMm', label: 'Bend r', kind: 'length', max: 500, optional: true },
  ...PLACE,
  { key: 'open', label: 'One side open', kind: 'flag' },
  { key: 'openAt', label: 'Open at', kind: 'word', list: 'at', none: '–' },
  { key: 'way', label: 'Way', kind: 'word', list: 'recessWay' },
  { key: 'gapMm', label: 'Free gap', kind: 'length', max: 1000, min: 0, optional: true },
]

export const LINES: Column<Panel['bodyLines'][number]>[] = [
  NAME,
  {
    key: 'along',
    label: 'Runs along',
    kind: 'choice',
    options: [
      ['width', 'width'],
      ['height', 'height'],
    ],
  },
  { key: 'atMm', label: 'Position', kind: 'length', max: MAX_PANEL_MM },
  { key: 'radiusMm', label: 'Crease r', kind: 'length', max: 500, optional: true },
  { key: 'foldDeg', label: 'Fold °', kind: 'number', min: -120, max: 120 },
  { key: 'seam', label: 'Seam may lie here', kind: 'flag' },
]

export const RAISED: Column<Panel['raised'][number]>[] = [
  NAME,
  { key: 'kind', label: 'Kind', kind: 'word', list: 'raised' },
  ...EXTENT,
  { key: 'riseMm', label: 'Stands out', kind: 'length', max: 500, optional: true, min: 0 },
  { key: 'removable', label: 'Comes off', kind: 'flag' },
  { key: 'behind', label: 'Behind it', kind: 'word', list: 'behind' },
  { key: 'minutes', label: 'Minutes', kind: 'number', max: 600, optional: true },
]

export const ZONES: Column<Panel['zones'][number]>[] = [
  NAME,
  { key: 'kind', label: 'Kind', kind: 'word', list: 'convexity' },
  ...EXTENT,
]
