import type { Random } from '../../../kit/random'
import type { Band } from '../model/band'
import type { Kind } from '../model/kinds'

/**
 * Puts rectangles together where a whole side of one equals a whole side of another, until each is as wide as the
 * strip: what was cut from a sheet with nothing lost comes together again without a search over places. Sides that few
 * others share go first, ties by chance; a dead end starts again, or goes to `rest` for what is left. Null where no
 * such plan as short as `bound` is found.
 */
export function matched({
  kinds,
  width,
  bound,
  random,
  tries,
  spent,
  rest,
}: {
  kinds: readonly Kind[]
  width: number
  bound: number
  random: Random
  tries: number
  spent: () => boolean
  rest?: (blocks: { w: number; l: number; turn: boolean }[]) => { x: number; y: number; turned: boolean }[] | null
}): Band[] | null {
  const area = kinds.reduce((s, k) => s + k.w * k.l * k.items.length, 0)
  const total = bound
  if (Math.abs(area / width - bound) > 1e-6 * Math.max(1, bound)) return null
  const leaves = leavesOf(kinds)
  for (let t = 0; t < tries && !spent(); t++) {
    const done = attempt({ leaves, width, total, random, greedy: t === 0, early: t % 4 !== 3, rest })
    if (done) return done
  }
  return null
}

const leavesOf = (kinds: readonly Kind[]): Block[] =>
  kinds.flatMap((k, kind) => k.items.map(() => ({ w: k.w, l: k.l, turn: k.turn, kind, parts: [] })))

/**
 * A rectangle and what it was put together from; a single item has no parts. Turned, x and y of its parts change
 * places.
 */
interface Block {
  w: number
  l: number
  turn: boolean
  kind: number
  parts: { block: Block; x: number; y: number; turned: boolean }[]
}
const SAME = 1e-5
type Rest = (blocks: { w: number; l: number; turn: boolean }[]) => { x: number; y: number; turned: boolean }[] | null

/** What no longer goes together side by side, placed by `rest` as one sheet with what is done. */
function joinMatchingSides(blocks: Block[], finished: Block[], width: number, rest: Rest): Band[] | null {
  const places = rest(blocks)
  if (!places) return null
  const band: Band = { length: 0, kinds: [], x: [], y: [], turned: [] }
  places.forEach((p, i) => {
    const b = blocks[i]
    lay(b, p.x, p.y, p.turned, band)
    band.length = Math.max(band.length, p.y + (p.turned ? b.w : b.l))
  })
  return [...finished.map((b) => bandOf(b, width)), band]
}

function attempt({
  leaves,
  width,
  total,
  random,
  greedy,
  early,
  rest,
}: {
  leaves: Block[]
  width: number
  total: number
  random: Random
  greedy: boolean
  early: boolean
  rest?: Rest
}): Band[] | null {
  const wRare = greedy ? 1 : 0.4 + random()
  const wOnward = greedy ? 0.5 : random() * 2
  const noise = greedy ? 0 : random() * 2
  const wSmall = greedy ? 0.3 : random() * random() * 12
  const blocks = [...leaves]
  // Wheels among the items themselves are nearly always real: a chance meeting of four sums is rare.
  if (rest && early)
    for (let five = wheel(blocks, width, total); five; five = wheel(blocks, width, total)) {
      for (const i of [...five.used].sort((p, q) => q - p)) blocks.splice(i, 1)
      blocks.push(five.block)
    }
  const finished: Block[] = []
  for (;;) {
    for (let i = blocks.length - 1; i >= 0; i--) {
      const b = blocks[i]
      if (Math.abs(b.w - width) < SAME || (b.turn && Math.abs(b.l - width) < SAME)) {
        finished.push(b)
        blocks[i] = blocks[blocks.length - 1]
        blocks.pop()
      }
    }
    if (blocks.length === 0) break
    // Sides by length: how many share each.
    const by = new Map<number, { i: number; side: 1 | 2 }[]>()
    const add = (value: number, entry: { i: number; side: 1 | 2 }) => {
      const key = Math.round(value / SAME / 4)
      const list = by.get(key)
      if (list) list.push(entry)
      else by.set(key, [entry])
    }
    blocks.forEach((b, i) => {
      add(b.w, { i, side: 1 })
      add(b.l, { i, side: 2 })
    })
    let best: { p: number; q: number; sideP: 1 | 2; sideQ: 1 | 2 } | null = null
    let bestScore = Infinity
    for (const list of by.values()) {
      if (list.length < 2) continue
      for (let x = 0; x < list.length; x++)
        for (let y = x + 1; y < list.length; y++) {
          const [p, q] = [list[x], list[y]]
          if (p.i === q.i) continue
          const [P, Q] = [blocks[p.i], blocks[q.i]]
          if (!P.turn && !Q.turn && p.side !== q.side) continue
          const shared = p.side === 1 ? P.w : P.l
          const other = (p.side === 1 ? P.l : P.w) + (q.side === 1 ? Q.l : Q.w)
          // How it would lie: shared side across the strip or along it.
          const canAcross =
            (P.turn || p.side === 1) && (Q.turn || q.side === 1) && shared <= width + SAME && other <= total + SAME
          const canAlong =
            (P.turn || p.side === 2) && (Q.turn || q.side === 2) && other <= width + SAME && shared <= total + SAME
          if (!canAcross && !canAlong) continue
          // Few others share the side; and what comes of it has itself a partner, or spans the sheet.
          const rare = Math.min(12, list.length - 2)
          const key = Math.round(other / SAME / 4)
          const onward = by.has(key) || Math.abs(other - width) < SAME || Math.abs(other - total) < SAME
          const score =
            rare * wRare -
            (onward ? wOnward : 0) +
            (noise > 0 ? random() * noise : 0) +
            ((shared + other) / width) * wSmall
          if (score < bestScore) {
            bestScore = score
            best = { p: p.i, q: q.i, sideP: p.side, sideQ: q.side }
          }
        }
    }
    if (!best) {
      // No two go together: five that make a wheel, where any placement is allowed; else whatever `rest` finds.
      const five = rest ? wheel(blocks, width, total) : null
      if (five) {
        for (const i of [...five.used].sort((p, q) => q - p)) blocks.splice(i, 1)
        blocks.push(five.block)
        continue
      }
      return rest ? joinMatchingSides(blocks, finished, width, rest) : null
    }
    const [P, Q] = [blocks[best.p], blocks[best.q]]
    const shared = best.sideP === 1 ? P.w : P.l
    const other = (best.sideP === 1 ? P.l : P.w) + (best.sideQ === 1 ? Q.l : Q.w)
    // The new block as it lies with the shared side across (w) unless a fixed part says otherwise.
    const turn = P.turn && Q.turn
    const fixedAlong = (!P.turn && best.sideP === 2) || (!Q.turn && best.sideQ === 2)
    const [turnP, turnQ] = [best.sideP === (fixedAlong ? 1 : 2), best.sideQ === (fixedAlong ? 1 : 2)]
    const first = fixedAlong ? (turnP ? P.l : P.w) : turnP ? P.w : P.l
    const block: Block = {
      w: fixedAlong ? other : shared,
      l: fixedAlong ? shared : other,
      turn,
      kind: -1,
      parts: [
        { block: P, x: 0, y: 0, turned: turnP },
        { block: Q, x: fixedAlong ? first : 0, y: fixedAlong ? 0 : first, turned: turnQ },
      ],
    }
    const [high, low] = best.p > best.q ? [best.p, best.q] : [best.q, best.p]
    blocks.splice(high, 1)
    blocks.splice(low, 1)
    blocks.push(block)
  }
  return finished.map((b) => bandOf(b, width))
}

function bandOf(b: Block, width: number): Band {
  const turned = Math.abs(b.w - width) >= SAME
  const band: Band = { length: turned ? b.w : b.l, kinds: [], x: [], y: [], turned: [] }
  lay(b, 0, 0, turned, band)
  return band
}

function lay(b: Block, x: number, y: number, turned: boolean, into: Band): void {
  if (b.parts.length === 0) {
    into.kinds.push(b.kind)
    into.x.push(x)
    into.y.push(y)
    into.turned.push(turned)
    return
  }
  for (const p of b.parts) lay(p.block, x + (turned ? p.y : p.x), y + (turned ? p.x : p.y), turned !== p.turned, into)
}

/**
 * Five blocks that make a larger rectangle as a wheel round the smallest of them, where no straight cut parts them:
 * a.w = d.w + e.w, b.l = a.l + e.l, c.w = b.w + e.w, d.l = c.l + e.l for the middle one e. Null where there are none.
 */
function wheel(blocks: readonly Block[], width: number, total: number): { block: Block; used: number[] } | null {
  const key = (v: number) => Math.round(v / SAME / 4)
  interface Lying {
    i: number
    w: number
    l: number
    turned: boolean
  }
  const all: Lying[] = blocks.flatMap((b, i) => [
    { i, w: b.w, l: b.l, turned: false },
    ...(b.turn && Math.abs(b.w - b.l) > SAME ? [{ i, w: b.l, l: b.w, turned: true }] : []),
  ])
  const byW = new Map<number, Lying[]>()
  const byL = new Map<number, Lying[]>()
  const put = (map: Map<number, Lying[]>, k: number, it: Lying) => {
    const list = map.get(k)
    if (list) list.push(it)
    else map.set(k, [it])
  }
  for (const it of all) {
    put(byW, key(it.w), it)
    put(byL, key(it.l), it)
  }
  for (const e of all) {
    // The whole may be turned: of a middle that may turn only one way need be tried.
    if (e.turned) continue
    for (const d of all) {
      if (d.i === e.i || d.l <= e.l + SAME) continue
      for (const a of byW.get(key(d.w + e.w)) ?? []) {
        if (a.i === e.i || a.i === d.i || a.l + d.l > total + SAME) continue
        for (const b of byL.get(key(a.l + e.l)) ?? []) {
          if (b.i === e.i || b.i === d.i || b.i === a.i || a.w + b.w > Math.max(width, total) + SAME) continue
          for (const c of byW.get(key(b.w + e.w)) ?? []) {
            if (c.i === e.i || c.i === d.i || c.i === a.i || c.i === b.i) continue
            if (Math.abs(c.l + e.l - d.l) > SAME) continue
            const five = [a, b, c, d, e]
            const turn = five.every((it) => blocks[it.i].turn)
            const [w, l] = [a.w + b.w, a.l + d.l]
            if (!(w <= width + SAME && l <= total + SAME) && !(turn && l <= width + SAME && w <= total + SAME)) continue
            const part = (it: Lying, x: number, y: number) => ({
              block: blocks[it.i],
              x,
              y,
              turned: it.turned,
            })
            return {
              used: five.map((it) => it.i),
              block: {
                w,
                l,
                turn,
                kind: -1,
                parts: [part(a, 0, 0), part(b, a.w, 0), part(c, d.w, b.l), part(d, 0, a.l), part(e, d.w, a.l)],
              },
            }
          }
        }
      }
    }
  }
  return null
}
