import type { SKILLS } from '../../model/shop/kinds'
import type { ShopRecord } from '../../model/log/shop-record'
import type { BesidePanels, Plan } from '../../model/plan/schema'
import type { SolvedHeat } from '../../model/catalogue/solved-heat'
import type { FilmSheet } from '../../model/film/schema'
import type { Panel } from '../../model/vehicle/schema'
import type { EdgesOfJob } from '../edge/edges-of-job'
import type { HeatPoint } from '../heat/heat-points'
import type { Piece } from '../pieces/pieces'

/** What a step waits for: another one's end, at least and at most so many minutes before. */
export interface Wait {
  id: string
  leastMin: number
  /** Null: however long. */
  mostMin: number | null
}

export type Skill = (typeof SKILLS)[number]

/** One step of a job's run sheet. Minutes of an experienced crew times the job's pace, unless typed by hand. */
export interface Step {
  id: string
  code: string
  panelId: string | null
  /** Panels of a side that is laid in drops. */
  covers?: readonly string[]
  name: string
  /** People that the step needs, whatever the crew. */
  people: number
  /** By how much longer it takes with one person too few; null: it may not be done so. */
  aloneFactor: number | null
  skills: readonly Skill[]
  minutes: number
  /** What the minutes are by the shop's rules, where somebody typed others. */
  minutesByRule: number | null
  /** What this shop's own record made of the rules' minutes; null where it has too few cases. */
  learned: { cases: number; factor: number; ruleMin: number } | null
  /** Unattended wait after it, minutes. */
  waitMin: number
  /** Surface range to reach, °C. */
  range: { min: number; max: number } | null
  facts: Record<string, string | number>
  tools: readonly string[]
  cautions: string[]
  waits: readonly Wait[]
  state: 'to_do' | 'running' | 'done' | 'skipped'
  startedAt: string | null
  doneAt: string | null
}

/** What the steps of a job are made from. */
export interface Context {
  plan: Plan
  beside: BesidePanels
  panels: ReadonlyMap<string, Panel>
  films: ReadonlyMap<string, FilmSheet>
  pieces: readonly Piece[]
  points: readonly HeatPoint[]
  /** How the gun goes along the edges of a panel, where that is solved. */
  sweeps: ReadonlyMap<string, SolvedHeat>
  edges: Pick<EdgesOfJob, 'edges' | 'corners' | 'tapes'>
  record: ShopRecord
}

type Given = Pick<Step, 'id' | 'code' | 'minutes'> & Partial<Omit<Step, 'id' | 'code' | 'minutes'>>

/** A step with what is given; the rest is one person's work that waits for nothing. */
export const stepOf = ({ minutes, ...given }: Given): Step => ({
  panelId: null,
  name: '',
  people: 1,
  aloneFactor: null,
  skills: [],
  minutesByRule: null,
  learned: null,
  waitMin: 0,
  range: null,
  facts: {},
  tools: [],
  cautions: [],
  waits: [],
  state: 'to_do',
  startedAt: null,
  doneAt: null,
  ...given,
  minutes: Math.ceil(minutes),
})
