/** A film's shade as a small square. */
export function Swatch({ hex }: { hex: string }) {
  return <span aria-hidden className="swatch fs-4 me-0 flex-shrink-0" style={{ background: hex }} />
}
