import { z } from 'zod'
import { firstFault } from '../../kit/first-fault'
import { readJson } from '../../kit/json-guard'
import { controlCharacterIn } from '../../kit/plain-text'
import { err, ok, type Result } from '../../kit/result'
import { FilmSheet, StockItem } from '../film/schema'
import { upgradeSheet } from '../film/upgrade'
import { USED_KINDS } from '../log/kinds'
import { LogPayload, type LogRow } from '../log/schema'
import { ShopRecord } from '../log/shop-record'
import { hoursOf } from '../shop/default-shop'
import { ShopSettings, Week } from '../shop/shop'
import { EMPTY_CATALOGUE, type Catalogue } from './catalogue'
import { NO_SOLUTIONS, solutionTables } from './solution-tables'
import { Solution } from './solutions'

export const CATALOGUE_FORMAT = 'cuirass/catalogue@1'
export const LEDGER_FORMAT = 'cuirass/ledger@1'

const moment = z.iso.datetime({ offset: true })
const WeekHours = z.strictObject({ week: Week, closed: z.array(z.string().regex(/^\d{4}-\d{2}-\d{2}$/)).max(400) })
/** Hours as they were written before days had breaks: the same from and to on some weekdays. */
const OldHours = z.object({ days: z.array(z.number()), fromMinute: z.number(), toMinute: z.number() })
const Hours = z.preprocess((raw) => {
  const old = OldHours.safeParse(raw)
  if (!old.success) return raw
  const { days, fromMinute, toMinute } = old.data
  return { week: days.map((day) => ({ day, fromMinute, toMinute })), closed: [] }
}, WeekHours)

/** What a shop brings to a job, as a file: each part may be left out, and is then that of an empty shop. */
const CatalogueFile = z.strictObject({
  format: z.literal(CATALOGUE_FORMAT),
  films: z.array(z.preprocess(upgradeSheet, FilmSheet)).max(500).default([]),
  stock: z.array(StockItem).max(5000).default([]),
  hours: Hours.optional(),
  shop: ShopSettings.optional(),
  supplies: z.partialRecord(z.enum(USED_KINDS), z.number()).optional(),
  record: ShopRecord.optional(),
  climate: z
    .array(
      z.strictObject({
        at: moment,
        airC: z.number().min(-40).max(90),
        humidity: z.number().min(0).max(1).nullable(),
        surfaceC: z.number().min(-40).max(90).nullable(),
        by: z.string().max(120),
      }),
    )
    .max(1000)
    .default([]),
  /** Left out, nothing is solved behind the plan, and closed forms are final. */
  solutions: z.array(Solution).max(20_000).optional(),
  scans: z.record(z.string().max(60), z.string().max(120)).default({}),
})

const Entry = z.strictObject({
  id: z.string().min(1).max(60),
  at: moment,
  by: z.string().max(120),
  payload: LogPayload,
  revision: z.number().int().min(0).nullable().optional(),
  skewSeconds: z.number().optional(),
  seq: z.number().int().optional(),
  device: z.string().max(120).nullable().optional(),
  n: z.number().int().nullable().optional(),
})
const LedgerFile = z.strictObject({ format: z.literal(LEDGER_FORMAT), entries: z.array(Entry).max(100_000) })

/** What the shop brings to a job beside the day's date. */
export type ShopCatalogue = Omit<Catalogue, 'now'>

/** A catalogue file's text. Errors: those of `readJson`, control_character, or the first field at fault. */
export function readCatalogue(text: string): Result<ShopCatalogue> {
  const read = parsed(text, CatalogueFile)
  if (!read.ok) return read
  const { format: _, solutions, hours, shop, supplies, record, ...rest } = read.value
  return ok({
    ...rest,
    ...(shop ? { shop } : {}),
    ...(supplies ? { supplies } : {}),
    ...(record ? { record } : {}),
    hours: hours ?? (shop ? hoursOf(shop) : EMPTY_CATALOGUE.hours),
    ...(solutions ? { solutions: { ...NO_SOLUTIONS, ...solutionTables(solutions) } } : {}),
  })
}

/** A ledger file's text. Errors as for a catalogue. */
export function readLedger(text: string): Result<LogRow[]> {
  const read = parsed(text, LedgerFile)
  // Fields that are left out stay out: no other shape of an entry is known.
  return read.ok ? ok(read.value.entries as LogRow[]) : read
}

/** The file of a catalogue; `solutions`: as the shop keeps them. */
export const writeCatalogue = (
  { films, stock, hours, shop, supplies, record, climate, scans = {} }: ShopCatalogue,
  solutions: readonly Solution[],
): string =>
  text(CATALOGUE_FORMAT, {
    films,
    stock,
    hours,
    ...(shop ? { shop } : {}),
    ...(supplies ? { supplies } : {}),
    ...(record ? { record } : {}),
    climate,
    solutions,
    scans,
  })
export const writeLedger = (entries: readonly LogRow[]): string => text(LEDGER_FORMAT, { entries })

const text = (format: string, parts: object): string => `${JSON.stringify({ format, ...parts }, null, 1)}\n`

function parsed<S extends z.ZodType>(source: string, schema: S): Result<z.infer<S>> {
  const json = readJson(source)
  if (!json.ok) return json
  const at = controlCharacterIn(json.value)
  if (at !== null) return err({ code: 'control_character', at })
  const read = schema.safeParse(json.value)
  return read.success ? ok(read.data) : err(firstFault(read.error))
}
