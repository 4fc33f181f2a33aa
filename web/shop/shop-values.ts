import { faultCode } from '@/core/kit/fault-code'
import { dayText, readDay } from '@/core/model/shop/hours-text'
import { ruleCanCut } from '@/core/model/edge/cut-goes'
import { CUT_RULES } from '@/core/model/edge/cut-rules'
import { USED_KINDS } from '@/core/model/log/kinds'
import { EDGE_MEETS } from '@/core/model/vehicle/kinds'
import { SavedShop, type ReadyWith, type ShopSettings } from '@/core/model/shop/shop'
import { pathText } from '@/core/kit/json-guard'
import { faultText } from '@/web/words/faults'

/** The shop's settings as they are typed: hours, days and lists as text, shares in per cent. */
export interface ShopValues {
  days: string[]
  closed: string
  timeZone: string
  currency: string
  taxPercent: string
  taxIncluded: boolean
  marginPercent: string
  climate: 'mild' | 'hot'
  winter: boolean
  ready: ReadyWith
  units: ShopSettings['units']
  lockAfterMin: string
  /** By kind; empty: not bought by the pack. */
  supplies: Record<string, { pack: string; price: string; least: string }>
  bays: string
  people: { id: string; name: string; skills: string[]; pace: string; rate: string; away: string }[]
  /** By what an edge meets; empty: the usual. And by the row of the table. */
  edgeLeave: Record<string, string>
  edgeCut: Record<string, string>
  guns: { id: string; name: string; displayC: string; airC: string; coefficient: string; sigmaMm: string }[]
}
/** What is wrong, at the field where it was typed. */
export interface ValueFault {
  field: string
  text: string
}

const percent = (share: number): string => String(Math.round(share * 10_000) / 100)
const blank = (n: number | null): string => (n === null ? '' : String(n))
const lines = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line !== '')

export const valuesOf = (s: ShopSettings): ShopValues => ({
  days: [0, 1, 2, 3, 4, 5, 6].map((day) => dayText(s.week, day)),
  closed: s.closed.map((c) => `${c.date} ${c.name}`.trim()).join('\n'),
  timeZone: s.timeZone,
  currency: s.currency,
  taxPercent: percent(s.tax.rate),
  taxIncluded: s.tax.included,
  marginPercent: percent(s.margin),
  climate: s.climate,
  winter: s.winter,
  ready: s.ready,
  units: s.units,
  lockAfterMin: String(s.lockAfterMin),
  supplies: Object.fromEntries(
    USED_KINDS.map((kind) => {
      const of = s.supplies[kind]
      return [kind, { pack: blank(of?.pack ?? null), price: blank(of?.price ?? null), least: blank(of?.least ?? null) }]
    }),
  ),
  bays: s.bays.map((b) => b.name).join('\n'),
  edgeLeave: Object.fromEntries(EDGE_MEETS.map((m) => [m, blank(s.edgeLeave[m] ?? null)])),
  // What was once saved against a row's own edges cannot be chosen any more: the usual cut stands in its place.
  edgeCut: Object.fromEntries(
    CUT_RULES.map((r) => {
      const own = s.edgeCut[r.id]
      return [r.id, own && ruleCanCut(r, own) ? own : '']
    }),
  ),
  people: s.people.map((p) => ({
    id: p.id,
    name: p.name,
    skills: p.skills,
    pace: String(p.pace),
    rate: String(p.rate),
    away: p.away.map((a) => (a.from === a.to ? a.from : `${a.from} to ${a.to}`)).join('\n'),
  })),
  guns: s.guns.map((g) => ({
    id: g.id,
    name: g.name,
    displayC: String(g.displayC),
    airC: blank(g.airC),
    coefficient: blank(g.coefficient),
    sigmaMm: blank(g.sigmaMm),
  })),
})

const number = (text: string): number => (text.trim() === '' ? NaN : Number(text.replace(',', '.')))
const orNull = (text: string): number | null => (text.trim() === '' ? null : number(text))

/** Read what was typed; every fault at its own field, all of them at once. */
export function readShop(v: ShopValues): { ok: true; value: ShopSettings } | { ok: false; faults: ValueFault[] } {
  const faults: ValueFault[] = []
  const week = v.days.flatMap((text, day) => {
    const read = readDay(text, day)
    if (!read.ok) faults.push({ field: `days.${day}`, text: faultText(read.error) })
    return read.ok ? read.value : []
  })
  const raw = {
    timeZone: v.timeZone,
    currency: v.currency.trim().toUpperCase(),
    tax: { rate: number(v.taxPercent) / 100, included: v.taxIncluded },
    week,
    closed: lines(v.closed).map((line) => {
      const [date = '', ...name] = line.split(/\s+/)
      return { date, name: name.join(' ') }
    }),
    bays: lines(v.bays).map((name, i) => ({ id: `bay-${i + 1}`, name })),
    people: v.people.map((p) => ({
      id: p.id,
      name: p.name,
      skills: p.skills,
      pace: number(p.pace),
      rate: number(p.rate),
      away: lines(p.away).map((line) => {
        const [from = '', to = from] = line.split(/\s+(?:to|-|–)\s+/)
        return { from, to }
      }),
    })),
    guns: v.guns.map((g) => ({
      id: g.id,
      name: g.name,
      displayC: number(g.displayC),
      airC: orNull(g.airC),
      coefficient: orNull(g.coefficient),
      sigmaMm: orNull(g.sigmaMm),
    })),
    edgeLeave: Object.fromEntries(
      Object.entries(v.edgeLeave).flatMap(([meets, text]) => (text.trim() === '' ? [] : [[meets, number(text)]])),
    ),
    edgeCut: Object.fromEntries(Object.entries(v.edgeCut).filter(([, cut]) => cut !== '')),
    climate: v.climate,
    winter: v.winter,
    ready: v.ready,
    units: v.units,
    lockAfterMin: orNull(v.lockAfterMin) ?? 0,
    supplies: Object.fromEntries(
      Object.entries(v.supplies).flatMap(([kind, { pack, price, least }]) =>
        [pack, price, least].every((text) => text.trim() === '')
          ? []
          : [[kind, { pack: number(pack), price: orNull(price) ?? 0, least: orNull(least) ?? 0 }]],
      ),
    ),
    margin: number(v.marginPercent) / 100,
  }
  const read = SavedShop.safeParse(raw)
  if (read.success && faults.length === 0) return { ok: true, value: read.data }
  for (const issue of read.success ? [] : read.error.issues)
    faults.push({ field: fieldOf(issue.path), text: said(issue.code, issue.message) })
  return { ok: false, faults }
}

/** The field of the form that a place of the settings was typed in. */
function fieldOf(path: readonly PropertyKey[]): string {
  const [head, index, field] = path.map(String)
  if (head === 'tax') return 'taxPercent'
  if (head === 'margin') return 'marginPercent'
  if (head === 'week') return 'days.0'
  if (head === 'closed' || head === 'bays') return head
  if ((head === 'people' || head === 'guns') && index !== undefined)
    return `${head}.${index}.${field === undefined ? 'name' : field}`
  return pathText(path)
}

const said = (code: string, message: string): string =>
  code === 'custom' || code === 'invalid_format'
    ? faultText({ code: code === 'custom' ? faultCode(message) : 'no_such_moment' })
    : code === 'too_big' || code === 'too_small' || code === 'invalid_type'
      ? 'Out of range, or no number.'
      : 'This cannot be taken.'
