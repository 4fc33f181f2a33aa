import type { FaultCode } from '../../kit/fault-code'
import { freeId, slug } from '../../kit/ids'
import type { CellFault } from '../../kit/table'
import {
  ATS,
  CUT_SIDES,
  EDGE_MEETS,
  GRABS,
  MATERIALS,
  OPENS,
  TIGHTNESS,
  PANEL_KINDS,
  SIDES,
} from '../../model/vehicle/kinds'
import { Panel, Recess, type Edge } from '../../model/vehicle/schema'
import { gapOrSpan } from '../../model/plan/gaps-and-spans'
import { parseLength, type LengthUnit } from '../../kit/units'
import { setSize, taped } from '../../model/vehicle/resize'

export type Fail = (column: string, code: FaultCode, facts?: CellFault['facts']) => void
export const RECESS = /^(.+?):\s*([\d.,]+)\s*x\s*([\d.,]+)\s*x\s*([\d.,]+)((?:\s+\S+)*)$/i
export function recessesFrom(panel: Panel, text: string, fail: Fail): Recess[] {
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

/** A width wider than a gap can be was written as one before spans were told apart. */
const apart = (gapMm: number | null, spanMm: number | null): Pick<Edge, 'gapMm' | 'spanMm'> =>
  spanMm === null ? gapOrSpan(gapMm) : { gapMm, spanMm }

export function edgesFrom(panel: Panel, at: Edge['at'], text: string, fail: Fail): Edge[] {
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
    const option = <T extends string>(key: string, allowed: readonly T[]): T | null => {
      if (!(key in given)) return null
      const found = allowed.find((word) => word === given[key])
      if (!found) fail(at, 'not_a_word', { text: String(given[key]).slice(0, 40), allowed: allowed.join(', ') })
      return found ?? null
    }
    return [
      {
        id: was?.id ?? (i === 0 ? at : `${at}-${i + 1}`),
        at,
        lengthMm: length.value,
        meets: kind,
        neighbour: neighbour === '-' || neighbour === '' ? null : neighbour,
        riseMm: figure('rise', was?.riseMm ?? 0) ?? 0,
        ...apart(figure('gap', was?.gapMm ?? null), figure('span', was?.spanMm ?? null)),
        cornerDeg: figure('corner', was?.cornerDeg ?? null),
        cornerRadiusMm: was?.cornerRadiusMm ?? null,
        grab: option('grab', GRABS) ?? was?.grab ?? 'usual',
        tightness: option('seal', TIGHTNESS) ?? was?.tightness ?? null,
        opens: option('opens', OPENS) ?? was?.opens ?? null,
        cutAs: option('cut', CUT_SIDES) ?? was?.cutAs ?? null,
        leaveMm: figure('leave', was?.leaveMm ?? null),
      } satisfies Edge,
    ]
  })
}

export const lengthColumn = (column: string): { length: string; unit: LengthUnit } | null => {
  for (const unit of UNITS) {
    const length = column.endsWith(`_${unit}`) ? column.slice(0, -unit.length - 1) : null
    if (length && (LENGTHS as readonly string[]).includes(length)) return { length, unit }
  }
  return null
}

/** One of the words that a column may hold; null where its cell is empty. */
function wordIn<T extends string>(
  cells: Record<string, string>,
  column: string,
  allowed: readonly T[],
  fail: Fail,
): T | null {
  const text = (cells[column] ?? '').toLowerCase()
  if (text === '') return null
  const found = allowed.find((word) => word === text)
  if (found === undefined) fail(column, 'not_a_word', { text: text.slice(0, 40), allowed: allowed.join(', ') })
  return found ?? null
}

/** What a length of a panel may be at most. [mm] */
const mostOf = (length: string): number =>
  length.startsWith('crown') && !length.endsWith('over') ? 1500 : length === 'corner_radius' ? 2000 : 15000

/** Lengths by their names, whatever unit their column names; null where the cell is empty. [mm] */
function lengthsIn(cells: Record<string, string>, fail: Fail): Record<string, number | null> {
  const lengths: Record<string, number | null> = {}
  for (const [column, text] of Object.entries(cells)) {
    const found = lengthColumn(column)
    if (!found) continue
    const { length, unit } = found
    const mm = text === '' ? null : parseLength(text, unit)
    const most = mostOf(length)
    if (mm === null) lengths[length] = null
    else if (!mm.ok) fail(column, mm.error.code, mm.error.facts)
    else if (mm.value < 0 || (mm.value === 0 && (length === 'width' || length === 'height')))
      fail(column, 'too_small', { minimum: 'more than 0' })
    else if (mm.value > most) fail(column, 'too_big', { maximum: `${most} mm` })
    else lengths[length] = mm.value
  }
  return lengths
}

export function fillPanel(start: Panel, cells: Record<string, string>, fail: Fail): Panel {
  let p = start
  const one = <T extends string>(column: string, allowed: readonly T[]) => wordIn(cells, column, allowed, fail)
  const kind = one('kind', PANEL_KINDS)
  const side = one('side', SIDES)
  p = { ...p, ...(kind ? { kind } : {}), ...(side ? { side } : {}) }
  const lengths = lengthsIn(cells, fail)
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

export const UNITS: readonly LengthUnit[] = ['mm', 'cm', 'm', 'in']
/**
 * Lengths of the measurement sheet; a column may end in _mm, _cm, _m or _in instead, and a cell may carry its own
 * unit.
 */
export const LENGTHS = [
  'width',
  'height',
  'crown',
  'crown_over',
  'crown_down',
  'crown_down_over',
  'corner_radius',
] as const
