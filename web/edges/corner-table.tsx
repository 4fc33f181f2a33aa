import { useMemo } from 'react'
import type { CornerDecision } from '@/core/engines/edge/corner-plan'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import { CORNER_TRIM_MM, PULL_REACH_MM } from '@/core/model/edge/cut-rules'
import { Fig } from '@/web/job/figure'
import { SortableTable, type SortableColumn } from '@/web/kit/sortable-table'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'

const why = (c: CornerDecision): string => c.why.map((w) => word('cornerWhy', w)).join('; ')

/** All corners between turned edges: how the film gets round each. */
export function CornerTable({
  corners,
  edges,
  names,
  fmt,
  filter,
}: {
  corners: readonly CornerDecision[]
  edges: readonly EdgeDecision[]
  names: ReadonlyMap<string, string>
  fmt: Formatter
  filter: string
}) {
  const columns = useMemo((): SortableColumn<CornerDecision>[] => {
    const mm = (v: number) => fmt.text(fmt.length(v))
    const side = new Map(edges.map((e) => [`${e.panelId}/${e.edgeId}`, e.at]))
    const nameOf = (c: CornerDecision) =>
      `${names.get(c.panelId) ?? c.panelId}, ${c.between.map((id) => side.get(`${c.panelId}/${id}`) ?? id).join(' to ')}`
    return [
      { header: 'Corner', accessorFn: nameOf, cell: ({ row: { original: c } }) => <b>{nameOf(c)}</b> },
      {
        header: 'Radius',
        accessorKey: 'radiusMm',
        cell: ({ row: { original: c } }) => mm(c.radiusMm),
        meta: { numbers: true },
      },
      { header: 'Method', accessorFn: (c) => word('cornerMethod', c.method) },
      {
        header: 'Squeeze',
        accessorKey: 'squeeze',
        cell: ({ row: { original: c } }) => <Fig id={`corner/${c.id}/squeeze`} />,
        meta: { numbers: true },
      },
      {
        header: 'Pull',
        accessorKey: 'pull',
        cell: ({ row: { original: c } }) => <Fig id={`corner/${c.id}/pull`} />,
        meta: { numbers: true },
      },
      { header: 'Why', accessorFn: why, cell: ({ row: { original: c } }) => <span className="label">{why(c)}</span> },
    ]
  }, [fmt, names, edges])
  const [first] = corners
  if (!first) return null
  const mm = (v: number) => fmt.text(fmt.length(v))
  return (
    <section className="mt-3" aria-label="Corners">
      <h2 className="h6">
        Corners{' '}
        <span className="label">
          before flats, always; trimmed to {mm(first.leaveMm)} over {mm(CORNER_TRIM_MM)} either way, underneath; a pull
          begins {mm(PULL_REACH_MM)} back
        </span>
      </h2>
      <SortableTable
        rows={corners}
        columns={columns}
        rowKey={(c) => c.id}
        filter={filter}
        none="No corner has that in its panel, method or reason."
        label="Corners"
      />
    </section>
  )
}
