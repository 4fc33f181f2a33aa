import type { MethodName } from '../model/method'
import type { Budget } from '../../../kit/budget'
import type { Random } from '../../../kit/random'
import type { Band } from '../model/band'
import { bars } from '../bound/bars'
import { dualFeasible, lengthBound } from '../bound/bound'
import { fillBeside, placementsOf, settle } from './beside'
import { area, keyOf, lotsOf, neverFits, share, type Lot } from './lots'
import { kindsOf } from '../model/kinds'
import { spread } from './spread'
import { strip } from './strip'
import { PACK_TOLERANCE, type PackBin, type PackItem, type Packing, type Placed } from '../model/types'

export interface PackOptions {
  gap: number
  random: Random
  budget: Budget
  /** `guillotine`: falls apart by straight cuts from edge to edge; `free`: any placement. */
  rule?: 'guillotine' | 'free'
  /** Stages of straight cuts: across, lengthwise, across … */
  cuts?: number
  /** What stays where it is. */
  locked?: readonly Placed[]
  /** Methods of search left out, to see what each is worth. */
  without?: ReadonlySet<MethodName>
  /** Told of each step of a method that made the plan shorter, mm. */
  gained?: (name: MethodName, by: number) => void
  /** Sees each better plan. */
  better?: (packing: Packing) => void
}

/** Share of the rounds and of the time that the proof of the bound may take. */
const BOUND_SHARE = 0.15
/** Share of the time after which no shorter plan is looked for, only a tidier one. */
const SEARCH_SHARE = 0.985
/** Over several lots: the least rounds for which the sharper bound is worth its time, and its share of the time. */
const SHARP_ROUNDS = 2000
const SHARP_SHARE = 0.05

/**
 * Rectangles into bins: items of one group into one lot, each lot's items laid on an endless strip of its widest bins
 * (see `strip`), and the bands of that shared out among the bins. Pure: the same items, seed and rounds give the same
 * plan. What cannot be placed is listed with its reason.
 */
export function pack(items: readonly PackItem[], bins: readonly PackBin[], options: PackOptions): Packing {
  const { gap, budget } = options
  const unplaced: Packing['unplaced'] = []
  const locked = options.locked ?? []
  const still = new Set(locked.map((p) => keyOf(p.item)))
  const fitting: PackItem[] = []
  for (const item of items) {
    if (still.has(keyOf(item))) continue
    const why = neverFits(item, bins)
    if (why) unplaced.push({ item, why })
    else fitting.push(item)
  }
  const placed: Placed[] = [...locked]
  const rest = locked.length > 0 ? fillBeside(fitting, bins, locked, options, placed) : fitting
  // What has no group knows no lot: where nothing has one, all bins are one lot.
  const oneLot = locked.length === 0 && rest.every((item) => item.group === null)
  const lots = lotsOf(oneLot ? bins.map((bin) => ({ ...bin, lot: '' })) : bins, locked, gap)
  const spent = () => budget.spent?.() === true
  share(rest, lots, { gap, spent }, unplaced, placed)
  relieve(lots, options)
  const total = Math.max(1, rest.length)
  const loads = lots.filter((lot) => lot.items.length > 0)
  const overLots = loads.length > 1 && locked.length === 0 ? sharpBound(fitting, bins, options) : 0
  const leftOver: PackItem[] = []
  let toCome = loads.reduce((sum, lot) => sum + lot.items.length, 0)
  for (const lot of loads) {
    // What lots before it left of their time is for those still to come.
    const lotBudget = portion(budget, lot.items.length / total, lot.items.length / toCome)
    toCome -= lot.items.length
    const show = options.better
    const seen =
      loads.length === 1 && show
        ? (done: Placed[], bound: number) =>
            show(summary({ placed: [...placed, ...done], unplaced, bins, gap, proof: bound }))
        : undefined
    const { done, left, proven } = layLot(lot, options, lotBudget, seen)
    placed.push(...done)
    leftOver.push(...left)
    lot.proven = proven
  }
  settle(leftOver, lots, { ...options, spent }, placed, unplaced)
  const only = loads.length === 1 && locked.length === 0 && leftOver.length === 0 ? loads[0] : undefined
  const widest = Math.max(...bins.map((b) => b.width))
  const whole = only?.bins.some((b) => b.width >= widest - PACK_TOLERANCE) === true
  const proof = whole ? (only?.proven ?? 0) : placed.length === fitting.length ? overLots : 0
  return summary({ placed, unplaced, bins, gap, proof, whole })
}

/** The sharper bound over all items on one endless bin as wide as the widest, where there is time for it. */
function sharpBound(items: readonly PackItem[], bins: readonly PackBin[], { gap, budget }: PackOptions): number {
  if (budget.rounds < SHARP_ROUNDS) return 0
  const width = Math.max(...bins.map((b) => b.width)) + gap
  const kinds = kindsOf(items, gap, width)
  const spent = () => budget.spent?.() === true || (budget.elapsed?.() ?? 0) > SHARP_SHARE
  return bars(kinds, width, dualFeasible(kinds, width), spent).bound - gap
}

/** No more than this share of the time goes into moving groups from lot to lot before anything is laid. */
const RELIEVE_SHARE = 0.3

/** A lot whose first quick plan finds no room for all gives whole groups away to lots that can take them. */
function relieve(lots: Lot[], options: PackOptions): void {
  if (lots.length < 2) return
  const { budget } = options
  const late = () => budget.spent?.() === true || (budget.elapsed?.() ?? 0) > RELIEVE_SHARE
  const none = { rounds: 0, spent: late, boundSpent: () => true }
  const holdsAll = (lot: Lot) => layLot(lot, options, none).left.length === 0
  const room = (lot: Lot) => lot.spans.reduce((sum, s) => sum + (s.to - s.from) * s.bin.width, 0)
  for (const lot of lots) {
    const groups = new Map<string, PackItem[]>()
    for (const i of lot.items) if (i.group !== null) groups.set(i.group, [...(groups.get(i.group) ?? []), i])
    const locked = options.locked?.map((p) => p.item.group) ?? []
    const smallest = [...groups].filter(([g]) => !locked.includes(g)).sort((a, b) => area(a[1]) - area(b[1]))
    while (smallest.length > 1 && !late() && !holdsAll(lot)) {
      const [, members] = smallest.shift() as [string, PackItem[]]
      const others = lots
        .filter((l) => l !== lot && area(l.items) + area(members) <= room(l))
        .sort((a, b) => room(b) - area(b.items) - (room(a) - area(a.items)))
      const into = others.find((l) => holdsAll({ ...l, items: [...l.items, ...members] }))
      if (!into) break
      into.items.push(...members)
      lot.items = lot.items.filter((i) => !members.includes(i))
    }
  }
}

type Share = Budget & { boundSpent: () => boolean; tidySpent?: () => boolean; gone?: () => number }
/** A part of the budget's rounds, and a share of the time that is left; the clock is asked through the whole's. */
function portion(budget: Budget, part: number, ofRest: number): Share {
  const spent = budget.spent
  const elapsed = budget.elapsed
  const begin = elapsed?.() ?? 0
  const until = begin + (1 - begin) * ofRest
  return {
    rounds: Math.max(budget.rounds > 0 ? 50 : 0, Math.floor(budget.rounds * part)),
    spent: () => spent?.() === true || (elapsed !== undefined && elapsed() >= begin + (until - begin) * SEARCH_SHARE),
    tidySpent: () => spent?.() === true || (elapsed !== undefined && elapsed() >= until),
    ...(elapsed ? { gone: () => (elapsed() - begin) / Math.max(1e-9, until - begin) } : {}),
    boundSpent: () => elapsed !== undefined && elapsed() >= begin + (until - begin) * BOUND_SHARE,
  }
}

/**
 * One lot: its items on an endless strip as wide as its widest bins, the bands shared out among the bins' free spans.
 */
function layLot(
  lot: Lot,
  options: PackOptions,
  budget: Share,
  seen?: (done: Placed[], bound: number) => void,
): { done: Placed[]; left: PackItem[]; proven: number } {
  const { gap } = options
  const width = Math.max(...lot.bins.map((b) => b.width))
  const wide = lot.spans.filter((s) => Math.abs(s.bin.width - width) < PACK_TOLERANCE)
  const fits = lot.items.filter(
    (i) =>
      neverFits(
        i,
        wide.map((s) => s.bin),
      ) === null,
  )
  const others = lot.items.filter((i) => !fits.includes(i))
  const kinds = kindsOf(fits, gap, width + gap)
  const lay = (bands: readonly Band[]) => {
    const { at, over } = spread(bands, wide, gap)
    return { done: placementsOf(at, kinds, gap), over }
  }
  const plan = strip({
    kinds,
    width: width + gap,
    rule: options.rule ?? 'guillotine',
    cuts: options.cuts ?? Infinity,
    random: options.random,
    rounds: budget.rounds,
    spent: () => budget.spent?.() === true,
    boundSpent: budget.boundSpent,
    tidySpent: budget.tidySpent,
    gone: budget.gone,
    without: options.without,
    gained: options.gained,
    ...(seen ? { better: (bands: Band[], bound: number) => seen(lay(bands).done, bound - gap) } : {}),
  })
  const { done } = lay(plan.bands)
  const there = new Set(done.map((p) => keyOf(p.item)))
  return { done, left: [...fits.filter((i) => !there.has(keyOf(i))), ...others], proven: plan.bound - gap }
}

interface Outcome {
  placed: readonly Placed[]
  unplaced: Packing['unplaced']
  bins: readonly PackBin[]
  gap: number
  /** A bound proven on the way; 0 for none. */
  proof: number
  /** It was proven over all that is placed: no quick bound over the same items is above it. */
  whole?: boolean
}

function summary({ placed, unplaced, bins, gap, proof, whole = false }: Outcome): Packing {
  const far = new Map<string, number>()
  for (const p of placed) far.set(p.binId, Math.max(far.get(p.binId) ?? 0, p.y + p.length))
  const used = bins.map((bin) => ({ binId: bin.id, length: far.get(bin.id) ?? 0 }))
  const sum = used.reduce((s, u) => s + u.length, 0)
  const widest = Math.max(0, ...bins.map((b) => b.width))
  const quick = whole
    ? 0
    : lengthBound(
        placed.map((p) => p.item),
        widest,
        gap,
      )
  const bound = Math.max(quick, proof)
  return {
    placed: [...placed],
    unplaced: [...unplaced],
    used,
    bound,
    proven: unplaced.length === 0 && sum <= bound + PACK_TOLERANCE,
  }
}
