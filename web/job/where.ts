import type { Plan } from '@/core/model/plan/schema'
import type { Stage } from '@/core/model/finding/stage'
import type { Place } from '@/web/kit/working'

const FIELDS: Record<string, string> = {
  widthMm: 'width',
  heightMm: 'height',
  crownMm: 'crown',
  crownOverMm: 'straightedge',
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
  crownDownMm: 'crown down',
  crownDownOverMm: 'straightedge down',
  surfaceMinC: 'least surface',
  overlapMm: 'overlap',
  stretchLimit: 'stretch limit',
  heatShrink: 'heat shrink',
  rollResidue: 'tension left in the roll',
  colour: 'colour',
  startAt: 'start',
}

const CONDITIONS: Record<string, string> = {
  air: 'Air of the shop',
  dew_point: 'Dew point',
  area: 'Surface that takes up heat',
  tau: 'Time constant of warming',
  target: 'Surface to reach',
  warming: 'Time to warm',
  lead: 'Time to warm and dry',
  in_by: 'In the shop by',
}

const ROLL_FIGURES: Record<string, string> = {
  used: 'film used',
  bound: 'least possible',
  yield: 'yield',
  order: 'to order',
  cost: 'to buy',
  reserve: 'reserve',
  join: 'join between lots',
  takes: 'film it takes',
  leaves: 'left over',
  area: 'area',
  cuts: 'cuts',
  rests: 'rests to keep',
  above: 'above the least possible',
}

/** Where an input of a figure was entered, in words and as a link. */
export function placeOf(at: string, plan: Plan, jobId: string): Place {
  const [head, id = '', ...rest] = at.split('/')
  const link = (stage: Stage, hash = '') => `/jobs/${jobId}/${stage}${hash ? `#${hash}` : ''}`
  const last = FIELDS[rest.at(-1) ?? ''] ?? rest.at(-1) ?? ''
  const panel = plan.panels.find((p) => p.id === id)?.name ?? id
  switch (head) {
    case 'panels':
      return id
        ? {
            label: `${panel}, ${rest[0] === 'recesses' ? `${plan.panels.find((p) => p.id === id)?.recesses.find((r) => r.id === rest[1])?.name ?? 'recess'}, ` : ''}${last}`,
            href: link('tape', id),
          }
        : { label: 'panels', href: link('tape') }
    case 'pieces':
      return { label: id ? `${panel}, ${last}` : 'pieces', href: link('pieces', id) }
    case 'film':
      return { label: `${plan.film.sheets.find((s) => s.id === id)?.name ?? 'film'}, ${last}`, href: link('film') }
    case 'method':
      return { label: `method, ${FIELDS[id] ?? id}`, href: link('pieces') }
    case 'vehicle':
      return { label: 'body colour', href: link('walkaround') }
    case 'conditions':
    case 'climate':
      return {
        label: head === 'climate' ? 'reading of the shop’s air' : 'conditions',
        href: link('film', 'conditions'),
      }
    case 'layout':
      return { label: 'layout', href: link('roll') }
    case 'stock':
      return { label: 'rack', href: '/rack' }
    case 'runSheet':
    case 'steps':
      return { label: head === 'steps' ? `step ${at.slice(6)}` : 'start', href: link('run-sheet') }
    case 'points':
    case 'log':
      return { label: head === 'log' ? 'readings' : 'heat points', href: link('bay') }
    case 'reckoned':
      return { label: 'the whole job, reckoned with this taken', href: null }
    case 'data':
      return { label: id === 'mesh' ? 'surface that was solved' : 'rule of the trade', href: null }
    default:
      return { label: 'rule of the trade', href: null }
  }
}

/** A figure's name as people would say it. */
export function figureName(id: string, plan: Plan, railWord: (code: string) => string): string {
  const [head, key = '', part = ''] = id.split('/')
  const panel = plan.panels.find((p) => p.id === key.split('.')[0])?.name ?? key
  const film = plan.film.sheets.find((s) => s.id === key)?.name ?? key
  if (head === 'rail') return railWord(key)
  if (head === 'roll') {
    const last = id.split('/').at(-1) ?? ''
    const of = part.startsWith('source:')
      ? `, ${part
          .slice(7)
          .replace(/^lot:/, 'lot ')
          .replace(/^join:/, 'lots ')
          .replace(/^new:/, 'bought, width ')}`
      : part.startsWith('rest:')
        ? `, rest ${part.slice(5)}`
        : ''
    return `${film}${of}: ${ROLL_FIGURES[of ? last : part] ?? part}`
  }
  if (head === 'shingles')
    return `${plan.panels.find((p) => p.id === part)?.name ?? part}: ${id.endsWith('/strip') ? 'width of a strip' : 'sheets'}`
  if (head === 'drops')
    return `${film}, ${part} side: ${({ drops: 'drops', film: 'film of the drops', seam: 'seam' } as Record<string, string>)[(id.split('/')[3] ?? '').replace(/-\d+$/, '')] ?? 'drop'}`
  if (head === 'piece') return `${panel}: cut ${part}`
  if (head === 'panel') return `${panel}: area`
  if (head === 'stretch')
    return `${panel}: ${part === 'worst' ? 'worst stretch' : part === 'crown' ? 'stretch over the crown' : part === 'radius' ? 'radius of the crown' : part === 'alpha' ? 'angle α of the covering cap' : id.endsWith('/profile') ? 'length of the profile across the recess' : `stretch at ${plan.panels.find((p) => p.id === key)?.recesses.find((r) => r.id === part)?.name ?? part}`}`
  if (head === 'fitness')
    return part === 'contrast' || key === ''
      ? 'Contrast of body and film'
      : part === 'cost'
        ? 'Film cost of all panels together'
        : `${plan.panels.find((p) => p.id === part)?.name ?? part}: film cost`
  if (head === 'surface')
    return `${panel}: ${({ worst: 'worst stretch over the surface', mean: 'mean stretch over the surface', post_heat: 'surface to post-heat', area: 'surface', map: 'stretch of the film as it is laid', residual: 'what still pulls after post-heat' } as Record<string, string>)[part] ?? part}`
  if (head === 'way')
    return `${panel}, ${part === 'now' ? 'as it is' : `way out ${Number(part) + 1}`}: ${({ worst: 'worst stretch', over: 'surface past the limit', seam: 'seam', film: 'film more or less', minutes: 'crew time more or less' } as Record<string, string>)[id.split('/')[3] ?? ''] ?? ''}`
  if (head === 'tape') return `${panel}: film at stake`
  if (head === 'conditions') return CONDITIONS[key] ?? key
  if (head === 'squeeze') return `${panel}: squeeze at the corners`
  return id === 'walkaround/contrast' ? 'Contrast of body and film' : id
}
