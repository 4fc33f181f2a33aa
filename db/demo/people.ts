import { DEFAULT_SHOP } from '@/core/model/shop/default-shop'
import type { ShopSettings } from '@/core/model/shop/shop'
import type { Role } from '../client'

export const DEMO_SHOP = {
  id: '5a170000-0000-4000-8000-000000000001',
  name: 'Saltmarsh Film & Wrap',
  town: 'Eddermouth',
  currency: 'EUR',
  timeZone: 'Europe/Dublin',
  isDemo: true,
}
export const DEMO_PASSWORD = 'eddermouth-tide'
export const DEMO_PEOPLE: { name: string; email: string; role: Role }[] = [
  { name: 'Imre Saltwell', email: 'imre@saltmarsh.example', role: 'owner' },
  { name: 'Tamsin Brack', email: 'tamsin@saltmarsh.example', role: 'lead' },
  { name: 'Joss Ferrin', email: 'joss@saltmarsh.example', role: 'installer' },
  { name: 'Nell Averidge', email: 'nell@saltmarsh.example', role: 'desk' },
]

const away = (from: string, to: string) => ({ from, to })
const full = (days: number[], toMinute: number) =>
  days.flatMap((day) => [
    { day, fromMinute: 480, toMinute: 720 },
    { day, fromMinute: 780, toMinute },
  ])

/** What the invented shop says of itself. Guns: what a shop would read off, assumed. */
export const DEMO_SETTINGS: ShopSettings = {
  ...DEFAULT_SHOP,
  timeZone: DEMO_SHOP.timeZone,
  currency: DEMO_SHOP.currency,
  tax: { rate: 0.23, included: false },
  margin: 0.35,
  week: [...full([0, 1, 2, 3], 1020), ...full([4], 960)],
  closed: [
    { date: '2026-12-25', name: 'Christmas' },
    { date: '2026-12-28', name: 'Between the years' },
    { date: '2027-01-01', name: 'New Year' },
  ],
  bays: [
    { id: 'bay-1', name: 'Warm bay' },
    { id: 'bay-2', name: 'Long bay' },
  ],
  people: [
    { id: 'imre', name: 'Imre Saltwell', skills: ['chrome', 'print', 'bumpers'], pace: 1, rate: 62, away: [] },
    {
      id: 'tamsin',
      name: 'Tamsin Brack',
      skills: ['chrome', 'bumpers'],
      pace: 1,
      rate: 58,
      away: [away('2026-12-21', '2026-12-23')],
    },
    { id: 'joss', name: 'Joss Ferrin', skills: ['sheets'], pace: 1.4, rate: 41, away: [] },
    {
      id: 'pilar',
      name: 'Pilar Oakes',
      skills: ['beginner'],
      pace: 3,
      rate: 24,
      away: [away('2026-12-14', '2026-12-14')],
    },
  ],
  supplies: {
    filament: { pack: 50, price: 24, least: 10 },
    wire: { pack: 10, price: 19, least: 5 },
    masking: { pack: 50, price: 6.5, least: 50 },
    sealing: { pack: 33, price: 28, least: 5 },
    holding: { pack: 25, price: 11, least: 5 },
    primer: { pack: 1, price: 16, least: 1 },
    blades: { pack: 50, price: 9, least: 20 },
    felts: { pack: 10, price: 12, least: 4 },
    alcohol: { pack: 1, price: 7, least: 3 },
  },
  guns: [
    { id: 'wide', name: 'Wide nozzle', displayC: 350, airC: 350, coefficient: 105, sigmaMm: 30 },
    { id: 'small', name: 'Small nozzle', displayC: 400, airC: null, coefficient: null, sigmaMm: null },
  ],
}
