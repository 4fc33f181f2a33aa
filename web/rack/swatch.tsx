/** A film's shade as a small square. */
export function Swatch({ hex }: { hex: string }) {
  return <span aria-hidden className="film-swatch" style={{ background: hex }} />
}
