import type { FilmSheet } from '../../model/film/schema'
import type { Step, Wait } from './step'

/** Work on the film, not at the vehicle: it goes on beside washing and drying. */
export const BESIDE: readonly string[] = ['gas_out', 'laminate', 'film_in', 'cut']
export const PRINT: readonly string[] = ['gas_out', 'laminate']
/** Steps of one panel, in their order. */
const ON_PANEL: readonly string[] = ['relax', 'degrease_panel', 'lay', 'seam', 'trim', 'post_heat']
export const isOnPanel = (s: Pick<Step, 'code' | 'panelId'>): boolean => s.panelId !== null && ON_PANEL.includes(s.code)

const after = (step: Step | undefined, leastMin = step?.waitMin ?? 0, mostMin: number | null = null): Wait[] =>
  step ? [{ id: step.id, leastMin, mostMin }] : []

/**
 * What each of the steps that are to be done waits for. Print is gassed out and laminated before the vehicle comes;
 * film is cut beside its preparation; panels side by side as hands allow; each is heated in its film's window.
 */
export function withWaits(steps: readonly Step[], filmOf: (panelId: string) => FilmSheet | undefined): Step[] {
  const planned = steps.filter((s) => s.state !== 'skipped')
  const print = planned.filter((s) => PRINT.includes(s.code))
  const beside = planned.filter((s) => BESIDE.includes(s.code))
  const firstPanel = planned.findIndex(isOnPanel)
  const preparing = planned.filter(
    (s, i) => !isOnPanel(s) && !BESIDE.includes(s.code) && (firstPanel < 0 || i < firstPanel),
  )
  const closing = planned.filter((s, i) => !isOnPanel(s) && firstPanel >= 0 && i > firstPanel)
  const byPanel = new Map<string, Step[]>()
  for (const s of planned.filter(isOnPanel)) byPanel.set(s.panelId ?? '', [...(byPanel.get(s.panelId ?? '') ?? []), s])
  const waits = new Map<string, Wait[]>()
  chain(beside, waits, [])
  chain(preparing, waits, after(print.at(-1)))
  const ready = [...after(preparing.at(-1)), ...after(beside.at(-1))]
  for (const [panelId, own] of byPanel) panelChain(own, waits, ready, filmOf(panelId))
  const ends = [...byPanel.values()].flatMap((own) => after(own.at(-1), 0))
  chain(closing, waits, ends)
  return steps.map((s) => ({ ...s, waits: waits.get(s.id) ?? [] }))
}

function chain(list: readonly Step[], waits: Map<string, Wait[]>, first: Wait[]): void {
  list.forEach((s, i) => waits.set(s.id, i === 0 ? first : after(list[i - 1])))
}

function panelChain(
  own: readonly Step[],
  waits: Map<string, Wait[]>,
  ready: Wait[],
  film: FilmSheet | undefined,
): void {
  const laid = own.filter((s) => s.code === 'lay')
  own.forEach((s, i) => {
    const before = i === 0 ? ready : after(own[i - 1])
    // The film's window counts from the laying of each piece, not from the trimming.
    const window =
      s.code === 'post_heat' && film
        ? laid.flatMap((l) => after(l, Math.max(l.waitMin, film.postHeatFromMin), film.postHeatUntilMin))
        : []
    waits.set(s.id, [...before, ...window])
  })
}
