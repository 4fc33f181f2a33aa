'use client'

import { type MouseEvent } from 'react'
import type { Point } from '@/core/kit/plane'
import { SHADES } from './scan-shades'

/** The scan from above, with the ring that cuts the panel out of it. */
export function ScanPicture({
  ring,
  width,
  height,
  name,
  put,
  picture,
  left,
  scale,
  top,
}: {
  ring: Point[]
  width: number
  height: number
  name: string
  put: (e: MouseEvent<SVGSVGElement>) => void
  picture: { scale: number; left: number; top: number; width: number; height: number; paths: string[] }
  left: number
  scale: number
  top: number
}) {
  return (
    <figure className="mb-0">
      <figcaption className="label">
        {ring.length < 3
          ? 'Click round the panel, if the scan shows more than it'
          : `${ring.length} points round the panel`}
      </figcaption>
      <svg
        width={width}
        height={height}
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={`Scan ${name}`}
        onClick={put}
        style={{ background: '#fbf8ef', cursor: 'crosshair', maxWidth: '100%', height: 'auto' }}
      >
        {picture.paths.map(
          (d, i) => d !== '' && <path key={i} d={d} fill={SHADES[i]} stroke={SHADES[i]} strokeWidth={0.5} />,
        )}
        {ring.length > 0 && (
          <polygon
            points={ring.map((p) => `${(p.x - left) * scale},${(top - p.y) * scale}`).join(' ')}
            fill="rgb(163 42 30 / 15%)"
            stroke="var(--stop)"
            strokeWidth={2}
          />
        )}
        {ring.map((p, i) => (
          <circle key={i} cx={(p.x - left) * scale} cy={(top - p.y) * scale} r={4} fill="var(--stop)" />
        ))}
      </svg>
    </figure>
  )
}
