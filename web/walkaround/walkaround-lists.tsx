'use client'
/** Small lists of the walkaround: what comes off, what was painted again, what stays free. */
export function Lists({ list }: { list: 'hardware' | 'repaints' | 'neverCover' }) {
  const { plan, edit, fmt } = useJob('plan', 'edit', 'fmt')
  const panels = plan.panels.map((p) => [p.id, p.name] as const)
  const rows =
    <K extends typeof list>(key: K) =>
    (change: (rows: Walk[K]) => Walk[K]) =>
      edit((p) => ({ ...p, walkaround: { ...p.walkaround, [key]: change(p.walkaround[key]) } }))
  const id = (first: string) =>
    freeId(
      first,
      plan.walkaround[list].map((x) => x.id),
    )
  const panel = {
    key: 'panelId',
    label: 'Panel',
    kind: 'choice',
    options: panels,
    none: 'no panel named',
    width: 130,
  } as const
  if (list === 'hardware')
    return (
      <FeatureTable<Hardware>
        rows={plan.walkaround.hardware}
        fmt={fmt}
        columns={[
          { key: 'name', label: 'Part', kind: 'text', required: true, width: 160 },
          { key: 'way', label: 'Way', kind: 'word', list: 'hardware', width: 120 },
          { key: 'minutes', label: 'Minutes', kind: 'number', max: 600, optional: true },
          { key: 'who', label: 'Who', kind: 'text', width: 120 },
        ]}
        onRows={(f) => rows('hardware')((r) => f(r).map((h) => ({ ...h, minutes: h.minutes ?? 0 })))}
        naming={(_, i) => `Hardware ${i + 1}`}
        make={() => ({ id: id('h1'), name: 'Part', way: 'remove', minutes: 10, who: '' })}
        add="Add hardware"
      />
    )
  if (list === 'repaints')
    return (
      <FeatureTable<Repaint>
        rows={plan.walkaround.repaints}
        fmt={fmt}
        columns={[
          panel,
          { key: 'on', label: 'Painted on', kind: 'date' },
          { key: 'note', label: 'Note', kind: 'text', max: 2000, width: 200 },
        ]}
        onRows={rows('repaints')}
        naming={(_, i) => `Repaint ${i + 1}`}
        make={() => ({ id: id('r1'), panelId: null, on: null, note: '' })}
        add="Add a repainted panel"
      />
    )
  return (
    <FeatureTable<NeverCover>
      rows={plan.walkaround.neverCover}
      fmt={fmt}
      columns={[
        { key: 'kind', label: 'Place', kind: 'word', list: 'neverCover', width: 160 },
        panel,
        { key: 'note', label: 'Note', kind: 'text', max: 2000, width: 200 },
      ]}
      onRows={rows('neverCover')}
      naming={(_, i) => `Free place ${i + 1}`}
      make={() => ({ id: id('n1'), kind: 'sensor', panelId: null, note: '' })}
      add="Add a place"
    />
  )
}

import { freeId } from '@/core/kit/ids'
import type { Plan } from '@/core/model/plan/schema'
import { useJob } from '@/web/job/job-state'
import { FeatureTable } from '@/web/kit/feature-table'
export type Hardware = Walk['hardware'][number]
export type Repaint = Walk['repaints'][number]
export type NeverCover = Walk['neverCover'][number]
export type Walk = Plan['walkaround']
