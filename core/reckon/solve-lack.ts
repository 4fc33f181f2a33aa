import { solvedHeat } from '../engines/heat/edge-heat'
import { HEAT_FINENESS, heatKey } from '../model/catalogue/heat-key'
import { layOutContext } from '../engines/roll/context'
import { settleLayout } from '../engines/roll/settle-layout'
import { SETTLE_MOVES } from '../engines/roll/settle-moves'
import { feelOf, solvedOf } from '../engines/stretch/feel'
import { asVariant, comparisonLacks, variantsOf, type Variant } from '../engines/stretch/variants'
import { mapInPlan, waysOutFor } from '../engines/stretch/ways'
import { BEST_WAYS, waysKey } from '../engines/stretch/ways-key'
import type { Fault } from '../kit/result'
import type { Catalogue } from '../model/catalogue/catalogue'
import { STRETCH_FINENESS, stretchKey } from '../model/catalogue/stretch-key'
import { NO_SOLUTIONS, solutionTables } from '../model/catalogue/solution-tables'
import type { Lack, Solution } from '../model/catalogue/solutions'
import type { LogRow } from '../model/log/schema'
import { choiceFor, filmOf } from '../model/plan/piece-choice'
import type { Plan } from '../model/plan/schema'
import type { Panel } from '../model/vehicle/schema'
import type { ScanSurface } from '../solve/mesh/scan'
import { reckon } from './reckon'

export interface LackTask {
  plan: Plan
  catalogue: Catalogue
  ledger: readonly LogRow[]
  /** The kept scan of a panel; null where it has none. */
  scanOf: (panelId: string) => ScanSurface | null
}

/**
 * Solves one thing that a plan lacks, and with the map of a panel all that lies by the same map: other films, the other
 * tension. Empty: the plan does not hang on it any more. A surface that cannot be made is a solution too: its fault,
 * with which the closed forms stand.
 */
export function solveLack(task: LackTask, lack: Lack): Solution[] {
  if (lack.kind === 'layout') return solveLayout(task, lack)
  if (lack.kind === 'heat') return solveHeat(task, lack)
  const { plan, catalogue } = task
  const panel = plan.panels.find((p) => p.id === lack.of)
  const scan = panel && catalogue.scans?.[panel.id]
  if (!panel || !filmOf(plan, panel)) return []
  const variants = variantsOf(plan, panel, catalogue.films, scan)
  if (lack.kind === 'ways') {
    const film = filmOf(plan, panel)
    const key = film && waysKey(stretchKey(plan, panel, film, scan), panel.id, catalogue.films)
    return key === lack.key ? solveWaysOut(task, lack) : []
  }
  const own = variants.find((v) => v.key === lack.key)
  return own ? solveStretch(task, panel, own, variants) : []
}

const faultOf = (key: string, { code, facts }: Fault): Solution[] => [
  { kind: 'fault', key, fineness: 0, value: { code, facts: facts ?? {} } },
]

function solveStretch(
  { plan, scanOf }: LackTask,
  panel: Panel,
  own: Variant,
  variants: readonly Variant[],
): Solution[] {
  const scan = scanOf(panel.id)
  // A scan is as fine as it is.
  const how = { triangles: scan ? 0 : STRETCH_FINENESS, quick: false, scan }
  const made = mapInPlan(asVariant(plan, panel.id, own), panel.id, how)
  if (!made) return []
  if (!made.ok) return faultOf(own.key, made.error)
  const { map } = made.value
  const same = new Map(variants.filter((v) => v.map === own.map).map((v) => [v.key, v]))
  return [...same.values()].map(({ key, film, school }): Solution => {
    const value = solvedOf(
      map,
      feelOf({ map, panel, film, choice: choiceFor(plan, panel, film), method: { ...plan.method, ...school } }),
    )
    return { kind: 'stretch', key, fineness: value.triangles, value }
  })
}

function solveWaysOut({ plan, catalogue, scanOf }: LackTask, { key, of }: Lack): Solution[] {
  const found = waysOutFor(plan, of, { films: catalogue.films, scan: scanOf(of) })
  if (!found.ok) return faultOf(key, found.error)
  const best = found.value.ways.slice(0, BEST_WAYS)
  const value = best.map((w) => ({ code: w.code, change: w.change, becomes: w.worst, facts: w.facts }))
  return [{ kind: 'ways', key, fineness: Math.max(0, ...best.map((w) => w.triangles)), value }]
}

function solveLayout({ plan, catalogue, ledger }: LackTask, { key, of }: Lack): Solution[] {
  const layout = reckon(plan, catalogue, ledger).layouts.find((l) => l.film.id === of)
  if (layout?.key !== key) return []
  const settled = settleLayout(plan, layout.film, layout.pieces, layOutContext(catalogue.stock, ledger, layout))
  return settled.key === key ? [{ kind: 'layout', key, fineness: SETTLE_MOVES, value: settled.value }] : []
}

/** The gun's sweep along the edges of one material and film: solved on a metre of them. */
function solveHeat({ plan, catalogue }: LackTask, { key, of }: Lack): Solution[] {
  const panel = plan.panels.find((p) => p.id === of)
  const film = panel && filmOf(plan, panel)
  const guns = catalogue.shop?.guns ?? []
  if (!film || heatKey(panel.surface, film, guns) !== key) return []
  const value = solvedHeat({ panel, film, guns })
  return value ? [{ kind: 'heat', key, fineness: HEAT_FINENESS, value }] : []
}

/** What a plan lacks: first what its own figures hang on; once nothing of that, what they are compared with. */
export function lacksOf({ plan, catalogue, ledger }: Omit<LackTask, 'scanOf'>): readonly Lack[] {
  const { lacks } = reckon(plan, catalogue, ledger).settling
  if (lacks.length > 0 || !catalogue.solutions) return lacks
  return comparisonLacks(plan, catalogue.films, catalogue.scans ?? {}, catalogue.solutions)
}

/** Solves all that a plan lacks, one after the other, until nothing does. */
export function settle(task: LackTask): Solution[] {
  const all: Solution[] = []
  for (;;) {
    const now = { ...task, catalogue: withSolutions(task.catalogue, all) }
    const [lack] = lacksOf(now)
    if (!lack) return all
    const made = solveLack(now, lack)
    if (!made.some((s) => s.key === lack.key))
      throw new Error(`a plan lacks what it does not hang on: ${lack.kind} of ${lack.of}`)
    all.push(...made)
  }
}

/** A catalogue with solutions beside those that it has. */
export function withSolutions(catalogue: Catalogue, list: readonly Solution[]): Catalogue {
  const more = solutionTables(list)
  const was = catalogue.solutions ?? NO_SOLUTIONS
  return {
    ...catalogue,
    solutions: {
      stretch: { ...was.stretch, ...more.stretch },
      ways: { ...was.ways, ...more.ways },
      layout: { ...was.layout, ...more.layout },
      heat: { ...was.heat, ...more.heat },
      fault: { ...was.fault, ...more.fault },
    },
  }
}
