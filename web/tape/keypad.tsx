'use client'

import Button from 'react-bootstrap/Button'

/** Figures, and in inches the fractions, for gloves. */
export function Keypad({ inch, press }: { inch: boolean; press: (key: string) => void }) {
  return (
    <>
      <div className="keypad">
        {['7', '8', '9', '4', '5', '6', '1', '2', '3', inch ? ' ' : '.', '0', '⌫'].map((k) => (
          <Button
            variant="plain"
            key={k}
            aria-label={k === '⌫' ? 'Delete' : k === ' ' ? 'Space' : k}
            onClick={() => press(k)}
          >
            {k === ' ' ? '␣' : k}
          </Button>
        ))}
      </div>
      {inch && (
        <div className="keypad fractions">
          {['1/8', '1/4', '3/8', '1/2', '5/8', '3/4', '7/8', '1/16', '3/16', '5/16', '7/16', '9/16'].map((k) => (
            <Button variant="plain" key={k} onClick={() => press(k)}>
              {k}
            </Button>
          ))}
        </div>
      )}
    </>
  )
}
