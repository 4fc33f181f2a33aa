/** Places for pairs of 32-bit whole numbers, numbered in the order they come: a table with open addresses. */
export class CodeTable {
  low = new Int32Array(1024)
  high = new Int32Array(1024)
  size = 0
  private slots = new Int32Array(4096).fill(-1)

  clear(): void {
    this.slots.fill(-1)
    this.size = 0
  }
  private slot(low: number, high: number): number {
    const mask = this.slots.length - 1
    let h = Math.imul(low, 0x9e3779b1) ^ Math.imul(high, 0x85ebca6b)
    h = (h ^ (h >>> 15)) & mask
    for (;;) {
      const at = this.slots[h]
      if (at < 0 || (this.low[at] === low && this.high[at] === high)) return h
      h = (h + 1) & mask
    }
  }
  /** The number of a pair, a new one where it is not there yet: then it is one less than `size`. */
  put(low: number, high: number): number {
    const h = this.slot(low, high)
    const at = this.slots[h]
    if (at >= 0) return at
    const next = this.size++
    if (next === this.low.length) {
      this.low = longer(this.low)
      this.high = longer(this.high)
    }
    this.low[next] = low
    this.high[next] = high
    this.slots[h] = next
    if (this.size * 2 > this.slots.length) {
      this.slots = new Int32Array(this.slots.length * 2).fill(-1)
      for (let i = 0; i < this.size; i++) this.slots[this.slot(this.low[i], this.high[i])] = i
    }
    return next
  }
}

/** The same numbers in an array twice as long. */
export function longer<T extends Int32Array | Float64Array>(array: T): T {
  const next = new (array.constructor as new (n: number) => T)(array.length * 2)
  next.set(array)
  return next
}
