/** What one shop may keep on a server, so that no shop fills it for the others. */
export const QUOTAS = {
  /** Bytes of all scans of a shop, cleaned and thinned. */
  scanBytes: 400_000_000,
  /** Bytes of all photos of a shop, made anew. */
  photoBytes: 2_000_000_000,
  photosPerJob: 200,
  /** Solved stretches; past that, the oldest make room. */
  solvedRows: 6000,
} as const
