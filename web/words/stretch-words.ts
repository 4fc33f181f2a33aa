import type { SolvedWayOut } from '@/core/engines/stretch/way-candidates'
import type { Proposal } from '@/core/engines/stretch/proposals'
import type { WayOut } from '@/core/model/finding/finding'
import type { Spot } from '@/core/engines/stretch/spots'
import type { Formatter } from './format'
import { wayOutText } from './findings'

const CUTS_AT: Record<NonNullable<Proposal['where']>, string> = {
  corners: 'at the corners',
  top_corners: 'at the top corners',
  bottom_corners: 'at the bottom corners',
  top_and_bottom: 'at top and bottom',
  both_sides: 'at both sides',
  arch_ends: 'at the ends of the wheel arch',
  lamp_ends: 'at the ends of the lamp',
  pillars: 'at the feet of the pillar',
  door_front: 'at the front corners of the door',
}

/** A solved way out in words. */
export function solvedText(way: Pick<SolvedWayOut, 'code' | 'facts'>, fmt: Formatter): string {
  const f = way.facts
  const mm = (key: string) => fmt.text(fmt.length(Number(f[key])))
  const across = f.along === 'width' ? 'from the left' : 'from the top'
  const seams = (parts: number) =>
    parts > 2
      ? `${parts} pieces, seams ${mm('at_mm')} and ${mm('to_mm')} ${across}`
      : f.line
        ? `2 pieces, seam on ${f.line}`
        : `2 pieces, seam ${mm('at_mm')} ${across}`
  const cuts = `${f.count} relief cuts of ${mm('mm')} ${CUTS_AT[f.where as keyof typeof CUTS_AT]}`
  switch (way.code) {
    case 'seam':
      return seams(Number(f.parts))
    case 'slits':
      return cuts
    case 'seam_and_slits':
      return `${seams(Number(f.parts))}; ${cuts}`
    case 'film':
      return `Another film: ${f.film} (bears ${fmt.text(fmt.percent(Number(f.limit)))})`
    default:
      // The rest carry the facts of the ways by the closed forms.
      return wayOutText(way as Pick<WayOut, 'code' | 'facts'>, fmt)
  }
}

export const SEEN: Record<SolvedWayOut['seen'], string> = {
  none: 'none',
  body_line: 'in the body line',
  near_edge: 'near the edge',
  open: 'in the open',
}

export const spotText = (s: Pick<Spot, 'row' | 'column'>): string =>
  s.row === 'middle' && s.column === 'middle'
    ? 'the middle'
    : s.row === 'middle'
      ? `the ${s.column} side`
      : s.column === 'middle'
        ? `the ${s.row}`
        : `the ${s.row} ${s.column} corner`

/** The schools that are laid side by side. */
export const SCHOOL_NAMES: Record<string, [string, string]> = {
  recesses_first: ['Recesses first', 'Pressed in before anything beside them is stuck.'],
  flats_near: ['Flats first, 40 mm kept free', 'Bridged over a short span.'],
  flats_wide: ['Flats first, 200 mm kept free', 'Bridged: a long span shares the stretch.'],
  fed: ['Fed', 'Film comes in from the open side.'],
}

/** What stretch does to the look of a film. */
export const LOOK_TEXT: Record<string, string> = {
  whitens: 'whitens',
  hue: 'shifts its hue',
  print: 'shows the print distorted',
  gloss: 'loses gloss',
}
