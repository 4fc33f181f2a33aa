import { useMemo } from 'react'
import type { EdgeDecision } from '@/core/engines/edge/edge-plan'
import Form from 'react-bootstrap/Form'
import { PlainButton } from '@/web/kit/plain-button'
import { SortableTable, type SortableColumn } from '@/web/kit/sortable-table'
import type { Formatter } from '@/web/words/format'
import { word } from '@/web/words/names'
import { CutMark } from './cut-mark'

const why = (e: EdgeDecision): string => e.why.map((w) => word('edgeWhy', w)).join('; ')
/** What decided; the rest stands with the edge that is picked. */
const first = (e: EdgeDecision): string =>
  e.why
    .slice(0, 1)
    .map((w) => word('edgeWhy', w))
    .join('')

const nameIn = (names: ReadonlyMap<string, string>, e: EdgeDecision): string =>
  `${names.get(e.panelId) ?? e.panelId}, ${e.at}`

/** Whether the table shows an edge while that is typed into its filter. */
export function matches(e: EdgeDecision, names: ReadonlyMap<string, string>, filter: string): boolean {
  const wanted = filter.trim().toLowerCase()
  const texts = [
    nameIn(names, e),
    word('edge', e.meets),
    String(e.lengthMm),
    word('cutSide', e.cut),
    String(e.leaveMm),
    String(e.tuckMm),
    word('edgeHeat', e.heat),
    tapesOf(e),
    why(e),
  ]
  return wanted === '' || texts.some((t) => t.toLowerCase().includes(wanted))
}
const tapesOf = (e: EdgeDecision): string => e.tapes.map((t) => word('supply', t.kind)).join(', ')

const markColumn = (
  marked: ReadonlySet<string>,
  nameOf: (edge: EdgeDecision) => string,
  keyOf: (edge: EdgeDecision) => string,
  onMark: (key: string, isMarked: boolean) => void,
): SortableColumn<EdgeDecision> => ({
  id: 'mark',
  header: '',
  enableSorting: false,
  enableGlobalFilter: false,
  cell: ({ row: { original: e } }) => (
    <Form.Check
      aria-label={`Change together: ${nameOf(e)}`}
      checked={marked.has(keyOf(e))}
      onChange={(event) => onMark(keyOf(e), event.target.checked)}
    />
  ),
})

/** All edges, sorted by any column; the name of one opens its section. */
export function EdgeTable({
  edges,
  names,
  fmt,
  filter,
  picked,
  marked,
  keyOf,
  onPick,
  onMark,
}: {
  edges: readonly EdgeDecision[]
  names: ReadonlyMap<string, string>
  fmt: Formatter
  filter: string
  picked: string
  /** Edges that are changed together; absent where none may be changed. */
  marked: ReadonlySet<string> | null
  keyOf: (edge: EdgeDecision) => string
  onPick: (key: string) => void
  onMark: (key: string, isMarked: boolean) => void
}) {
  const columns = useMemo((): SortableColumn<EdgeDecision>[] => {
    const mm = (v: number) => fmt.text(fmt.length(v))
    const nameOf = (e: EdgeDecision) => nameIn(names, e)
    return [
      ...(marked ? [markColumn(marked, nameOf, keyOf, onMark)] : []),
      {
        header: 'Edge',
        accessorFn: nameOf,
        cell: ({ row: { original: e } }) => (
          <PlainButton
            className="row-pick text-nowrap"
            aria-pressed={keyOf(e) === picked}
            onClick={() => onPick(keyOf(e))}
          >
            {nameOf(e)}
          </PlainButton>
        ),
      },
      { header: 'Meets', accessorFn: (e) => word('edge', e.meets) },
      {
        header: 'Length',
        accessorKey: 'lengthMm',
        cell: ({ row: { original: e } }) => <span className="text-nowrap">{fmt.text(fmt.longLength(e.lengthMm))}</span>,
        meta: { numbers: true },
      },
      {
        header: 'Cut',
        accessorFn: (e) => word('cutSide', e.cut),
        cell: ({ row: { original: e } }) => <CutMark cut={e.cut} />,
      },
      {
        header: 'Left',
        accessorKey: 'leaveMm',
        cell: ({ row: { original: e } }) => <span className="text-nowrap">{mm(e.leaveMm)}</span>,
        meta: { numbers: true },
      },
      {
        header: 'Tuck',
        accessorKey: 'tuckMm',
        cell: ({ row: { original: e } }) => <span className="text-nowrap">{e.tuckMm > 0 ? mm(e.tuckMm) : ''}</span>,
        meta: { numbers: true },
      },
      { header: 'Heat', accessorFn: (e) => word('edgeHeat', e.heat) },
      {
        header: 'Tape',
        accessorFn: tapesOf,
      },
      {
        header: 'Why',
        accessorFn: why,
        cell: ({ row: { original: e } }) => <span className="label">{first(e)}</span>,
      },
    ]
  }, [fmt, names, keyOf, picked, marked, onPick, onMark])
  return (
    <SortableTable
      rows={edges}
      columns={columns}
      rowKey={keyOf}
      filter={filter}
      none="No edge has that in its panel, cut or reason."
      label="Edges"
    />
  )
}
