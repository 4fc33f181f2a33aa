import type { ChildProcess } from 'node:child_process'

export interface Supervised {
  readonly pid: number | undefined
  kill(signal: NodeJS.Signals): void
}
export function supervise(
  name: string,
  start: () => ChildProcess,
  options?: {
    say?: (text: string) => void
    givenUp?: (code: number) => void
    backOffMs?: readonly number[]
    cameUpMs?: number
    mostEnds?: number
  },
): Supervised
