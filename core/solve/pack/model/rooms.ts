import type { PackBin, Placed } from './types'

export interface Room {
  x: number
  y: number
  width: number
  length: number
}

/**
 * Free rectangles left and right of items that stay where they are, one pair for each stretch of the bin they take
 * together.
 */
export function roomsBeside(bin: PackBin, locked: readonly Placed[], gap: number): Room[] {
  const rooms: Room[] = []
  const sorted = [...locked].sort((a, b) => a.y - b.y)
  for (let i = 0; i < sorted.length;) {
    const first = sorted[i]
    let end = first.y + first.length
    let left = first.x
    let right = first.x + first.width
    let j = i + 1
    for (; j < sorted.length && sorted[j].y < end; j++) {
      const p = sorted[j]
      end = Math.max(end, p.y + p.length)
      left = Math.min(left, p.x)
      right = Math.max(right, p.x + p.width)
    }
    if (left - gap > 1) rooms.push({ x: 0, y: first.y, width: left - gap, length: end - first.y })
    if (bin.width - right - gap > 1)
      rooms.push({ x: right + gap, y: first.y, width: bin.width - right - gap, length: end - first.y })
    i = j
  }
  return rooms
}
