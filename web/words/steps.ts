import type { Step } from '@/core/engines/run-sheet/step'
import type { Formatter } from './format'

const STEPS: Record<string, [string, string]> = {
  bring_in: ['Bring the vehicle in', 'One night inside serves drying and warming alike. No draught, no direct sun.'],
  hardware_off: ['Hardware off', 'Dirt hides behind it: clean there too. Bag and label the parts.'],
  wash: ['Wash outside', 'Before it comes in. No wax. Mouldings and seams first.'],
  dry: ['Blow and wipe dry', 'Air and cloth: mouldings, seams and gaps.'],
  decontaminate: ['Remove tar and adhesive, clay', 'Remover on the cloth, then clay.'],
  removal_trial: ['Old film: trial patch', 'A hand’s width, warm: does paint stay? Then half a day in the warm room.'],
  removal: [
    'Old film off',
    'Warm, low angle, small sections, even pull. Repainted panels may lose paint: said and signed before.',
  ],
  scuff: ['Scuff and wash until the cloth stays clean', 'Until a paper towel no longer tears on it.'],
  degrease: [
    'Degrease',
    '70 % isopropyl alcohol, doors and lids open: edges, gaps and under every seal. Spray the cloth, not the panel.',
  ],
  degrease_panel: ['Last degrease', 'Edges, then surface, then recesses, tack cloth last: right before its film.'],
  mask: ['Mask and mark', 'Cover wheels, a strip on each neighbour, mark concave and convex zones.'],
  film_in: ['Film into the warm room', 'Upright, wrapped, until it is as warm as the vehicle.'],
  last_wipe: ['Masking off, last wipe', 'Tapes off, hand prints off, no loose film in any hole.'],
  own: ['', ''],
  gas_out: ['Print gases out', 'Rolls stand loose and upright until laminated.'],
  laminate: ['Laminate the print', 'Dust-free, slowly, edges square: what is trapped now stays.'],
  cut: ['Cut pieces and label them', 'Arrow and label on each liner at once, scraps too.'],
  lay: ['Lay', 'Dry fit first. Glass the piece, high points first, then from the middle out.'],
  relax: [
    'Relax the film',
    'Free on its liner, off the panel, at 45°: heated evenly until it draws no further along the roll.',
  ],
  seam: [
    'Trim the seam',
    'The piece below exactly to its line, the piece above on tape that gauges the lap. Press, heat, press cool.',
  ],
  trim: [
    'Corners, edges, tuck, trim',
    'Corners first. Take the tension out of the last centimetres before the cut; cut on the far side.',
  ],
  post_heat: [
    'Post-heat and read',
    'Read after the gun is taken away: in its air stream the thermometer shows too much.',
  ],
  check_round: ['Check all round', 'Warm the surface: trapped air shows as bubbles. Every edge sealed.'],
  rest: ['Rest indoors', 'Overnight and longer, above 10 °C.'],
  recheck: [
    'Recheck',
    'Every recess, bumper underside, convex and concave zone, mirror and pillar. Press back with heat what has lifted.',
  ],
  hardware_on: ['Hardware on', 'Right after its panel is heated and looked at.'],
  hand_over: ['Hand over', 'Walk round with the customer; papers and rests.'],
}

/** A step by its id: what is done, and on which panel or in which film. */
export function stepOfId(id: string, nameOf: (of: string) => string | undefined): string {
  const [code = '', of = ''] = id.split(':')
  const [piece] = of.split('/')
  const name = of && (nameOf(of) ?? nameOf(piece ?? ''))
  return `${STEPS[code]?.[0] ?? code}${name ? `: ${name}` : ''}`
}

export const stepTitle = (s: Pick<Step, 'code' | 'name' | 'panelId'>): string =>
  s.code === 'own' ? s.name : `${STEPS[s.code]?.[0] ?? s.code}${s.name ? `: ${s.name}` : ''}`
const SHORT: Record<string, string> = {
  relax: 'Relax',
  degrease_panel: 'Degrease',
  lay: 'Lay',
  seam: 'Seam',
  trim: 'Trim',
  post_heat: 'Heat',
}
/** A part of a panel's card in a word; the number of the piece where there are several. */
export const stepShort = (s: Pick<Step, 'code' | 'facts'>): string =>
  `${SHORT[s.code] ?? s.code}${s.code === 'lay' && s.facts.number ? ` ${s.facts.number}` : ''}`

export const stepHint = (s: Pick<Step, 'code' | 'facts'>, fmt: Formatter): string => {
  const length = fmt.text(fmt.longLength(Number(s.facts.length_mm ?? 0)))
  if (s.code === 'mask' && Number(s.facts.length_mm) > 0) return `${STEPS.mask?.[1]} ${length} of masking tape.`
  if (s.code === 'post_heat')
    return [
      `${s.facts.points} places, ${length} of edges.`,
      STEPS.post_heat?.[1] ?? '',
      'Press once more as it cools.',
      s.facts.steam ? 'Steam and dry it.' : '',
    ]
      .filter((t) => t !== '')
      .join(' ')
  if (s.code === 'relax') return `${s.facts.cap ? 'Cap sheet off. ' : ''}${STEPS.relax?.[1]}`
  if (s.code === 'seam') return `${length}. ${STEPS.seam?.[1]}`
  if (s.code !== 'lay') return STEPS[s.code]?.[1] ?? ''
  const { order, liner, wet, shape_min_c: from, shape_max_c: to } = s.facts
  return [
    order === 'recesses_first'
      ? 'Dry fit first. Glass the piece; shallow recesses first, then the flats from the middle out.'
      : (STEPS.lay?.[1] ?? ''),
    s.facts.rough
      ? `Rough cut-outs first, liner on: ${fmt.text(fmt.length(Number(s.facts.rough_mm)))} left beside wheel, lamp and glass.`
      : '',
    s.facts.tension === 'rim_shrunk'
      ? 'Pull it flat, tack the rim all round, then shrink the slack out: chase each wrinkle along its length to the edge.'
      : '',
    s.facts.overlay ? 'It lies over the panel’s film, cut by its template, and laps it by 3 mm.' : '',
    s.facts.inlay
      ? 'It lies under the next piece. In a recess: turned over the rim. Behind an object: cut by its template, the next laps it by 3 mm.'
      : '',
    liner === 'halves' ? 'Liner off in halves, on a hinge.' : '',
    wet === 'glide' ? 'A little glide fluid on the felt.' : '',
    from !== undefined
      ? `At room temperature; where it is shaped, warm it to ${fmt.temp(Number(from)).text}–${fmt.text(fmt.temp(Number(to)))}.`
      : '',
  ]
    .filter((t) => t !== '')
    .join(' ')
}

export const CAUTIONS: Record<string, string> = {
  hot: 'Hot film and metal burn at a touch.',
  blade: 'Keep blades off paint, seals, airbag covers and fingers; cut on tape where you can.',
  dust: 'Mask against sanding dust; old bottom paint is poisonous: its sheet first.',
  solvent: 'Ventilate. No flame, no torch, no spark near alcohol or cleaner.',
  torch: 'Torch: gloss film only, and never near solvent vapour.',
  never_cover:
    'Leave free: lamps, plates, sensors, radar and camera windows, reflectors, fuel cap labels, emergency-exit marks.',
  airbag_trim: 'Mirrors, aerials and airbag trims off and on by qualified people.',
}
