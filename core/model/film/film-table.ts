import { issueFault } from '../../kit/first-fault'
import { err, ok, type Result } from '../../kit/result'
import { readTable, safeCell, type CellFault } from '../../kit/table'
import { STANDED_FIELDS } from './kinds'
import { FilmSheet } from './schema'
import { upgradeSheet } from './upgrade'

type Cell = string | number | boolean | null
interface Column {
  name: string
  path: string
  get: (f: FilmSheet) => Cell
  set: (text: string) => unknown
}

const number = (t: string): unknown => (t === '' ? null : Number(t.replace(',', '.')))
const list = (t: string): unknown =>
  t
    .split(/[\s;]+/)
    .filter((x) => x !== '')
    .map(number)
const yes = (t: string): unknown => (t.toLowerCase() === 'yes' ? true : t.toLowerCase() === 'no' ? false : t)
const plain = (name: string, path: string, get: Column['get'], set: Column['set'] = (t) => t): Column => ({
  name,
  path,
  get,
  set,
})
const n = (name: string, path: string, get: (f: FilmSheet) => number | null): Column => plain(name, path, get, number)
const span = (name: string, path: 'shapingC' | 'postHeatC' | 'overlapC' | 'airC'): Column[] => [
  n(`${name}_min_c`, `${path}.min`, (f) => f[path].min),
  n(`${name}_max_c`, `${path}.max`, (f) => f[path].max),
]

/** Every field of a film's sheet as a column. Fractions as fractions, lists parted by blanks. */
const COLUMNS: Column[] = [
  plain('id', 'id', (f) => f.id),
  plain('name', 'name', (f) => f.name),
  plain('maker', 'maker', (f) => f.maker),
  plain('kind', 'kind', (f) => f.kind),
  plain('finish', 'finish', (f) => f.finish),
  plain('colour_name', 'colour.name', (f) => f.colour.name),
  plain(
    'colour_hex',
    'colour.hex',
    (f) => f.colour.hex,
    (t) => t.toLowerCase(),
  ),
  n('thickness_um', 'thicknessUm', (f) => f.thicknessUm),
  plain('widths_mm', 'widthsMm', (f) => f.widthsMm.join(' '), list),
  plain('roll_lengths_mm', 'rollLengthsMm', (f) => f.rollLengthsMm.join(' '), list),
  plain('sold_by', 'soldBy.unit', (f) => f.soldBy.unit),
  n('minimum_mm', 'soldBy.minimumMm', (f) => f.soldBy.minimumMm),
  n('price', 'soldBy.price', (f) => f.soldBy.price),
  plain(
    'offers',
    'offers',
    (f) => f.offers.map((o) => [o.widthMm, o.unit, o.lengthMm ?? '-', o.minimumMm, o.price].join(' ')).join('; '),
    (t) =>
      t
        .split(';')
        .filter((x) => x.trim() !== '')
        .map((x) => {
          const [width, unit, length, minimum, price] = x.trim().split(/\s+/)
          return {
            widthMm: Number(width),
            unit,
            lengthMm: length === '-' ? null : Number(length),
            minimumMm: Number(minimum),
            price: Number(price),
          }
        }),
  ),
  plain('directional', 'directional', (f) => f.directional, yes),
  n('post_heat_over', 'postHeatOver', (f) => f.postHeatOver),
  n('stretch_limit', 'stretchLimit', (f) => f.stretchLimit),
  n('heat_shrink', 'heatShrink', (f) => f.heatShrink),
  n('pre_stretch_cold', 'preStretchMax.cold', (f) => f.preStretchMax.cold),
  n('pre_stretch_warm', 'preStretchMax.warm', (f) => f.preStretchMax.warm),
  n('recovers', 'recovers', (f) => f.recovers),
  n('heat_limit_c', 'heatLimitC', (f) => f.heatLimitC),
  n('roll_residue', 'rollResidue', (f) => f.rollResidue),
  ...span('shaping', 'shapingC'),
  ...span('post_heat', 'postHeatC'),
  ...span('overlap', 'overlapC'),
  n('overlap_mm', 'overlapMm', (f) => f.overlapMm),
  n('seam_lap_mm', 'seamLapMm', (f) => f.seamLapMm),
  n('long_lap_mm', 'longLapMm', (f) => f.longLapMm),
  n('inlay_lap_mm', 'inlayLapMm', (f) => f.inlayLapMm),
  n('wait_before_cut_min', 'waitBeforeCutMin', (f) => f.waitBeforeCutMin),
  n('post_heat_from_min', 'postHeatFromMin', (f) => f.postHeatFromMin),
  n('post_heat_until_min', 'postHeatUntilMin', (f) => f.postHeatUntilMin),
  n('cure_hours', 'cureHours', (f) => f.cureHours),
  n('gas_out_min_hours', 'gasOutHours.min', (f) => f.gasOutHours?.min ?? null),
  n('gas_out_max_hours', 'gasOutHours.max', (f) => f.gasOutHours?.max ?? null),
  plain('cap_sheet', 'capSheet', (f) => f.capSheet, yes),
  ...span('air', 'airC'),
  n('surface_min_c', 'surfaceMinC', (f) => f.surfaceMinC),
  plain('edge_order', 'edgeOrder', (f) => f.edgeOrder),
  plain(
    'warranty',
    'warrantyMonths',
    (f) => f.warrantyMonths.map((w) => `${w.zone} / ${w.surface} / ${w.months}`).join('; '),
    (t) =>
      t
        .split(';')
        .filter((x) => x.trim() !== '')
        .map((x) => {
          // Parted by strokes; by blanks as it was written before names could hold them.
          const [zone, surface, months] = x
            .split(x.includes('/') ? '/' : /\s+(?=\S)/)
            .map((part) => part.trim())
            .filter((part) => part !== '')
          return { zone, surface, months: Number(months) }
        }),
  ),
  plain('care', 'care', (f) => f.care),
  plain('first_tack', 'firstTack', (f) => f.firstTack),
  plain('air_release', 'airRelease', (f) => f.airRelease),
  plain('layers', 'layers', (f) => f.layers),
  plain('opaque', 'opaque', (f) => f.opaque, yes),
  plain('adhesive_colour', 'adhesiveColour', (f) => f.adhesiveColour),
  plain('adhesive_life', 'adhesiveLife', (f) => f.adhesiveLife),
  plain('lamination', 'lamination', (f) => f.lamination),
  plain('conforms', 'conforms', (f) => f.conforms),
  plain('heals', 'heals', (f) => f.heals, yes),
  plain('wax', 'wax', (f) => f.wax),
  plain(
    'standings',
    'standings',
    (f) => STANDED_FIELDS.flatMap((k) => (f.standings[k] ? [`${k} ${f.standings[k]}`] : [])).join('; '),
    (t) =>
      Object.fromEntries(
        t
          .split(';')
          .filter((x) => x.trim() !== '')
          .map((x) => x.trim().split(/\s+/)),
      ),
  ),
]

export const FILM_COLUMNS: readonly string[] = COLUMNS.map((c) => c.name)
/** Columns that older tables do not have: what is usual stands in. */
const OPTIONAL: readonly string[] = [
  'standings',
  'care',
  'offers',
  'pre_stretch_cold',
  'pre_stretch_warm',
  'recovers',
  'heat_limit_c',
  'seam_lap_mm',
  'long_lap_mm',
  'inlay_lap_mm',
  'first_tack',
  'air_release',
  'layers',
  'opaque',
  'adhesive_colour',
  'adhesive_life',
  'lamination',
  'conforms',
  'heals',
  'wax',
]
export const MAX_IMPORTED_FILMS = 300

export const filmTable = (films: readonly FilmSheet[]): string[][] => [
  [...FILM_COLUMNS],
  ...films.map((f) => COLUMNS.map((c) => safeCell(c.get(f)))),
]

/**
 * Film sheets from a table; every column has to be there. All or nothing. Errors: those of `readTable`, each cell's
 * own.
 */
export function filmsFromTable(rows: readonly (readonly string[])[]): Result<FilmSheet[], CellFault[]> {
  const table = readTable(rows, {
    known: (c) => FILM_COLUMNS.includes(c),
    required: FILM_COLUMNS.filter((c) => !OPTIONAL.includes(c)).map((c) => [c]),
    limit: MAX_IMPORTED_FILMS,
  })
  if (!table.ok) return table
  const faults: CellFault[] = []
  const films: FilmSheet[] = []
  for (const { line, cells } of table.value.rows) {
    const raw: Record<string, unknown> = { care: '' }
    for (const c of COLUMNS) {
      const text = cells[c.name]
      if (text === undefined) continue
      const [head = '', tail] = c.path.split('.')
      if (tail === undefined) raw[head] = c.set(text)
      else raw[head] = { ...(raw[head] as object | undefined), [tail]: c.set(text) }
    }
    const gas = raw.gasOutHours as { min: unknown; max: unknown } | undefined
    if (gas && gas.min === null && gas.max === null) raw.gasOutHours = null
    const parsed = FilmSheet.safeParse(upgradeSheet(raw))
    if (parsed.success) {
      const before = films.findIndex((f) => f.id === parsed.data.id)
      if (before >= 0) faults.push({ code: 'row_twice', line, column: 'id', facts: { other: before + 2 } })
      films.push(parsed.data)
    } else
      for (const issue of parsed.error.issues.slice(0, 3)) {
        const path = issue.path.map(String)
        const column =
          COLUMNS.find((c) => c.path === path.slice(0, 2).join('.') || c.path === path[0]) ??
          COLUMNS.find((c) => c.path.startsWith(`${path[0]}.`))
        faults.push({
          code: issueFault(issue).code,
          line,
          column: column?.name ?? path[0] ?? '',
          facts: {},
        })
      }
  }
  return faults.length > 0 ? err(faults.slice(0, 20)) : ok(films)
}
