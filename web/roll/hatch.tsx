/** A pattern of slanted lines under an id, so that areas are told apart without colour. */
export const hatch = (id: string, colour: string, step: number) => (
  <defs>
    <pattern id={id} width={step} height={step} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <line y2={step} stroke={colour} strokeWidth={1} />
    </pattern>
  </defs>
)
