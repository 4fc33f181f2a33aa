import type { Budget } from '../../kit/budget'
import type { Random } from '../../kit/random'
import { fillBands, placements, type BinFill, type Wish } from './bands'
import { lengthBound } from './bound'
import { PACK_TOLERANCE as EPS, type PackBin, type PackItem, type Packing, type WhyNot } from './types'

export interface PackOptions {
  gap: number
  random: Random
  budget: Budget
}

type Attempt = { fills: BinFill[]; left: PackItem[]; cost: number }

/**
 * Rectangles into bins by straight edge-to-edge cuts (bands across, then columns, then items): good orders first, then
 * annealed swaps while the budget lasts. Lots are taken one by one; a group stays within the lot it was given.
 * Pure: the same items, seed and rounds give the same plan. What cannot be placed is listed with its reason.
 */
export function pack(
  items: readonly PackItem[],
  bins: readonly PackBin[],
  { gap, random, budget }: PackOptions,
): Packing {
  const fitting: PackItem[] = []
  const unplaced: Packing['unplaced'] = []
  for (const item of items) {
    const why = neverFits(item, bins)
    if (why) unplaced.push({ item, why })
    else fitting.push(item)
  }
  const lots = [...new Set(bins.map((b) => b.lot))].map((lot) => ({
    lot,
    bins: bins.filter((b) => b.lot === lot),
    items: [] as PackItem[],
  }))
  const groups = new Map<string, PackItem[]>()
  for (const item of fitting) if (item.group !== null) groups.set(item.group, [...(groups.get(item.group) ?? []), item])
  const trial = { gap, random, budget: { rounds: 0 } }

  for (const members of [...groups.values()].sort((a, b) => area(b) - area(a))) {
    const whole = lots.find((lot) => improve([...lot.items, ...members], lot.bins, trial).left.length === 0)
    if (whole) whole.items.push(...members)
    else placeWhatFits(members, lots, unplaced, trial)
  }
  let loose = fitting.filter((i) => i.group === null)
  const fills: BinFill[] = []
  for (const lot of lots) {
    const own = new Set(lot.items)
    let result = improve([...lot.items, ...loose], lot.bins, { gap, random, budget })
    if (result.left.some((i) => own.has(i))) {
      const kept = improve(lot.items, lot.bins, { gap, random, budget })
      result = kept.left.length === 0 ? addLoose(kept, loose, lot, { gap, random, budget }) : kept
    }
    for (const item of result.left) if (own.has(item)) unplaced.push({ item, why: 'no_room_left' })
    const placedHere = new Set(
      result.fills.flatMap((f) => f.bands.flatMap((b) => b.columns.flatMap((c) => c.parts.map((p) => p.item)))),
    )
    loose = loose.filter((i) => !placedHere.has(i))
    fills.push(...result.fills)
  }
  for (const item of loose) unplaced.push({ item, why: 'no_room_left' })
  const inOrder = bins.map((b) => fills.find((f) => f.bin === b)).filter((f): f is BinFill => f !== undefined)
  return { ...placements(inOrder, gap), unplaced, used: inOrder.map((f) => ({ binId: f.bin.id, length: f.used })) }
}

const area = (items: readonly PackItem[]): number => items.reduce((sum, i) => sum + i.width * i.length, 0)

function neverFits(item: PackItem, bins: readonly PackBin[]): WhyNot | null {
  const turns: [number, number][] = [
    [item.width, item.length],
    ...(item.turn === 'quarter' ? ([[item.length, item.width]] as [number, number][]) : []),
  ]
  if (!turns.some(([w]) => bins.some((b) => w <= b.width + EPS))) return 'wider_than_every_bin'
  return turns.some(([w, l]) => bins.some((b) => w <= b.width + EPS && l <= b.length + EPS))
    ? null
    : 'longer_than_every_bin'
}

function placeWhatFits(
  members: PackItem[],
  lots: { bins: PackBin[]; items: PackItem[] }[],
  unplaced: Packing['unplaced'],
  options: PackOptions,
): void {
  let best: { lot: { items: PackItem[] }; left: PackItem[] } | null = null
  for (const lot of lots) {
    const before = new Set(lot.items)
    const result = improve([...lot.items, ...members], lot.bins, options)
    if (result.left.some((i) => before.has(i))) continue
    if (!best || area(result.left) < area(best.left)) best = { lot, left: result.left }
  }
  const left = new Set(best ? best.left : members)
  if (best) best.lot.items.push(...members.filter((m) => !left.has(m)))
  for (const item of left) unplaced.push({ item, why: 'no_lot_holds_group' })
}

/** The lot's own items are safe; loose ones join one by one as long as none of its own falls out. */
function addLoose(
  kept: Attempt,
  loose: PackItem[],
  lot: { bins: PackBin[]; items: PackItem[] },
  options: PackOptions,
): Attempt {
  let result = kept
  const joined: PackItem[] = []
  for (const item of loose) {
    const next = improve([...lot.items, ...joined, item], lot.bins, { ...options, budget: { rounds: 0 } })
    if (next.left.length === 0) {
      joined.push(item)
      result = next
    }
  }
  return result
}

function attempt(order: readonly Wish[], bins: readonly PackBin[], gap: number): Attempt {
  const { fills, left } = fillBands(order, bins, gap)
  // Left-over area weighs far more than any length, so that placing all comes first.
  return { fills, left, cost: fills.reduce((sum, f) => sum + f.used, 0) + area(left) * 1e3 }
}

/** Rounds after which the annealing starts again from the best plan. */
const CYCLE = 1500

function improve(items: readonly PackItem[], bins: readonly PackBin[], { gap, random, budget }: PackOptions): Attempt {
  const long = (i: PackItem) => (i.turn === 'quarter' ? Math.max(i.width, i.length) : i.length)
  const short = (i: PackItem) => (i.turn === 'quarter' ? Math.min(i.width, i.length) : i.length)
  const keys: ((i: PackItem) => number)[] = [(i) => i.length, short, (i) => i.width * i.length, long, (i) => i.width]
  const lies: ((i: PackItem) => boolean | null)[] = [() => null, (i) => i.length > i.width, (i) => i.width > i.length]
  const wish = (item: PackItem, lie: (i: PackItem) => boolean | null): Wish => ({
    item,
    turn: item.turn === 'quarter' ? lie(item) : null,
  })
  let bestOrder: Wish[] = items.map((i) => wish(i, () => null))
  let best = attempt(bestOrder, bins, gap)
  for (const key of keys)
    for (const lie of lies) {
      const order = [...items].sort((a, b) => key(b) - key(a)).map((i) => wish(i, lie))
      const next = attempt(order, bins, gap)
      if (next.cost < best.cost - EPS) [best, bestOrder] = [next, order]
    }
  const floor = lengthBound(items, Math.max(...bins.map((b) => b.width)), gap)
  let current = best
  let order = bestOrder
  for (let round = 0; round < budget.rounds; round++) {
    if (best.cost <= floor + EPS || budget.spent?.()) break
    budget.progress?.(round, budget.rounds)
    if (round % CYCLE === 0) [current, order] = [best, bestOrder]
    const next = neighbour(order, random)
    const tried = attempt(next, bins, gap)
    const heat = 0.015 * Math.max(0.02, 1 - (round % CYCLE) / CYCLE)
    if (
      tried.cost <= current.cost + EPS ||
      random() < Math.exp(-(tried.cost - current.cost) / (heat * Math.max(1, current.cost)))
    )
      [current, order] = [tried, next]
    if (tried.cost < best.cost - EPS) [best, bestOrder] = [tried, next]
  }
  return best
}

/** One small change of the order: an item moved, or laid the other way. */
function neighbour(order: readonly Wish[], random: Random): Wish[] {
  const next = [...order]
  const i = Math.floor(random() * next.length)
  const picked = next[i]
  if (!picked) return next
  if (picked.item.turn === 'quarter' && random() < 0.25) {
    next[i] = { item: picked.item, turn: picked.turn === null ? random() < 0.5 : random() < 0.7 ? !picked.turn : null }
    return next
  }
  next.splice(i, 1)
  const span = Math.max(3, Math.floor(next.length * 0.4))
  next.splice(Math.min(next.length, Math.max(0, i + Math.floor((random() * 2 - 1) * span))), 0, picked)
  return next
}
