import { hexDifference } from '@/core/model/vehicle/colour'
import type { Plan } from '@/core/model/plan/schema'
import { keptFor } from '@/core/kit/kept'
import { panelShape, skinOf, type Skin } from '@/core/engines/skin/skin'
import { panelAreaMm2 } from '@/core/model/vehicle/outline'
import type { Edge, Panel } from '@/core/model/vehicle/schema'
import { blockedPanels } from '@/core/engines/paint/blocked-panels'
import { labelPlace } from './label-place'
import { STRETCH_NAMES, stretchBand } from '@/web/pieces/bands'

export const LAYERS = ['state', 'size', 'edges', 'surface', 'film', 'contrast', 'stretch'] as const
/** `plain`: nothing but the panels, for what is drawn over them. */
export type Layer = (typeof LAYERS)[number] | 'plain'

export interface SkinMark {
  id: string
  name: string
  d: string
  /** Key of the legend that it is drawn in. */
  key: string
  fill: string
  x: number
  y: number
  fontSize: number
  /** Turned a quarter where the panel is taller than it is wide. */
  upright: boolean
  /** Second line: what the layer says of it. */
  note: string
  small: boolean
  /** Lettering too small to read while the whole is shown. */
  fine: boolean
  fineNote: boolean
  /** Light lettering, on a dark fill. */
  light: boolean
  edges: { id: string; d: string; key: string; stroke: string | undefined; dash: string | undefined }[]
}

export interface SkinLegend {
  key: string
  label: string
  fill: string
  dash?: string
}

export interface SkinMarks {
  skin: Skin
  marks: SkinMark[]
  legend: SkinLegend[]
}

const BANDS = ['var(--band-1)', 'var(--band-2)', 'var(--band-3)', 'var(--band-4)', 'var(--band-5)'] as const
/** What happens to film at an edge, told apart by dash as well as by shade. */
const EDGE_KEYS: Record<Edge['meets'], 'under' | 'gap' | 'tuck' | 'rail'> = {
  opening: 'under',
  free: 'under',
  wheel_arch: 'under',
  bumper_underside: 'under',
  fixed_gap: 'gap',
  rubber_seal: 'tuck',
  window_trim: 'tuck',
  glass: 'tuck',
  lamp: 'tuck',
  drip_rail: 'rail',
  bead: 'rail',
}

interface Look {
  key: string
  fill: string
  note: string
}

export interface LayerWords {
  area: (mm2: number) => string
  size: (w: number, h: number) => string
  material: (code: string) => string
  /** Worst stretch of a panel as the job has it, and how it is said; null where no film is chosen. */
  stretch?: (panelId: string) => { value: number; text: string } | null
}

/** Fills dark enough to ask for light lettering. */
const isDark = (fill: string): boolean => {
  if (fill === BANDS[4] || fill === BANDS[3]) return true
  const m = /^#(..)(..)(..)$/.exec(fill)
  return (
    m !== null &&
    0.3 * parseInt(m[1] ?? '0', 16) + 0.59 * parseInt(m[2] ?? '0', 16) + 0.11 * parseInt(m[3] ?? '0', 16) < 125
  )
}
const point = ({ x, y }: { x: number; y: number }): string => `${x.toFixed(1)},${y.toFixed(1)}`

/** Where a panel's lettering stands hangs on its outline alone. */
const keptLabel = keptFor((panel: Panel) => labelPlace(panelShape(panel).path))

/** Everything that the map draws, for one layer. Pure: the same plan gives the same marks. */
export function skinMarks(plan: Plan, layer: Layer, words: LayerWords, now: string): SkinMarks {
  const skin = skinOf(plan.panels)
  const byId = new Map(plan.panels.map((p) => [p.id, p]))
  const { look, legend } = lookOf(plan, layer, words, now)
  const least = Math.max(skin.box.right - skin.box.left, (skin.box.bottom - skin.box.top) * 1.7) / 105
  const most = Math.max(150, least * 2.6)
  const marks = skin.panels.map((s): SkinMark => {
    const panel = byId.get(s.id) as Panel
    const shape = panelShape(panel)
    const label = keptLabel(panel)
    const place = { ...label, x: label.x + s.box.left - shape.box.left, y: label.y + s.box.top - shape.box.top }
    const seen = look(panel)
    const fontSize = Math.min(place.across / 2.6, place.along / Math.max(5, panel.name.length * 0.55), most)
    return {
      id: s.id,
      name: panel.name,
      d: `M${s.path.map(point).join('L')}Z`,
      key: seen.key,
      fill: seen.fill,
      x: place.x,
      y: place.y,
      fontSize,
      upright: place.upright,
      note: seen.note,
      small: s.on !== null || place.along < 160,
      fine: fontSize < least,
      fineNote: fontSize * 0.62 < least,
      light: isDark(seen.fill),
      edges:
        layer === 'edges'
          ? s.edges.map((e) => {
              const key = EDGE_KEYS[e.meets]
              const line = legend.find((l) => l.key === key)
              return { id: e.id, d: `M${point(e.from)}L${point(e.to)}`, key, stroke: line?.fill, dash: line?.dash }
            })
          : [],
    }
  })
  // Parts that sit on a panel are drawn over it.
  const on = new Map(skin.panels.map((s) => [s.id, s.on !== null]))
  marks.sort((a, b) => Number(on.get(a.id)) - Number(on.get(b.id)))
  return { skin, marks, legend }
}

type Looks = { look: (p: Panel) => Look; legend: SkinLegend[] }
function lookOf(plan: Plan, layer: Layer, words: LayerWords, now: string): Looks {
  switch (layer) {
    case 'plain':
      return { look: () => ({ key: 'panel', fill: 'var(--plate)', note: '' }), legend: [] }
    case 'stretch':
      return stretchLook(plan, words)
    case 'state':
      return stateLook(plan, now)
    case 'size':
      return sizeLook(plan, words)
    case 'edges':
      return {
        look: (p) => ({ key: 'panel', fill: 'var(--piece)', note: `${p.edges.length} edges` }),
        legend: [
          { key: 'under', label: 'turned under', fill: 'var(--stop)' },
          { key: 'gap', label: 'into a gap', fill: 'var(--ink)', dash: '14 8' },
          { key: 'tuck', label: 'tucked behind trim or seal', fill: 'var(--band-4)', dash: '3 6' },
          { key: 'rail', label: 'cut along a rail or bead', fill: 'var(--brass)', dash: '20 5 4 5' },
        ],
      }
    case 'surface':
      return surfaceLook(plan, words)
    case 'film':
      return filmLook(plan)
    case 'contrast':
      return contrastLook(plan)
  }
}

function stateLook(plan: Plan, now: string): Looks {
  const blocked = blockedPanels(plan, now)
  const states: SkinLegend[] = [
    { key: 'taped', label: 'taped', fill: 'var(--band-3)' },
    { key: 'part', label: 'partly assumed', fill: 'url(#skin-half)' },
    { key: 'assumed', label: 'assumed', fill: 'url(#skin-assumed)' },
    { key: 'blocked', label: 'blocked', fill: 'url(#skin-blocked)' },
    { key: 'off', label: 'not wrapped', fill: 'var(--plate)' },
  ]
  const fill = (key: string) => states.find((s) => s.key === key)?.fill ?? 'var(--plate)'
  return {
    look: (p) => {
      const sizes = ['widthMm', 'heightMm'].filter((f) => p.assumed.includes(f)).length
      const key = blocked.has(p.id)
        ? 'blocked'
        : !p.wrap
          ? 'off'
          : p.assumed.length === 0
            ? 'taped'
            : sizes === 2
              ? 'assumed'
              : 'part'
      return { key, fill: fill(key), note: states.find((s) => s.key === key)?.label ?? '' }
    },
    legend: states,
  }
}

/** Panels by their worst stretch against their film. */
function stretchLook(plan: Plan, words: LayerWords): Looks {
  const none: Look = { key: 'none', fill: 'var(--plate)', note: '' }
  return {
    look: (p) => {
      const film = plan.film.sheets.find((f) => f.id === (p.filmId ?? plan.film.mainId))
      const known = p.wrap && film ? (words.stretch?.(p.id) ?? null) : null
      if (!film || !known) return none
      const { step } = stretchBand(known.value, film)
      return { key: String(step), fill: BANDS[step - 1] ?? BANDS[4], note: known.text }
    },
    legend: [
      ...STRETCH_NAMES.map((label, i) => ({ key: String(i + 1), label, fill: BANDS[i] ?? BANDS[4] })),
      { key: 'none', label: 'no film', fill: 'var(--plate)' },
    ],
  }
}

/** Panels by their area, in five bands. */
function sizeLook(plan: Plan, words: LayerWords): Looks {
  const areas = plan.panels.map((p) => panelAreaMm2(p)).sort((a, b) => a - b)
  const cut = [0.2, 0.4, 0.6, 0.8].map((q) => areas[Math.floor(q * areas.length)] ?? 0)
  const band = (v: number) => cut.filter((c) => v >= c).length
  return {
    look: (p) => {
      const b = band(panelAreaMm2(p))
      return { key: String(b), fill: BANDS[b] ?? BANDS[4], note: words.size(p.widthMm, p.heightMm) }
    },
    legend: BANDS.map((fill, i) => ({
      key: String(i),
      fill,
      label: i === 0 ? `under ${words.area(cut[0] ?? 0)}` : `from ${words.area(cut[i - 1] ?? 0)}`,
    })),
  }
}

/** Panels by what they are made of. */
function surfaceLook(plan: Plan, words: LayerWords): Looks {
  const fills: Record<string, string> = {
    steel: BANDS[1],
    aluminium: BANDS[2],
    plastic: 'url(#skin-dots)',
    glass_fibre: 'url(#skin-lines)',
    unknown: 'var(--plate)',
  }
  const used = new Set(plan.panels.map((p) => p.surface.material))
  return {
    look: ({ surface: { material } }) => ({
      key: material,
      fill: fills[material] ?? 'var(--plate)',
      note: words.material(material),
    }),
    legend: [...used].map((m) => ({ key: m, label: words.material(m), fill: fills[m] ?? 'var(--plate)' })),
  }
}

/** Panels in the colour of their film. */
function filmLook(plan: Plan): Looks {
  const films = new Map(plan.film.sheets.map((s) => [s.id, s]))
  const of = (p: Panel) => films.get(p.filmId ?? plan.film.mainId ?? '')
  return {
    look: (p) => {
      const film = p.wrap ? of(p) : undefined
      return film
        ? { key: film.id, fill: film.colour.hex, note: film.name }
        : { key: 'none', fill: 'var(--plate)', note: p.wrap ? 'no film yet' : 'not wrapped' }
    },
    legend: [...films.values()].map((f) => ({ key: f.id, label: f.name, fill: f.colour.hex })),
  }
}

/** Panels by how far their film stands off the paint. */
function contrastLook(plan: Plan): Looks {
  const films = new Map(plan.film.sheets.map((s) => [s.id, s]))
  const limits = [5, 15, 25, 40]
  return {
    look: (p) => {
      const film = films.get(p.filmId ?? plan.film.mainId ?? '')
      const de = film ? hexDifference(plan.vehicle.colour.hex, film.colour.hex) : null
      if (de === null || !p.wrap) return { key: 'none', fill: 'var(--plate)', note: 'no film yet' }
      const b = limits.filter((l) => de >= l).length
      return { key: String(b), fill: BANDS[b] ?? BANDS[4], note: `ΔE ${de.toFixed(0)}` }
    },
    legend: BANDS.map((fill, i) => ({
      key: String(i),
      fill,
      label: i === 0 ? 'ΔE under 5' : `ΔE from ${limits[i - 1]}${i === 3 ? ': strong' : ''}`,
    })),
  }
}
