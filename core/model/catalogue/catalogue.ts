import type { OpenHours } from '../../kit/civil'
import type { SupplyKind } from '../edge/supply-data'
import type { ShopRecord } from '../log/shop-record'
import type { FilmSheet, StockItem } from '../film/schema'
import { DEFAULT_SHOP, hoursOf } from '../shop/default-shop'
import type { ShopSettings } from '../shop/shop'
import type { SolutionTables } from './solution-tables'

/** The shop's air as it was read: °C, relative humidity 0-1, and a surface where one was read. UTC. */
export interface ClimateReading {
  at: string
  airC: number
  humidity: number | null
  surfaceC: number | null
  by: string
}

/** What the shop brings to a job: its rack, its hours, and today's date (core has no clock). */
export interface Catalogue {
  films: readonly FilmSheet[]
  stock: readonly StockItem[]
  hours: OpenHours
  /** What the shop says of itself, where it has. */
  shop?: ShopSettings
  /** What is on the shelf of each supply that the shop counts: m of tape, or pieces. */
  supplies?: Readonly<Partial<Record<SupplyKind, number>>>
  /** What the shop's finished jobs taught. */
  record?: ShopRecord
  /** Readings of the shop's air, oldest first. */
  climate: readonly ClimateReading[]
  /** Local wall time `YYYY-MM-DDTHH:MM`. */
  now: string
  /**
   * What was solved already; closed forms and quick layouts stand in for what is not there, and settle. Without any
   * table nothing is solved behind the plan, and what stands in is final.
   */
  solutions?: SolutionTables
  /** Marks of the scans kept with this job, by panel: such a panel's stretch is solved on its scan. */
  scans?: Readonly<Record<string, string>>
}

export const EMPTY_CATALOGUE: Catalogue = {
  films: [],
  stock: [],
  hours: hoursOf(DEFAULT_SHOP),
  climate: [],
  now: '2026-01-05T08:00',
}
