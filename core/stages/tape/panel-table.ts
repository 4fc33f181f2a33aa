import type { FaultCode } from '../../kit/fault-code'
import { err, ok, type Result } from '../../kit/result'
import { readTable, safeCell, type CellFault } from '../../kit/table'
import { newPanel } from '../../model/vehicle/new-panel'
import { freeId, slug } from '../../kit/ids'
import { guessPanel } from '../../model/vehicle/name-guess'
import { edgesInOrder } from '../../model/vehicle/outline'
import { ATS, MAX_PANELS } from '../../model/vehicle/kinds'
import { Panel, type Edge } from '../../model/vehicle/schema'
import { fillPanel, lengthColumn, LENGTHS, UNITS } from './panel-row'

const PLAIN = [
  'id',
  'name',
  'kind',
  'side',
  'wrap',
  'surface',
  'thickness_mm',
  ...ATS,
  'recesses',
  'assumed',
  'note',
] as const

/** Every column of the measurement sheet, as it is written. */
export const PANEL_COLUMNS: readonly string[] = [
  'id',
  'name',
  'kind',
  'side',
  ...LENGTHS.map((l) => `${l}_mm`),
  ...ATS,
  'recesses',
  'surface',
  'thickness_mm',
  'wrap',
  'assumed',
  'note',
]

const round = (v: number): number => Math.round(v * 100) / 100

/**
 * The measured panels as a table, one row a panel, first row the columns' names. Edges: `length what-it-meets
 * neighbour`, several by `;`.
 */
export function panelTable(panels: readonly Panel[]): string[][] {
  const edge = (e: Edge): string =>
    [
      round(e.lengthMm),
      e.meets,
      e.neighbour ?? '-',
      ...(e.riseMm !== 0 ? [`rise=${round(e.riseMm)}`] : []),
      ...(e.gapMm !== null ? [`gap=${round(e.gapMm)}`] : []),
      ...(e.spanMm !== null ? [`span=${round(e.spanMm)}`] : []),
      ...(e.tightness !== null ? [`seal=${e.tightness}`] : []),
      ...(e.opens !== null ? [`opens=${e.opens}`] : []),
      ...(e.cutAs !== null ? [`cut=${e.cutAs}`] : []),
      ...(e.leaveMm !== null ? [`leave=${round(e.leaveMm)}`] : []),
      ...(e.grab !== 'usual' ? [`grab=${e.grab}`] : []),
      ...(e.cornerDeg !== null ? [`corner=${round(e.cornerDeg)}`] : []),
    ].join(' ')
  const recess = (r: Panel['recesses'][number]): string =>
    `${r.name.replace(/[;:]/g, ' ')}: ${round(r.mouthWidthMm)} x ${round(r.mouthHeightMm)} x ` +
    `${round(r.depthMm)} wall=${round(r.wallDeg)} ${r.open ? 'open' : 'closed'} ${r.way} ` +
    `gap=${round(r.gapMm)}`
  const rows = panels.map((p) => {
    const edges = edgesInOrder(p)
    const cells: (string | number | boolean | null)[] = [
      p.id,
      p.name,
      p.kind,
      p.side,
      round(p.widthMm),
      round(p.heightMm),
      round(p.crownMm),
      round(p.crownOverMm),
      p.crownDownMm === null ? null : round(p.crownDownMm),
      round(p.crownDownOverMm),
      p.cornerRadiusMm === null ? null : round(p.cornerRadiusMm),
      ...ATS.map((at) =>
        edges
          .filter((e) => e.at === at)
          .map(edge)
          .join('; '),
      ),
      p.recesses.map(recess).join('; '),
      p.surface.material,
      p.surface.thicknessMm,
      p.wrap,
      p.assumed.join(' '),
      p.note,
    ]
    return cells.map(safeCell)
  })
  return [[...PANEL_COLUMNS], ...rows]
}

export interface PanelImport {
  panels: Panel[]
  changed: number
  added: number
}

/**
 * A measurement sheet read into the vehicle's panels: rows are matched by id, then by name; others are added. Only
 * columns that are there change anything. All or nothing. Errors: those of `readTable`, and each cell's own, up to
 * twenty.
 */
export function panelsFromTable(
  rows: readonly (readonly string[])[],
  existing: readonly Panel[],
): Result<PanelImport, CellFault[]> {
  const table = readTable(rows, {
    known: (c) => (PLAIN as readonly string[]).includes(c) || lengthColumn(c) !== null,
    required: [['name'], UNITS.map((u) => `width_${u}`), UNITS.map((u) => `height_${u}`)],
    limit: MAX_PANELS,
  })
  if (!table.ok) return table
  const faults: CellFault[] = []
  const panels = new Map(existing.map((p) => [p.id, p]))
  const byName = new Map(existing.map((p) => [p.name.toLowerCase(), p.id]))
  const seen = new Map<string, number>()
  let [changed, added] = [0, 0]
  for (const { line, cells } of table.value.rows) {
    const name = cells.name ?? ''
    const fail = (column: string, code: FaultCode, facts: CellFault['facts'] = {}) =>
      void faults.push({ code, line, column, facts })
    if (name === '' || name.length > 120) {
      fail('name', name === '' ? 'empty' : 'too_big', { maximum: 120 })
      continue
    }
    const wanted = (cells.id ?? '') !== '' && panels.has(cells.id ?? '') ? cells.id : byName.get(name.toLowerCase())
    const known = wanted === undefined ? undefined : panels.get(wanted)
    const id =
      known?.id ??
      freeId(/^[a-z0-9][a-z0-9-]{0,59}$/.test(cells.id ?? '') ? (cells.id ?? '') : slug(name), panels.keys())
    const before = seen.get(id)
    if (before !== undefined) {
      fail('name', 'row_twice', { other: before })
      continue
    }
    seen.set(id, line)
    const { kind, side } = guessPanel(name)
    const panel = fillPanel(known ?? newPanel({ id, name, kind, side, widthMm: 1000, heightMm: 600 }), cells, fail)
    panels.set(id, { ...panel, name })
    if (known) changed++
    else added++
  }
  if (panels.size > MAX_PANELS)
    faults.push({ code: 'too_many_rows', line: 2, column: '', facts: { rows: panels.size, limit: MAX_PANELS } })
  const list = [...panels.values()]
  if (faults.length === 0)
    for (const p of list) {
      const parsed = Panel.safeParse(p)
      const line = seen.get(p.id)
      if (!parsed.success && line)
        faults.push({ code: 'bad_panel', line, column: String(parsed.error.issues[0]?.path[0] ?? ''), facts: {} })
      for (const r of p.recesses)
        if (line && (r.mouthWidthMm > p.widthMm || r.mouthHeightMm > p.heightMm))
          faults.push({ code: 'recess_larger_than_panel', line, column: 'recesses', facts: {} })
      if (line && p.crownMm > p.crownOverMm / 2)
        faults.push({ code: 'crown_deeper_than_half', line, column: 'crown', facts: {} })
    }
  return faults.length > 0 ? err(faults.slice(0, 20)) : ok({ panels: list, changed, added })
}
