import { boxOf, polygonAreaMm2, upToLine, type Point } from '../../kit/plane'
import { CHROME_CLASS, isFormed } from '../../model/film/film-data'
import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import { outlineOf } from '../../model/vehicle/outline'
import type { Panel } from '../../model/vehicle/schema'
import type { CornerDecision } from '../edge/corner-plan'
import { choiceFor } from '../../model/plan/piece-choice'
import { linerOf } from './panel-steps'
import { roughCuts } from './rough-cuts'

export type NeverCode =
  'never_pull' | 'never_on_contour' | 'never_rub' | 'never_still' | 'never_chase' | 'never_dry_felt'

/** How one panel is laid: everything in mm of the panel's own plane, top left of its box at 0, 0. */
export interface LayingCard {
  path: readonly Point[]
  /** The line that is held and squeegeed first. */
  hinge: { from: Point; to: Point; why: 'flattest' | 'shorter' | 'pillar' | 'middle' | 'upright' }
  /** Order of work: 1 is the hinge, then both halves, recesses and corners. */
  zones: readonly { number: number; at: Point; code: 'hinge' | 'half' | 'recess' | 'corner'; name: string }[]
  /** Air leaves from the hinge to these sides. */
  air: readonly { from: Point; to: Point }[]
  heat: readonly { at: Point; code: 'recess' | 'corner' }[]
  corners: readonly { at: Point; method: CornerDecision['method'] }[]
  /** Cut roughly before anything else, the liner on. */
  rough: readonly Point[][]
  liner: Plan['method']['liner']
  never: readonly NeverCode[]
}

interface Given {
  plan: Plan
  panel: Panel
  film: FilmSheet
  corners: readonly CornerDecision[]
}

/** The laying card of one panel, from its outline, its curves, its edges and the film. */
export function layingCard({ plan, panel, film, corners }: Given): LayingCard {
  const outline = outlineOf(panel)
  const scale = { x: panel.widthMm / outline.widthMm, y: panel.heightMm / outline.heightMm }
  const onPanel = (p: Point): Point => ({ x: p.x * scale.x, y: p.y * scale.y })
  const path = outline.path.map(onPanel)
  const hinge = hingeOf(panel, path)
  const isUpright = Math.abs(hinge.from.x - hinge.to.x) < Math.abs(hinge.from.y - hinge.to.y)
  const halves = halvesOf(path, hinge, isUpright)
  const recesses = panel.recesses.map((r) => ({
    at: { x: r.xMm ?? panel.widthMm / 2, y: r.yMm ?? panel.heightMm / 2 },
    name: r.name,
  }))
  const own = corners
    .filter((c) => c.panelId === panel.id)
    .flatMap((c) => {
      const side = outline.edges.find((e) => e.edge.id === c.between[0])
      return side ? [{ at: onPanel(side.to), method: c.method }] : []
    })
  const middle = { x: (hinge.from.x + hinge.to.x) / 2, y: (hinge.from.y + hinge.to.y) / 2 }
  const steps: Omit<LayingCard['zones'][number], 'number'>[] = [
    { at: near(hinge), code: 'hinge', name: '' },
    ...(plan.method.order === 'recesses_first' ? [...named(recesses), ...halves] : [...halves, ...named(recesses)]),
    ...(own[0] ? [{ at: own[0].at, code: 'corner' as const, name: '' }] : []),
  ]
  return {
    path,
    hinge,
    zones: steps.map((z, i) => ({ ...z, number: i + 1 })),
    air: halves.map((h) => ({ from: middle, to: h.at })),
    heat: [
      ...recesses.map(({ at }) => ({ at, code: 'recess' as const })),
      ...own.filter((c) => c.method !== 'seam').map(({ at }) => ({ at, code: 'corner' as const })),
    ],
    corners: own,
    rough: roughCuts(panel, choiceFor(plan, panel, film).bleedMm ?? plan.method.bleedMm).map((r) =>
      r.line.map(onPanel),
    ),
    liner: linerOf(plan, film),
    never: neverOf(film),
  }
}

/** On the hinge near its beginning: its middle is where halves and recesses are marked. */
const near = ({ from, to }: LayingCard['hinge']): Point => ({
  x: from.x + (to.x - from.x) * 0.16,
  y: from.y + (to.y - from.y) * 0.16,
})

const named = (list: readonly { at: Point; name: string }[]) => list.map((r) => ({ ...r, code: 'recess' as const }))

/** Rise of a crown for each metre of its chord squared: how much a line along it is bent. */
const bend = (riseMm: number, overMm: number): number => (overMm > 0 ? (8 * riseMm) / (overMm * overMm) : 0)

/**
 * The hinge: across the flattest line that parts the panel in two halves of equal area. Wings begin at the roof pillar,
 * bumpers in the middle, handles stand upright. Common practice, no source.
 */
function hingeOf(panel: Panel, path: readonly Point[]): LayingCard['hinge'] {
  if (panel.kind === 'handle') return { ...lineAt(path, true, halfAt(path, true)), why: 'upright' }
  if (panel.kind === 'front_bumper' || panel.kind === 'rear_bumper')
    return { ...lineAt(path, true, halfAt(path, true)), why: 'middle' }
  if (panel.kind === 'wing') {
    const box = boxOf(path)
    const at = panel.side === 'left' ? box.right - (box.right - box.left) / 4 : box.left + (box.right - box.left) / 4
    return { ...lineAt(path, true, at), why: 'pillar' }
  }
  // A line along the width is bent by the crown over the width; one along the height by the crown down it.
  const across = bend(panel.crownMm, panel.crownOverMm)
  const down = panel.crownDownMm === null ? across : bend(panel.crownDownMm, panel.crownDownOverMm)
  const alike = Math.abs(across - down) <= Math.max(across, down) * 0.1
  const isUpright = alike ? panel.widthMm >= panel.heightMm : down < across
  return { ...lineAt(path, isUpright, halfAt(path, isUpright)), why: alike ? 'shorter' : 'flattest' }
}

/** Where an upright (or level) line parts the outline in two of equal area: by bisection. */
function halfAt(path: readonly Point[], isUpright: boolean): number {
  const box = boxOf(path)
  let [low, high] = isUpright ? [box.left, box.right] : [box.top, box.bottom]
  const half = Math.abs(polygonAreaMm2(path)) / 2
  for (let i = 0; i < 24; i++) {
    const at = (low + high) / 2
    if (Math.abs(polygonAreaMm2(upToLine(path, isUpright ? 'x' : 'y', at))) < half) low = at
    else high = at
  }
  return (low + high) / 2
}

/** The stretch of an upright or level line that lies within the outline. */
function lineAt(path: readonly Point[], isUpright: boolean, at: number): { from: Point; to: Point } {
  const [along, over] = isUpright ? (['y', 'x'] as const) : (['x', 'y'] as const)
  const hits = path.flatMap((a, i) => {
    const b = path[(i + 1) % path.length]
    if (!b || a[over] === b[over] || (a[over] - at) * (b[over] - at) > 0) return []
    return [a[along] + ((b[along] - a[along]) * (at - a[over])) / (b[over] - a[over])]
  })
  const [low, high] = [Math.min(...hits), Math.max(...hits)]
  return isUpright
    ? { from: { x: at, y: low }, to: { x: at, y: high } }
    : { from: { x: low, y: at }, to: { x: high, y: at } }
}

function halvesOf(path: readonly Point[], hinge: LayingCard['hinge'], isUpright: boolean) {
  const axis = isUpright ? 'x' : 'y'
  const at = hinge.from[axis]
  const box = boxOf(path)
  const centre = (low: number, high: number, across: number): Point =>
    isUpright ? { x: (low + high) / 2, y: across } : { x: across, y: (low + high) / 2 }
  const across = isUpright ? (hinge.from.y + hinge.to.y) / 2 : (hinge.from.x + hinge.to.x) / 2
  const [first, last] = isUpright ? [box.left, box.right] : [box.top, box.bottom]
  return [centre(first, at, across), centre(at, last, across)].map((p) => ({ at: p, code: 'half' as const, name: '' }))
}

/** What must not be done with this film. */
function neverOf(film: FilmSheet): NeverCode[] {
  const mirror = CHROME_CLASS.includes(film.kind)
  return [
    ...(mirror || !isFormed(film.kind) ? (['never_pull'] as const) : []),
    ...(film.conforms === 'flat' ? (['never_on_contour'] as const) : []),
    ...(mirror ? (['never_dry_felt'] as const) : []),
    ...(film.airRelease === 'channels' ? (['never_chase'] as const) : []),
    'never_rub',
    'never_still',
  ]
}
