import { EDGE_MEETS } from '../vehicle/kinds'
import type { Edge } from '../vehicle/schema'
import { CUT_RULES, SEALS, type CutSide } from './cut-rules'

/** Edges round which film can be turned under its own panel. */
const TURNED: readonly Edge['meets'][] = [
  'opening',
  'fixed_gap',
  'wheel_arch',
  'bumper_underside',
  'free',
  'lamp',
  'drip_rail',
]
/** Edges with a neighbour on which tape or the far side of a gap can be reached. */
const BESIDE: readonly Edge['meets'][] = ['opening', 'fixed_gap', 'lamp', 'drip_rail', 'bead', ...SEALS]

/** What an edge has to meet for each cut side to be there at all. Common practice, no source. */
const CUT_GOES: Record<CutSide, readonly Edge['meets'][]> = {
  far_side: BESIDE,
  own_underside: TURNED,
  tape_on_neighbour: BESIDE,
  filament: EDGE_MEETS,
  seal_middle: SEALS,
  closed_gap: ['opening', 'fixed_gap'],
  flush: EDGE_MEETS,
  none: EDGE_MEETS,
}

/** Whether there is such a place to cut at an edge that meets this. */
export const cutGoes = (meets: Edge['meets'], cut: CutSide): boolean => CUT_GOES[cut].includes(meets)

/** Whether a row of the decision table can have this cut: at all edges that it may be about. */
export const ruleCanCut = (rule: { meets?: readonly Edge['meets'][] }, cut: CutSide): boolean =>
  (rule.meets ?? EDGE_MEETS).every((meets) => cutGoes(meets, cut))

/** What is wrong with a shop's own cut sides: by row of the decision table. */
export const cutFaults = (own: Readonly<Record<string, CutSide>>): { rule: string; code: CutFault }[] =>
  Object.entries(own).flatMap(([id, cut]): { rule: string; code: CutFault }[] => {
    const rule = CUT_RULES.find((r) => r.id === id)
    if (!rule) return [{ rule: id, code: 'no_such_rule' }]
    return ruleCanCut(rule, cut) ? [] : [{ rule: id, code: 'cut_not_there' }]
  })
export type CutFault = 'no_such_rule' | 'cut_not_there'
