import type { Random } from '../../../kit/random'
import { aloneLengths, bandsLength, type Band } from '../model/band'
import type { WithRooms } from './laid-out'
import type { Kind } from '../model/kinds'
import type { Room } from '../model/rooms'
import { PACK_TOLERANCE } from '../model/types'

/** How much chance there is in the order of sizes and in the choice of rooms. */
const SPREAD = 0.6
const NOISE = 0.4

/**
 * A plan of a part of the items with the rest laid into the rooms it leaves, each item where it wastes least, by orders
 * that chance changes a little; what finds no room begins another band. The shortest of `tries` below `length`, or
 * null.
 */
export function completed(
  job: { kinds: readonly Kind[]; width: number; random: Random; spent: () => boolean },
  part: readonly WithRooms[],
  length: number,
  tries: number,
): Band[] | null {
  const { kinds, width, random } = job
  const left = Int32Array.from(kinds, (k) => k.items.length)
  for (const { band } of part) for (const k of band.kinds) left[k] = left[k] - 1
  const rest = kinds.flatMap((_, k) => Array.from({ length: left[k] }, () => k))
  const size = (k: number) => kinds[k].w * kinds[k].l
  const begun = bandsLength(part.map((p) => p.band))
  const alone = aloneLengths(kinds, width)
  let best: Band[] | null = null
  let least = length - PACK_TOLERANCE
  for (let t = 0; t < tries && least > begun + PACK_TOLERANCE && !job.spent(); t++) {
    const chance = t === 0 ? 0 : SPREAD
    const order = rest.map((k) => ({ k, by: size(k) * (1 + chance * (random() - 0.5)) })).sort((a, b) => b.by - a.by)
    const rooms = part.map((p) => p.rooms.map((r) => ({ ...r })))
    const bands = part.map(({ band: b }): Band => ({
      length: b.length,
      kinds: [...b.kinds],
      x: [...b.x],
      y: [...b.y],
      turned: [...b.turned],
    }))
    let total = begun
    for (const { k } of order) {
      const kind = kinds[k]
      const noise = t === 0 ? 0 : NOISE
      if (laid({ kind, k, rooms, bands, noise, random })) continue
      total += alone[k]
      if (total >= least) break
      bands.push({ length: alone[k], kinds: [], x: [], y: [], turned: [] })
      rooms.push([{ x: 0, y: 0, width, length: alone[k] }])
      laid({ kind, k, rooms, bands, noise, random })
    }
    if (total >= least) continue
    least = total
    best = bands
  }
  return best
}

function laid({
  kind,
  k,
  rooms,
  bands,
  noise,
  random,
}: {
  kind: Kind
  k: number
  rooms: Room[][]
  bands: Band[]
  noise: number
  random: Random
}): boolean {
  let least = Infinity
  let at: { b: number; r: number; turned: boolean } | null = null
  for (let b = 0; b < rooms.length; b++)
    for (let r = 0; r < rooms[b].length; r++) {
      const room = rooms[b][r]
      for (const turned of kind.turn ? [false, true] : [false]) {
        const [w, l] = turned ? [kind.l, kind.w] : [kind.w, kind.l]
        if (w > room.width + PACK_TOLERANCE || l > room.length + PACK_TOLERANCE) continue
        const waste = Math.min(room.width - w, room.length - l) * (1 + noise * (random() - 0.5))
        if (waste < least) [least, at] = [waste, { b, r, turned }]
      }
    }
  if (!at) return false
  const list = rooms[at.b]
  const room = list[at.r]
  const [w, l] = at.turned ? [kind.l, kind.w] : [kind.w, kind.l]
  const band = bands[at.b]
  band.kinds.push(k)
  band.x.push(room.x)
  band.y.push(room.y)
  band.turned.push(at.turned)
  // One cut through what is left: so that the larger piece stays whole, or now and then the other way.
  const [right, back] = [room.width - w, room.length - l]
  const across = right * room.length < back * room.width !== random() < noise / 2
  list.splice(
    at.r,
    1,
    { x: room.x + w, y: room.y, width: right, length: across ? l : room.length },
    { x: room.x, y: room.y + l, width: across ? room.width : w, length: back },
  )
  return true
}
