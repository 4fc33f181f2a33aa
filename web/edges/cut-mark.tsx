import type { CutSide } from '@/core/model/edge/cut-rules'
import { word } from '@/web/words/names'

/** The letter of each cut side: the same on drawing, table and paper. */
export const CUT_LETTERS: Record<CutSide, string> = {
  far_side: 'F',
  own_underside: 'U',
  tape_on_neighbour: 'T',
  filament: 'L',
  seal_middle: 'S',
  closed_gap: 'G',
  flush: 'E',
  none: '–',
}

/** Where an edge is cut: a letter and a pattern beside its words. */
export function CutMark({ cut }: { cut: CutSide }) {
  return (
    <span className="d-inline-flex gap-2 align-items-center text-nowrap">
      <span className="cut-mark" data-cut={cut} aria-hidden>
        {CUT_LETTERS[cut]}
      </span>
      {word('cutSide', cut)}
    </span>
  )
}
