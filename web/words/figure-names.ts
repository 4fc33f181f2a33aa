import type {
  ConditionCode,
  FigureId,
  HeatPart,
  RollPart,
  SurfacePart,
  WayOutPart,
} from '@/core/model/figure/figure-id'
import type { Plan } from '@/core/model/plan/schema'
import { word } from './names'

/** What an id begins with: `rail`, `roll`, `stretch` … */
type Head = FigureId extends infer I ? (I extends `${infer H}/${string}` ? H : never) : never

const CONDITIONS: Record<ConditionCode, string> = {
  air: 'Air of the shop',
  dew_point: 'Dew point',
  area: 'Surface that takes up heat',
  tau: 'Time constant of warming',
  target: 'Surface to reach',
  warming: 'Time to warm',
  lead: 'Time to warm and dry',
  in_by: 'In the shop by',
}

const ROLL: Record<RollPart, string> = {
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

const SURFACE: Record<SurfacePart, string> = {
  worst: 'worst stretch over the surface',
  mean: 'mean stretch over the surface',
  post_heat: 'surface to post-heat',
  area: 'surface',
  map: 'stretch of the film as it is laid',
  residual: 'what still pulls after post-heat',
}

const OF_WAY_OUT: Record<WayOutPart, string> = {
  worst: 'worst stretch',
  over: 'surface past the limit',
  seam: 'seam',
  film: 'film more or less',
  minutes: 'crew time more or less',
}

const STRETCH: Record<string, string> = {
  worst: 'worst stretch',
  rule: 'worst stretch by the rule',
  crown: 'stretch over the crown',
  radius: 'radius of the crown',
  alpha: 'angle α of the covering cap',
  post_heat: 'surface to post-heat',
  wrinkles: 'surface that wrinkles',
}

const HEAT: Record<HeatPart, string> = {
  pace: 'pace',
  hold: 'hold at the start',
  gap: 'pause between passes',
  peak_low: 'coolest place',
  peak_high: 'hottest place',
  in_band: 'share in the film’s range',
  moving: 'time it moves',
  minutes: 'minutes of post-heat',
}

const FLEET: Record<string, string> = {
  used: 'Film used',
  bound: 'Least possible',
  above: 'Above the least possible',
  yield: 'Yield',
}

const DROPS: Record<string, string> = { drops: 'drops', film: 'film of the drops', seam: 'seam' }

/** Names of panels, films and recesses as the plan has them. */
function namesOf(plan: Plan) {
  const panel = (id = '') => plan.panels.find((p) => p.id === id)
  return {
    panel: (id = '') => panel(id)?.name ?? (id.startsWith('side:') ? `${id.slice('side:'.length)} side` : id),
    edge: (panelId = '', id = '') => `its ${panel(panelId)?.edges.find((e) => e.id === id)?.at ?? 'own'} edge`,
    recess: (panelId = '', id = '') => panel(panelId)?.recesses.find((r) => r.id === id)?.name ?? id,
    film: (id = '') => plan.film.sheets.find((s) => s.id === id)?.name ?? id,
  }
}
type Names = ReturnType<typeof namesOf>

/** A source of film, or a rest of it, as a roll's figure names it. */
function ofRoll(part: string): string {
  if (part.startsWith('rest:')) return `, rest ${part.slice('rest:'.length)}`
  if (!part.startsWith('source:')) return ''
  const source = part.slice('source:'.length)
  return `, ${source
    .replace(/^lot:/, 'lot ')
    .replace(/^join:/, 'lots ')
    .replace(/^new:/, 'bought, width ')}`
}

const NAMES: { [H in Head]: (rest: string[], names: Names) => string } = {
  walkaround: () => 'Contrast of body and film',
  rail: ([code]) => word('rail', code ?? ''),
  conditions: ([code]) => CONDITIONS[(code ?? 'air') as ConditionCode],
  panel: ([id, part], n) => `${n.panel(id)}: ${part === 'minutes' ? 'work on it' : 'area'}`,
  tape: ([id], n) => `${n.panel(id)}: film at stake`,
  piece: ([id = '', axis], n) => `${n.panel(id.split('.')[0])}: cut ${axis}`,
  stretch: ([id, part = '', more], n) => {
    if (more === 'profile') return `${n.panel(id)}: length of the profile across the recess`
    return `${n.panel(id)}: ${STRETCH[part] ?? `stretch at ${n.recess(id, part)}`}`
  },
  corner: ([piece = '', edge = '', part], n) => {
    // A piece over several panels names the panel with the edge.
    const [own = '', panel = piece.split('.')[0]] = edge.split('.').reverse()
    const where = n.edge(panel, own)
    return `${n.panel(panel)}, corner after ${where}: ${part === 'pull' ? 'pull' : 'squeeze'}`
  },
  heat: ([id, part], n) => `${n.panel(id)}, gun along its edges: ${HEAT[(part ?? 'pace') as HeatPart]}`,
  supply: ([kind = '', part]) => {
    if (kind === 'all') return 'Supplies to order'
    return `${word('supply', kind)}${part === 'order' ? ': packs to order' : part === 'cost' ? ': cost of what is to order' : ''}`
  },
  surface: ([id, part], n) => `${n.panel(id)}: ${SURFACE[(part ?? 'worst') as SurfacePart]}`,
  way: ([id, which, part], n) =>
    `${n.panel(id)}, ${which === 'now' ? 'as it is' : `way out ${Number(which) + 1}`}: ${OF_WAY_OUT[(part ?? 'worst') as WayOutPart]}`,
  roll: ([film, ...rest], n) => `${n.film(film)}${ofRoll(rest[0] ?? '')}: ${ROLL[(rest.at(-1) ?? 'used') as RollPart]}`,
  fleet: ([part = '']) => FLEET[part] ?? part,
  drops: ([film, side, part = ''], n) => `${n.film(film)}, ${side} side: ${DROPS[part.replace(/-\d+$/, '')] ?? 'drop'}`,
  shingles: ([, id, part], n) => `${n.panel(id)}: ${part === 'strip' ? 'width of a strip' : 'sheets'}`,
  fitness: ([, part, cost], n) => {
    if (cost) return `${n.panel(part)}: film cost`
    return part === 'contrast' ? 'Contrast of body and film' : 'Film cost of all panels together'
  },
}

/** A figure's name as people would say it; an id of another version is shown as it is. */
export function figureName(id: string, plan: Plan): string {
  const [head = '', ...rest] = id.split('/')
  return Object.hasOwn(NAMES, head) ? NAMES[head as Head](rest, namesOf(plan)) : id
}
