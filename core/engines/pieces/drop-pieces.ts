import { known } from '../../kit/known'
import type { FilmSheet } from '../../model/film/schema'
import type { Plan } from '../../model/plan/schema'
import type { Figure } from '../../model/figure/figure'
import type { Piece } from './pieces'
import { sideDrops } from './side-drops'
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
