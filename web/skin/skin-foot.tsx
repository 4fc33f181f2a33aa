'use client'

import type { Layer } from '@/web/charts/skin-marks'
import Button from 'react-bootstrap/Button'
import { SkinMarks } from '@/web/charts/skin-marks'

/** Under the drawing: what the colours mean, and nearer or further. */
export function SkinFoot({
  drawing,
  layer,
  scaleBy,
  fit,
}: {
  drawing: SkinMarks
  layer: Layer
  scaleBy: (k: number) => void
  fit: () => void
}) {
  return (
    <div className="d-flex flex-wrap gap-3 row-gap-2 align-items-center pt-2">
      <ul className="list-unstyled d-flex flex-wrap gap-1 column-gap-3 mb-0 small">
        {drawing.legend.map((l) => (
          <li key={l.key}>
            <svg width="26" height="16" viewBox={layer === 'edges' ? '0 0 26 16' : '0 0 234 144'} aria-hidden>
              {layer === 'edges' ? (
                <line x1="1" x2="25" y1="8" y2="8" stroke={l.fill} strokeWidth="4" strokeDasharray={l.dash} />
              ) : (
                <rect x="5" y="5" width="224" height="134" fill={l.fill} stroke="var(--ink)" strokeWidth="9" />
              )}
            </svg>{' '}
            {l.label}
          </li>
        ))}
      </ul>
      <span className="ms-auto d-flex gap-1 d-print-none">
        <Button variant="outline-secondary" size="sm" aria-label="Zoom in" onClick={() => scaleBy(1.4)}>
          +
        </Button>
        <Button variant="outline-secondary" size="sm" aria-label="Zoom out" onClick={() => scaleBy(1 / 1.4)}>
          −
        </Button>
        <Button variant="outline-secondary" size="sm" onClick={fit}>
          Whole
        </Button>
      </span>
    </div>
  )
}
