import { earliestBegins, type Links } from './earliest'
import { ForwardSearch, type ForwardOptions } from './forward'
import { beginForEnd, type Plan, type Problem } from './model'

const MOST_ROUNDS = 40

/**
 * Floors under the begins of tasks after which a window closes: a schedule without windows says when what comes after
 * can be begun, and they are put off until then, again and again, until no window is broken. Floors only rise.
 */
export function pacedForWindows(
  p: Problem,
  links: Links,
  { heads, after, options }: { heads: readonly number[]; after: readonly number[]; options: ForwardOptions },
): { floors: readonly number[]; plan: Plan | null } {
  const search = { ...options, soft: true }
  let floors = heads
  for (let round = 0; round < MOST_ROUNDS; round++) {
    const plan = new ForwardSearch(p, links, floors, after).search(search, null, () => false)
    if (!plan) break
    const raised = [...floors]
    let broken = 0
    p.tasks.forEach((task, j) => {
      for (const l of task.after) {
        const late = plan.begins[j] - plan.ends[l.task] - l.most
        if (late <= 0) continue
        broken++
        raised[l.task] = Math.max(raised[l.task], beginForEnd(p, p.tasks[l.task], plan.begins[j] - l.most))
      }
    })

    if (broken === 0) return { floors, plan }
    const next = earliestBegins(p, links, raised)
    if ('impossible' in next) break
    floors = next
  }
  return { floors, plan: null }
}
