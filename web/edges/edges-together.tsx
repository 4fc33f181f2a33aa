'use client'

import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import { CUT_SIDES, GRABS, OPENS, TIGHTNESS, WIDEST_GAP_MM } from '@/core/model/vehicle/kinds'
import type { Edge } from '@/core/model/vehicle/schema'
import { useJob } from '@/web/job/job-state'
import { LengthInput } from '@/web/kit/quantity-input'
import { word } from '@/web/words/names'
import { Choice } from './edge-fields'

const BY_RULES = 'by the rules'

/** Several edges changed at once: what is set here is set on each of them, everything else stays as it is. */
export function EdgesTogether({
  marked,
  all,
  onMarkAll,
  onDone,
}: {
  marked: readonly EdgeDecision[]
  /** Edges that the table shows now. */
  all: number
  onMarkAll: () => void
  onDone: () => void
}) {
  const { edit, fmt } = useJob('edit', 'fmt')
  const [part, setPart] = useState<Partial<Edge>>({})
  const set = (more: Partial<Edge>) => setPart((was) => ({ ...was, ...more }))
  const apply = () => {
    const wanted = new Set(marked.map((e) => `${e.panelId}/${e.edgeId}`))
    edit((p) => ({
      ...p,
      panels: p.panels.map((x) =>
        x.edges.some((e) => wanted.has(`${x.id}/${e.id}`))
          ? { ...x, edges: x.edges.map((e) => (wanted.has(`${x.id}/${e.id}`) ? { ...e, ...part } : e)) }
          : x,
      ),
    }))
    setPart({})
    onDone()
  }
  const length = (label: string, key: 'gapMm' | 'leaveMm', max: number) => (
    <label className="edge-field">
      <span className="label">{label}</span>
      <LengthInput
        className="form-control form-control-sm"
        aria-label={`${label} of the edges marked`}
        mm={part[key] ?? null}
        optional
        unit={fmt.units.lengthUnit}
        format={(mm) => fmt.length(mm).text}
        min={0}
        max={max}
        onValue={(v) => set({ [key]: v })}
      />
    </label>
  )
  return (
    <section
      className="plate edges-together position-sticky bottom-0 z-2 d-flex flex-wrap gap-2 align-items-end mb-2"
      aria-label="Edges changed together"
    >
      <span>
        <b>{marked.length}</b> of {all} edges marked
      </span>
      <Choice
        label="Cut"
        value={part.cutAs ?? null}
        none={'cutAs' in part ? BY_RULES : 'as it is'}
        options={CUT_SIDES.filter((c) => c !== 'none')}
        name={(c) => word('cutSide', c)}
        onPick={(cutAs) => set({ cutAs })}
      />
      <Choice
        label="Seal"
        value={part.tightness ?? null}
        none={'tightness' in part ? 'by its width' : 'as it is'}
        options={TIGHTNESS}
        name={(t) => word('tightness', t)}
        onPick={(tightness) => set({ tightness })}
      />
      <Choice
        label="Opens"
        value={part.opens ?? null}
        none={'opens' in part ? 'as usual' : 'as it is'}
        options={OPENS}
        name={(o) => word('opens', o, fmt.units.locale)}
        onPick={(opens) => set({ opens })}
      />
      <Choice
        label="Grabbed"
        value={part.grab ?? null}
        none="as it is"
        options={GRABS}
        name={(g) => word('grab', g)}
        onPick={(grab) => grab && set({ grab })}
      />
      {length('Gap', 'gapMm', WIDEST_GAP_MM)}
      {length('Left', 'leaveMm', 120)}
      <Button size="sm" disabled={Object.keys(part).length === 0} onClick={apply}>
        Set on {marked.length === 1 ? 'this edge' : `these ${marked.length}`}
      </Button>
      <Button size="sm" variant="outline-secondary" onClick={() => set({ cutAs: null, leaveMm: null })}>
        Back to the rules
      </Button>
      <Button size="sm" variant="outline-secondary" disabled={marked.length === all} onClick={onMarkAll}>
        Mark all shown
      </Button>
      <Button size="sm" variant="link" onClick={onDone}>
        Mark none
      </Button>
    </section>
  )
}
