import type { CellFault } from '@/core/kit/table'
import { faultText } from './faults'

/** A table's faults, each by its line and column. */
export const tableFaults = (faults: readonly CellFault[]): string[] =>
  faults.map((f) => `Line ${f.line}${f.column ? `, ${f.column}` : ''}: ${faultText({ code: f.code, facts: f.facts })}`)
export const tableFault = (faults: readonly CellFault[]): string => tableFaults(faults).join('\n')
