import { log } from './log'
import { betterAuth } from 'better-auth'
import { drizzleAdapter } from 'better-auth/adapters/drizzle'
import { nextCookies } from 'better-auth/next-js'
import { doorDatabase } from './client'
import { cleanDatabaseError } from './errors'
import { environment } from './environment'
import * as schema from './schema'
import { tabletSignIn } from './tablet-sign-in'

/** The one origin people use, and the same machine by its other name. */
export const ownOrigins = (appUrl: string | undefined): string[] =>
  appUrl === undefined ? [] : [appUrl, appUrl.replace('127.0.0.1', 'localhost')].map((url) => new URL(url).origin)

function make() {
  const { APP_URL, AUTH_SECRET } = environment()
  return betterAuth({
    appName: 'Cuirass',
    secret: AUTH_SECRET,
    baseURL: APP_URL,
    trustedOrigins: ownOrigins(APP_URL),
    database: drizzleAdapter(doorDatabase(), { provider: 'pg', schema }),
    emailAndPassword: { enabled: true, disableSignUp: true, minPasswordLength: 10, maxPasswordLength: 128 },
    session: { expiresIn: 60 * 60 * 24 * 30, updateAge: 60 * 60 * 24 },
    // Tries are counted in `sign-in-tries.ts`: the library clears its own rows.
    rateLimit: { enabled: false },
    advanced: {
      useSecureCookies: APP_URL?.startsWith('https:') ?? false,
      cookiePrefix: 'cuirass',
      defaultCookieAttributes: { httpOnly: true, sameSite: 'lax' },
    },
    telemetry: { enabled: false },
    // Its own lines may hold a query's values, sessions among them: only what went wrong is written.
    logger: {
      level: 'error',
      log: (level, message) => log[level]({ part: 'sign-in' }, message.split('\nparams:')[0]?.slice(0, 300)),
    },
    plugins: [tabletSignIn, nextCookies()],
  })
}

const kept = globalThis as unknown as { cuirassAuth?: ReturnType<typeof make> }
/** The sign-in library over our tables; sessions live in PostgreSQL, so any process can serve any request. */
export const auth = () => (kept.cuirassAuth ??= make())

/** The user behind a request's session cookie, or null. */
export async function sessionUser(headers: Headers): Promise<string | null> {
  try {
    return (await auth().api.getSession({ headers }))?.user.id ?? null
  } catch (error) {
    throw cleanDatabaseError(error)
  }
}

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
