import type { Point } from '../kit/plane'
import type { EdgesOfJob } from '../engines/edge/edges-of-job'
import type { SupplyLine } from '../engines/edge/supply-list'
import type { GunSweeps } from '../engines/heat/gun-sweeps'
import type { HeatPoint } from '../engines/heat/heat-points'
import type { Around, Piece } from '../engines/pieces/pieces'
import type { FilmLayout } from '../engines/roll/film-layout'
import type { Purchase } from '../engines/roll/purchase'
import type { JobSchedule } from '../engines/schedule/job-schedule'
import type { Step } from '../engines/run-sheet/step'
import type { Catalogue } from '../model/catalogue/catalogue'
import type { Lack } from '../model/catalogue/solutions'
import type { FilmSheet } from '../model/film/schema'
import type { Figure } from '../model/figure/figure'
import type { Finding } from '../model/finding/finding'
import type { StageState } from '../model/finding/stage'
import type { LogRow } from '../model/log/schema'
import type { ShopRecord } from '../model/log/shop-record'
import type { BesidePanels, Plan } from '../model/plan/schema'
import type { ShopSettings } from '../model/shop/shop'
import type { Panel } from '../model/vehicle/schema'
import type { Solvers } from './solvers'
import type { Recheck } from '../stages/handover/recheck'

/** What a step adds to the figures and findings of the job, in its order. */
export interface Told {
  figures: readonly Figure[]
  findings: readonly Finding[]
}

/** What a part hangs on that is solved behind the plan: how many solutions, and which are not there yet. */
export interface Settling {
  wanted: number
  lacks: readonly Lack[]
}

/** What a reckoning is made of: what is given, then what each step makes of it. */
export interface Parts {
  plan: Plan
  ledger: readonly LogRow[]
  /** Of the catalogue, part by part: a new hour of the clock does not lay out film anew. */
  now: string
  stock: Catalogue['stock']
  hours: Catalogue['hours']
  shop: ShopSettings
  climate: Catalogue['climate']
  /** What the shop's finished jobs taught. */
  record: ShopRecord
  /** On the shelf, by kind. */
  levels: NonNullable<Catalogue['supplies']>
  /** Films of the rack. */
  rack: Catalogue['films']
  solutions: Catalogue['solutions']
  scans: Catalogue['scans']
  /** What is asked where no layout is known, and where pieces are cut to their outlines. */
  solvers: Solvers

  /** The plan without its panels: the same while panels are measured. */
  beside: BesidePanels
  /** What every edge hangs on beside plan, panel and film. */
  around: Around
  films: ReadonlyMap<string, FilmSheet>
  panels: ReadonlyMap<string, Panel>
  walkaround: Told
  tape: Told
  cutting: Told & { pieces: readonly Piece[] }
  /** Pieces as they are laid: drops of a print in place of the pieces of the sides that they cover. */
  laid: readonly Piece[]
  stretch: Told &
    Settling & {
      worst: readonly Figure[]
      byPanel: ReadonlyMap<string, number>
      outlines: ReadonlyMap<string, readonly (readonly Point[])[]>
    }
  fitness: Told
  roll: Told & Settling & { layouts: readonly FilmLayout[]; purchases: ReadonlyMap<string, Purchase> }
  edges: Told & EdgesOfJob
  supplies: Told & { lines: readonly SupplyLine[] }
  points: readonly HeatPoint[]
  /** How the gun goes along the edges. */
  heat: Told & GunSweeps
  steps: readonly Step[]
  schedule: JobSchedule | null
  runSheet: Told
  conditions: Told
  bay: Told
  handover: Told & { recheck: Recheck | null }
  rail: Told
  stages: readonly StageState[]
}

/** Parts whose figures and findings are the job's, in the order in which they are told. */
export const TOLD = [
  'walkaround',
  'tape',
  'cutting',
  'stretch',
  'fitness',
  'roll',
  'edges',
  'supplies',
  'heat',
  'runSheet',
  'conditions',
  'rail',
  'bay',
  'handover',
] as const satisfies readonly (keyof Parts)[]
