import { issueFault } from '../../kit/first-fault'
import type { Fault } from '../../kit/result'
import { itemKey } from './item-key'
import { Plan } from './schema'

/** One figure that was typed and is not saved: where it stands, by the ids of its lists, and what is wrong with it. */
export interface HeldBack {
  /** `panels/bonnet/crownMm`: sections, ids and fields, as places of inputs are named. */
  place: string
  fault: Fault
}
export interface SoundPlan {
  plan: Plan
  held: HeldBack[]
}

type Json = unknown
type Path = readonly PropertyKey[]
const isList = (value: Json): value is Json[] => Array.isArray(value)
const isThing = (value: Json): value is Record<string, Json> =>
  typeof value === 'object' && value !== null && !Array.isArray(value)
/** How much is put back, round by round, where less did not make the plan sound. */
const ROUNDS = ['figure', 'item', 'top item', 'section'] as const

/**
 * The part of a typed plan that may be saved: each figure that the schema refuses is put back to what is saved already,
 * and listed. A figure of something new takes the whole new thing with it. What cannot be mended by figures is put back
 * by item, then by section; in the end the saved plan itself is sound.
 */
export function soundPlan(typed: Plan, saved: Plan): SoundPlan {
  let plan: Json = typed
  const held = new Map<string, HeldBack>()
  for (const round of ROUNDS)
    for (let turn = 0; turn < 40; turn++) {
      const parsed = Plan.safeParse(plan)
      if (parsed.success) return { plan: parsed.data, held: [...held.values()] }
      const issue = parsed.error.issues[0]
      if (!issue) break
      const place = placeOfPath(plan, issue.path)
      if (!held.has(place)) held.set(place, { place, fault: issueFault(issue) })
      const next = putBack(plan, saved, cutPath(plan, issue.path, round))
      if (JSON.stringify(next) === JSON.stringify(plan)) break
      plan = next
    }
  return { plan: saved, held: [...held.values()] }
}

/** A path by list positions as a place by ids. */
function placeOfPath(root: Json, path: Path): string {
  const words: string[] = []
  let at: Json = root
  for (const key of path) {
    const next = isList(at) || isThing(at) ? (at as Record<PropertyKey, Json>)[key] : undefined
    words.push(isList(at) ? (itemKey(next) ?? String(key)) : String(key))
    at = next
  }
  return words.join('/')
}

/** How far down a path is put back in a round. */
function cutPath(root: Json, path: Path, round: (typeof ROUNDS)[number]): Path {
  if (round === 'figure') return path
  if (round === 'section') return path.slice(0, 1)
  const items: number[] = []
  let at: Json = root
  path.forEach((key, i) => {
    if (isList(at)) items.push(i + 1)
    at = isList(at) || isThing(at) ? (at as Record<PropertyKey, Json>)[key] : undefined
  })
  const depth = round === 'item' ? items.at(-1) : items[0]
  return path.slice(0, depth ?? 1)
}

/**
 * `mine` with what stands at `path` as it is in `saved`; list items are matched by id, and one that is not there
 * goes.
 */
function putBack(mine: Json, saved: Json, path: Path): Json {
  const [key, ...rest] = path
  if (key === undefined) return saved
  if (isList(mine)) {
    const index = Number(key)
    const id = itemKey(mine[index])
    const was = isList(saved) ? (id === null ? saved[index] : saved.find((item) => itemKey(item) === id)) : undefined
    if (was === undefined) return mine.filter((_, i) => i !== index)
    return mine.map((item, i) => (i === index ? (rest.length === 0 ? was : putBack(item, was, rest)) : item))
  }
  if (!isThing(mine)) return saved
  const was = isThing(saved) ? saved[String(key)] : undefined
  if (was === undefined && rest.length === 0) {
    const { [String(key)]: _gone, ...others } = mine
    return others
  }
  return { ...mine, [String(key)]: rest.length === 0 ? was : putBack(mine[String(key)], was, rest) }
}
