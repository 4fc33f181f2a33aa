'use client'

import Placeholder from 'react-bootstrap/Placeholder'
import './skeleton.scss'

export type SkeletonShape = 'bay' | 'form' | 'map' | 'paper' | 'roll' | 'table' | 'yard'

/** Height of each block that stands in for what is to come, px: a head, then the page in its own proportions. */
const BLOCKS: Record<SkeletonShape, readonly number[]> = {
  bay: [64, 320, 72],
  form: [120, 200, 200],
  map: [300, 180],
  paper: [90, 90, 260],
  roll: [60, 90, 340],
  table: [40, 40, 40, 40, 40, 40],
  yard: [110, 110, 110],
}

/** The shape of a page while it is on its way. */
export function Skeleton({ shape }: { shape: SkeletonShape }) {
  return (
    <div className={`skeleton${shape === 'bay' ? ' bay' : ''}`} role="status" aria-busy="true">
      <span className="visually-hidden">On its way</span>
      <Placeholder as="div" animation="glow" className="h1 mb-3">
        <Placeholder xs={3} />
      </Placeholder>
      {BLOCKS[shape].map((height, i) => (
        <Placeholder key={i} as="div" animation="glow" className="mb-3">
          <Placeholder className="w-100 d-block" style={{ height }} />
        </Placeholder>
      ))}
    </div>
  )
}
