import { same } from './merge-section'
import { setSize } from '../vehicle/resize'
import type { Edge, Panel } from '../vehicle/schema'

const LISTS = ['recesses', 'bodyLines', 'raised', 'holes', 'zones'] as const
const SPECIAL: readonly string[] = ['widthMm', 'heightMm', 'edges', 'assumed', ...LISTS]
const ATTRIBUTES = [
  'at',
  'meets',
  'neighbour',
  'gapMm',
  'spanMm',
  'grab',
  'cornerRadiusMm',
  'tightness',
  'opens',
  'cutAs',
  'leaveMm',
] as const satisfies (keyof Edge)[]

/** An item without the place that stretching its panel moves. */
const still = (item: object): string => JSON.stringify({ ...item, xMm: 0, yMm: 0, atMm: 0 })

/**
 * Two people's measures of one panel put together, figure by figure; null where they measured the same one differently.
 * A size typed by one stretches the edges that are still assumed, so it is typed again on the other's panel.
 */
export function mergePanel(was: Panel, my: Panel, their: Panel): Panel | null {
  let out = my
  for (const field of ['widthMm', 'heightMm'] as const) {
    if (their[field] === was[field] || their[field] === my[field]) continue
    if (my[field] !== was[field]) return null
    out = setSize(out, field, their[field])
  }
  const edges = mergeEdges(was, out, my, their)
  if (!edges) return null
  out = { ...out, edges }
  for (const list of LISTS) {
    const merged = mergeList<{ id: string }>(was[list], out[list], their[list])
    if (!merged) return null
    out = { ...out, [list]: merged }
  }
  for (const key of Object.keys(their) as (keyof Panel)[]) {
    if (SPECIAL.includes(key) || same(their[key], was[key])) continue
    if (!same(my[key], was[key]) && !same(my[key], their[key])) return null
    out = { ...out, [key]: their[key] }
  }
  const gone = was.assumed.filter((f) => !my.assumed.includes(f) || !their.assumed.includes(f))
  const assumed = [...new Set([...was.assumed, ...my.assumed, ...their.assumed])].filter((f) => !gone.includes(f))
  return { ...out, assumed }
}

function mergeEdges(was: Panel, out: Panel, my: Panel, their: Panel): Edge[] | null {
  if (same(their.edges, was.edges)) return out.edges
  if (their.edges.length !== was.edges.length || my.edges.length !== was.edges.length)
    return same(my.edges, was.edges) ? their.edges : null
  const merged: Edge[] = []
  for (const edge of out.edges) {
    const [w, m, t] = [was, my, their].map((p) => p.edges.find((e) => e.id === edge.id))
    if (!w || !m || !t) return null
    let next = edge
    const taped = (p: Panel) => !p.assumed.includes(`edges.${edge.id}`)
    const moved = (e: Edge) => !same([e.lengthMm, e.riseMm, e.cornerDeg], [w.lengthMm, w.riseMm, w.cornerDeg])
    if (taped(their) && moved(t)) {
      if (taped(my) && moved(m) && !same(m, t)) return null
      next = { ...next, lengthMm: t.lengthMm, riseMm: t.riseMm, cornerDeg: t.cornerDeg }
    }
    for (const key of ATTRIBUTES) {
      if (same(t[key], w[key])) continue
      if (!same(m[key], w[key]) && !same(m[key], t[key])) return null
      next = { ...next, [key]: t[key] }
    }
    merged.push(next)
  }
  return merged
}

function mergeList<T extends { id: string }>(was: readonly T[], mine: readonly T[], theirs: readonly T[]): T[] | null {
  const out: T[] = []
  for (const id of new Set([...mine, ...theirs].map((x) => x.id))) {
    const [w, m, t] = [was, mine, theirs].map((list) => list.find((x) => x.id === id))
    const [sw, sm, st] = [w, m, t].map((x) => (x ? still(x) : null))
    if (st === sw || st === sm) {
      if (m) out.push(m)
    } else if (sm === sw) {
      if (t) out.push(t)
    } else return null
  }
  return out
}
