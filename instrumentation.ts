/** Before the server takes a request: what it was started with is read, and a value that is not usable ends it with its name. */
export async function register() {
  if (process.env.NEXT_RUNTIME !== 'nodejs') return
  const { readEnvironment } = await import('@/db/environment')
  const read = readEnvironment(process.env)
  if (!('faults' in read)) return
  console.error(`The environment is not usable. ${read.faults.join('; ')}`)
  process.exit(1)
}
