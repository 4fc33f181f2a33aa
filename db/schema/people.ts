import { sql } from 'drizzle-orm'
import { boolean, check, index, integer, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import { at } from './columns'

/* People: the four tables of the sign-in library, by its names, and its attempt counter. */
export const user = pgTable(
  'user',
  {
    id: text('id').primaryKey(),
    name: text('name').notNull(),
    email: text('email').notNull().unique(),
    emailVerified: boolean('email_verified').notNull().default(false),
    image: text('image'),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
  },
  (t) => [
    check('user_name_length', sql`char_length(btrim(${t.name})) between 1 and 120`),
    check('user_email_length', sql`char_length(${t.email}) between 3 and 200`),
  ],
)
export const session = pgTable(
  'session',
  {
    id: text('id').primaryKey(),
    expiresAt: at('expires_at').notNull(),
    token: text('token').notNull().unique(),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
    ipAddress: text('ip_address'),
    userAgent: text('user_agent'),
    userId: text('user_id')
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
  },
  (t) => [index('session_user').on(t.userId)],
)
export const account = pgTable(
  'account',
  {
    id: text('id').primaryKey(),
    accountId: text('account_id').notNull(),
    providerId: text('provider_id').notNull(),
    userId: text('user_id')
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    accessToken: text('access_token'),
    refreshToken: text('refresh_token'),
    idToken: text('id_token'),
    accessTokenExpiresAt: at('access_token_expires_at'),
    refreshTokenExpiresAt: at('refresh_token_expires_at'),
    scope: text('scope'),
    password: text('password'),
    createdAt: at('created_at').notNull().defaultNow(),
    updatedAt: at('updated_at').notNull().defaultNow(),
  },
  (t) => [index('account_user').on(t.userId)],
)
export const verification = pgTable('verification', {
  id: text('id').primaryKey(),
  identifier: text('identifier').notNull(),
  value: text('value').notNull(),
  expiresAt: at('expires_at').notNull(),
  createdAt: at('created_at').notNull().defaultNow(),
  updatedAt: at('updated_at').notNull().defaultNow(),
})
/** Failed tries at signing in, by person, by address, and by both together. */
export const signInTry = pgTable('sign_in_try', {
  key: text('key').primaryKey(),
  failures: integer('failures').notNull(),
  lastAt: at('last_at').notNull(),
})

/** PINs of members on shared tablets, each set after a full sign-in there; a tablet is known by a mark of its secret. */
export const tabletPin = pgTable(
  'tablet_pin',
  {
    tablet: text('tablet').notNull(),
    userId: text('user_id')
      .notNull()
      .references(() => user.id, { onDelete: 'cascade' }),
    hash: text('hash').notNull(),
    /** Wrong ones since the last right one. */
    tries: integer('tries').notNull().default(0),
    setAt: at('set_at').notNull().defaultNow(),
  },
  (t) => [primaryKey({ columns: [t.tablet, t.userId] })],
)
