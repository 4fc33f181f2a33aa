import { type FindingLevel, type Finding, placed, type Said } from '../../model/finding/finding'
import type { FindingCode, FindingFacts } from '../../model/finding/finding-facts'
import type { Panel } from '../../model/vehicle/schema'

/** Codes about one panel: its name is among their facts. */
export type PanelCode = {
  [C in FindingCode]: 'panel' extends keyof FindingFacts[C] ? C : never
}[FindingCode]

export function say<C extends PanelCode>(
  panel: Panel,
  code: C,
  level: FindingLevel,
  facts: Omit<FindingFacts[C], 'panel'>,
  key = '',
): Finding {
  // With the panel's name the facts are whole again, which `Omit` of an open code cannot show.
  return placed({ code, level, facts: { panel: panel.name, ...facts } } as Said, 'tape', {
    id: `${code}/${panel.id}${key ? `/${key}` : ''}`,
    panelId: panel.id,
  })
}
