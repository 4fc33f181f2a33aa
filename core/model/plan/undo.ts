/** A revision as undo sees it: its number, and the revision whose change it takes back. */
export interface RevisionMark {
  number: number
  undoes: number | null
}

/**
 * Which of one member's revisions an undo takes back next, and which a redo does, from their revisions in order. Taking
 * back a revision that itself took one back does that one again. The first revision of a job is never taken back; a new
 * change ends what could be done again.
 */
export function ownChanges(own: readonly RevisionMark[]): { undo: number | null; redo: number | null } {
  const done: number[] = []
  let undone: number[] = []
  for (const { number, undoes } of own) {
    if (undoes === null) {
      if (number > 1) done.push(number)
      undone = []
    } else if (undone.at(-1) === undoes) {
      undone.pop()
      done.push(number)
    } else {
      if (done.at(-1) === undoes) done.pop()
      undone.push(number)
    }
  }
  return { undo: done.at(-1) ?? null, redo: undone.at(-1) ?? null }
}
