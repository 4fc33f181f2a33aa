import { layOutContext } from '../engines/roll/context'
import { settleLayout } from '../engines/roll/settle-layout'
import { SETTLE_MOVES } from '../engines/roll/settle-moves'
import { solvedOf } from '../engines/stretch/feel'
import { mapInPlan, waysFor } from '../engines/stretch/ways'
import { filmOf } from '../engines/stretch/way-candidates'
import { BEST_WAYS, waysKey } from '../engines/stretch/ways-key'
import { ok, type Result } from '../kit/result'
import type { Catalogue } from '../model/catalogue/catalogue'
import { STRETCH_FINENESS, stretchKey } from '../model/catalogue/solved-stretch'
import { NO_SOLUTIONS, solutionTables, type Lack, type Solution } from '../model/catalogue/solutions'
import type { LogRow } from '../model/log/schema'
import type { Plan } from '../model/plan/schema'
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
 * Solves one thing that a plan lacks. Null: the plan does not hang on it any more. A surface that cannot be made is a
 * solution too: its fault, with which the closed forms stand.
 */
export function solveLack(task: LackTask, lack: Lack): Solution | null {
  const { plan, catalogue } = task
  if (lack.kind === 'layout') return solveLayout(task, lack)
  const panel = plan.panels.find((p) => p.id === lack.of)
  const film = panel && filmOf(plan, panel)
  if (!panel || !film) return null
  const stretch = stretchKey(plan, panel, film, catalogue.scans?.[panel.id])
  const key = lack.kind === 'stretch' ? stretch : waysKey(stretch, panel.id, catalogue.films)
  if (key !== lack.key) return null
  const made = lack.kind === 'stretch' ? solveStretch(task, lack) : solveWays(task, lack)
  if (made.ok) return made.value
  const { code, facts } = made.error
  return { kind: 'fault', key, fineness: 0, value: { code, facts: facts ?? {} } }
}

function solveStretch({ plan, scanOf }: LackTask, { key, of }: Lack): Result<Solution | null> {
  const scan = scanOf(of)
  // A scan is as fine as it is.
  const made = mapInPlan(plan, of, { triangles: scan ? 0 : STRETCH_FINENESS, quick: false, scan })
  if (!made) return ok(null)
  if (!made.ok) return made
  const value = solvedOf(made.value.map, made.value.feel)
  return ok({ kind: 'stretch', key, fineness: value.triangles, value })
}

function solveWays({ plan, catalogue, scanOf }: LackTask, { key, of }: Lack): Result<Solution | null> {
  const found = waysFor(plan, of, { films: catalogue.films, scan: scanOf(of) })
  if (!found.ok) return found
  const best = found.value.ways.slice(0, BEST_WAYS)
  const value = best.map((w) => ({ code: w.code, change: w.change, becomes: w.worst, facts: w.facts }))
  return ok({ kind: 'ways', key, fineness: Math.max(0, ...best.map((w) => w.triangles)), value })
}

function solveLayout({ plan, catalogue, ledger }: LackTask, { key, of }: Lack): Solution | null {
  const layout = reckon(plan, catalogue, ledger).layouts.find((l) => l.film.id === of)
  if (layout?.key !== key) return null
  const settled = settleLayout(plan, layout.film, layout.pieces, layOutContext(catalogue.stock, ledger, layout))
  return settled.key === key ? { kind: 'layout', key, fineness: SETTLE_MOVES, value: settled.value } : null
}

/** Solves all that a plan lacks, one after the other, until nothing does. `solved`: told of each. */
export function settle(task: LackTask, solved: (solution: Solution) => void = () => {}): Solution[] {
  const all: Solution[] = []
  for (;;) {
    const catalogue = withSolutions(task.catalogue, all)
    const [lack] = reckon(task.plan, catalogue, task.ledger).settling.lacks
    if (!lack) return all
    const made = solveLack({ ...task, catalogue }, lack)
    if (!made) throw new Error(`a plan lacks what it does not hang on: ${lack.kind} of ${lack.of}`)
    all.push(made)
    solved(made)
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
      fault: { ...was.fault, ...more.fault },
    },
  }
}
