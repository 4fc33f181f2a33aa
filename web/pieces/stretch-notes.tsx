'use client'
export function Spots({ spots, limit }: { spots: Spot[]; limit: number }) {
  const { fmt } = useJob('fmt')
  if (spots.length === 0) return <p className="mb-1">Nowhere past {fmt.text(fmt.percent(limit))}.</p>
  return (
    <>
      <p className="mb-1">
        Past {fmt.text(fmt.percent(limit))} at {spots.length} {spots.length === 1 ? 'place' : 'places'}:
      </p>
      <ul className="mb-1">
        {spots.slice(0, 6).map((s) => (
          <li key={`${s.xMm}-${s.yMm}`}>
            {spotText(s)}, {fmt.text(fmt.percent(s.stretch))} over {fmt.text(fmt.area(s.areaMm2))}
          </li>
        ))}
      </ul>
    </>
  )
}

import type { Spot } from '@/core/engines/stretch/spots'
import { useJob } from '@/web/job/job-state'
import { BAND_WHY, BAND_NAMES } from '@/web/pieces/bands'
import { spotText } from '@/web/words/stretch-words'
/** Why each band that is there matters. */
export function Reasons({ bands }: { bands: readonly number[] }) {
  const said = BAND_WHY.map((why, i) => ({ why, name: BAND_NAMES[i], mm2: bands[i] ?? 0 })).filter(
    (b) => b.why !== '' && b.mm2 > 0,
  )
  if (said.length === 0) return null
  return (
    <ul className="mb-1">
      {said.map((b) => (
        <li key={b.name}>
          <b>{b.name}</b>: {b.why}
        </li>
      ))}
    </ul>
  )
}
