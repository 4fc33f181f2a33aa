import { nth } from '../../kit/known'
import type { Panel } from '../../model/vehicle/schema'
import { ALIKE, middle, DEFAULT_GAP_MM, GAP_MM, SkinPanel } from './skin-panel'

export interface Tie {
  a: number
  b: number
  /** Wanted offset of b from a, and how much it counts, along x and y. */
  dx: number
  dy: number
  wx: number
  wy: number
}

export function tiesOf(
  panels: readonly Panel[],
  raw: readonly SkinPanel[],
  index: ReadonlyMap<string, number>,
  host: readonly (number | null)[],
): Tie[] {
  const out: Tie[] = []
  panels.forEach((p, a) => {
    const mine = nth(raw, a)
    for (const edge of mine.edges) {
      const b = edge.neighbour ? index.get(edge.neighbour) : undefined
      if (b === undefined || b === a || host[a] !== null || host[b] !== null) continue
      const theirs = nth(raw, b)
      const against = theirs.edges.filter((f) => f.normal.x * edge.normal.x + f.normal.y * edge.normal.y < -0.5)
      const named = against
        .filter((f) => f.neighbour === p.id)
        .sort((f, g) => Math.abs(f.lengthMm - edge.lengthMm) - Math.abs(g.lengthMm - edge.lengthMm))[0]
      if (named && b < a) continue
      // A side that names the roof it hangs from, where the roof's long edge cannot name every side.
      const hangs = edge.meets === 'bead' || edge.meets === 'drip_rail'
      const back = named ?? (hangs ? against.sort((f, g) => g.lengthMm - f.lengthMm)[0] : undefined)
      if (!back) continue
      const own = p.edges.find((e) => e.id === edge.id)
      const gap = own?.spanMm ?? own?.gapMm ?? GAP_MM[edge.meets] ?? DEFAULT_GAP_MM
      const [m, n] = [middle(edge), middle(back)]
      const alike = Math.min(edge.lengthMm, back.lengthMm) / Math.max(edge.lengthMm, back.lengthMm) > ALIKE
      const across = Math.abs(edge.normal.x) > Math.abs(edge.normal.y)
      const along = alike ? 1 : WEAK
      out.push({
        a,
        b,
        dx: m.x + edge.normal.x * gap - n.x,
        dy: m.y + edge.normal.y * gap - n.y,
        wx: across ? 1 : along,
        wy: across ? along : 1,
      })
    }
  })
  return out
}

export function components(n: number, ties: readonly Tie[]): number[] {
  const parent = Array.from({ length: n }, (_, i) => i)
  const find = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = nth(parent, parent[i] as number)
    return i
  }
  for (const t of ties) parent[find(t.a)] = find(t.b)
  return parent.map((_, i) => find(i))
}

/** Positions along one axis that agree best with every tie: conjugate gradients on the graph's weighted Laplacian. */
export function settle(n: number, ties: readonly Tie[], offset: 'dx' | 'dy', weight: 'wx' | 'wy'): Float64Array {
  const x = new Float64Array(n)
  const r = new Float64Array(n)
  for (const t of ties) {
    r[t.b] = (r[t.b] ?? 0) + t[weight] * t[offset]
    r[t.a] = (r[t.a] ?? 0) - t[weight] * t[offset]
  }
  const p = Float64Array.from(r)
  let rr = r.reduce((s, v) => s + v * v, 0)
  for (let step = 0; step < 6 * n + 20 && rr > 1e-9; step++) {
    const q = new Float64Array(n)
    for (const t of ties) {
      const d = t[weight] * ((p[t.b] ?? 0) - (p[t.a] ?? 0))
      q[t.b] = (q[t.b] ?? 0) + d
      q[t.a] = (q[t.a] ?? 0) - d
    }
    const alpha =
      rr /
      Math.max(
        1e-30,
        p.reduce((s, v, i) => s + v * (q[i] ?? 0), 0),
      )
    let next = 0
    for (let i = 0; i < n; i++) {
      x[i] = (x[i] ?? 0) + alpha * (p[i] ?? 0)
      r[i] = (r[i] ?? 0) - alpha * (q[i] ?? 0)
      next += (r[i] ?? 0) ** 2
    }
    for (let i = 0; i < n; i++) p[i] = (r[i] ?? 0) + (next / rr) * (p[i] ?? 0)
    rr = next
  }
  return x
}

export const WEAK = 0.01
