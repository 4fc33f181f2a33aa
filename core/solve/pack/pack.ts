import type { Budget } from '../../kit/budget'
import { seeded, type Random } from '../../kit/random'
import type { Band } from './band'
import { bars } from './bars'
import { dualFeasible, longest } from './bound'
import { kindsOf, type Kind } from './kinds'
import { roomsBeside } from './rooms'
import { spread, type Span } from './spread'
import { strip } from './strip'
import { PACK_TOLERANCE as EPS, type PackBin, type PackItem, type Packing, type Placed, type WhyNot } from './types'

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
/** A lot is filled to this share of its length by bound before the next one is begun; past it plans no longer fit. */
const LOT_FILL = 0.93

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
  const lots = lotsOf(bins, locked, gap)
  share(rest, lots, gap, unplaced, placed)
  relieve(lots, options)
  const total = Math.max(1, rest.length)
  const loads = lots.filter((lot) => lot.items.length > 0)
  const overLots = loads.length > 1 && locked.length === 0 ? sharpBound(fitting, bins, options) : 0
  const leftOver: PackItem[] = []
  for (const lot of loads) {
    const part = lot.items.length / total
    const lotBudget = portion(budget, part, loads.length)
    const show = options.better
    const seen =
      loads.length === 1 && show
        ? (done: Placed[], bound: number) => show(summary([...placed, ...done], unplaced, bins, gap, bound))
        : undefined
    const { done, left, proven } = layLot(lot, options, lotBudget, seen)
    placed.push(...done)
    leftOver.push(...left)
    lot.proven = proven
  }
  settle(leftOver, lots, options, placed, unplaced)
  const only = loads.length === 1 && locked.length === 0 && leftOver.length === 0 ? loads[0] : undefined
  const widest = Math.max(...bins.map((b) => b.width))
  const proof =
    only && only.bins.some((b) => b.width >= widest - EPS)
      ? only.proven
      : placed.length === fitting.length
        ? overLots
        : 0
  return summary(placed, unplaced, bins, gap, proof)
}

interface Lot {
  lot: string
  bins: PackBin[]
  spans: Span[]
  items: PackItem[]
  /** Bound proven while laying it on its own widest bins, gap left out; 0 for none. */
  proven: number
}

const keyOf = (i: PackItem): string => `${i.id}#${i.copy}`
const area = (items: readonly PackItem[]): number => items.reduce((sum, i) => sum + i.width * i.length, 0)

function neverFits(item: PackItem, bins: readonly PackBin[]): WhyNot | null {
  const turns: [number, number][] = [
    [item.width, item.length],
    ...(item.turn === 'quarter' ? ([[item.length, item.width]] as [number, number][]) : []),
  ]
  if (!turns.some(([w]) => bins.some((b) => w <= b.width + EPS))) return 'wider_than_every_bin'
  const fits = turns.some(([w, l]) => bins.some((b) => w <= b.width + EPS && l <= longestSpan(b) + EPS))
  return fits ? null : 'longer_than_every_bin'
}

/** Spans of a bin that are free, between what is blocked. */
function freeSpans(bin: PackBin, more: readonly { from: number; to: number }[] = []): { from: number; to: number }[] {
  const blocked = [...(bin.blocked ?? []), ...more].sort((a, b) => a.from - b.from)
  const spans: { from: number; to: number }[] = []
  let at = 0
  for (const b of blocked) {
    if (b.from > at + EPS) spans.push({ from: at, to: Math.min(b.from, bin.length) })
    at = Math.max(at, b.to)
  }
  if (bin.length > at + EPS) spans.push({ from: at, to: bin.length })
  return spans.filter((s) => s.to > s.from + EPS)
}
const longestSpan = (bin: PackBin): number => freeSpans(bin).reduce((most, s) => Math.max(most, s.to - s.from), 0)

function lotsOf(bins: readonly PackBin[], locked: readonly Placed[], gap: number): Lot[] {
  return [...new Set(bins.map((b) => b.lot))].map((lot) => {
    const own = bins.filter((b) => b.lot === lot)
    const spans = own.flatMap((bin) =>
      freeSpans(
        bin,
        locked
          .filter((p) => p.binId === bin.id)
          .map((p) => ({ from: Math.max(0, p.y - gap), to: p.y + p.length + gap })),
      ).map((s) => ({ bin, from: s.from, to: s.to })),
    )
    return { lot, bins: own, spans, items: [], proven: 0 }
  })
}

/** Quick bound on the length that items take on a strip of this width. */
function boundOf(items: readonly PackItem[], width: number, gap: number): number {
  const fit = items.filter((i) => i.width <= width + EPS || (i.turn === 'quarter' && i.length <= width + EPS))
  if (fit.length === 0) return 0
  const kinds = kindsOf(fit, gap, width + gap)
  return Math.max(dualFeasible(kinds, width + gap).bound, longest(kinds)) - gap
}

/** The sharper bound over all items on one endless bin as wide as the widest, where there is time for it. */
function sharpBound(items: readonly PackItem[], bins: readonly PackBin[], { gap, budget }: PackOptions): number {
  if (budget.rounds < SHARP_ROUNDS) return 0
  const width = Math.max(...bins.map((b) => b.width)) + gap
  const kinds = kindsOf(items, gap, width)
  const spent = () => budget.spent?.() === true || (budget.elapsed?.() ?? 0) > SHARP_SHARE
  return bars(kinds, width, dualFeasible(kinds, width), spent).bound - gap
}

/** Groups to lots, the largest first: the first lot not yet full, else the least full that can take it; then what is loose. */
function share(
  items: readonly PackItem[],
  lots: Lot[],
  gap: number,
  unplaced: Packing['unplaced'],
  placed: readonly Placed[],
): void {
  const groups = new Map<string, PackItem[]>()
  const loose: PackItem[] = []
  for (const item of items) {
    if (item.group === null) loose.push(item)
    else groups.set(item.group, [...(groups.get(item.group) ?? []), item])
  }
  const width = (lot: Lot) => Math.max(...lot.bins.map((b) => b.width))
  const room = (lot: Lot) => lot.spans.reduce((sum, s) => sum + s.to - s.from, 0)
  const load = (lot: Lot, more: readonly PackItem[]) =>
    (area(lot.items) + area(more)) / Math.max(1, room(lot) * width(lot))
  const lotOfLocked = (group: string): Lot | undefined => {
    const there = placed.find((p) => p.item.group === group)
    return there && lots.find((lot) => lot.bins.some((b) => b.id === there.binId))
  }
  const holds = (lot: Lot, more: readonly PackItem[]): boolean =>
    more.every((i) => neverFits(i, lot.bins) === null) &&
    boundOf([...lot.items, ...more], width(lot), gap) <= room(lot) + EPS
  for (const [group, members] of [...groups].sort((a, b) => area(b[1]) - area(a[1]))) {
    const tied = lotOfLocked(group)
    const able = (tied ? [tied] : lots).filter((lot) => load(lot, members) <= 1 && holds(lot, members))
    const easy = able.find((lot) => boundOf([...lot.items, ...members], width(lot), gap) <= LOT_FILL * room(lot))
    const lot = easy ?? able.sort((a, b) => load(a, members) - load(b, members))[0]
    if (lot) lot.items.push(...members)
    else {
      // No lot takes it whole: as much as the roomiest can, the rest is listed.
      const roomiest = [...(tied ? [tied] : lots)].sort(
        (a, b) => room(b) - area(b.items) / width(b) - (room(a) - area(a.items) / width(a)),
      )[0]
      for (const item of members)
        if (roomiest && neverFits(item, roomiest.bins) === null && holds(roomiest, [item])) roomiest.items.push(item)
        else unplaced.push({ item, why: 'no_lot_holds_group' })
    }
  }
  if (loose.length === 0) return
  // Loose items to one lot where it can hold them, else as they fit.
  const one = lots.find(
    (lot) => holds(lot, loose) && boundOf([...lot.items, ...loose], width(lot), gap) <= LOT_FILL * room(lot),
  )
  if (one) {
    one.items.push(...loose)
    return
  }
  const estimate = new Map(lots.map((lot) => [lot, boundOf(lot.items, width(lot), gap)]))
  for (const item of [...loose].sort((a, b) => b.width * b.length - a.width * a.length)) {
    const able = lots.filter((lot) => neverFits(item, lot.bins) === null)
    const grows = (lot: Lot) => (item.width * item.length * 1.12) / width(lot)
    const lot =
      able.find((l) => (estimate.get(l) as number) + grows(l) <= LOT_FILL * room(l)) ??
      able.sort((a, b) => (estimate.get(a) as number) / room(a) - (estimate.get(b) as number) / room(b))[0]
    if (!lot) unplaced.push({ item, why: 'no_room_left' })
    else {
      lot.items.push(item)
      estimate.set(lot, (estimate.get(lot) as number) + grows(lot))
    }
  }
}

/** A lot whose first quick plan finds no room for all gives whole groups away to lots that can take them. */
function relieve(lots: Lot[], options: PackOptions): void {
  const none = { rounds: 0, spent: () => false, boundSpent: () => true }
  const holdsAll = (lot: Lot) => layLot(lot, options, none).left.length === 0
  const room = (lot: Lot) => lot.spans.reduce((sum, s) => sum + (s.to - s.from) * s.bin.width, 0)
  for (const lot of lots) {
    const groups = new Map<string, PackItem[]>()
    for (const i of lot.items) if (i.group !== null) groups.set(i.group, [...(groups.get(i.group) ?? []), i])
    const locked = options.locked?.map((p) => p.item.group) ?? []
    const smallest = [...groups].filter(([g]) => !locked.includes(g)).sort((a, b) => area(a[1]) - area(b[1]))
    while (smallest.length > 1 && !holdsAll(lot)) {
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
/** A part of the budget; the clock is asked through the whole's. */
function portion(budget: Budget, part: number, of: number): Share {
  const spent = budget.spent
  const elapsed = budget.elapsed
  const begin = elapsed?.() ?? 0
  const until = begin + (1 - begin) * (of === 1 ? 1 : Math.min(1, part / Math.max(1e-9, 1 - begin) + 0.001))
  return {
    rounds: Math.max(budget.rounds > 0 ? 50 : 0, Math.floor(budget.rounds * part)),
    spent: () => spent?.() === true || (elapsed !== undefined && elapsed() >= begin + (until - begin) * SEARCH_SHARE),
    tidySpent: () => spent?.() === true || (elapsed !== undefined && elapsed() >= until),
    ...(elapsed ? { gone: () => (elapsed() - begin) / Math.max(1e-9, until - begin) } : {}),
    boundSpent: () => elapsed !== undefined && elapsed() >= begin + (until - begin) * BOUND_SHARE,
  }
}

/** One lot: its items on an endless strip as wide as its widest bins, the bands shared out among the bins' free spans. */
function layLot(
  lot: Lot,
  options: PackOptions,
  budget: Share,
  seen?: (done: Placed[], bound: number) => void,
): { done: Placed[]; left: PackItem[]; proven: number } {
  const { gap } = options
  const width = Math.max(...lot.bins.map((b) => b.width))
  const wide = lot.spans.filter((s) => Math.abs(s.bin.width - width) < EPS)
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
    ...(seen ? { better: (bands: Band[], bound: number) => seen(lay(bands).done, bound - gap) } : {}),
  })
  const { done } = lay(plan.bands)
  const there = new Set(done.map((p) => keyOf(p.item)))
  return { done, left: [...fits.filter((i) => !there.has(keyOf(i))), ...others], proven: plan.bound - gap }
}

function placementsOf(at: { band: Band; span: Span; y: number }[], kinds: readonly Kind[], gap: number): Placed[] {
  const next = kinds.map(() => 0)
  return at.flatMap(({ band, span, y }) =>
    band.kinds.map((k, i): Placed => {
      const kind = kinds[k] as Kind
      const item = kind.items[next[k] as number] as PackItem
      next[k] = (next[k] as number) + 1
      const across = (band.turned[i] ? kind.l : kind.w) - gap
      const along = (band.turned[i] ? kind.w : kind.l) - gap
      // A kind may be written the other way about than its item comes.
      const turned = Math.abs(across - item.width) > EPS || Math.abs(along - item.length) > EPS
      return {
        item,
        binId: span.bin.id,
        x: band.x[i] as number,
        y: y + (band.y[i] as number),
        width: turned ? item.length : item.width,
        length: turned ? item.width : item.length,
        turned,
      }
    }),
  )
}

/** What found no room in the first go: onto whatever spans are still free, lot by lot. */
function settle(
  left: readonly PackItem[],
  lots: readonly Lot[],
  options: PackOptions,
  placed: Placed[],
  unplaced: Packing['unplaced'],
): void {
  if (left.length === 0) return
  const { gap } = options
  let open = [...left]
  for (const lot of lots) {
    if (open.length === 0) break
    const groupsHere = new Set(placed.filter((p) => lot.bins.some((b) => b.id === p.binId)).map((p) => p.item.group))
    for (const bin of [...lot.bins].sort((a, b) => b.width - a.width)) {
      const may = open.filter(
        (i) => i.group === null || groupsHere.has(i.group) || !placed.some((p) => p.item.group === i.group),
      )
      const inBin = placed.filter((p) => p.binId === bin.id)
      const spans = freeSpans(
        bin,
        inBin.map((p) => ({ from: Math.max(0, p.y - gap), to: p.y + p.length + gap })),
      )
      const fit = may.filter((i) => neverFits(i, [bin]) === null)
      if (fit.length === 0 || spans.length === 0) continue
      const kinds = kindsOf(fit, gap, bin.width + gap)
      const plan = strip({
        kinds, width: bin.width + gap, rule: 'guillotine', cuts: options.cuts ?? Infinity, random: seeded(1), rounds: 0,
        spent: () => false, boundSpent: () => true,
      }) // prettier-ignore
      const { at } = spread(
        plan.bands,
        spans.map((s) => ({ bin, ...s })),
        gap,
      )
      const done = placementsOf(at, kinds, gap)
      for (const p of done) groupsHere.add(p.item.group)
      placed.push(...done)
      const there = new Set(done.map((p) => keyOf(p.item)))
      open = open.filter((i) => !there.has(keyOf(i)))
    }
  }
  for (const item of open) unplaced.push({ item, why: item.group === null ? 'no_room_left' : 'no_lot_holds_group' })
}

/** Rooms beside locked items, filled as well as chance finds. */
function fillBeside(
  items: readonly PackItem[],
  bins: readonly PackBin[],
  locked: readonly Placed[],
  options: PackOptions,
  placed: Placed[],
): PackItem[] {
  let open = [...items]
  for (const bin of bins)
    for (const room of roomsBeside(
      bin,
      locked.filter((p) => p.binId === bin.id),
      options.gap,
    )) {
      const tied = (i: PackItem) => {
        const there = i.group === null ? undefined : placed.find((p) => p.item.group === i.group)
        return !there || bins.find((b) => b.id === there.binId)?.lot === bin.lot
      }
      // A room beside is cut off across and lengthwise already: two stages are spent.
      const box: PackBin = { id: bin.id, width: room.width, length: room.length, lot: bin.lot }
      const fit = open.filter((i) => tied(i) && neverFits(i, [box]) === null)
      let best: Placed[] = []
      for (let t = 0; t < 60 && fit.length > 0; t++) {
        // A chance handful that could fill the room, laid and counted.
        const order = fit
          .map((i) => ({ i, k: options.random() * (0.4 + i.width * i.length) }))
          .sort((a, b) => b.k - a.k)
        const take: PackItem[] = []
        let sum = 0
        for (const { i } of order)
          if (sum + i.width * i.length <= room.width * room.length) {
            take.push(i)
            sum += i.width * i.length
          }
        const kinds = kindsOf(take, options.gap, room.width + options.gap)
        const plan = strip({
          kinds, width: room.width + options.gap, rule: 'guillotine', cuts: Math.max(1, (options.cuts ?? Infinity) - 2), random: options.random,
          rounds: 0, spent: () => false, boundSpent: () => true,
        }) // prettier-ignore
        const { at } = spread(plan.bands, [{ bin: box, from: 0, to: room.length }], options.gap)
        const done = placementsOf(at, kinds, options.gap)
        if (area(done.map((p) => p.item)) > area(best.map((p) => p.item))) best = done
      }
      const there = new Set(best.map((p) => keyOf(p.item)))
      placed.push(...best.map((p) => ({ ...p, x: p.x + room.x, y: p.y + room.y })))
      open = open.filter((i) => !there.has(keyOf(i)))
    }
  return open
}

function summary(
  placed: readonly Placed[],
  unplaced: Packing['unplaced'],
  bins: readonly PackBin[],
  gap: number,
  proof: number,
): Packing {
  const used = bins.map((bin) => ({
    binId: bin.id,
    length: placed.reduce((far, p) => (p.binId === bin.id ? Math.max(far, p.y + p.length) : far), 0),
  }))
  const sum = used.reduce((s, u) => s + u.length, 0)
  const widest = Math.max(0, ...bins.map((b) => b.width))
  const quick = boundOf(
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
    proven: unplaced.length === 0 && sum <= bound + EPS,
  }
}
