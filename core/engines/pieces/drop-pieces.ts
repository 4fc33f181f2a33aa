import { known } from '../../kit/known'
import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import type { Figure } from '../../model/figure/figure'
import type { Piece } from './pieces'
import type { Edge } from '../../model/vehicle/schema'
import { sideDrops, type SideDrops } from './side-drops'
import { dropFigures } from './drop-figures'

/**
 * What of a printed film is laid on the roll: its drops in place of the pieces of the sides that they cover, where the
 * plan takes the sides as drops and their seams find a place; else the pieces as they are. With the drops' figures.
 */
export function withDrops(
  plan: Plan,
  film: FilmSheet,
  own: readonly Piece[],
): { pieces: readonly Piece[]; figures: Figure[] } {
  if (film.kind !== 'printed_cast' || !plan.layout.drops.use) return { pieces: own, figures: [] }
  const figures: Figure[] = []
  const drops: Piece[] = []
  const covered = new Set<string>()
  for (const side of sideDrops(plan, film)) {
    if (!side.plan.ok) continue
    const working = dropFigures(film, side, plan)
    figures.push(...working)
    const covers = side.panels.map((p) => p.id)
    covers.forEach((id) => covered.add(id))
    const fig = (f: string) => known(working.find((x) => x.id.endsWith(`/${f}`)))
    const upright = side.run === 'upright'
    side.plan.value.drops.forEach((d, i, all) =>
      drops.push({
        id: `drop-${side.side}-${d.number}`,
        panelId: `side:${side.side}`,
        covers,
        shares: Object.fromEntries(side.panels.map((p) => [p.id, sharesOf(side, p, rangeOf(side, i))])),
        part: d.number,
        parts: all.length,
        filmId: film.id,
        name: `Drop ${d.number}, ${side.side} side`,
        along: upright ? 'width' : 'height',
        cutWidthMm: upright ? d.widthMm : d.lengthMm,
        cutHeightMm: upright ? d.lengthMm : d.widthMm,
        acrossMm: d.widthMm,
        alongMm: d.lengthMm,
        // Prints run off the printer the same way up, all of one side.
        top: upright ? 'along' : 'across',
        turn: 'fixed',
        upsideDown: false,
        seamMm: i === 0 ? 0 : d.lengthMm,
        outline: null,
        figures: {
          width: fig(`${upright ? 'width' : 'length'}-${d.number}`),
          height: fig(`${upright ? 'length' : 'width'}-${d.number}`),
        },
      }),
    )
  }
  return { pieces: [...own.filter((p) => !covered.has(p.panelId)), ...drops], figures }
}

/** All pieces of a job as they are laid: each film's drops in place of the pieces of the sides that they cover. */
export const asLaid = (plan: Plan, films: ReadonlyMap<string, FilmSheet>, pieces: readonly Piece[]): Piece[] =>
  [...films.values()].flatMap(
    (film) =>
      withDrops(
        plan,
        film,
        pieces.filter((p) => p.filmId === film.id),
      ).pieces,
  )

/** What of the side is a drop's own: from the seam before it to the seam after it, mm along the run of the drops. */
function rangeOf({ plan, sideMm, heightMm, run }: SideDrops, index: number): [number, number] {
  const seams = plan.ok ? plan.value.seamsMm : []
  const end = run === 'upright' ? sideMm : heightMm
  return [index === 0 ? -Infinity : (seams[index - 1] ?? 0), seams[index] ?? end + 1]
}

/** How much of each side of a panel lies between two places along the side of the vehicle. */
function sharesOf(
  { side, run }: SideDrops,
  panel: SideDrops['panels'][number],
  [from, to]: [number, number],
): Record<Edge['at'], number> {
  const [begin, end] = run === 'upright' ? [panel.fromMm, panel.toMm] : [panel.topMm, panel.bottomMm]
  const along = Math.max(0, Math.min(end, to) - Math.max(begin, from)) / Math.max(1e-9, end - begin)
  const isWithin = (mm: number): number => (mm >= from && mm < to ? 1 : 0)
  if (run === 'level') return { top: isWithin(begin), bottom: isWithin(end), left: along, right: along }
  // A left side is looked at with its front to the left.
  const [front, rear] = side === 'left' ? (['left', 'right'] as const) : (['right', 'left'] as const)
  return { top: along, bottom: along, left: 0, right: 0, [front]: isWithin(begin), [rear]: isWithin(end) }
}
