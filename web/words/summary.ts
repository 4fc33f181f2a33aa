import type { PlanEdit } from '@/core/model/plan/merge'

export const SECTION_WORDS: Record<string, string> = {
  walkaround: 'Walkaround',
  name: 'Job name',
  customerRef: 'Customer reference',
  vehicle: 'Vehicle',
  method: 'Method',
  layout: 'Roll layout',
  runSheet: 'Run sheet',
  note: 'Note',
  'film/main': 'Main film',
  conditions: 'Conditions',
}
export const FIELD_WORDS: Record<string, string> = {
  widthMm: 'width',
  heightMm: 'height',
  crownMm: 'crown',
  crownOverMm: 'straightedge',
  crownDownMm: 'crown down',
  crownDownOverMm: 'straightedge down',
  raised: 'raised objects',
  bodyLines: 'body lines',
  surface: 'surface',
  nose: 'nose',
  wraps: 'ends',
  assumed: 'taped',
  cornerRadiusMm: 'corner radius',
  edges: 'edges',
  recesses: 'recesses',
  wrap: 'wrap or not',
  filmId: 'film',
  parts: 'parts',
  bleedMm: 'bleed',
  preStretch: 'pre-stretch',
  kept: 'kept layout',
  startAt: 'start',
  crew: 'crew',
}

const value = (v: unknown): string =>
  typeof v === 'number' ? String(Math.round(v * 100) / 100) : typeof v === 'string' ? v.slice(0, 40) : ''

/** A save in one line: what changed, for the history. */
export function summarise(edits: readonly PlanEdit[]): string {
  const [first] = edits
  if (!first) return 'No change'
  const rest = edits.length > 1 ? ` and ${edits.length - 1} more` : ''
  const what = SECTION_WORDS[first.part] ?? SECTION_WORDS[first.part.split('/')[0] ?? ''] ?? first.name
  if (first.how !== 'changed' && first.part !== 'film/main') return `${what} ${first.how}${rest}`
  const field = first.field ? (FIELD_WORDS[first.field] ?? first.field) : ''
  const [a, b] = [value(first.before), value(first.after)]
  return `${what}${field ? `: ${field}` : ''}${a || b ? ` ${a || '–'} → ${b || '–'}` : ''}${rest}`
}
