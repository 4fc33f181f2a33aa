import type { Band } from '../model/band'
import type { Kind } from '../model/kinds'
import type { Room } from '../model/rooms'
import { PACK_TOLERANCE } from '../model/types'
import type { Blocks } from './blocks'
import { MADE } from './ordered'

/** A band and what stays free in it. */
export interface WithRooms {
  band: Band
  rooms: Room[]
}

/** What came of looking at all plans of a part. */
export interface Exhausted {
  /** Least length below the cap; null where there is none. Nothing is known where `whole` is false. */
  least: number | null
  /**
   * A plan of that length, and the rooms that its bands leave; null also where the items' own sizes keep it from the
   * strip.
   */
  plan: WithRooms[] | null
  whole: boolean
  /** Pairs of blocks looked at and entries tried: what it took. */
  work: number
}

/** How a band lies, with the items' own sizes, and what stays free in it. */
export function laidOut(kinds: readonly Kind[], stripWidth: number, blocks: Blocks, b: number): WithRooms {
  const band: Band = { length: 0, kinds: [], x: [], y: [], turned: [] }
  const rooms: Room[] = []
  const room = (x: number, y: number, width: number, length: number) => {
    if (width > PACK_TOLERANCE && length > PACK_TOLERANCE) rooms.push({ x, y, width, length })
  }
  const lay = ({ made, a, b }: ReturnType<Blocks['how']>, x: number, y: number): [number, number] => {
    if (made === MADE.comes || made === MADE.turned) {
      const { w, l } = kinds[a]
      const turned = made === MADE.turned
      band.kinds.push(a)
      band.x.push(x)
      band.y.push(y)
      band.turned.push(turned)
      return turned ? [l, w] : [w, l]
    }
    const [w1, l1] = lay(blocks.how(a), x, y)
    const [w2, l2] = made === MADE.beside ? lay(blocks.how(b), x + w1, y) : lay(blocks.how(b), x, y + l1)
    if (made === MADE.beside) {
      room(x, y + l1, w1, l2 - l1)
      room(x + w1, y + l2, w2, l1 - l2)
      return [w1 + w2, Math.max(l1, l2)]
    }
    room(x + w1, y, w2 - w1, l1)
    room(x + w2, y + l1, w1 - w2, l2)
    return [Math.max(w1, w2), l1 + l2]
  }
  const [width, length] = lay(blocks.bands.how(b), 0, 0)
  band.length = length
  room(width, 0, stripWidth - width, length)
  return { band, rooms }
}
