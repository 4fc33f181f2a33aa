import { groupedBy } from '../../kit/grouped'
import { keptFor } from '../../kit/kept'
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
  const byPanel = groupedBy(planned.filter(isOnPanel), (s) => s.panelId ?? '')
  const waiting = new Map<Step, Step>()
  const add = (list: readonly Step[], chained: readonly Step[]) =>
    list.forEach((s, i) => waiting.set(s, chained[i] ?? s))
  add(beside, chain(beside, []))
  add(preparing, chain(preparing, after(print.at(-1))))
  const ready = JSON.stringify([...after(preparing.at(-1)), ...after(beside.at(-1))])
  for (const [panelId, [first, ...rest]] of byPanel)
    if (first) add([first, ...rest], keptPanelChain(first, filmOf(panelId), ready, ...rest))
  const ends = [...byPanel.values()].flatMap((own) => after(own.at(-1), 0))
  add(closing, chain(closing, ends))
  return steps.map((s) => waiting.get(s) ?? s)
}

const chain = (list: readonly Step[], first: Wait[]): Step[] =>
  list.map((s, i) => ({ ...s, waits: i === 0 ? first : after(list[i - 1]) }))

/** `ready`: what the first of a panel's steps waits for, as JSON: told so, an unchanged panel keeps its steps. */
const keptPanelChain = keptFor((first: Step, film: FilmSheet | undefined, ready: string, ...rest: Step[]) =>
  panelChain([first, ...rest], JSON.parse(ready) as Wait[], film),
)

function panelChain(own: readonly Step[], ready: Wait[], film: FilmSheet | undefined): Step[] {
  const laid = own.filter((s) => s.code === 'lay')
  return own.map((s, i) => {
    const before = i === 0 ? ready : after(own[i - 1])
    // The film's window counts from the laying of each piece, not from the trimming.
    const window =
      s.code === 'post_heat' && film
        ? laid.flatMap((l) => after(l, Math.max(l.waitMin, film.postHeatFromMin), film.postHeatUntilMin))
        : []
    return { ...s, waits: [...before, ...window] }
  })
}
