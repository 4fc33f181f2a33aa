import { readFileSync } from 'node:fs'
import { err, ok, type Result } from '@/core/kit/result'

/** The bytes of a file, or of standard input for `-`. Errors: unreadable. */
export function read(file: string): Result<Uint8Array> {
  try {
    return ok(readFileSync(file === '-' ? 0 : file))
  } catch (error) {
    return err({ code: 'unreadable', facts: { file, why: (error as NodeJS.ErrnoException).code ?? 'error' } })
  }
}
