import Button from 'react-bootstrap/Button'
import type { Formatter } from '@/web/words/format'
import type { ThermometerState } from './use-thermometer'

/** What the thermometer shows; one tap takes its figure for the places that are picked. */
export function ThermometerLine({
  state,
  fmt,
  onTake,
  onOff,
}: {
  state: ThermometerState
  fmt: Formatter
  onTake: (tempC: number) => void
  onOff: () => void
}) {
  return (
    <div className="thermometer d-flex gap-2 align-items-center" role="group" aria-label="Thermometer">
      <span className="shows flex-fill" role="status" data-steady={state.kind === 'shows' && state.steady}>
        {state.kind === 'shows'
          ? fmt.text(fmt.temp(state.tempC))
          : state.kind === 'waiting'
            ? '…'
            : state.kind === 'silent'
              ? 'The thermometer is silent: type what it shows.'
              : `It says “${state.said}”, which is no temperature: type what it shows.`}
      </span>
      <Button
        variant="go"
        disabled={state.kind !== 'shows'}
        onClick={() => state.kind === 'shows' && onTake(Math.round(state.tempC * 10) / 10)}
      >
        {state.kind === 'shows' && !state.steady ? 'Settling: take it' : 'Take it'}
      </Button>
      <Button variant="plain" aria-label="Thermometer off" onClick={onOff}>
        Off
      </Button>
    </div>
  )
}
