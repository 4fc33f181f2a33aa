import type { FoundWayOut, SettledLayout, SolveFault, Solution } from './solutions'
import type { HeatTable } from './solved-heat'
import type { SolvedTable } from './solved-stretch'

/** Solutions by their keys. */
export interface SolutionTables {
  stretch: SolvedTable
  ways: Readonly<Record<string, readonly FoundWayOut[]>>
  layout: Readonly<Record<string, SettledLayout>>
  heat: HeatTable
  fault: Readonly<Record<string, SolveFault>>
}
export const NO_SOLUTIONS: SolutionTables = { stretch: {}, ways: {}, layout: {}, heat: {}, fault: {} }

export function solutionTables(list: readonly Solution[]): SolutionTables {
  const tables = { stretch: {}, ways: {}, layout: {}, heat: {}, fault: {} } as Record<
    Solution['kind'],
    Record<string, unknown>
  >
  for (const { kind, key, value } of list) tables[kind][key] = value
  // Each value went into the table of its own kind.
  return tables as unknown as SolutionTables
}
