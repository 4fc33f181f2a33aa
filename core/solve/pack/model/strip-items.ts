/** A strip to fill: one entry an item (copies apart), gap within the sizes. */

import type { Kind } from './kinds'

export interface StripItems {
  n: number
  width: number
  kind: Int32Array
  w: Float64Array
  l: Float64Array
  turn: Uint8Array
}

export function itemsOf(kinds: readonly Kind[], width: number): StripItems {
  const list = kinds.flatMap((k, kind) => k.items.map(() => ({ kind, w: k.w, l: k.l, turn: k.turn ? 1 : 0 })))
  return {
    n: list.length,
    width,
    kind: Int32Array.from(list, (i) => i.kind),
    w: Float64Array.from(list, (i) => i.w),
    l: Float64Array.from(list, (i) => i.l),
    turn: Uint8Array.from(list, (i) => i.turn),
  }
}
