import Form from 'react-bootstrap/Form'
import { BY_METRE, type SupplyKind } from '@/core/model/edge/supply-data'
import { USED_KINDS } from '@/core/model/log/kinds'
import { NumberInput } from '@/web/kit/quantity-input'
import { word } from '@/web/words/names'

interface SupplyAmountProps {
  label: string
  kind: SupplyKind
  amount: number | null
  onKind: (kind: SupplyKind) => void
  onAmount: (amount: number | null) => void
  least: number
  /** The small fields of a desk; hands in gloves get the large ones. */
  small?: boolean
}

/** One supply and how much of it: metres of tapes, a count of all else. */
export function SupplyAmount({ label, kind, amount, onKind, onAmount, least, small }: SupplyAmountProps) {
  return (
    <>
      <Form.Select
        size={small ? 'sm' : undefined}
        aria-label={label}
        style={{ width: 200 }}
        value={kind}
        onChange={(e) => onKind(e.target.value as SupplyKind)}
      >
        {USED_KINDS.map((k) => (
          <option key={k} value={k}>
            {word('supply', k)}
          </option>
        ))}
      </Form.Select>
      <span style={{ width: 110 }}>
        <NumberInput
          className={small ? 'form-control form-control-sm' : 'form-control'}
          aria-label={BY_METRE.includes(kind) ? 'Metres' : 'How many'}
          value={amount}
          digits={1}
          optional
          min={least}
          max={10_000}
          onValue={onAmount}
        />
      </span>
    </>
  )
}
