import { betterAuth } from 'better-auth'
import { APIError, createAuthMiddleware } from 'better-auth/api'
import { drizzleAdapter } from 'better-auth/adapters/drizzle'
import { nextCookies } from 'better-auth/next-js'
import { sql } from 'drizzle-orm'
import { database } from './client'
import * as schema from './schema'

/** Attempts at signing in per minute from one address; per e-mail address twice that in ten minutes. */
const attempts = (): number => Number(process.env.AUTH_ATTEMPTS ?? 5)
const EMAIL_WINDOW_MS = 600_000

/** One more attempt for this key; how many there were in the window. One statement, so that two at once both count. */
async function countAttempt(key: string): Promise<number> {
  const now = Date.now()
  const rows = await database().execute<{ count: number }>(sql`
    insert into rate_limit (id, key, count, last_request) values (${key}, ${key}, 1, ${now})
    on conflict (key) do update set
      count = case when rate_limit.last_request < ${now - EMAIL_WINDOW_MS} then 1 else rate_limit.count + 1 end,
      last_request = case when rate_limit.last_request < ${now - EMAIL_WINDOW_MS} then ${now} else rate_limit.last_request end
    returning count`)
  return rows.rows[0]?.count ?? 1
}

function make() {
  const url = process.env.APP_URL
  return betterAuth({
    appName: 'Cuirass',
    secret: process.env.AUTH_SECRET,
    baseURL: url,
    trustedOrigins: url ? [url, url.replace('127.0.0.1', 'localhost')] : [],
    database: drizzleAdapter(database(), { provider: 'pg', schema }),
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: 10, maxPasswordLength: 128 },
    session: { expiresIn: 60 * 60 * 24 * 30, updateAge: 60 * 60 * 24 },
    rateLimit: {
      enabled: true,
      storage: 'database',
      modelName: 'rateLimit',
      window: 60,
      max: 300,
      customRules: { '/sign-in/email': { window: 60, max: attempts() } },
    },
    advanced: {
      useSecureCookies: url?.startsWith('https:') ?? false,
      cookiePrefix: 'cuirass',
      defaultCookieAttributes: { httpOnly: true, sameSite: 'lax' },
    },
    telemetry: { enabled: false },
    hooks: {
      before: createAuthMiddleware(async (ctx) => {
        if (ctx.path !== '/sign-in/email') return
        const email = String((ctx.body as { email?: unknown } | undefined)?.email ?? '').toLowerCase().slice(0, 200) // prettier-ignore
        if ((await countAttempt(`email:${email}`)) > attempts() * 2)
          throw new APIError('TOO_MANY_REQUESTS', { message: 'too_many_attempts' })
      }),
    },
    plugins: [nextCookies()],
  })
}

const kept = globalThis as unknown as { cuirassAuth?: ReturnType<typeof make> }
/** The sign-in library over our tables; sessions live in PostgreSQL, so any process can serve any request. */
export const auth = () => (kept.cuirassAuth ??= make())

/** A user with a password. Sign-up is closed to the outside: only an owner or the command line makes people. */
export async function createUser(name: string, email: string, password: string): Promise<string | null> {
  const context = await auth().$context
  if (await context.internalAdapter.findUserByEmail(email.toLowerCase())) return null
  const made = await context.internalAdapter.createUser(
    { name, email: email.toLowerCase(), emailVerified: true },
    { method: 'email-password' },
  )
  await context.internalAdapter.linkAccount({
    userId: made.id,
    providerId: 'credential',
    accountId: made.id,
    password: await context.password.hash(password),
  })
  return made.id
}
