import { CodeTable, longer } from '../model/code-table'

/** What two rectangles a and b (or an item a) make, and how. */
export interface How {
  made: number
  a: number
  b: number
}

/** The shortest band of each selection of items: its length, and what it is made of. */
export class BandTable extends CodeTable {
  length = new Int32Array(4096)
  private a = new Int32Array(4096)
  private b = new Int32Array(4096)
  private made = new Int32Array(4096)

  /** Kept where none as short is known. */
  keep(low: number, high: number, length: number, { made, a, b }: How): void {
    const known = this.size
    const at = this.put(low, high)
    if (at === this.length.length) {
      this.length = longer(this.length)
      this.a = longer(this.a)
      this.b = longer(this.b)
      this.made = longer(this.made)
    }
    if (at !== known && length >= this.length[at]) return
    this.length[at] = length
    this.a[at] = a
    this.b[at] = b
    this.made[at] = made
  }
  how(band: number): How {
    return { made: this.made[band], a: this.a[band], b: this.b[band] }
  }
}
