import type { TapeQuestion } from '@/core/stages/tape/tape-answer'
import type { Formatter } from '@/web/words/format'

const edge = (id: string): string => id.replace(/-(\d+)$/, ', run $1')

/** What is asked, in a few words. */
export function questionName(q: TapeQuestion, fmt: Formatter): string {
  switch (q.ask) {
    case 'width':
      return 'width'
    case 'height':
      return 'height'
    case 'crown':
      return `crown under ${fmt.text(fmt.length(q.overMm ?? 0))}`
    case 'crown_down':
      return `crown down, under ${fmt.text(fmt.length(q.overMm ?? 0))}`
    case 'corner_radius':
      return 'corner radius'
    case 'edge':
      return `${edge(q.about)} edge`
    case 'recess_depth':
      return `${q.about} depth`
    case 'body_line':
      return `${q.about} position`
    case 'nose':
      return 'nose radius'
    case 'wraps':
      return 'radius of its ends'
    case 'gap':
      return `gap at the ${edge(q.about)} edge`
    case 'seal':
      return `seal at the ${edge(q.about)} edge`
    default:
      return q.about
  }
}

/** How it is taken, for whoever does it the first time. */
export function questionHint(q: TapeQuestion, fmt: Formatter): string {
  switch (q.ask) {
    case 'width':
      return 'Soft tape along the surface, side to side, over the highest point.'
    case 'height':
      return 'Soft tape along the surface, top to bottom (front to rear on a flat panel), over the highest point.'
    case 'crown':
    case 'crown_down':
      return (
        `Lay the ${fmt.text(fmt.length(q.overMm ?? 0))} straightedge ` +
        `${q.ask === 'crown' ? 'across' : 'down'} the panel so that it touches in the middle; add the ` +
        'gaps at both ends and halve them. 0 where it lies flat.'
      )
    case 'corner_radius':
      return 'Radius gauge, or a coin that fits the corner.'
    case 'edge':
      return 'Tape along the edge, round its curve.'
    case 'recess_depth':
      return 'Rule from a straightedge over the mouth down to the floor.'
    case 'body_line':
      return 'From the top or left edge to the crease.'
    case 'nose':
      return 'Radius gauge over the roll of the nose.'
    case 'wraps':
      return 'Radius gauge where the panel turns round at its ends.'
    case 'gap':
      return 'Gauge or stacked cards between this panel and the next; a seal by its width. A window or a wheel is typed as wide as it is.'
    case 'seal':
      return 'Push a soft tool under it and see how much it takes.'
    default:
      return ''
  }
}
