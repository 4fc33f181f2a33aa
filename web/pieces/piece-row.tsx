'use client'

import Button from 'react-bootstrap/Button'
import type { PieceChoice } from '@/core/model/plan/schema'
import type { Panel } from '@/core/model/vehicle/schema'
import { Fig } from '@/web/job/figure'
import { useJob } from '@/web/job/job-state'
import { solvedText, spotText } from '@/web/words/stretch-words'
import type { Piece } from '@/core/engines/pieces/pieces'
import type { SolvedStretch } from '@/core/model/catalogue/solved-stretch'
import { choiceFor } from '@/core/model/plan/piece-choice'
import { stretchBand } from '@/web/pieces/bands'
import { PieceChoiceCells } from './piece-choice-cells'

/** One panel in the table of pieces: cut size, stretch, how it is laid, parts, pre-stretch, bleed. */
export function PieceRow({
  panel,
  pieces,
  solved,
  stretch,
  shown,
  setPicked,
  fault,
}: {
  panel: Panel
  pieces: readonly Piece[]
  solved: SolvedStretch | null
  /** Worst stretch as a ratio, solved or by closed forms. */
  stretch: number
  /** Whether its stretch is shown below. */
  shown: boolean
  setPicked: (panelId: string) => void
  fault: string | undefined
}) {
  const { plan, waysFound, fmt } = useJob('plan', 'waysFound', 'fmt')
  const film = plan.film.sheets.find((s) => s.id === (panel.filmId ?? plan.film.mainId))
  const choice = choiceFor(plan, panel, film)
  const isUsual = choice.parts > 1 && !plan.pieces.some((c) => c.panelId === panel.id)
  const band = film ? stretchBand(stretch, film) : null
  const first = pieces[0]
  return (
    <>
      <tr id={panel.id}>
        <td style={{ minWidth: 116 }}>
          <Button
            variant="link"
            size="sm"
            className="p-0 text-start"
            aria-pressed={shown}
            onClick={() => setPicked(panel.id)}
          >
            {panel.name}
          </Button>
          {pieces.length > 1 && <span className="label"> × {pieces.length}</span>}
        </td>
        <td className="text-nowrap">
          {first ? (
            <>
              <Fig id={first.figures.width.id} /> × <Fig id={first.figures.height.id} />
            </>
          ) : (
            '–'
          )}
        </td>
        <td style={{ minWidth: 112 }}>
          {band && (
            <span className="d-inline-flex gap-2 align-items-center">
              <span
                aria-hidden
                style={{
                  width: 14,
                  height: 14,
                  flex: 'none',
                  background: `var(--band-${band.step})`,
                  border: '1px solid var(--ink)',
                }}
              />
              <Fig id={`stretch/${panel.id}/worst`} />
            </span>
          )}
          {band && <div className="label">{band.text}</div>}
          {solved?.spot && stretch > (film?.postHeatOver ?? 1) && <div className="label">{spotText(solved.spot)}</div>}
        </td>
        <td className="n text-nowrap">
          {solved ? solved.toPostHeatMm2 > 0 ? <Fig id={`stretch/${panel.id}/post_heat`} /> : '–' : ''}
        </td>
        <td style={{ minWidth: 104 }}>
          <span className="label">
            {laidBy(panel, choice)}
            {isUsual && ', as is usual for it'}
          </span>
        </td>
        <PieceChoiceCells panel={panel} choice={choice} film={film} />
      </tr>
      {solved && solved.overMm2 + solved.wrinklesMm2 > 0 && (waysFound.get(panel.id)?.length ?? 0) > 0 && (
        <tr>
          <td colSpan={8} className="label">
            {panel.name}, would help:{' '}
            {waysFound
              .get(panel.id)
              ?.map((w) => `${solvedText(w, fmt)} (${fmt.text(fmt.percent(w.becomes ?? 0))})`)
              .join(' · ')}
          </td>
        </tr>
      )}
      {fault && (
        <tr>
          <td colSpan={8} className="caution">
            {panel.name}: {fault} Until it is put right its stretch is reckoned by closed forms.
          </td>
        </tr>
      )}
    </>
  )
}

/** How a panel is laid by now, in words. */
function laidBy(panel: Panel, choice: PieceChoice): string {
  const recess = (handling: string, text: string) => {
    const own = panel.recesses.filter((r) => r.way === handling)
    return own.length > 0 ? [`${own.map((r) => r.name).join(', ')} ${text}`] : []
  }
  const parts = [
    choice.parts === 1 ? 'one piece' : `${choice.parts} pieces`,
    ...(choice.slits.length > 0 ? [`${choice.slits.length} relief cuts`] : []),
    ...(choice.preStretch > 0 ? [`pre-stretched ${Math.round(choice.preStretch * 100)} %`] : []),
    ...recess('bridge', 'bridged'),
    ...recess('feed', 'fed'),
    ...recess('inlay', 'inlaid'),
    ...(choice.flat ? ['flat outline on the roll'] : []),
  ]
  return parts.join(', ')
}
