import { parseLength, type LengthUnit } from '../../kit/units'
import { err, ok, type Result } from '../../kit/result'
import { readTable, safeCell, type CellFault } from '../../kit/table'
import { newPanel } from '../../model/vehicle/new-panel'
import { freeId, slug } from '../../kit/ids'
import { guessPanel } from '../../model/vehicle/name-guess'
import { edgesInOrder } from '../../model/vehicle/outline'
import { setSize, taped } from '../../model/vehicle/resize'
import {
  ATS,
  EDGE_MEETS,
  MATERIALS,
  MAX_PANELS,
  Panel,
  PANEL_KINDS,
  Recess,
  SIDES,
  type Edge,
} from '../../model/vehicle/schema'

/**
 * Lengths of the measurement sheet; a column may end in _mm, _cm, _m or _in instead, and a cell may carry its own
 * unit.
 */
const LENGTHS = ['width', 'height', 'crown', 'crown_over', 'crown_down', 'crown_down_over', 'corner_radius'] as const
const UNITS: readonly LengthUnit[] = ['mm', 'cm', 'm', 'in']
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

const lengthColumn = (column: string): { length: string; unit: LengthUnit } | null => {
  for (const unit of UNITS) {
    const length = column.endsWith(`_${unit}`) ? column.slice(0, -unit.length - 1) : null
    if (length && (LENGTHS as readonly string[]).includes(length)) return { length, unit }
  }
  return null
}

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
      ...(e.cornerDeg !== null ? [`corner=${round(e.cornerDeg)}`] : []),
    ].join(' ')
  const recess = (r: Panel['recesses'][number]): string =>
    `${r.name.replace(/[;:]/g, ' ')}: ${round(r.mouthWidthMm)} x ${round(r.mouthHeightMm)} x ${round(r.depthMm)} wall=${round(r.wallDeg)} ${r.open ? 'open' : 'closed'} ${r.way} gap=${round(r.gapMm)}`
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
 * columns
 * that are there change anything. All or nothing. Errors: those of `readTable`, and each cell's own, up to twenty.
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
    const fail = (column: string, code: string, facts: CellFault['facts'] = {}) =>
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
    const guess = guessPanel(name)
    const panel = fillPanel(known ?? { ...newPanel(id, name, guess.kind, guess.side, 1000, 600) }, cells, fail)
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

type Fail = (column: string, code: string, facts?: CellFault['facts']) => void

function fillPanel(start: Panel, cells: Record<string, string>, fail: Fail): Panel {
  let p = start
  const one = <T extends string>(column: string, allowed: readonly T[]): T | null => {
    const text = (cells[column] ?? '').toLowerCase()
    if (text === '') return null
    if ((allowed as readonly string[]).includes(text)) return text as T
    fail(column, 'not_a_word', { text: text.slice(0, 40), allowed: allowed.join(', ') })
    return null
  }
  const kind = one('kind', PANEL_KINDS)
  const side = one('side', SIDES)
  p = { ...p, ...(kind ? { kind } : {}), ...(side ? { side } : {}) }
  const lengths: Record<string, number | null> = {}
  for (const column of Object.keys(cells)) {
    const found = lengthColumn(column)
    if (!found) continue
    const text = cells[column] ?? ''
    if (text === '') lengths[found.length] = null
    else {
      const mm = parseLength(text, found.unit)
      const most =
        found.length.startsWith('crown') && !found.length.endsWith('over')
          ? 1500
          : found.length === 'corner_radius'
            ? 2000
            : 15000
      if (!mm.ok) fail(column, mm.error.code, mm.error.facts)
      else if (mm.value < 0 || (mm.value === 0 && (found.length === 'width' || found.length === 'height')))
        fail(column, 'too_small', { minimum: 'more than 0' })
      else if (mm.value > most) fail(column, 'too_big', { maximum: `${most} mm` })
      else lengths[found.length] = mm.value
    }
  }
  for (const [length, field] of [
    ['width', 'widthMm'],
    ['height', 'heightMm'],
  ] as const) {
    const value = lengths[length]
    if (value === null) fail(length, 'empty')
    else if (value !== undefined) p = setSize(p, field, value)
  }
  const set = (length: string, field: keyof Panel, empty: number | null) => {
    if (length in lengths) p = taped({ ...p, [field]: lengths[length] ?? empty }, field)
  }
  set('crown', 'crownMm', 0)
  set('crown_over', 'crownOverMm', 0)
  set('crown_down', 'crownDownMm', null)
  set('crown_down_over', 'crownDownOverMm', 0)
  set('corner_radius', 'cornerRadiusMm', null)
  for (const at of ATS)
    if ((cells[at] ?? '') !== '')
      p = { ...p, edges: [...p.edges.filter((e) => e.at !== at), ...edgesFrom(p, at, cells[at] ?? '', fail)] }
  if ((cells.recesses ?? '') !== '') p = { ...p, recesses: recessesFrom(p, cells.recesses ?? '', fail) }
  const material = one('surface', MATERIALS)
  if (material) p = { ...p, surface: { ...p.surface, material } }
  const thickness = cells.thickness_mm ?? ''
  if (thickness !== '') {
    const mm = parseLength(thickness, 'mm')
    if (!mm.ok || mm.value <= 0 || mm.value > 100) fail('thickness_mm', 'bad_number')
    else p = { ...p, surface: { ...p.surface, thicknessMm: mm.value } }
  }
  const wrap = one('wrap', ['yes', 'no'])
  if (wrap) p = { ...p, wrap: wrap === 'yes' }
  if ('note' in cells) p = { ...p, note: (cells.note ?? '').slice(0, 2000) }
  if ('assumed' in cells) p = { ...p, assumed: (cells.assumed ?? '').split(/\s+/).filter((f) => f !== '') }
  return p
}

function edgesFrom(panel: Panel, at: Edge['at'], text: string, fail: Fail): Edge[] {
  const known = panel.edges.filter((e) => e.at === at)
  return text.split(';').flatMap((part, i) => {
    const [lengthText = '', meets = '', neighbour = '-', ...rest] = part.trim().split(/\s+/)
    const length = parseLength(lengthText, 'mm')
    if (!length.ok || length.value <= 0 || length.value > 15000) return (fail(at, 'bad_number'), [])
    const was = known[i]
    const kind =
      meets === ''
        ? (was?.meets ?? 'fixed_gap')
        : (EDGE_MEETS as readonly string[]).includes(meets)
          ? (meets as Edge['meets'])
          : null
    if (!kind) return (fail(at, 'not_a_word', { text: meets.slice(0, 40), allowed: EDGE_MEETS.join(', ') }), [])
    const given = Object.fromEntries(rest.map((r) => r.split('=') as [string, string]))
    const figure = (key: string, otherwise: number | null): number | null => {
      if (!(key in given)) return otherwise
      const v = Number(String(given[key]).replace(',', '.'))
      if (Number.isFinite(v)) return v
      fail(at, 'bad_number', { text: key })
      return otherwise
    }
    return [
      {
        id: was?.id ?? (i === 0 ? at : `${at}-${i + 1}`),
        at,
        lengthMm: length.value,
        meets: kind,
        neighbour: neighbour === '-' || neighbour === '' ? null : neighbour,
        riseMm: figure('rise', was?.riseMm ?? 0) ?? 0,
        gapMm: figure('gap', was?.gapMm ?? null),
        cornerDeg: figure('corner', was?.cornerDeg ?? null),
        cornerRadiusMm: was?.cornerRadiusMm ?? null,
        grab: was?.grab ?? 'usual',
      } satisfies Edge,
    ]
  })
}

const RECESS = /^(.+?):\s*([\d.,]+)\s*x\s*([\d.,]+)\s*x\s*([\d.,]+)((?:\s+\S+)*)$/i
function recessesFrom(panel: Panel, text: string, fail: Fail): Recess[] {
  const ids: string[] = []
  return text.split(';').flatMap((part) => {
    const m = RECESS.exec(part.trim())
    if (!m) return (fail('recesses', 'bad_recess', { text: part.trim().slice(0, 60) }), [])
    const number = (t: string | undefined): number => Number((t ?? '').replace(',', '.'))
    const words = (m[5] ?? '').trim().split(/\s+/)
    const option = (key: string): string | undefined =>
      words.find((w) => w.startsWith(`${key}=`))?.slice(key.length + 1)
    const name = (m[1] ?? '').trim()
    const was = panel.recesses.find((r) => r.name.toLowerCase() === name.toLowerCase())
    const id = was?.id ?? freeId(slug(name), ids)
    ids.push(id)
    const parsed = Recess.safeParse({
      ...was,
      id,
      name,
      mouthWidthMm: number(m[2]),
      mouthHeightMm: number(m[3]),
      depthMm: number(m[4]),
      wallDeg: option('wall') === undefined ? (was?.wallDeg ?? 45) : number(option('wall')),
      gapMm: option('gap') === undefined ? (was?.gapMm ?? 60) : number(option('gap')),
      open: words.includes('open') || (!words.includes('closed') && (was?.open ?? false)),
      way: (['bridge', 'feed', 'inlay'] as const).find((w) => words.includes(w)) ?? was?.way ?? 'bridge',
    })
    if (!parsed.success) return (fail('recesses', 'bad_recess', { text: part.trim().slice(0, 60) }), [])
    return [parsed.data]
  })
}
