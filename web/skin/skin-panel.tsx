'use client'

import Button from 'react-bootstrap/Button'
import { useState } from 'react'
import type { Plan } from '@/core/model/plan/schema'
import type { Point } from '@/core/kit/plane'
import type { Skin } from '@/core/engines/skin/skin'
import type { SkinPanel } from '@/core/engines/skin/skin-panel'
import { LAYERS } from '@/web/charts/skin-marks'
import { useJob } from '@/web/job/job-state'
import { SkinMap } from './skin-map'

const NAMES: Record<(typeof LAYERS)[number], string> = {
  state: 'State',
  size: 'Size',
  edges: 'Edges',
  surface: 'Surface',
  film: 'Film',
  contrast: 'Contrast',
  stretch: 'Stretch',
}

/** The map with its layers to choose from. */
export function SkinPlate({
  start = 'state',
  layers = LAYERS,
  plan: given,
  ...map
}: {
  start?: (typeof LAYERS)[number]
  layers?: readonly (typeof LAYERS)[number][]
  /** Another state of the plan than the newest, where that may wait. */
  plan?: Plan
  selected: readonly string[]
  onSelect: (ids: string[]) => void
  onOpen?: (id: string) => void
  onPlace?: (panel: SkinPanel, point: Point) => void
  over?: (skin: Skin) => React.ReactNode
  height?: number | string
}) {
  const { plan: newest } = useJob('plan')
  const plan = given ?? newest
  const [layer, setLayer] = useState<(typeof LAYERS)[number]>(start)
  return (
    <section className="plate p-2 mb-3" aria-label="The skin">
      {layers.length > 1 && (
        <div className="d-flex gap-1 flex-wrap mb-1 d-print-none" role="group" aria-label="Layer">
          {layers.map((l) => (
            <Button
              key={l}
              size="sm"
              variant={l === layer ? 'primary' : 'outline-secondary'}
              aria-pressed={l === layer}
              onClick={() => setLayer(l)}
            >
              {NAMES[l]}
            </Button>
          ))}
        </div>
      )}
      <SkinMap plan={plan} layer={layer} {...map} />
    </section>
  )
}
