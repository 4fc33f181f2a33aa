import type { Step } from '@/core/engines/run-sheet/panel-steps'
import type { Formatter } from './format'

const STEPS: Record<string, [string, string]> = {
  bring_in: ['Bring the vehicle in', 'One night inside serves drying and warming alike. No draught, no direct sun.'],
  hardware_off: ['Hardware off', 'Dirt hides behind it: clean there too. Bag and label the parts.'],
  wash: ['Wash outside', 'Before it comes in. No wax. Mouldings and seams first.'],
  dry: ['Blow and wipe dry', 'Air and cloth: mouldings, seams and gaps.'],
  decontaminate: ['Remove tar and adhesive, clay', 'Remover on the cloth, then clay.'],
  degrease: [
    'Degrease',
    '70 % isopropyl alcohol: edges, then surface, then recesses. Spray the cloth, not the panel. Tack cloth last.',
  ],
  mask: ['Mask and mark', 'Cover wheels, mask what stays free, mark concave and convex zones.'],
  gas_out: ['Print gases out', 'Rolls stand loose and upright until laminated.'],
  laminate: ['Laminate the print', 'Dust-free, slowly, edges square: what is trapped now stays.'],
  cut: ['Cut pieces and label them', 'Arrow and label on each liner at once, scraps too.'],
  lay: ['Lay', 'Dry fit first. Glass the piece, high points first, then from the middle out.'],
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
  hardware_on: ['Hardware on', ''],
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
  `${STEPS[s.code]?.[0] ?? s.code}${s.name ? `: ${s.name}` : ''}`
export const stepHint = (s: Pick<Step, 'code' | 'facts'>, fmt: Formatter | null = null): string => {
  if (s.code !== 'lay') return STEPS[s.code]?.[1] ?? ''
  const { order, liner, wet, shape_min_c: from, shape_max_c: to } = s.facts
  return [
    order === 'recesses_first'
      ? 'Dry fit first. Glass the piece; shallow recesses first, then the flats from the middle out.'
      : (STEPS.lay?.[1] ?? ''),
    liner === 'halves' ? 'Liner off in halves, on a hinge.' : '',
    wet === 'glide' ? 'A little glide fluid on the felt.' : '',
    from !== undefined && fmt
      ? `At room temperature; where it is shaped, warm it to ${fmt.temp(Number(from)).text}–${fmt.text(fmt.temp(Number(to)))}.`
      : '',
  ]
    .filter((t) => t !== '')
    .join(' ')
}

export const CAUTIONS: Record<string, string> = {
  hot: 'Hot film and metal burn at a touch.',
  blade: 'Keep blades off paint, seals, airbag covers and fingers; cut on tape where you can.',
  solvent: 'Ventilate. No flame, no torch, no spark near alcohol or cleaner.',
  torch: 'Torch: gloss film only, and never near solvent vapour.',
  never_cover:
    'Leave free: lamps, plates, sensors, radar and camera windows, reflectors, fuel cap labels, emergency-exit marks.',
  airbag_trim: 'Mirrors, aerials and airbag trims off and on by qualified people.',
}
