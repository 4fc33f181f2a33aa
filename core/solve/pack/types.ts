/** A rectangle to be cut once. x across the bin, y along it. `quarter`: may be turned by 90°. */
export interface PackItem {
  id: string
  copy: number
  width: number
  length: number
  turn: 'fixed' | 'quarter'
  /** Items of one group come from bins of one lot; null for no such tie. */
  group: string | null
}
export interface PackBin {
  id: string
  width: number
  length: number
  lot: string
}
export interface Placed {
  item: PackItem
  binId: string
  x: number
  y: number
  width: number
  length: number
  turned: boolean
}
export type WhyNot = 'wider_than_every_bin' | 'longer_than_every_bin' | 'no_room_left' | 'no_lot_holds_group'
export interface Packing {
  placed: Placed[]
  unplaced: { item: PackItem; why: WhyNot }[]
  /** Far edge of the last item per bin, in the bins' order; 0 where unused. */
  used: { binId: string; length: number }[]
  /** Straight cuts from edge to edge across a bin: the far edges of its bands, in cutting order. */
  crossCuts: { binId: string; y: number }[]
}

/** Sizes closer than this count as equal. */
export const PACK_TOLERANCE = 1e-6
