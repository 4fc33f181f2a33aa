import { useState } from 'react'
import Button from 'react-bootstrap/Button'
import Spinner from 'react-bootstrap/Spinner'
import type { EdgeHeatAsk } from '@/core/engines/heat/edge-heat'
import { paceSeconds, solvedPace } from '@/core/engines/heat/pace'
import type { SolvedHeat } from '@/core/model/catalogue/solved-heat'
import type { Formatter } from '@/web/words/format'
import type { FigureUnit } from '@/core/model/figure/figure'
import type { HeatPart } from '@/core/model/figure/figure-id'
import { Fig } from '@/web/job/figure'
import { HeatPictures, type PanelFrame } from './heat-pictures'
import { useGunPlan } from './use-gun-plan'

const UNMEASURED =
  'No gun of the shop was measured: give its air, its heat transfer and its footprint on the Shop page.'
const NONE: Record<Extract<SolvedHeat, { kind: 'none' }>['code'], string> = {
  limit_below_band: 'The film’s limit lies below its post-heat range: look at its sheet.',
  cannot_reach: 'No gun of the shop gets this edge hot enough. A hotter one, or infra-red.',
  band_too_narrow: 'No way of moving these guns brings the whole edge into the range. Go by hand, and read often.',
}

/**
 * How to move the gun along one edge: hold, pace, passes, and how hot the edge becomes. Solved, not looked up: behind the
 * plan (`known`), and until it is there by whoever asks.
 */
export function GunPlan({
  ask,
  known,
  panelId,
  lengthMm,
  frame,
  fmt,
}: {
  ask: EdgeHeatAsk
  /** The panel whose figures open its working; null where it is none of the job's. */
  panelId: string | null
  known: SolvedHeat | undefined
  lengthMm: number
  frame: PanelFrame | null
  fmt: Formatter
}) {
  const { state: asked, start, cancel } = useGunPlan()
  const state = known ?? asked
  const [looks, setLooks] = useState(false)
  return (
    <div className="mt-2" aria-live="polite">
      {state.kind === 'plan' ? (
        <>
          <Told
            plan={state}
            panelId={known ? panelId : null}
            gun={nameOf(ask.guns, state.gun)}
            lengthMm={lengthMm}
            fmt={fmt}
          />
          <Button
            variant="outline-secondary"
            size="sm"
            className="mt-2"
            aria-expanded={looks}
            onClick={() => setLooks(!looks)}
          >
            What it does to the panel
          </Button>
          {looks && <HeatPictures ask={ask} lengthMm={lengthMm} plan={state} frame={frame} fmt={fmt} />}
        </>
      ) : state.kind === 'none' ? (
        <p className="mb-1">{NONE[state.code]}</p>
      ) : state.kind === 'unmeasured' ? (
        <p className="mb-1">{UNMEASURED}</p>
      ) : state.kind === 'failed' ? (
        <p className="mb-1">The sum was not finished. Try once more.</p>
      ) : null}
      {state.kind === 'busy' ? (
        <Button variant="outline-secondary" size="sm" onClick={cancel}>
          <Spinner size="sm" aria-hidden /> Working it out… stop
        </Button>
      ) : (
        !known &&
        state.kind !== 'plan' && (
          <Button variant="outline-secondary" size="sm" onClick={() => start(ask)}>
            How to move the gun
          </Button>
        )
      )}
    </div>
  )
}

const nameOf = (guns: EdgeHeatAsk['guns'], id: string): string => guns.find((g) => g.id === id)?.name ?? id

function Told({
  plan,
  panelId,
  gun,
  lengthMm,
  fmt,
}: {
  plan: Extract<SolvedHeat, { kind: 'plan' }>
  /** The panel whose figures these are; null: asked for here, and none of the job's. */
  panelId: string | null
  gun: string
  lengthMm: number
  fmt: Formatter
}) {
  const told = (part: HeatPart, value: number, unit: FigureUnit) =>
    panelId === null ? fmt.text(fmt.quantity(value, unit)) : <Fig id={`heat/${panelId}/${part}`} />
  const per25 = (25 / plan.paceMmS).toFixed(1)
  return (
    <p className="mb-0">
      <b>{gun}:</b> {plan.holdS > 0 && <>hold {told('hold', plan.holdS, 's')} at the start, then </>}
      {told('pace', plan.paceMmS, 'mm_s')} ({fmt.text(fmt.length(25))} in {per25} s)
      {plan.passes > 1 && (
        <>
          , {plan.passes} passes with {told('gap', plan.gapS, 's')} between
        </>
      )}
      , {Math.round(paceSeconds(solvedPace(plan, lengthMm)))} s for this edge. It becomes{' '}
      {told('peak_low', plan.peakC.min, 'C')} to {told('peak_high', plan.peakC.max, 'C')};{' '}
      {told('in_band', plan.inBand, 'fraction')} of it in the film’s range.{' '}
      <span className="label">
        By the shop’s gun, the film’s sheet and the panel’s material; room 20 °C and matter from memory or assumed.
        Never still, never over the film’s limit: read after the gun is away.
      </span>
    </p>
  )
}
