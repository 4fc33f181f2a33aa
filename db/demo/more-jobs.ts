import { newPlan } from '@/core/model/plan/new-plan'
import type { Plan } from '@/core/model/plan/schema'
import { familyPanels, usualKeys } from '@/core/model/vehicle/families'
import { Walkaround } from '@/core/model/vehicle/walkaround-schema'
import { factory, sheet } from './jobs'

/** A job whose panels are its style's own, nothing taped yet. */
const taken = (
  name: string,
  ref: string,
  vehicle: { name: string; kind: Exclude<Plan['vehicle']['kind'], 'other'>; colour: Plan['vehicle']['colour'] },
  filmId: string | null,
): Plan => {
  const keys = usualKeys(vehicle.kind)
  const plan = newPlan(name, ref, { ...vehicle, keys, keysAssumed: Object.keys(keys) })
  return {
    ...plan,
    walkaround: Walkaround.parse({ paint: factory(3), damage: [], hardware: [], zone: 'mild', note: '' }),
    film: filmId ? { mainId: filmId, sheets: [sheet(filmId)] } : plan.film,
    panels: familyPanels(vehicle.kind, keys),
  }
}
const colour = (name: string, hex: string) => ({ name, hex })

/** More of the shop's week, for the board: in early stages, with starts and promises a few days from now. */
export const DEMO_MORE_JOBS: { id: string; make: () => Plan; startsIn: number | null; promisedIn: number | null }[] = [
  {
    id: '5a170000-0000-4000-8000-000000000011',
    make: () =>
      taken(
        'Tern launch, reed texture',
        'SFW-2619',
        { name: 'Tern launch', kind: 'boat', colour: colour('White', '#e9ebe8') },
        'reed-sheet',
      ),
    startsIn: 2,
    promisedIn: 9,
  },
  {
    id: '5a170000-0000-4000-8000-000000000012',
    make: () =>
      taken(
        'Saltmarsh runabout, two-tone trailer',
        'SFW-2620',
        { name: 'Box trailer', kind: 'trailer', colour: colour('Silver', '#b9bdc1') },
        null,
      ),
    startsIn: 7,
    promisedIn: null,
  },
  {
    id: '5a170000-0000-4000-8000-000000000013',
    make: () =>
      newPlan('Orley saloon, colour to be chosen', 'SFW-2621', {
        name: 'Orley 4',
        kind: 'saloon',
        colour: colour('Dark blue', '#223a63'),
      }),
    startsIn: null,
    promisedIn: null,
  },
  {
    id: '5a170000-0000-4000-8000-000000000014',
    make: () =>
      newPlan('Plover minibus, school run', 'SFW-2622', {
        name: 'Plover 14',
        kind: 'minibus',
        colour: colour('White', '#f1f1ee'),
      }),
    startsIn: null,
    promisedIn: null,
  },
  {
    id: '5a170000-0000-4000-8000-000000000015',
    make: () =>
      newPlan('Curlew estate, roof and mirrors', 'SFW-2623', {
        name: 'Curlew',
        kind: 'estate',
        colour: colour('Red', '#8d1f24'),
      }),
    startsIn: null,
    promisedIn: null,
  },
  {
    id: '5a170000-0000-4000-8000-000000000016',
    make: () =>
      taken(
        'Redshank fairings, slate matte',
        'SFW-2624',
        { name: 'Redshank', kind: 'motorcycle', colour: colour('Black', '#1b1c1f') },
        'slate-matte',
      ),
    startsIn: 3,
    promisedIn: 6,
  },
  {
    id: '5a170000-0000-4000-8000-000000000017',
    make: () =>
      newPlan('Dunlin small van, lettering', 'SFW-2625', {
        name: 'Dunlin',
        kind: 'small_van',
        colour: colour('White', '#f4f4f0'),
      }),
    startsIn: null,
    promisedIn: null,
  },
]
