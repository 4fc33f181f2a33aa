/**
 * Before the server takes a request: what it was started with is read, and a value that is not usable ends it with
 * its name.
 */
export async function register() {
  if (process.env.NEXT_RUNTIME === 'nodejs') (await import('@/db/start')).checkStart()
}
