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
  /** Spans along the bin that nothing may lie on. */
  blocked?: readonly { from: number; to: number }[]
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
  /** Proven lower bound for one endless bin as wide as the widest, over the placed items. */
  bound: number
  /** True where no plan of these items under this rule is shorter. */
  proven: boolean
}

/** Sizes closer than this count as equal. */
export const PACK_TOLERANCE = 1e-6
