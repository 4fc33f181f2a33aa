import { seeded } from '@/core/kit/random'
import { Plan } from '@/core/model/plan/schema'
import { piecesOf } from '@/core/engines/pieces/pieces'
import { familyPanels, STYLES, type Style } from '@/core/model/vehicle/families'
import { DEMO_JOBS } from '@/db/demo/jobs'
export { cutUp } from '../test/fixtures/cut-up'
import type { PackBin, PackItem } from '@/core/solve/pack'

/** What is cut, from a strip of this width; `least` where it is known. */
export interface Instance {
  name: string
  width: number
  items: PackItem[]
  least?: number
  rule: 'guillotine' | 'free'
  bins?: PackBin[]
}
type Row = [id: string, width: number, length: number, count: number, turn: PackItem['turn']]

const CAR: Row[] = [
  ['bonnet', 1450, 1150, 1, 'quarter'],
  ['roof', 1350, 1700, 1, 'quarter'],
  ['door-front', 1150, 850, 2, 'fixed'],
  ['door-rear', 1050, 850, 2, 'fixed'],
  ['wing', 1000, 750, 2, 'fixed'],
  ['quarter', 1250, 900, 2, 'fixed'],
  ['bumper-front', 750, 1480, 1, 'fixed'],
  ['bumper-rear', 800, 1500, 1, 'fixed'],
  ['hatch', 1300, 1000, 1, 'quarter'],
  ['mirror', 350, 300, 2, 'quarter'],
  ['handle', 120, 320, 4, 'fixed'],
  ['pillar', 160, 900, 2, 'quarter'],
  ['sill', 220, 1700, 2, 'fixed'],
  ['rear-pillar', 250, 600, 2, 'quarter'],
  ['spoiler', 1300, 350, 1, 'quarter'],
  ['flap', 250, 250, 1, 'quarter'],
]
const VAN: Row[] = [
  ['roof', 1500, 1900, 3, 'quarter'],
  ['side', 1500, 1800, 4, 'fixed'],
  ['side-short', 1480, 900, 4, 'fixed'],
  ['bonnet', 1500, 800, 1, 'quarter'],
  ['door', 1250, 950, 2, 'fixed'],
  ['slide', 1300, 1500, 1, 'fixed'],
  ['rear', 900, 1450, 2, 'fixed'],
  ['wing', 700, 600, 2, 'fixed'],
  ['bumper-front', 650, 1500, 1, 'fixed'],
  ['bumper-rear', 400, 1500, 1, 'fixed'],
  ['mirror', 400, 350, 2, 'quarter'],
  ['handle', 120, 300, 5, 'fixed'],
  ['sill', 250, 1700, 4, 'fixed'],
  ['pillar', 250, 1300, 4, 'quarter'],
  ['low', 500, 1100, 6, 'fixed'],
]

function sized(name: string, rows: Row[], seed: number, directional: boolean, prefix = ''): Instance {
  const random = seeded(seed)
  const items = rows.flatMap(([id, w, l, count, turn]) => {
    const width = Math.min(1520, Math.round(w * (0.85 + 0.3 * random())))
    const length = Math.round(l * (0.85 + 0.3 * random()))
    return Array.from({ length: count }, (_, copy): PackItem => ({
      id: prefix + id,
      copy: copy + 1,
      width,
      length,
      turn: directional ? turn : 'quarter',
      group: null,
    }))
  })
  return { name, width: 1520, items, rule: 'guillotine' }
}
export const car = (k: number): Instance => sized(`car ${k}`, CAR, 100 + k, k % 2 === 0)
export const van = (k: number): Instance => sized(`van ${k}`, VAN, 300 + k, k % 2 === 0)
export const fleet = (cars: number, seed: number, directional: boolean): Instance => ({
  name: `fleet of ${cars}`,
  width: 1520,
  rule: 'guillotine',
  items: Array.from({ length: cars }, (_, c) => sized('', CAR, seed + c, directional, `${c}-`).items).flat(),
})
/** Rolls of 25 m, eight lots of them. */
const ROLLS: PackBin[] = Array.from({ length: 44 }, (_, k) => ({
  id: `r${k}`,
  width: 1520,
  length: 25_000,
  lot: `L${k % 8}`,
}))

/** A fleet of directional film, each car a group, onto these rolls. */
export function inLots(cars: number, seed: number): Instance {
  const all = fleet(cars, seed, true)
  return {
    ...all,
    items: all.items.map((i) => ({ ...i, group: `car ${i.id.slice(0, i.id.indexOf('-'))}` })),
    bins: ROLLS,
  }
}
/** So many cars alike, each a group, onto rolls of several lots. */
export function alike(cars: number, seed: number): Instance {
  const one = sized('', CAR, seed, true).items
  return {
    name: `${cars} alike`,
    width: 1520,
    rule: 'guillotine',
    items: Array.from({ length: cars }, (_, c) =>
      one.map((i) => ({ ...i, id: `${c}-${i.id}`, group: `car ${c}` })),
    ).flat(),
    bins: ROLLS,
  }
}
const BASE = Plan.parse(DEMO_JOBS[0]?.make())
const STYLE_SEED = 17

/**
 * A vehicle of one of our own body styles with key lengths by chance, its pieces as the app makes them; what is wider
 * than the roll is divided.
 */
export function styled(style: Style, k: number, directional: boolean): Instance {
  const random = seeded(k * STYLE_SEED)
  const keys = Object.fromEntries(
    STYLES[style].map((s) => [s.key, s.unit === 'count' ? s.usual : Math.round(s.min + (s.max - s.min) * random())]),
  )
  const sheet = BASE.film.sheets[0]
  if (!sheet) throw new Error('the demo job has no film')
  const film = { ...sheet, directional }
  const panels = familyPanels(style, keys)
  const plan: Plan = { ...BASE, film: { mainId: film.id, sheets: [film] }, panels, pieces: [] }
  const width = 1520
  const items = panels
    .filter((p) => p.wrap)
    .flatMap((p) => piecesOf(plan, p, film, { strongContrast: false, winter: false }))
    .flatMap((q): PackItem[] => {
      const fits = q.acrossMm <= width || (q.turn === 'quarter' && q.alongMm <= width)
      const parts = fits ? 1 : Math.ceil(q.acrossMm / (width - film.overlapMm))
      const across = fits ? q.acrossMm : q.acrossMm / parts + film.overlapMm
      return Array.from({ length: parts }, (_, i) => ({
        id: q.id,
        copy: i + 1,
        width: Math.round(across),
        length: Math.round(q.alongMm),
        turn: q.turn,
        group: null,
      }))
    })
  return { name: `${style} ${k}`, width, items, rule: 'guillotine' }
}
export function accents(k: number): Instance {
  const random = seeded(500 + k)
  const items = Array.from({ length: 10 + Math.floor(random() * 10) }, (_, i): PackItem => ({
    id: `a${i}`,
    copy: 1,
    width: Math.round(60 + random() * 400),
    length: Math.round(150 + random() * 1300),
    turn: random() < 0.5 ? 'fixed' : 'quarter',
    group: null,
  }))
  return { name: `accents ${k}`, width: 1220, items, rule: 'guillotine' }
}
