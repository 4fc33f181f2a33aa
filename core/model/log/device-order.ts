/**
 * Rows as they arrived, with each device's own rows in the order of its own counter: they keep the places that the
 * device has among the others. Rows that name no device stay where they are.
 */
export function inDeviceOrder<T extends { device: string | null; n: number | null }>(rows: readonly T[]): T[] {
  const counted = (row: T) => row.device !== null && row.n !== null
  const byDevice = new Map<string, T[]>()
  for (const row of rows)
    if (counted(row)) byDevice.set(row.device ?? '', [...(byDevice.get(row.device ?? '') ?? []), row])
  const next = new Map<string, IterableIterator<T>>()
  for (const [device, own] of byDevice) next.set(device, [...own].sort((a, b) => (a.n ?? 0) - (b.n ?? 0)).values())
  return rows.map((row) => (counted(row) ? (next.get(row.device ?? '')?.next().value as T) : row))
}
