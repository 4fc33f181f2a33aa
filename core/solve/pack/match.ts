import type { Random } from '../../kit/random'
import type { Band } from './band'
import type { Kind } from './kinds'

/**
 * Puts rectangles together where a whole side of one equals a whole side of another, until each is as wide as the strip:
 * what was cut from a sheet with nothing lost comes together again without a search over places. Sides that few others
 * share go first, ties by chance; a dead end starts again, or goes to `rest` for what is left. Null where no such plan as short as `bound` is found.
 */
export function matched(
  kinds: readonly Kind[],
  width: number,
  bound: number,
  random: Random,
  tries: number,
  spent: () => boolean,
  rest?: (blocks: { w: number; l: number; turn: boolean }[]) => { x: number; y: number; turned: boolean }[] | null,
): Band[] | null {
  const area = kinds.reduce((s, k) => s + k.w * k.l * k.items.length, 0)
  const total = bound
  if (Math.abs(area / width - bound) > 1e-6 * Math.max(1, bound)) return null
  const leaves = leavesOf(kinds)
  for (let t = 0; t < tries && !spent(); t++) {
    const done = attempt(leaves, width, total, random, t === 0, rest)
    if (done) return done
  }
  return null
}

const leavesOf = (kinds: readonly Kind[]): Block[] =>
  kinds.flatMap((k, kind) =>
    k.items.map(() => ({ w: k.w, l: k.l, turn: k.turn, kind, a: null, b: null, side: 0 as const })),
  )

/** A rectangle and how it was put together: side 1 along its width, 2 along its length; b may lie turned. */
interface Block {
  w: number
  l: number
  turn: boolean
  kind: number
  a: Block | null
  b: Block | null
  side: 0 | 1 | 2
  turnA?: boolean
  turnB?: boolean
}
const SAME = 1e-5
type Rest = (blocks: { w: number; l: number; turn: boolean }[]) => { x: number; y: number; turned: boolean }[] | null

/** What no longer goes together side by side, placed by `rest` as one sheet with what is done. */
function together(blocks: Block[], finished: Block[], width: number, rest: Rest): Band[] | null {
  const places = rest(blocks)
  if (!places) return null
  const band: Band = { length: 0, kinds: [], x: [], y: [], turned: [] }
  places.forEach((p, i) => {
    const b = blocks[i] as Block
    lay(b, p.x, p.y, p.turned, band)
    band.length = Math.max(band.length, p.y + (p.turned ? b.w : b.l))
  })
  return [...finished.map((b) => bandOf(b, width)), band]
}

function attempt(
  leaves: Block[],
  width: number,
  total: number,
  random: Random,
  greedy: boolean,
  rest?: Rest,
): Band[] | null {
  const wRare = greedy ? 1 : 0.4 + random()
  const wOnward = greedy ? 0.5 : random() * 2
  const noise = greedy ? 0 : random() * 2
  const wSmall = greedy ? 0.3 : random() * random() * 12
  const blocks = [...leaves]
  const finished: Block[] = []
  for (;;) {
    for (let i = blocks.length - 1; i >= 0; i--) {
      const b = blocks[i] as Block
      if (Math.abs(b.w - width) < SAME || (b.turn && Math.abs(b.l - width) < SAME)) {
        finished.push(b)
        blocks[i] = blocks[blocks.length - 1] as Block
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
          const [p, q] = [list[x] as { i: number; side: 1 | 2 }, list[y] as { i: number; side: 1 | 2 }]
          if (p.i === q.i) continue
          const [P, Q] = [blocks[p.i] as Block, blocks[q.i] as Block]
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
    if (!best) return rest ? together(blocks, finished, width, rest) : null
    const [P, Q] = [blocks[best.p] as Block, blocks[best.q] as Block]
    const shared = best.sideP === 1 ? P.w : P.l
    const other = (best.sideP === 1 ? P.l : P.w) + (best.sideQ === 1 ? Q.l : Q.w)
    // The new block as it lies with the shared side across (w) unless a fixed part says otherwise.
    const turn = P.turn && Q.turn
    const fixedAlong = (!P.turn && best.sideP === 2) || (!Q.turn && best.sideQ === 2)
    const block: Block = fixedAlong
      ? { w: other, l: shared, turn, kind: -1, a: P, b: Q, side: 1, turnA: best.sideP === 1, turnB: best.sideQ === 1 }
      : { w: shared, l: other, turn, kind: -1, a: P, b: Q, side: 2, turnA: best.sideP === 2, turnB: best.sideQ === 2 }
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
  if (!b.a || !b.b) {
    into.kinds.push(b.kind)
    into.x.push(x)
    into.y.push(y)
    into.turned.push(turned)
    return
  }
  const turnA = turned !== (b.turnA === true)
  const turnB = turned !== (b.turnB === true)
  lay(b.a, x, y, turnA, into)
  const alongWidth = (b.side === 1) !== turned
  lay(b.b, alongWidth ? x + (turnA ? b.a.l : b.a.w) : x, alongWidth ? y : y + (turnA ? b.a.w : b.a.l), turnB, into)
}
