import { safeCell } from '../../kit/table'
import type { LayoutInput, LayoutPlan } from './contract'

/** Where every piece of a fleet's layout lies, as a table; cells that a spreadsheet would take for formulas are not. */
export function fleetTable(stock: LayoutInput['stock'], used: LayoutPlan['stock']): string[][] {
  const head = ['roll', 'lot', 'piece', 'copy', 'across_mm', 'along_mm', 'turn_deg']
  const lotOf = new Map(stock.map((s) => [s.id, s.lot ?? '']))
  const rows = used.flatMap((s) =>
    s.placements.map((p) => [s.id, lotOf.get(s.id) ?? '', p.piece, p.copy, p.x_mm, p.y_mm, p.turn_deg].map(safeCell)),
  )
  return [head, ...rows]
}
