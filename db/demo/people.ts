import type { Role } from '../client'

export const DEMO_SHOP = {
  id: '5a170000-0000-4000-8000-000000000001',
  name: 'Saltmarsh Film & Wrap',
  town: 'Eddermouth',
  currency: 'EUR',
  timeZone: 'UTC',
  isDemo: true,
}
export const DEMO_PASSWORD = 'eddermouth-tide'
export const DEMO_PEOPLE: { name: string; email: string; role: Role }[] = [
  { name: 'Imre Saltwell', email: 'imre@saltmarsh.example', role: 'owner' },
  { name: 'Tamsin Brack', email: 'tamsin@saltmarsh.example', role: 'lead' },
  { name: 'Joss Ferrin', email: 'joss@saltmarsh.example', role: 'installer' },
  { name: 'Nell Averidge', email: 'nell@saltmarsh.example', role: 'desk' },
]
