import { PACK_TOLERANCE } from '../model/types'
import { FillTable, MOST_CACHED } from './fill-table'

export interface Room {
  packed: Int32Array
  entry: Int32Array
}

/**
 * The table read in the order of what selections are worth: a room takes the worthiest that fits it and is still there,
 * found by going down the list of those that fit.
 */
export class FillView {
  private readonly byWorth: number[]
  private readonly rooms = new Map<number, Map<number, Room>>()
  private cached = 0
  constructor(
    private readonly table: FillTable,
    worth: Float64Array,
  ) {
    const { start } = table
    this.byWorth = Array.from(worth, (_, c) => c)
      .filter((c) => c > 0 && start[c + 1] > start[c])
      .sort((x, y) => worth[y] - worth[x])
  }
  private fitting(w: number, l: number): Room {
    const { table } = this
    let byLength = this.rooms.get(w)
    if (!byLength) this.rooms.set(w, (byLength = new Map<number, Room>()))
    let room = byLength.get(l)
    if (!room) {
      if (this.cached > MOST_CACHED) {
        this.rooms.clear()
        this.cached = 0
        this.rooms.set(w, (byLength = new Map<number, Room>()))
      }
      const packed: number[] = []
      const entry: number[] = []
      const most = w * l + PACK_TOLERANCE
      for (const c of this.byWorth) {
        if (table.area[c] > most) continue
        let best = -1
        for (let e = table.start[c], f = table.start[c + 1]; e < f; e++)
          if (
            table.W[e] <= w + PACK_TOLERANCE &&
            table.L[e] <= l + PACK_TOLERANCE &&
            (best < 0 || table.W[e] < table.W[best])
          )
            best = e
        if (best >= 0) {
          packed.push(table.packed[c])
          entry.push(best)
        }
      }
      room = { packed: Int32Array.from(packed), entry: Int32Array.from(entry) }
      this.cached += entry.length
      byLength.set(l, room)
    }
    return room
  }
  /**
   * The worthiest selection that fits the room and is still there (passing over the first `skip` of them): its entry,
   * or −1.
   */
  fill(w: number, l: number, rest: number, skip: number): number {
    if (rest === 0 || w <= PACK_TOLERANCE || l <= PACK_TOLERANCE) return -1
    const { packed, entry } = this.fitting(w, l)
    const guarded = rest | this.table.guards
    for (let i = 0; i < packed.length; i++)
      if (((guarded - packed[i]) & this.table.guards) === this.table.guards && skip-- <= 0) return entry[i]
    return -1
  }
}
