import type { Vehicle } from '../schema'

/** One key length of a body style. mm, or a count. Ranges are what the family is made for, not a law (assumed). */
export interface Key {
  key: string
  unit: 'mm' | 'count'
  usual: number
  min: number
  max: number
}
export type Keys = Record<string, number>

const mm = (key: string, usual: number, min: number, max: number): Key => ({ key, unit: 'mm', usual, min, max })
const count = (key: string, usual: number, min: number, max: number): Key => ({ key, unit: 'count', usual, min, max })

/** Key lengths of a car-like body: usual, least, most for each in one order. */
const car = (
  v: Record<
    'length' | 'height' | 'width' | 'wheelbase' | 'sill' | 'belt' | 'wheel' | 'bonnet' | 'roof' | 'roofWidth',
    [number, number, number]
  >,
  doors: [number, number, number],
): Key[] => [...Object.entries(v).map(([key, [usual, min, max]]) => mm(key, usual, min, max)), count('doors', ...doors)]

/** Body styles as parametric families of our own: what is asked for each. Sizes of no real vehicle. */
// Left unformatted as a table: a row per body style, usual/least/most of each key length.
// prettier-ignore
export const STYLES: Record<Exclude<Vehicle['kind'], 'other'>, Key[]> = {
  city_car: car({ length: [3750, 3300, 4300], height: [1500, 1400, 1650], width: [1700, 1560, 1820], wheelbase: [2450, 2250,
    2620], sill: [260, 200, 340], belt: [930, 860, 1010], wheel: [600, 540, 660], bonnet: [860, 650, 1050], roof: [1500, 1200,
    1750], roofWidth: [1120, 1000, 1250] }, [4, 2, 4]),
  saloon: [...car({ length: [4650, 4200, 5200], height: [1450, 1380, 1520], width: [1820, 1720, 1920], wheelbase: [2780, 2600,
    3050], sill: [250, 190, 320], belt: [940, 880, 1010], wheel: [650, 600, 700], bonnet: [1150, 950, 1350], roof: [1350, 1150,
    1550], roofWidth: [1150, 1050, 1280] }, [4, 2, 4]), mm('boot', 620, 450, 800)],
  estate: car({ length: [4700, 4300, 5100], height: [1490, 1400, 1600], width: [1820, 1720, 1920], wheelbase: [2800, 2620,
    3000], sill: [260, 200, 330], belt: [950, 890, 1020], wheel: [650, 600, 700], bonnet: [1120, 900, 1300], roof: [2250, 1900,
    2600], roofWidth: [1150, 1050, 1280] }, [4, 4, 4]),
  roadster: [...car({ length: [4150, 3800, 4550], height: [1270, 1180, 1360], width: [1800, 1680, 1920], wheelbase: [2450,
    2300, 2650], sill: [230, 180, 300], belt: [850, 790, 920], wheel: [640, 590, 700], bonnet: [1200, 950, 1450], roof: [900,
    700, 1150], roofWidth: [1050, 950, 1150] }, [2, 2, 2]), mm('boot', 600, 420, 750)],
  suv: car({ length: [4550, 4100, 5050], height: [1690, 1580, 1900], width: [1880, 1760, 2000], wheelbase: [2720, 2550, 2950],
    sill: [360, 280, 460], belt: [1110, 1020, 1220], wheel: [720, 660, 800], bonnet: [1050, 850, 1250], roof: [1900, 1550,
    2250], roofWidth: [1200, 1080, 1350] }, [4, 4, 4]),
  pickup: [...car({ length: [5250, 4900, 5700], height: [1800, 1680, 1950], width: [1880, 1780, 2050], wheelbase: [3150, 2950,
    3400], sill: [430, 350, 520], belt: [1180, 1080, 1300], wheel: [760, 700, 850], bonnet: [1150, 950, 1350], roof: [1250,
    950, 1550], roofWidth: [1300, 1150, 1450] }, [4, 2, 4]), mm('bed', 1550, 1300, 1800)],
  small_van: car({ length: [4450, 4150, 4850], height: [1850, 1750, 2000], width: [1830, 1750, 1950], wheelbase: [2800, 2650,
    3050], sill: [330, 260, 420], belt: [1080, 1000, 1180], wheel: [640, 600, 700], bonnet: [780, 600, 950], roof: [2900, 2500,
    3300], roofWidth: [1350, 1250, 1500] }, [2, 2, 2]),
  high_van: car({ length: [6000, 5300, 7400], height: [2650, 2350, 2950], width: [2050, 1950, 2200], wheelbase: [3700, 3300,
    4400], sill: [430, 350, 520], belt: [1350, 1250, 1480], wheel: [700, 650, 760], bonnet: [620, 450, 800], roof: [4600, 3900,
    5800], roofWidth: [1650, 1500, 1800] }, [2, 2, 2]),
  minibus: car({ length: [5600, 4900, 6800], height: [2350, 1950, 2700], width: [2000, 1880, 2150], wheelbase: [3350, 3000,
    4000], sill: [400, 320, 500], belt: [1250, 1150, 1380], wheel: [690, 640, 750], bonnet: [650, 500, 850], roof: [4100, 3500,
    5200], roofWidth: [1600, 1450, 1750] }, [2, 2, 2]),
  box_body: [mm('length', 6200, 2500, 13600), mm('height', 2400, 1600, 3000), mm('width', 2450, 1800, 2600), mm('frame', 0, 0,
    120), count('sidePanels', 2, 1, 8), count('roofPanels', 1, 1, 6), count('rearDoors', 2, 1, 2), mm('skirt', 0, 0, 600)],
  trailer: [mm('length', 3500, 1800, 8000), mm('height', 1800, 900, 2400), mm('width', 1750, 1200, 2500), mm('nose', 400, 0,
    900), mm('wheel', 620, 480, 760), mm('wheelAt', 1950, 900, 4800), count('axles', 2, 1, 2), count('sidePanels', 2, 1, 4),
    count('rearDoors', 2, 1, 2)],
  tank: [mm('length', 6000, 2000, 12000), mm('diameter', 1900, 900, 2500), count('strips', 4, 2, 8), count('rings', 2, 1, 6),
    mm('endRim', 0, 0, 60), mm('manhole', 500, 300, 700), mm('walkway', 400, 0, 600), mm('plateHeight', 300, 150, 400)],
  motorcycle: [mm('tankLength', 480, 380, 620), mm('tankHeight', 310, 270, 380), mm('tankWidth', 260, 200, 340),
    mm('fairingLength', 760, 660, 900), mm('fairingHeight', 580, 530, 720), mm('noseWidth', 420, 280, 560), mm('noseHeight',
    380, 240, 480), mm('tailLength', 560, 380, 720), mm('tailHeight', 180, 110, 230), mm('mudguard', 620, 420, 800),
    mm('mudguardWidth', 180, 120, 240), mm('belly', 520, 300, 620)],
  boat: [mm('length', 5600, 3000, 8500), mm('beam', 2100, 1300, 2700), mm('bowHeight', 950, 500, 1400), mm('sternHeight', 750,
    400, 1100), mm('rake', 550, 150, 1000), mm('transomHeight', 650, 350, 1000), mm('transomWidth', 1700, 900, 2300),
    count('sidePanels', 1, 1, 3), mm('stripe', 0, 0, 250)],
}

export const usualKeys = (kind: Exclude<Vehicle['kind'], 'other'>): Keys =>
  Object.fromEntries(STYLES[kind].map((k) => [k.key, k.usual]))
