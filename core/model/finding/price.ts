export interface Price {
  /** Film more (or less) than now, mm of roll. */
  filmMm: number
  /** Crew minutes more (or less) than now. */
  minutes: number
  cost: number
}
