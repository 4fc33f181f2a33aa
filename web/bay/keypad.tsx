import Button from 'react-bootstrap/Button'

const ROWS = ['7', '8', '9', '4', '5', '6', '1', '2', '3'] as const

/** Digits for a gloved hand. */
export function Keypad({ onDigit, onBack }: { onDigit: (digit: string) => void; onBack: () => void }) {
  return (
    <div className="keypad" role="group" aria-label="Keypad">
      {ROWS.map((d) => (
        <Button variant="plain" key={d} onClick={() => onDigit(d)}>
          {d}
        </Button>
      ))}
      <Button variant="plain" aria-label="Comma" onClick={() => onDigit('.')}>
        .
      </Button>
      <Button variant="plain" onClick={() => onDigit('0')}>
        0
      </Button>
      <Button variant="plain" aria-label="Delete" onClick={onBack}>
        ⌫
      </Button>
    </div>
  )
}
