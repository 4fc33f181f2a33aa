import type { LayoutInput, LayoutPlan } from '../../engines/roll/contract'
import { figure, from, input, type Figure } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import { aboveFigure, boundFigure } from './figures'

/**
 * Figures of a fleet's layout: film it takes, the least there can be, what it takes above that, and how much of it
 * becomes pieces.
 */
export function fleetFigures(request: LayoutInput, result: LayoutPlan): Figure[] {
  const rolls = result.stock.filter((s) => s.used_mm > 0)
  const widthOf = new Map(request.stock.map((s) => [s.id, s.width_mm]))
  const sizeOf = new Map(request.pieces.map((p) => [p.id, p.width_mm * p.height_mm]))
  const placed = rolls.flatMap((s) => s.placements)
  const used = figure({
    id: 'fleet/used',
    value: result.used_mm,
    unit: 'mm',
    formula: rolls.length > 1 ? 'Σ inputs' : call('far_edge', 'roll_1'),
    inputs: rolls.map((s, i) => input(`roll_${i + 1}`, s.used_mm, 'mm', 'measured', 'layout')),
    standing: 'common_practice',
  })
  const width = input('width', Math.max(...widthOf.values()), 'mm', 'measured', 'stock')
  const bound = boundFigure('fleet/bound', result.bound_mm, placed.length, width)
  const areaMm2 = placed.reduce((sum, p) => sum + (sizeOf.get(p.piece) ?? 0), 0)
  const filmMm2 = rolls.reduce((sum, s) => sum + s.used_mm * (widthOf.get(s.id) ?? 0), 0)
  const pieces = input('pieces', areaMm2, 'mm2', 'measured', 'pieces')
  const film = input('film', filmMm2, 'mm2', 'measured', 'layout')
  return [
    used,
    bound,
    aboveFigure('fleet/above', from('used', used), from('bound', bound)),
    figure({
      id: 'fleet/yield',
      value: filmMm2 > 0 ? areaMm2 / filmMm2 : null,
      unit: 'fraction',
      formula: '{pieces} ÷ {film}',
      inputs: [pieces, film],
    }),
  ]
}
