import type { Stage } from '@/core/model/finding/stage'
import type { Plan } from '@/core/model/plan/schema'
import type { Place } from '@/web/kit/working'
import { stepOfId } from './steps'

const FIELDS: Record<string, string> = {
  widthMm: 'width',
  heightMm: 'height',
  crownMm: 'crown',
  crownOverMm: 'straightedge',
  crownDownMm: 'crown down',
  crownDownOverMm: 'straightedge down',
  cornerRadiusMm: 'corner radius',
  edges: 'edges',
  depthMm: 'depth',
  mouthWidthMm: 'mouth width',
  mouthHeightMm: 'mouth height',
  wallDeg: 'wall angle',
  gapMm: 'free gap',
  parts: 'pieces',
  bleedMm: 'bleed',
  flat: 'flat outline',
  slits: 'relief cuts',
  seamsAtMm: 'seams',
  widthsMm: 'roll width',
  rollLengthsMm: 'roll length',
  soldBy: 'how it is sold',
  offers: 'how its widths are sold',
  surfaceMinC: 'least surface',
  overlapMm: 'overlap',
  stretchLimit: 'stretch limit',
  heatShrink: 'heat shrink',
  rollResidue: 'tension left in the roll',
  colour: 'colour',
  startAt: 'start',
}

const HOURS: Record<string, string> = {
  opens: 'the shop opens',
  closes: 'the shop closes',
  week: 'the shop is open in a week',
  supplies: 'how supplies are bought',
  guns: 'the shop’s guns',
}

const field = (name = ''): string => FIELDS[name] ?? name

/** Where an input was entered, taken apart: the part of the plan, what of it, and the field. */
interface At {
  id: string
  rest: string[]
  last: string
  plan: Plan
  link: (stage: Stage, hash?: string) => string
}

const panelOf = ({ plan, id }: At) => plan.panels.find((p) => p.id === id)
const panelName = (at: At): string => panelOf(at)?.name ?? at.id

/** By what a place begins with. */
const PLACES: Record<string, (at: At) => Place> = {
  panels: (at) => {
    if (at.id === '') return { label: 'panels', href: at.link('tape') }
    const recess = at.rest[0] === 'recesses' ? panelOf(at)?.recesses.find((r) => r.id === at.rest[1]) : undefined
    const of = at.rest[0] === 'recesses' ? `${recess?.name ?? 'recess'}, ` : ''
    return { label: `${panelName(at)}, ${of}${at.last}`, href: at.link('tape', at.id) }
  },
  pieces: (at) => {
    const side = /^side:(\w+)$/.exec(at.id)?.[1]
    if (side) return { label: `drops of the ${side} side`, href: at.link('roll') }
    return {
      label: at.id ? `${panelName(at)}, ${at.last}` : 'pieces',
      href: at.link('pieces', at.id),
    }
  },
  film: ({ plan, id, last, link }) => ({
    label: `${plan.film.sheets.find((s) => s.id === id)?.name ?? 'film'}, ${last}`,
    href: link('film'),
  }),
  method: ({ id, link }) => ({ label: `method, ${field(id)}`, href: link('pieces') }),
  vehicle: ({ link }) => ({ label: 'body colour', href: link('walkaround') }),
  conditions: ({ link }) => ({ label: 'conditions', href: link('film', 'conditions') }),
  climate: ({ link }) => ({ label: 'reading of the shop’s air', href: link('film', 'conditions') }),
  layout: ({ link }) => ({ label: 'layout', href: link('roll') }),
  stock: () => ({ label: 'rack', href: '/rack' }),
  runSheet: ({ id, link }) => ({ label: id === 'paceFactor' ? 'pace of the crew' : 'start', href: link('run-sheet') }),
  steps: ({ id, rest, link, plan }) => ({
    label: id
      ? stepOfId([id, ...rest].join('/'), (of) => [...plan.panels, ...plan.film.sheets].find((x) => x.id === of)?.name)
      : 'steps',
    href: link('run-sheet'),
  }),
  shop: ({ id }) => ({ label: HOURS[id] ?? 'the shop', href: '/shop' }),
  points: ({ link }) => ({ label: 'heat points', href: link('bay') }),
  log: ({ link }) => ({ label: 'readings', href: link('bay') }),
  reckoned: () => ({ label: 'the whole job, reckoned with this taken', href: null }),
  data: ({ id }) => ({
    label: id === 'mesh' ? 'parts of the surface that was solved' : 'rule of the trade',
    href: null,
  }),
}

/** Where an input of a figure was entered, in words and as a link. */
export function placeOf(at: string, plan: Plan, jobId: string): Place {
  const [head = '', id = '', ...rest] = at.split('/')
  const place = Object.hasOwn(PLACES, head) ? PLACES[head] : undefined
  if (!place) return { label: 'rule of the trade', href: null }
  const link = (stage: Stage, hash = '') => `/jobs/${jobId}/${stage}${hash ? `#${hash}` : ''}`
  return place({ id, rest, last: field(rest.at(-1)), plan, link })
}
