import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { itemsOf, type StripItems } from '@/core/solve/pack/model/strip-items'
import { kindsOf } from '@/core/solve/pack/model/kinds'
import { AS_COMES, Decoder, EITHER, TURNED } from '@/core/solve/pack/straight/decode'

interface Room {
  x: number
  y: number
  w: number
  h: number
  band: number
}
interface Order {
  order: Int32Array
  lying: Uint8Array
  across: Uint8Array
  byArea: boolean
}

const WIDTH = 1520
const alone = (n: number) => new Uint8Array(n)

/** Items of sizes by chance, broken so that no two rooms are alike: slivers and large ones. */
function someItems(n: number, random: () => number): StripItems {
  const side = () => 40 + 1300 * random() ** 2
  const items = Array.from({ length: n }, (_, i) => ({
    id: `p${i}`,
    copy: 1,
    width: side(),
    length: side(),
    turn: random() < 0.5 ? ('quarter' as const) : ('fixed' as const),
    group: null,
  }))
  return itemsOf(kindsOf(items, 0, WIDTH), WIDTH)
}

function someOrder(n: number, random: () => number): Order {
  const order = Int32Array.from({ length: n }, (_, i) => i)
  for (let i = n - 1; i > 0; i--) {
    const j = Math.floor(random() * (i + 1))
    ;[order[i], order[j]] = [order[j] ?? 0, order[i] ?? 0]
  }
  return {
    order,
    lying: Uint8Array.from(order, () => Math.floor(random() * 3)),
    across: Uint8Array.from(order, () => Math.floor(random() * 2)),
    byArea: random() < 0.5,
  }
}

/** The same rule, slowly: every room kept, every room and turn looked at, each item laid to the end. */
function slowly({ w, l, turn, n }: StripItems, { order, lying, across, byArea }: Order) {
  const rooms: Room[] = []
  const at = Array.from({ length: n }, () => ({ x: 0, y: 0, band: -1 }))
  let [length, bands] = [0, 0]
  for (const i of order) {
    const asked = turn[i] ? lying[i] : AS_COMES
    const sizes = [
      [w[i] ?? 0, l[i] ?? 0],
      [l[i] ?? 0, w[i] ?? 0],
    ] as const
    const turns = asked === EITHER ? [AS_COMES, TURNED] : [asked ?? AS_COMES]
    const fits = turns.flatMap((lies) => {
      const [pw, ph] = sizes[lies] ?? sizes[0]
      return rooms
        .filter((r) => r.w >= pw && r.h >= ph)
        .map((room) => ({ room, pw, ph, score: byArea ? room.w * room.h : Math.min(room.w - pw, room.h - ph) }))
    })
    const best = fits.sort((a, b) => a.score - b.score)[0]
    if (best) {
      const { room, pw, ph } = best
      rooms.splice(rooms.indexOf(room), 1)
      at[i] = { x: room.x, y: room.y, band: room.band }
      const [dw, dh] = [room.w - pw, room.h - ph]
      const lengthwise = dw * room.h >= room.w * dh !== (across[i] === 1)
      rooms.push({ ...room, x: room.x + pw, w: dw, h: lengthwise ? room.h : ph })
      rooms.push({ ...room, y: room.y + ph, w: lengthwise ? pw : room.w, h: dh })
      continue
    }
    // A band of its own: turned where it is asked, where it is too wide, or where that makes the band shorter.
    let [pw, ph] = sizes[asked === TURNED ? TURNED : AS_COMES] ?? sizes[0]
    if (pw > WIDTH || (asked === EITHER && ph < pw && ph <= WIDTH && across[i] === 0)) [pw, ph] = [ph, pw]
    at[i] = { x: 0, y: 0, band: bands }
    rooms.push({ x: pw, y: 0, w: WIDTH - pw, h: ph, band: bands })
    bands++
    length += ph
  }
  return { length, at }
}

describe('an order laid into bands', () => {
  it('lies as the same rule does that keeps every room and looks at all of them', () => {
    for (let seed = 1; seed <= 30; seed++) {
      const random = seeded(seed)
      const items = someItems(5 + seed, random)
      const decoder = new Decoder(items, Infinity)
      for (let k = 0; k < 20; k++) {
        const o = someOrder(items.n, random)
        const twin = slowly(items, o)
        expect(decoder.run({ ...o, glue: alone(items.n) }, o.byArea)).toBeCloseTo(twin.length, 6)
        const found = Array.from({ length: items.n }, (_, i) => ({
          x: decoder.x[i],
          y: decoder.y[i],
          band: decoder.band[i],
        }))
        expect(found).toEqual(twin.at)
      }
    }
  })
  it('is left unfinished only where it would come out longer than it may', () => {
    const random = seeded(5)
    const items = someItems(30, random)
    const decoder = new Decoder(items, Infinity)
    let left = 0
    for (let k = 0; k < 200; k++) {
      const o = someOrder(items.n, random)
      const run = (most?: number) => decoder.run({ ...o, glue: alone(items.n) }, o.byArea, most)
      const whole = run()
      const most = whole * (0.8 + 0.4 * random())
      const asked = run(most)
      if (whole <= most) expect(asked).toBe(whole)
      else {
        expect(asked).toBeGreaterThan(most)
        expect(asked).toBeLessThanOrEqual(whole)
        left++
      }
    }
    expect(left).toBeGreaterThan(20)
  })
})
