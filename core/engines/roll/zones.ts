import { known, nth, mustGet } from '../../kit/known'
import type { Plan } from '../../model/plan/schema'
import { PANEL_FACTS } from '../../model/vehicle/panel-data'
import type { Panel } from '../../model/vehicle/schema'
import type { LotJoin } from './roll-plan'
import type { Piece } from '../pieces/pieces'

/**
 * How much a change of shade shows between two parts of a vehicle, against the same length between two panels in one
 * plane. Common practice, no source: bumpers are plastic and stand a shade off as they are, a roof ends at its drip
 * rails, small parts stand alone.
 */
const SHOWS = { samePlane: 1, otherPlane: 0.45, bumper: 0.3 }
/** A small part of another lot than its side counts as this length of join, mm (assumed). */
const SMALL_PART_MM = 40
const SMALL: readonly Panel['kind'][] = ['mirror', 'handle', 'aerial', 'fuel_flap', 'spoiler', 'fairing']
const MOST_ZONES = 13

interface Zone {
  panels: Panel[]
  small: boolean
}

/**
 * Parts that stay of one lot whatever comes: each side of the vehicle is one, each panel of front, top and rear
 * another.
 */
function zonesOf(panels: readonly Panel[]): Zone[] {
  const out = new Map<string, Zone>()
  for (const panel of panels) {
    const small = SMALL.includes(panel.kind)
    const key =
      panel.side === 'left' || panel.side === 'right'
        ? `${panel.side}${small ? '/small' : ''}`
        : small
          ? 'small'
          : panel.id
    const zone = out.get(key) ?? { panels: [], small }
    zone.panels.push(panel)
    out.set(key, zone)
  }
  const list = [...out.values()]
  while (list.length > MOST_ZONES) {
    const last = known(list.pop())
    nth(list, list.length - 1).panels.push(...last.panels)
  }
  return list
}

/** Edges between panels, each pair once. */
function meetings(panels: readonly Panel[]): { a: Panel; b: Panel; lengthMm: number }[] {
  const byId = new Map(panels.map((p) => [p.id, p]))
  const out = new Map<string, { a: Panel; b: Panel; lengthMm: number }>()
  for (const a of panels)
    for (const edge of a.edges) {
      const b = edge.neighbour ? byId.get(edge.neighbour) : undefined
      if (!b || b.id === a.id) continue
      const key = [a.id, b.id].sort().join('|')
      const had = out.get(key)
      if (!had || had.lengthMm < edge.lengthMm) out.set(key, { a, b, lengthMm: edge.lengthMm })
    }
  return [...out.values()]
}
const isBumper = (p: Panel): boolean => p.kind === 'front_bumper' || p.kind === 'rear_bumper'
const shows = (a: Panel, b: Panel): number =>
  isBumper(a) || isBumper(b)
    ? SHOWS.bumper
    : PANEL_FACTS[a.kind].surface === PANEL_FACTS[b.kind].surface && a.side === b.side
      ? SHOWS.samePlane
      : SHOWS.otherPlane

/**
 * Pieces shared out between two lots with the join where it shows least, exactly, over all ways of sharing out the
 * zones:
 * `fits` says whether a lot takes a set of pieces. Null where none fits.
 */
export function shareLots(
  plan: Plan,
  pieces: readonly Piece[],
  fits: (lot: 0 | 1, some: readonly Piece[]) => boolean,
): { first: Piece[]; second: Piece[]; panels: string[]; seams: LotJoin['seams']; lengthMm: number } | null {
  const used = new Set(pieces.flatMap((p) => p.covers ?? [p.panelId]))
  const zones = zonesOf(plan.panels.filter((p) => used.has(p.id)))
  const zoneOf = new Map(zones.flatMap((z, i) => z.panels.map((p) => [p.id, i] as const)))
  const joints = meetings(zones.flatMap((z) => z.panels))
  // Between each pair of zones: how much a join there shows.
  const n = zones.length
  const between = new Float64Array(n * n)
  const meet = (i: number, j: number, weight: number) => {
    if (i === j) return
    const at = Math.min(i, j) * n + Math.max(i, j)
    between[at] = nth(between, at) + weight
  }
  for (const { a, b, lengthMm } of joints) meet(mustGet(zoneOf, a.id), mustGet(zoneOf, b.id), lengthMm * shows(a, b))
  zones.forEach((z, i) => {
    const home = zones.findIndex((o) => !o.small && o.panels[0]?.side === z.panels[0]?.side)
    if (z.small && home >= 0) meet(i, home, SMALL_PART_MM * z.panels.length)
  })
  const areas = new Float64Array(n)
  for (const p of pieces) {
    const z = zoneOf.get(p.covers?.[0] ?? p.panelId) ?? 0
    areas[z] = nth(areas, z) + p.acrossMm * p.alongMm
  }
  const choices: { mask: number; weight: number; area: number }[] = []
  for (let mask = 1; mask < (1 << n) - 1; mask++) {
    let weight = 0
    let area = 0
    for (let i = 0; i < n; i++) {
      const side = (mask >> i) & 1
      if (!side) area += nth(areas, i)
      for (let j = i + 1; j < n; j++) if (((mask >> j) & 1) !== side) weight += nth(between, i * n + j)
    }
    choices.push({ mask, weight, area })
  }
  // Where it shows least; then with as much as may be from the first lot.
  choices.sort((a, b) => a.weight - b.weight || b.area - a.area)
  for (const { mask } of choices) {
    const side = (p: Piece) => (mask >> (zoneOf.get(p.covers?.[0] ?? p.panelId) ?? 0)) & 1
    const first = pieces.filter((p) => !side(p))
    const second = pieces.filter((p) => side(p))
    if (!fits(0, first) || !fits(1, second)) continue
    const seams = joints
      .filter(({ a, b }) => ((mask >> mustGet(zoneOf, a.id)) & 1) !== ((mask >> mustGet(zoneOf, b.id)) & 1))
      .map(({ a, b, lengthMm }) => ({ a: a.name, b: b.name, lengthMm }))
    return {
      first,
      second,
      panels: [...new Set(second.flatMap((p) => p.covers ?? [p.panelId]))],
      seams,
      lengthMm: seams.reduce((s, x) => s + x.lengthMm, 0),
    }
  }
  return null
}
