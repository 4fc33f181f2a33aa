/** Each step says what it does and how long it took. */
export async function step(what, work) {
  const began = Date.now()
  process.stdout.write(`${what} … `)
  const note = await work()
  process.stdout.write(`${note ?? 'done'} (${((Date.now() - began) / 1000).toFixed(1)} s)\n`)
}

/** A message for the person at the prompt; no stack trace. */
export class Stop extends Error {}

export function endWith(error) {
  process.stderr.write(error instanceof Stop ? `\n${error.message}\n` : `\nSomething broke: ${error?.stack ?? error}\n`)
  process.exit(1)
}
