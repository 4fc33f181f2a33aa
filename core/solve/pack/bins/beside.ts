import { seeded, type Random } from '../../../kit/random'
import type { Band } from '../model/band'
import { kindsOf, type Kind } from '../model/kinds'
import { area, freeSpans, keyOf, neverFits, type Lot } from './lots'
import { roomsBeside } from '../model/rooms'
import { spread, type Span } from './spread'
import { strip } from './strip'
import { PACK_TOLERANCE, type PackBin, type PackItem, type Packing, type Placed } from '../model/types'

interface How {
  gap: number
  random: Random
  cuts?: number
}

/** Past the time that there is, what lies nowhere yet is listed as it is. */
type Settling = How & { spent: () => boolean }

export function placementsOf(
  at: { band: Band; span: Span; y: number }[],
  kinds: readonly Kind[],
  gap: number,
): Placed[] {
  const next = kinds.map(() => 0)
  return at.flatMap(({ band, span, y }) =>
    band.kinds.map((k, i): Placed => {
      const kind = kinds[k]
      const item = kind.items[next[k]]
      next[k] = next[k] + 1
      const across = (band.turned[i] ? kind.l : kind.w) - gap
      const along = (band.turned[i] ? kind.w : kind.l) - gap
      // A kind may be written the other way about than its item comes.
      const turned = Math.abs(across - item.width) > PACK_TOLERANCE || Math.abs(along - item.length) > PACK_TOLERANCE
      return {
        item,
        binId: span.bin.id,
        x: band.x[i],
        y: y + band.y[i],
        width: turned ? item.length : item.width,
        length: turned ? item.width : item.length,
        turned,
      }
    }),
  )
}

/** Of more bins than this those of one width are filled at once first: bin by bin would take too long. */
const MANY_BINS = 20

/** What lies where, by bin, and which groups lie anywhere: kept beside the list, which may be long. */
interface Laid {
  byBin: Map<string, Placed[]>
  groups: Set<string | null>
}

/** Items by the quick method onto some bins of one width at once, beside what lies there. */
function layOnto(items: readonly PackItem[], bins: readonly PackBin[], laid: Laid, { gap, cuts }: How): Placed[] {
  const spans = bins.flatMap((bin) =>
    freeSpans(
      bin,
      (laid.byBin.get(bin.id) ?? []).map((p) => ({ from: Math.max(0, p.y - gap), to: p.y + p.length + gap })),
    ).map((s) => ({ bin, ...s })),
  )
  if (items.length === 0 || spans.length === 0) return []
  const width = bins[0].width + gap
  const kinds = kindsOf(items, gap, width)
  const plan = strip({
    kinds,
    width,
    rule: 'guillotine',
    cuts: cuts ?? Infinity,
    random: seeded(1),
    rounds: 0,
    spent: () => false,
    boundSpent: () => true,
  })
  return placementsOf(spread(plan.bands, spans, gap).at, kinds, gap)
}

/**
 * What found no room in the first go: onto whatever spans are still free, lot by lot; where a lot has many bins
 * first onto all of a width at once, then bin by bin.
 */
export function settle(
  left: readonly PackItem[],
  lots: readonly Lot[],
  options: Settling,
  placed: Placed[],
  unplaced: Packing['unplaced'],
): void {
  if (left.length === 0) return
  let open = [...left]
  const laid: Laid = { byBin: new Map(), groups: new Set() }
  const note = (done: readonly Placed[]) => {
    for (const p of done) {
      laid.groups.add(p.item.group)
      const there = laid.byBin.get(p.binId)
      if (there) there.push(p)
      else laid.byBin.set(p.binId, [p])
    }
  }
  note(placed)
  for (const lot of lots) {
    if (open.length === 0) break
    const groupsHere = new Set(lot.bins.flatMap((b) => (laid.byBin.get(b.id) ?? []).map((p) => p.item.group)))
    const turn = (bins: readonly PackBin[]) => {
      const fit = open.filter(
        (i) =>
          (i.group === null || groupsHere.has(i.group) || !laid.groups.has(i.group)) && neverFits(i, bins) === null,
      )
      const done = layOnto(fit, bins, laid, options)
      if (done.length === 0) return
      for (const p of done) groupsHere.add(p.item.group)
      note(done)
      placed.push(...done)
      const there = new Set(done.map((p) => keyOf(p.item)))
      open = open.filter((i) => !there.has(keyOf(i)))
    }
    const bins = [...lot.bins].sort((a, b) => b.width - a.width)
    const widths = [...new Set(bins.map((b) => b.width))]
    if (bins.length > MANY_BINS) for (const width of widths) turn(bins.filter((b) => b.width === width))
    for (const bin of bins) {
      if (open.length === 0 || options.spent()) break
      turn([bin])
    }
  }
  for (const item of open) unplaced.push({ item, why: item.group === null ? 'no_room_left' : 'no_lot_holds_group' })
}

/** Rooms beside locked items, filled as well as chance finds. */
export function fillBeside(
  items: readonly PackItem[],
  bins: readonly PackBin[],
  locked: readonly Placed[],
  options: How,
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
          kinds,
          width: room.width + options.gap,
          rule: 'guillotine',
          cuts: Math.max(1, (options.cuts ?? Infinity) - 2),
          random: options.random,
          rounds: 0,
          spent: () => false,
          boundSpent: () => true,
        })
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
