import Button from 'react-bootstrap/Button'

/** One more row below a table of the shop. */
export function AddRow({ label, onAdd }: { label: string; onAdd: () => void }) {
  return (
    <Button variant="outline-secondary" size="sm" onClick={onAdd}>
      {label}
    </Button>
  )
}
