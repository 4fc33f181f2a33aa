import { customType, numeric, timestamp } from 'drizzle-orm/pg-core'

export const at = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })
export const mm = (name: string) => numeric(name, { precision: 12, scale: 3, mode: 'number' })
export const bytea = customType<{ data: Buffer }>({ dataType: () => 'bytea' })
