import { readEnvironment } from './environment'

/** Ends a process whose environment is not usable, naming every value at fault. */
export function checkStart(): void {
  const read = readEnvironment(process.env)
  if (!('faults' in read)) return
  console.error(`The environment is not usable. ${read.faults.join('; ')}`)
  process.exit(1)
}
