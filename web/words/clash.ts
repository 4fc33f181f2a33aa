import type { Clash } from '@/core/model/plan/merge'
import type { Plan } from '@/core/model/plan/schema'
import type { Formatter } from './format'
import { FIELD_WORDS, SECTION_WORDS } from './summary'

export interface ClashRow {
  key: string
  what: string
  before: string
  mine: string
  theirs: string
}

const isThing = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v)
const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)
/** `cornerDeg` → `corner deg`, where no better word is known. */
const plainly = (key: string): string =>
  FIELD_WORDS[key] ??
  key
    .replace(/Mm$|Deg$/, '')
    .replace(/([A-Z])/g, ' $1')
    .toLowerCase()
const nameOf = (v: unknown): string | null =>
  isThing(v) ? String(v.name ?? v.at ?? v.kind ?? v.id ?? '') || null : null

/** A value in words; of things in a list, their names or how many there are. */
function inWords(value: unknown, key: string, plan: Plan, fmt: Formatter): string {
  if (value === null || value === undefined || value === '') return 'none'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'number')
    return key.endsWith('Mm') ? fmt.text(fmt.length(value)) : String(Math.round(value * 100) / 100)
  if (typeof value === 'string')
    return (
      plan.film.sheets.find((s) => s.id === value)?.name ??
      plan.panels.find((p) => p.id === value)?.name ??
      value.slice(0, 80)
    )
  if (Array.isArray(value)) {
    const names = value.map(nameOf)
    return value.length === 0
      ? 'none'
      : names.every((n) => n !== null)
        ? names.slice(0, 4).join(', ')
        : `${value.length}`
  }
  return nameOf(value) ?? 'changed'
}

/** The figures of one part that the two sides changed differently, each with both sides in words. */
export function clashRows(clash: Clash, plan: Plan, fmt: Formatter): ClashRow[] {
  const [section = '', id] = clash.part.split('/')
  const thing = [clash.mine, clash.theirs, clash.base].find(isThing)
  const panel = plan.panels.find((p) => p.id === (thing?.panelId ?? id))?.name
  const where = panel ?? SECTION_WORDS[clash.part] ?? (nameOf(thing) || SECTION_WORDS[section]) ?? section
  const row = (key: string, before: unknown, mine: unknown, theirs: unknown): ClashRow => ({
    key: `${clash.part}/${key}`,
    what: key === '' ? where : `${where}: ${plainly(key)}`,
    before: inWords(before, key, plan, fmt),
    mine: inWords(mine, key, plan, fmt),
    theirs: inWords(theirs, key, plan, fmt),
  })
  if (!isThing(clash.mine) || !isThing(clash.theirs)) {
    const side = (v: unknown) => (v === null ? 'taken away' : isThing(v) ? 'changed' : v)
    return [row('', isThing(clash.base) ? nameOf(clash.base) : clash.base, side(clash.mine), side(clash.theirs))]
  }
  const [mine, theirs, base] = [clash.mine, clash.theirs, isThing(clash.base) ? clash.base : {}]
  const keys = [...new Set([...Object.keys(mine), ...Object.keys(theirs)])].filter((k) => !same(mine[k], theirs[k]))
  return keys.flatMap((key) => {
    const [m, t, b] = [mine[key], theirs[key], base[key]]
    if (!Array.isArray(m) || !Array.isArray(t)) return [row(key, b, m, t)]
    // Of lists, the items that differ, field by field.
    const find = (list: unknown, itemId: unknown) =>
      Array.isArray(list) ? (list as unknown[]).find((x) => isThing(x) && x.id === itemId) : undefined
    const ids = [...new Set([...m, ...t].map((x: unknown) => (isThing(x) ? x.id : null)))].filter(
      (x) => x !== null && !same(find(m, x), find(t, x)),
    )
    if (ids.length === 0) return [row(key, b, m, t)]
    return ids.flatMap((itemId) =>
      clashRows(
        {
          part: clash.part,
          base: find(b, itemId) ?? null,
          mine: find(m, itemId) ?? null,
          theirs: find(t, itemId) ?? null,
        },
        plan,
        fmt,
      ).map((r) => ({
        ...r,
        key: `${r.key}/${key}/${String(itemId)}`,
        what: `${where}, ${plainly(key)} ${nameOf(find(m, itemId) ?? find(t, itemId)) ?? ''}: ${r.what.split(': ')[1] ?? ''}`,
      })),
    )
  })
}
