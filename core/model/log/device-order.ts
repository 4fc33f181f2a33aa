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

/** Rows known before and rows that came since, as a fresh reading of all of them would give them. */
export function mergedRows<T extends { id: string; seq?: number; device?: string | null; n?: number | null }>(
  known: readonly T[],
  more: readonly T[],
): T[] {
  const byId = new Map([...known, ...more].map((row) => [row.id, row]))
  const rows = [...byId.values()].sort((a, b) => (a.seq ?? Infinity) - (b.seq ?? Infinity))
  const counted = rows.map((row) => ({ row, device: row.device ?? null, n: row.n ?? null }))
  return inDeviceOrder(counted).map(({ row }) => row)
}
