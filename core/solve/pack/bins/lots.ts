import { lengthBound } from '../bound/bound'
import type { Span } from './spread'
import { PACK_TOLERANCE, type PackBin, type PackItem, type Packing, type Placed, type WhyNot } from '../model/types'

/** Of so many items the bound stands near their bare area: a lot that is half full takes more without asking it. */
const MANY = 400
const HALF_FULL = 0.6
/** A lot is filled to this share of its length by bound before the next one is begun; past it plans no longer fit. */
const LOT_FILL = 0.93

export interface Lot {
  lot: string
  bins: PackBin[]
  spans: Span[]
  items: PackItem[]
  /** Bound proven while laying it on its own widest bins, gap left out; 0 for none. */
  proven: number
}

export const keyOf = (i: PackItem): string => `${i.id}#${i.copy}`
export const area = (items: readonly PackItem[]): number => items.reduce((sum, i) => sum + i.width * i.length, 0)

export function neverFits(item: PackItem, bins: readonly PackBin[]): WhyNot | null {
  const { width, length, turn } = item
  const fitsAcross = (b: PackBin, w: number) => w <= b.width + PACK_TOLERANCE
  const fits = (b: PackBin, w: number, l: number) => fitsAcross(b, w) && l <= longestSpan(b) + PACK_TOLERANCE
  const turns = turn === 'quarter'
  if (!bins.some((b) => fitsAcross(b, width) || (turns && fitsAcross(b, length)))) return 'wider_than_every_bin'
  return bins.some((b) => fits(b, width, length) || (turns && fits(b, length, width))) ? null : 'longer_than_every_bin'
}

/** Spans of a bin that are free, between what is blocked. */
export function freeSpans(
  bin: PackBin,
  more: readonly { from: number; to: number }[] = [],
): { from: number; to: number }[] {
  const blocked = [...(bin.blocked ?? []), ...more].sort((a, b) => a.from - b.from)
  const spans: { from: number; to: number }[] = []
  let at = 0
  for (const b of blocked) {
    if (b.from > at + PACK_TOLERANCE) spans.push({ from: at, to: Math.min(b.from, bin.length) })
    at = Math.max(at, b.to)
  }
  if (bin.length > at + PACK_TOLERANCE) spans.push({ from: at, to: bin.length })
  return spans.filter((s) => s.to > s.from + PACK_TOLERANCE)
}

export const longestSpan = (bin: PackBin): number =>
  freeSpans(bin).reduce((most, s) => Math.max(most, s.to - s.from), 0)

export function lotsOf(bins: readonly PackBin[], locked: readonly Placed[], gap: number): Lot[] {
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

/**
 * Groups to lots, the largest first: the first lot not yet full, else the least full that can take it; then what is
 * loose.
 */
export function share(
  items: readonly PackItem[],
  lots: Lot[],
  { gap, spent }: { gap: number; spent: () => boolean },
  unplaced: Packing['unplaced'],
  placed: readonly Placed[],
): void {
  const groups = new Map<string, PackItem[]>()
  const loose: PackItem[] = []
  for (const item of items) {
    if (item.group === null) loose.push(item)
    else groups.set(item.group, [...(groups.get(item.group) ?? []), item])
  }
  const sizes = new Map(
    lots.map((lot) => [
      lot,
      {
        width: Math.max(...lot.bins.map((b) => b.width)),
        room: lot.spans.reduce((sum, s) => sum + s.to - s.from, 0),
        area: area(lot.items),
      },
    ]),
  )
  const sizeOf = (lot: Lot) => sizes.get(lot) as { width: number; room: number; area: number }
  const width = (lot: Lot) => sizeOf(lot).width
  const room = (lot: Lot) => sizeOf(lot).room
  const take = (lot: Lot, more: readonly PackItem[]) => {
    lot.items.push(...more)
    sizeOf(lot).area += area(more)
  }
  const load = (lot: Lot, more: readonly PackItem[], areaOfMore = area(more)) =>
    (sizeOf(lot).area + areaOfMore) / Math.max(1, room(lot) * width(lot))
  const lotOfLocked = (group: string): Lot | undefined => {
    const there = placed.find((p) => p.item.group === group)
    return there && lots.find((lot) => lot.bins.some((b) => b.id === there.binId))
  }
  // Of lots that hold nothing yet the bound hangs on their width alone: many rolls are many such lots.
  const boundWith = (lot: Lot, more: readonly PackItem[], known: Map<number, number>): number => {
    if (lot.items.length > 0) return lengthBound([...lot.items, ...more], width(lot), gap)
    const kept = known.get(width(lot))
    if (kept !== undefined) return kept
    const bound = lengthBound(more, width(lot), gap)
    known.set(width(lot), bound)
    return bound
  }
  const holds = (lot: Lot, more: readonly PackItem[], known = new Map<number, number>()): boolean =>
    boundWith(lot, more, known) <= room(lot) + PACK_TOLERANCE && more.every((i) => neverFits(i, lot.bins) === null)
  for (const [group, members] of [...groups].sort((a, b) => area(b[1]) - area(a[1]))) {
    const tied = lotOfLocked(group)
    const known = new Map<number, number>()
    const own = tied ? [tied] : lots
    const areaOf = area(members)
    const fits = (lot: Lot) => load(lot, members, areaOf) <= 1 && holds(lot, members, known)
    const easy = own.find((lot) => {
      const full = load(lot, members, areaOf)
      if (full > LOT_FILL) return false
      if (full <= HALF_FULL && lot.items.length > MANY) return members.every((i) => neverFits(i, lot.bins) === null)
      return boundWith(lot, members, known) <= LOT_FILL * room(lot) && fits(lot)
    })
    // Past its time the search for the least full one is left out.
    const lot = easy ?? (spent() ? undefined : own.filter(fits).sort((a, b) => load(a, members) - load(b, members))[0])
    if (lot) take(lot, members)
    else {
      // No lot takes it whole: as much as the roomiest can, the rest is listed.
      const roomiest = [...(tied ? [tied] : lots)].sort(
        (a, b) => room(b) - sizeOf(b).area / width(b) - (room(a) - sizeOf(a).area / width(a)),
      )[0]
      for (const item of members)
        if (roomiest && !spent() && neverFits(item, roomiest.bins) === null && holds(roomiest, [item]))
          take(roomiest, [item])
        else unplaced.push({ item, why: 'no_lot_holds_group' })
    }
  }
  if (loose.length === 0) return
  // Loose items to one lot where it can hold them, else as they fit.
  const one = lots.find(
    (lot) => holds(lot, loose) && lengthBound([...lot.items, ...loose], width(lot), gap) <= LOT_FILL * room(lot),
  )
  if (one) {
    take(one, loose)
    return
  }
  const estimate = new Map(lots.map((lot) => [lot, lengthBound(lot.items, width(lot), gap)]))
  for (const item of [...loose].sort((a, b) => b.width * b.length - a.width * a.length)) {
    const grows = (lot: Lot) => (item.width * item.length * 1.12) / width(lot)
    const fullness = (lot: Lot) => (estimate.get(lot) as number) / room(lot)
    const takes = (lot: Lot) => neverFits(item, lot.bins) === null
    const easy = lots.find((lot) => (estimate.get(lot) as number) + grows(lot) <= LOT_FILL * room(lot) && takes(lot))
    const lot = easy ?? lots.filter(takes).sort((a, b) => fullness(a) - fullness(b))[0]
    if (!lot) unplaced.push({ item, why: 'no_room_left' })
    else {
      take(lot, [item])
      estimate.set(lot, (estimate.get(lot) as number) + grows(lot))
    }
  }
}
