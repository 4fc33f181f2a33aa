/** Open stretches of time, in minutes of any origin, in order and apart from each other. */
export class Calendar {
  /** Minutes open before each stretch. */
  private readonly before: number[] = []
  readonly longest: number
  constructor(
    readonly from: readonly number[],
    readonly to: readonly number[],
  ) {
    let sum = 0
    let longest = 0
    from.forEach((f, i) => {
      this.before.push(sum)
      sum += to[i] - f
      longest = Math.max(longest, to[i] - f)
    })
    this.longest = longest
  }

  /** From stretches in any order; those that touch or overlap are one. */
  static of(stretches: readonly (readonly [number, number])[]): Calendar {
    const joined: [number, number][] = []
    for (const [from, to] of [...stretches].sort((a, b) => a[0] - b[0])) {
      const last = joined[joined.length - 1]
      if (joined.length > 0 && from <= last[1]) last[1] = Math.max(last[1], to)
      else joined.push([from, to])
    }
    return new Calendar(
      joined.map((s) => s[0]),
      joined.map((s) => s[1]),
    )
  }

  static always(): Calendar {
    return new Calendar([0], [FOREVER])
  }

  /** The last stretch that begins at `t` or before; -1 where none does. */
  stretchAt(t: number): number {
    let [low, high] = [0, this.from.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.from[middle] <= t) low = middle + 1
      else high = middle
    }
    return low - 1
  }

  /** Minutes open up to `t`. */
  openUntil(t: number): number {
    const i = this.stretchAt(t)
    return i < 0 ? 0 : this.before[i] + Math.min(t, this.to[i]) - this.from[i]
  }

  /** The earliest moment by which so many minutes were open. */
  momentOf(open: number): number {
    if (open <= 0) return 0
    let [low, high] = [0, this.from.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.before[middle] < open) low = middle + 1
      else high = middle
    }
    const i = low - 1
    if (i < 0) return NEVER
    const at = this.from[i] + open - this.before[i]
    return at > this.to[i] ? NEVER : at
  }

  /** The earliest begin at `t` or later from which `minutes` lie within one stretch. */
  fit(t: number, minutes: number): number {
    for (let i = Math.max(0, this.stretchAt(t)); i < this.from.length; i++) {
      const begin = Math.max(t, this.from[i])
      if (begin + minutes <= this.to[i] && begin < this.to[i]) return begin
    }
    return NEVER
  }

  /** The earliest open minute at `t` or later. */
  nextOpen(t: number): number {
    return this.fit(t, 1)
  }

  /** The end of work begun at an open minute, which pauses only while closed. */
  endOf(begin: number, minutes: number): number {
    return this.momentOf(this.openUntil(begin) + minutes)
  }

  /** The end of the stretch in which `t` lies; `t` itself where it is closed. */
  closes(t: number): number {
    const i = this.stretchAt(t)
    return i >= 0 && this.to[i] > t ? this.to[i] : t
  }

  /** The first begin of a stretch after `t`. */
  opensAfter(t: number): number {
    const i = this.stretchAt(t) + 1
    return i < this.from.length ? this.from[i] : NEVER
  }
}

/** A moment that nothing reaches; sums of a few still are safe integers. */
export const NEVER = 1e12
const FOREVER = 1e11
