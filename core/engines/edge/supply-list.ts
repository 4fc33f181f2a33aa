import { BY_METRE, M2_PER_BOTTLE, M2_PER_POT, type SupplyKind } from '../../model/edge/supply-data'
import { USED_KINDS } from '../../model/log/kinds'
import type { LogRow } from '../../model/log/schema'
import type { ShopSettings } from '../../model/shop/shop'
import type { Consumable } from './consumables'

/** One supply of a job, in metres where it is a tape, else in pieces, pots or bottles. */
export interface SupplyLine {
  kind: SupplyKind
  isTape: boolean
  needed: number
  /** Used on this job already. */
  used: number
  /** On the shop's shelf; null where the shop does not count it. */
  shelf: number | null
  least: number
  pack: number | null
  price: number
  /** Packs to order; null where shelf or pack is not known. */
  packs: number | null
  cost: number | null
}

/** What a shop has of its supplies, by kind: what came in and was counted, less what was used. */
export type SupplyLevels = Readonly<Partial<Record<SupplyKind, number>>>

export const usedOn = (ledger: readonly LogRow[]): ReadonlyMap<SupplyKind, number> => {
  const used = new Map<SupplyKind, number>()
  for (const { payload } of ledger)
    if (payload.kind === 'consumable_used') used.set(payload.of, (used.get(payload.of) ?? 0) + payload.amount)
  return used
}

/**
 * What a job still takes of each supply against the shelf: packs are ordered so that what the shop keeps at least is
 * there afterwards.
 */
export function supplyList(
  consumables: readonly Consumable[],
  coveredMm2: number,
  ledger: readonly LogRow[],
  { supplies, levels }: { supplies: ShopSettings['supplies']; levels: SupplyLevels },
): SupplyLine[] {
  const used = usedOn(ledger)
  return USED_KINDS.flatMap((kind): SupplyLine[] => {
    const needed = neededOf(kind, consumables, coveredMm2)
    const usedHere = used.get(kind) ?? 0
    if (needed === 0 && usedHere === 0) return []
    const shelf = levels[kind] ?? null
    const { pack = null, price = 0, least = 0 } = supplies[kind] ?? {}
    const packs = shelf === null || pack === null ? null : packsFor({ needed, used: usedHere, least, shelf, pack })
    return [
      {
        kind,
        isTape: BY_METRE.includes(kind),
        needed,
        used: usedHere,
        shelf,
        least,
        pack,
        price,
        packs,
        cost: packs === null ? null : packs * price,
      },
    ]
  })
}

/** Rounding of sums that are meant to be whole packs. */
const SLACK = 1e-9

export function packsFor(of: { needed: number; used: number; least: number; shelf: number; pack: number }): number {
  const open = Math.max(0, of.needed - of.used)
  return Math.max(0, Math.ceil((open + of.least - of.shelf) / of.pack - SLACK))
}

function neededOf(kind: SupplyKind, consumables: readonly Consumable[], coveredMm2: number): number {
  if (kind === 'alcohol') return coveredMm2 / 1e6 / M2_PER_BOTTLE
  const found = consumables.find((c) => c.kind === kind)
  if (!found) return 0
  if ('lengthMm' in found) return found.lengthMm / 1000
  return 'count' in found ? found.count : found.areaMm2 / 1e6 / M2_PER_POT
}
