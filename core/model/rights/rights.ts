/** Roles of a shop's members, and what each may do: one table for the server and for what a page offers. */
export const ROLES = ['owner', 'lead', 'installer', 'desk'] as const
export type Role = (typeof ROLES)[number]
export const isRole = (word: unknown): word is Role => ROLES.some((role) => role === word)

/** Everyone reads everything of their own shop. */
export const MAY = {
  plan: ['owner', 'lead'],
  newJob: ['owner', 'lead', 'desk'],
  log: ['owner', 'lead', 'installer'],
  stock: ['owner', 'lead'],
  people: ['owner'],
  shop: ['owner', 'lead'],
  read: ROLES,
  walkaround: ['owner', 'lead', 'desk'],
  film: ['owner', 'lead'],
  vehicles: ['owner', 'lead'],
  climate: ['owner', 'lead', 'installer'],
  strip: ['owner', 'lead', 'installer'],
  photo: ['owner', 'lead', 'installer', 'desk'],
  tape: ['owner', 'lead', 'installer'],
  fleet: ['owner', 'lead'],
  scan: ['owner', 'lead', 'installer'],
  table: ['owner', 'lead', 'installer'],
} as const satisfies Record<string, readonly Role[]>
export type Right = keyof typeof MAY

export const may = (role: string, right: Right): boolean => (MAY[right] as readonly string[]).includes(role)

/** Parts of a plan that a role may change, by the first word of the part's name; null for all of them. */
export const planPartsOf = (role: string): readonly string[] | null =>
  may(role, 'plan')
    ? null
    : [
        ...(may(role, 'walkaround') ? ['walkaround', 'name', 'customerRef', 'vehicle', 'note'] : []),
        ...(may(role, 'tape') ? ['panels', 'conditions'] : []),
      ]
/** The right under which a role saves a plan at all. */
export const savingRight = (role: string): Right =>
  may(role, 'plan') ? 'plan' : may(role, 'tape') ? 'tape' : 'walkaround'
