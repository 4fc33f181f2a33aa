import type { Consumable } from '../../engines/edge/consumables'
import { supplyList, type SupplyLevels, type SupplyLine } from '../../engines/edge/supply-list'
import type { Piece } from '../../engines/pieces/pieces'
import { M2_PER_BOTTLE, M2_PER_POT } from '../../model/edge/supply-data'
import { figure, from, input, type Figure } from '../../model/figure/figure'
import { call } from '../../model/figure/formula'
import { finding, type Finding } from '../../model/finding/finding'
import type { LogRow } from '../../model/log/schema'
import type { ShopSettings } from '../../model/shop/shop'
import { panelAreaMm2 } from '../../model/vehicle/outline'
import type { Panel } from '../../model/vehicle/schema'

interface SupplyInputs {
  consumables: readonly Consumable[]
  pieces: readonly Piece[]
  panels: ReadonlyMap<string, Panel>
  ledger: readonly LogRow[]
  shop: ShopSettings
  levels: SupplyLevels
}

/** What is used up beside the film against the shop's shelf: what is to be ordered, and what is short. */
export function suppliesOf({ consumables, pieces, panels, ledger, shop, levels }: SupplyInputs): {
  lines: SupplyLine[]
  figures: Figure[]
  findings: Finding[]
} {
  const covered = [...new Set(pieces.flatMap((p) => p.covers ?? [p.panelId]))].flatMap((id) => panels.get(id) ?? [])
  const coveredMm2 = covered.reduce((sum, p) => sum + panelAreaMm2(p), 0)
  const lines = supplyList(consumables, coveredMm2, ledger, { supplies: shop.supplies, levels })
  const orders = lines.flatMap((line) => orderFigures(line, coveredMm2))
  const costs = orders.filter((f) => f.id.endsWith('/cost'))
  const total =
    costs.length > 1
      ? [
          figure({
            id: 'supply/all/cost',
            value: costs.reduce((sum, f) => sum + Number(f.value), 0),
            unit: 'money',
            formula: 'Σ inputs',
            inputs: costs.map((f) => from(f.id.split('/')[1] ?? '', f)),
          }),
        ]
      : []
  return { lines, figures: [...orders, ...total], findings: lines.flatMap(shortFinding) }
}

/** Metres as the figures hold them. */
const MM = 1000

function orderFigures(line: SupplyLine, coveredMm2: number): Figure[] {
  const { kind, isTape, packs, pack, shelf, cost } = line
  const amount = (key: string, value: number, standing: 'measured' | 'assumed', at: string) =>
    input(key, isTape ? value * MM : value, isTape ? 'mm' : 'count', standing, at)
  const bottles =
    kind === 'alcohol'
      ? [
          figure({
            id: 'supply/alcohol',
            value: line.needed,
            unit: 'count',
            formula: '{area} ÷ {each}',
            inputs: [
              input('area', coveredMm2, 'mm2', 'assumed', 'panels'),
              input('each', M2_PER_BOTTLE * 1e6, 'mm2', 'assumed', 'data/supplies'),
            ],
          }),
        ]
      : []
  if (packs === null || pack === null || shelf === null) return bottles
  const needs =
    kind === 'primer'
      ? input('needed', line.needed, 'count', 'assumed', 'figure:supply/primer')
      : amount('needed', line.needed, 'assumed', `figure:supply/${kind}`)
  const order = figure({
    id: `supply/${kind}/order`,
    value: packs,
    unit: 'count',
    formula: call('packs_for', 'needed', 'used', 'least', 'shelf', 'pack', ...(kind === 'primer' ? ['each'] : [])),
    inputs: [
      needs,
      amount('used', line.used, 'measured', 'log'),
      amount('least', line.least, 'measured', 'shop/supplies'),
      amount('shelf', shelf, 'measured', 'stock'),
      amount('pack', pack, 'measured', 'shop/supplies'),
      ...(kind === 'primer' ? [input('each', M2_PER_POT * 1e6, 'mm2', 'assumed', 'data/supplies')] : []),
    ],
  })
  const price = input('price', line.price, 'money', 'measured', 'shop/supplies')
  return [
    ...bottles,
    order,
    figure({
      id: `supply/${kind}/cost`,
      value: cost ?? 0,
      unit: 'money',
      formula: '{packs} × {price}',
      inputs: [from('packs', order), price],
    }),
  ]
}

/** A job that takes more than is on the shelf. */
function shortFinding({ kind, isTape, needed, used, shelf, packs }: SupplyLine): Finding[] {
  const open = Math.max(0, needed - used)
  if (shelf === null || open <= shelf) return []
  return [
    finding('supply_short', 'warn', 'edges', {
      id: `supply_short/${kind}`,
      facts: { supply: kind, tape: isTape ? 1 : 0, need: open, shelf: Math.max(0, shelf), packs: packs ?? 0 },
    }),
  ]
}
