'use client'

import { PlainButton } from '@/web/kit/plain-button'
import Form from 'react-bootstrap/Form'
import Table from 'react-bootstrap/Table'
import {
  flexRender,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type ColumnDef,
  type SortingState,
} from '@tanstack/react-table'
import { useMemo, useState } from 'react'
import { comparedBy, filmFitness, panelFitness, type PanelFitness } from '@/core/stages/film/fitness'
import type { FilmSheet } from '@/core/model/film/schema'
import { useJob } from '@/web/job/job-state'
import { FilterBox } from '@/web/kit/fields'
import { RANK, Row, rowOfAllPanels } from '@/web/film/fitness-rows'
import { FitnessRow } from './fitness-row'
import './fitness.scss'

/** Every film of the rack on this vehicle, whole or panel by panel: what fits, what it costs, and why not. */
export function FitnessTable({
  films,
  retired,
  scope,
}: {
  films: readonly FilmSheet[]
  retired: readonly string[]
  scope: readonly string[]
}) {
  'use no memo'
  const { plan } = useJob('plan')
  const [each, setEach] = useState(false)
  const [text, setText] = useState('')
  const [level, setLevel] = useState('')
  const [sorting, setSorting] = useState<SortingState>([])
  const [open, setOpen] = useState<string | null>(null)
  const { rows, solvedPanels } = useFitness(films, scope, each)
  const shown = useMemo(() => {
    const wanted = text.trim().toLowerCase()
    return rows.filter(
      (r) =>
        (level === '' || (level === 'fits' ? RANK[r.level] < 2 : r.level === level)) &&
        `${r.film.name} ${r.film.kind} ${r.film.finish} ${r.film.colour.name} ${r.panelName}`
          .toLowerCase()
          .includes(wanted),
    )
  }, [rows, text, level])
  const columns = useMemo<ColumnDef<Row>[]>(
    () => [
      { id: 'film', header: 'Film', accessorFn: (r) => r.film.name },
      ...(each ? [{ id: 'panel', header: 'Panel', accessorFn: (r: Row) => r.panelName } satisfies ColumnDef<Row>] : []),
      { id: 'fit', header: 'Fit', accessorFn: (r) => RANK[r.level] },
      { id: 'stretch', header: 'Worst stretch', accessorFn: (r) => r.stretch },
      { id: 'warranty', header: 'Warranty', accessorFn: (r) => r.warranty ?? -1 },
      { id: 'contrast', header: 'Contrast', accessorFn: (r) => r.contrast ?? -1 },
      { id: 'cost', header: 'Film cost', accessorFn: (r) => r.cost },
    ],
    [each],
  )
  // eslint-disable-next-line react-hooks/incompatible-library -- the table library keeps its own state
  const table = useReactTable({
    data: shown,
    columns,
    state: { sorting },
    onSortingChange: setSorting,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  })
  const ARIA = { asc: 'ascending', desc: 'descending' } as const
  return (
    <section className="plate mb-3" aria-label="Films against this vehicle">
      <div className="d-flex gap-2 align-items-center flex-wrap mb-2">
        <h2 className="mb-0">
          Films against{' '}
          {scope.length === 0
            ? 'the whole vehicle'
            : `${scope.length} ${scope.length === 1 ? 'panel' : 'panels'} picked`}
        </h2>
        <label className="d-flex gap-1 align-items-center">
          <Form.Check.Input type="checkbox" checked={each} onChange={(e) => setEach(e.target.checked)} /> panel by panel
        </label>
        <span className="ms-auto d-flex gap-2">
          <Form.Select
            size="sm"
            className="w-auto"
            aria-label="Show"
            value={level}
            onChange={(e) => setLevel(e.target.value)}
          >
            <option value="">all</option>
            <option value="fits">what suits</option>
            <option value="warn">with reservations</option>
            <option value="stop">what does not</option>
          </Form.Select>
          <FilterBox label="Filter films" width={170} value={text} onText={setText} />
        </span>
      </div>
      <div className="scroll-x">
        <Table className="fitness">
          <thead>
            {table.getHeaderGroups().map((g) => (
              <tr key={g.id}>
                {g.headers.map((h) => {
                  const sorted = h.column.getIsSorted()
                  return (
                    <th key={h.id} scope="col" aria-sort={sorted ? ARIA[sorted] : 'none'}>
                      <PlainButton className="sort" onClick={h.column.getToggleSortingHandler()}>
                        {flexRender(h.column.columnDef.header, h.getContext())}
                        <span aria-hidden>{sorted === 'asc' ? ' ▲' : sorted === 'desc' ? ' ▼' : ''}</span>
                      </PlainButton>
                    </th>
                  )
                })}
              </tr>
            ))}
          </thead>
          <tbody>
            {table.getRowModel().rows.map(({ original: r }) => {
              const key = `${r.film.id}/${r.panelId ?? ''}`
              return (
                <FitnessRow
                  key={key}
                  row={r}
                  retired={retired}
                  open={open === key}
                  onOpen={() => setOpen(open === key ? null : key)}
                  scope={scope}
                  each={each}
                  columns={table.getAllColumns().length}
                />
              )
            })}
          </tbody>
        </Table>
      </div>
      {rows.length > 0 && shown.length === 0 && <p className="mb-0 mt-2">No film matches.</p>}
      <p className="label mb-0 mt-1">
        {plan.panels.length === 0
          ? 'No panel is measured yet: judged by paint and climate zone alone.'
          : `Stretch is ${comparedHow(solvedPanels)}. Film cost: cut pieces at the sheet’s price by area; ` +
            'the roll layout says what is really ordered.'}
      </p>
    </section>
  )
}

/** Every film on the panels asked for, all of them together or each by itself; and which of them are solved. */
function useFitness(films: readonly FilmSheet[], scope: readonly string[], each: boolean) {
  const { plan, catalogue } = useJob('plan', 'catalogue')
  const rows = useMemo(() => {
    const names = new Map(plan.panels.map((p) => [p.id, p.name]))
    const panels = plan.panels.filter((p) => (scope.length > 0 ? scope.includes(p.id) : p.wrap))
    const known = panels.map((p) => comparedBy(plan, p, catalogue))
    return films.flatMap((film) => {
      const parts = panels.map((p, i) => panelFitness(film, p, plan, catalogue, known[i]))
      // Nothing is measured yet: paint, zone and the film's own kind are all that can be said.
      if (panels.length === 0) {
        const reasons = filmFitness(film, { ...plan, film: { mainId: film.id, sheets: [film] } }, catalogue.now)
        const none = rowOfAllPanels(film, [], names, null, plan.film.mainId === film.id)
        const level = reasons.reduce<PanelFitness['level']>((w, r) => (RANK[r.level] > RANK[w] ? r.level : w), 'fits')
        return [{ ...none, level, reasons: reasons.map((reason) => ({ reason, count: 1 })) }]
      }
      const on = (id: string) => (plan.panels.find((p) => p.id === id)?.filmId ?? plan.film.mainId) === film.id
      return each
        ? parts.map((p) => rowOfAllPanels(film, [p], names, p.panelId, on(p.panelId)))
        : [rowOfAllPanels(film, parts, names, null, scope.length > 0 ? scope.every(on) : plan.film.mainId === film.id)]
    })
  }, [plan, catalogue, films, scope, each])
  const solvedPanels = useMemo(
    () =>
      plan.panels
        .filter((p) => (scope.length > 0 ? scope.includes(p.id) : p.wrap))
        .map((p) => comparedBy(plan, p, catalogue).solved !== undefined),
    [plan, catalogue, scope],
  )
  return { rows, solvedPanels }
}

/** Whether films are compared by solved stretches or by closed forms: on each panel all films alike. */
function comparedHow(solved: readonly boolean[]): string {
  const left = solved.filter((is) => !is).length
  if (left === 0) return 'solved for every film on every panel'
  const most = left === solved.length ? 'every panel' : `${left} of ${solved.length} panels, solved on the others`
  return `by closed forms on ${most}, for all films alike`
}
