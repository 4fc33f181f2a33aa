/** Terms that not everybody in a shop uses, each explained in a line. */
export const TERMS = {
  delta_e: {
    name: 'ΔE',
    line: 'How far two colours stand apart to the eye: under 2 hardly seen, over 25 at every edge.',
  },
  yield: { name: 'yield', line: 'Share of the film cut from the roll that ends up on the vehicle.' },
  bound: {
    name: 'the least possible',
    line: 'A proven length: no layout of these pieces on this width can be shorter.',
  },
  worst_stretch: {
    name: 'worst stretch',
    line: 'The most that film is drawn out anywhere on the vehicle, against its size on the roll.',
  },
  seams: { name: 'seams', line: 'Length over which two pieces meet on one panel.' },
  edges: { name: 'edges', line: 'All edges of the panels to be wrapped, added up.' },
  heat_points: { name: 'heat points', line: 'Places whose surface has to be heated and read after laying.' },
  crew_minutes: { name: 'crew hours', line: 'Hours of all people together; waits are not in it.' },
  reserve: { name: 'reserve', line: 'Film set aside for pieces that may have to be done twice.' },
  residue: { name: 'tension left in the roll', line: 'How much a length of film draws back once it is off its liner.' },
} as const

export type Term = keyof typeof TERMS
