import type { BetterAuthPlugin } from 'better-auth'
import { APIError, createAuthEndpoint, getSessionFromCtx } from 'better-auth/api'
import { setSessionCookie } from 'better-auth/cookies'
import { z } from 'zod'

/**
 * A session for somebody whose PIN at a tablet was right, in place of the one before. No route leads here: it is called
 * by our own code, after the PIN was looked at.
 */
export const tabletSignIn = {
  id: 'tablet-sign-in',
  endpoints: {
    changeInAtTablet: createAuthEndpoint(
      '/tablet/change-in',
      { method: 'POST', body: z.object({ userId: z.string() }) },
      async (ctx) => {
        const { internalAdapter } = ctx.context
        const before = await getSessionFromCtx(ctx)
        const user = await internalAdapter.findUserById(ctx.body.userId)
        if (!user) throw new APIError('UNAUTHORIZED')
        const session = await internalAdapter.createSession(user.id)
        if (!session) throw new APIError('INTERNAL_SERVER_ERROR')
        await setSessionCookie(ctx, { session, user })
        if (before) await internalAdapter.deleteSession(before.session.token)
        return ctx.json({ ok: true })
      },
    ),
  },
} satisfies BetterAuthPlugin
