import type { Standing } from '@/core/model/figure/figure'
/** Names of codes as people say them; the second column where American shops say it otherwise. */
// Left unformatted as a table: a row per list of words.
// prettier-ignore
const NAMES: Record<string, Record<string, string | [string, string]>> = {
  panel: {
    bonnet: ['Bonnet', 'Hood'], roof: 'Roof', door: 'Door', wing: ['Wing', 'Fender'], quarter: 'Quarter',
      front_bumper: 'Front bumper', rear_bumper: 'Rear bumper',
    boot_lid: ['Boot lid', 'Trunk lid'], hatch: 'Hatch', tailgate: 'Tailgate', bed_side: 'Bed side', mirror: 'Mirror',
      handle: 'Handle', pillar: 'Pillar', sill: ['Sill', 'Rocker'],
    spoiler: 'Spoiler', van_side: 'Van side', box_side: 'Box side', fuel_flap: 'Fuel flap', hull_side: 'Hull side',
      fairing: 'Fairing', tank_shell: 'Tank shell', other: 'Other',
  },
  side: { left: 'left', right: 'right', centre: ['centre', 'center'], front: 'front', rear: 'rear' },
  edge: { opening: 'opening, under', fixed_gap: 'gap to neighbour', rubber_seal: 'rubber seal', window_trim: 'window trim',
    glass: 'glass', wheel_arch: 'wheel arch', drip_rail: 'drip rail', bumper_underside: 'underside', lamp: 'lamp or grille',
    free: 'free edge', bead: 'sealant bead' },
  film: { cast: 'cast', calendered: 'calendered', hybrid_chrome: 'hybrid chrome', colour_shift: ['colour-shift',
    'color-shift'], printed_cast: 'printed cast + laminate', sheet_goods: 'sheet goods' },
  vehicle: { city_car: 'City hatch', saloon: ['Saloon', 'Sedan'], estate: ['Estate', 'Wagon'], roadster: ['Coupé or roadster',
    'Coupe or roadster'], suv: 'SUV', pickup: 'Pick-up', small_van: 'Small van', high_van: 'High-roof van', minibus: 'Minibus',
    box_body: 'Box body', trailer: 'Trailer', tank: 'Tank', motorcycle: 'Motorcycle fairings', boat: 'Small boat hull',
    other: 'Other' },
  defect: { bubble: 'bubble', wrinkle: 'wrinkle', fingers: 'fingers', overheated: 'overheated', lifted_edge: 'lifted edge',
    cut: 'cut', dirt: 'dirt', wrong_way_up: 'against the arrow', other: 'other' },
  damage: { chip: 'stone chip', dent: 'dent', scratch: 'scratch', rust: 'rust', peeling_clear: 'peeling clear coat',
    previous_film: 'previous film', other: 'other' },
  stage: { walkaround: 'Walkaround', film: 'Film', tape: 'Tape', pieces: 'Pieces', roll: 'Roll', 'run-sheet': 'Run sheet',
    bay: 'Bay', handover: 'Handover' },
  state: { settled: 'settled', open: 'open', missing: 'to do', broken: 'look here' },
  role: { owner: 'owner', lead: 'lead', installer: 'installer', desk: 'desk' },
  origin: { unknown: 'not looked at', factory: 'factory paint', repaint: 'repaint' },
  condition: { unknown: 'not looked at', sound: 'sound', dull: 'dull', peeling: 'peeling clear coat', rust: 'rust' },
  hardware: { remove: 'take off', tape: 'tape round', inlay: 'inlay', tuck_and_cut: 'tuck and cut' },
  tension: { relax_first: 'relax first', triangles: 'triangles' },
  direction: { always: 'all film one direction', directional_only: 'directional film only' },
  order: { flats_first: 'flats first', recesses_first: 'shallow recesses first' },
  liner: { whole: 'whole liner off', halves: 'halves on a hinge' },
  wet: { dry: 'dry', glide: 'a little glide fluid' },
  hardwareSchool: { strip: 'strip hardware', wrap_round: 'wrap round it' },
  heatSource: { gun: 'heat gun', torch: 'torch', infra_red: 'infra-red', steamer: 'steamer' },
  layWarm: { room: 'room temperature', warm_40: 'warmed to 40 °C', channel_65: '65–82 °C in channels' },
  recessWay: { bridge: 'bridge', feed: 'feed', inlay: 'inlay' },
  edges: { film: 'as the film’s sheet says', press_then_heat: 'press, then heat', heat_then_press: 'heat, then press' },
  school: { order: 'Where to begin', tension: 'Tension', liner: 'Liner', wet: 'Felt', hardware: 'Hardware', edges: 'Edges',
    layWarm: 'Laid at', direction: 'Direction', heatSource: 'Heat' },
  material: { unknown: 'not known', steel: 'steel', aluminium: ['aluminium', 'aluminum'], plastic: 'plastic',
    glass_fibre: ['glass-fibre', 'fiberglass'] },
  raised: { handle: 'handle', moulding: ['moulding', 'molding'], aerial: ['aerial', 'antenna'], badge: 'badge',
    jet: 'washer jet', fuel_cap: 'fuel cap', lamp: 'lamp', sensor: 'sensor', other: 'other' },
  neverCover: { lamp: 'lamp', sensor: 'sensor or radar window', camera: 'camera', plate: 'plate', reflector: 'reflector',
    exit_mark: 'emergency-exit mark', cap_label: 'fuel cap label', other: 'other' },
  convexity: { convex: 'convex', concave: 'concave' },
  grab: { low: 'seldom', usual: 'usual', high: 'often' },
  at: { top: 'top', right: 'right', bottom: 'bottom', left: 'left' },
  finish: { gloss: 'gloss', satin: 'satin', matte: 'matte', mirror: 'mirror', shift: 'shift', print: 'print',
    textured: 'textured' },
  key: { length: 'Overall length', height: 'Overall height', width: 'Body width', wheelbase: 'Wheelbase',
    sill: 'Ground to sill', belt: 'Ground to window line', wheel: 'Wheel and tyre', bonnet: ['Bonnet length', 'Hood length'],
    roof: 'Roof length', roofWidth: 'Roof width', doors: 'Side doors', boot: ['Boot lid length', 'Trunk lid length'],
    bed: 'Bed length',
    frame: 'Frame round each face', sidePanels: 'Panels a side', roofPanels: 'Roof panels', rearDoors: 'Rear doors',
      skirt: 'Side skirt height', nose: 'Nose length', wheelAt: 'Front to axle', axles: 'Axles', diameter: 'Diameter',
      strips: 'Strips round', rings: 'Rings along', endRim: 'Rim of the ends', manhole: 'Manhole', walkway: 'Walkway',
      plateHeight: 'Plate carrier',
    tankLength: 'Tank length', tankHeight: 'Tank height', tankWidth: 'Tank width', fairingLength: 'Side fairing length',
      fairingHeight: 'Side fairing height', noseWidth: 'Nose width', noseHeight: 'Nose height', tailLength: 'Tail length',
      tailHeight: 'Tail height', mudguard: 'Mudguard length', mudguardWidth: 'Mudguard width', belly: 'Belly pan length',
    beam: 'Beam', bowHeight: 'Side height at the bow', sternHeight: 'Side height at the stern', rake: 'Rake of the stem',
      transomHeight: 'Transom height', transomWidth: 'Transom width', stripe: 'Rubbing band' },
  edgeOrder: { press_then_heat: 'press, then heat', heat_then_press: 'heat, then press' },
  zone: { mild: 'mild', hot: 'hot' },
  surface: { vertical: 'vertical', horizontal: 'horizontal' },
  verdict: { under: 'under', good: 'good', over: 'over, done', too_hot: 'too hot' },
  entry: { step_started: 'Step started', step_done: 'Step done', step_done_taken_back: 'Step not done after all',
    timer_started: 'Timer started', timer_ended: 'Timer ended', cut_made: 'Cut made', cut_taken_back: 'Cut taken back',
    defect_closed: 'Defect closed' },
  soldBy: { metre: ['by the metre', 'by the meter'], half_metre: ['by the half metre', 'by the half meter'],
    roll: 'by the roll', sheet: 'by the sheet' },
  rail: {
    film_order: 'Film to order', film_used: 'Film used', yield: 'Yield', worst_stretch: 'Worst stretch', seams: 'Seams',
      edges: 'Edges', tape: 'Edge tape', heat_points: 'Heat points due', crew_minutes: 'Crew hours', ready_at: 'Ready at',
      cost: 'To buy',
  },
}

export type WordList = string
export function word(list: WordList, code: string, locale = 'en-GB'): string {
  const entry = NAMES[list]?.[code]
  return Array.isArray(entry) ? entry[locale === 'en-US' ? 1 : 0] : (entry ?? code)
}

export const words = (list: WordList, locale = 'en-GB'): [string, string][] =>
  Object.keys(NAMES[list] ?? {}).map((code) => [code, word(list, code, locale)])

export const STANDING_WORDS: Record<Standing, string> = {
  measured: 'measured',
  film_sheet: 'film sheet',
  published: 'published',
  common_practice: 'common practice',
  assumed: 'assumed',
}

/** A length unit as it is read out. */
export const UNIT_NAMES: Record<'mm' | 'cm' | 'in', string> = { mm: 'millimetres', cm: 'centimetres', in: 'inches' }
