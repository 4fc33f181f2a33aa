'use client'

import { JSX } from 'react'
import { type Formatter } from '@/web/words/format'
import { Cancel, gapText, Progress } from './fleet-row'
import { LayoutPlan } from '@/core/engines/roll/contract'
import type { FleetFile } from '@/web/actions/reads'

/** How a fleet's layout stands: what it takes, its bound, how far above. */
export function FleetHead({
  file,
  number,
  fmt,
  result,
  mayStart,
  look,
  csv,
}: {
  file: FleetFile
  number: (id: string, meanwhile: string) => string | JSX.Element
  fmt: Formatter
  result: LayoutPlan | null
  mayStart: boolean
  look: () => Promise<void>
  csv: () => string
}) {
  return (
    <section className="plate mb-3 d-flex gap-4 flex-wrap align-items-baseline" aria-label="How it stands">
      <Progress row={file} />
      <span>
        <span className="label">Takes</span>{' '}
        <b className="fs-4" data-testid="fleet-used">
          {number('fleet/used', file.usedMm === null ? '–' : fmt.text(fmt.longLength(file.usedMm)))}
        </b>
      </span>
      <span>
        <span className="label">Proven: no plan on one endless roll takes less than</span>{' '}
        <b>{number('fleet/bound', file.boundMm === null ? '–' : fmt.text(fmt.longLength(file.boundMm)))}</b>
      </span>
      <span>
        <span className="label">Above that</span> <b>{number('fleet/above', gapText(file, fmt))}</b>
        {result?.proven ? ', proven the least' : ''}
      </span>
      {result && (
        <span>
          <span className="label">Becomes pieces</span> <b>{number('fleet/yield', '–')}</b>
        </span>
      )}
      <Cancel row={file} may={mayStart} onAsked={() => void look()} />
      {result && (
        <span className="ms-auto d-flex gap-3">
          <a href={csv()} download={`fleet-${file.id.slice(0, 8)}.csv`}>
            Cut list (CSV)
          </a>
          <a
            href={`data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(result))}`}
            download={`fleet-${file.id.slice(0, 8)}.json`}
          >
            Layout (JSON)
          </a>
        </span>
      )}
    </section>
  )
}
