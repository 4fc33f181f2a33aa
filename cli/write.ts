import { writeFileSync } from 'node:fs'
import { err, ok, type Fault, type Result } from '@/core/kit/result'
import { messageOf } from './messages'

/** Writes to standard output and waits until it is gone. */
export const print = (text: string): Promise<void> => new Promise((done) => process.stdout.write(text, () => done()))

/** Writes a file that an option names. Errors: unreadable. */
export function writeTo(option: string, file: string, text: string): Result<null> {
  try {
    writeFileSync(file, text)
    return ok(null)
  } catch (error) {
    const why = (error as NodeJS.ErrnoException).code ?? 'error'
    return err({ code: 'unreadable', at: option, facts: { file, why } })
  }
}

/** What cannot be read is bad input; what is read and is no surface that lies flat has no answer. */
const BAD_INPUT = [
  'bad_file',
  'bad_number',
  'empty_mesh',
  'bad_option',
  'unreadable',
  'no_such_line',
  'no_such_triangle',
  'laid_in_parts',
  'bad_panel',
]

/** Says what is wrong with a mesh or a panel: JSON and one line; the exit code. */
export function fail(fault: Fault): number {
  const message = messageOf(fault)
  const { triangle, vertex } = fault.facts ?? {}
  const place = triangle !== undefined ? `triangle ${triangle}` : vertex !== undefined ? `vertex ${vertex}` : undefined
  const at = fault.at ?? place
  const error = { format: 'cuirass/error@1', code: fault.code, ...(at ? { at } : {}), message }
  process.stdout.write(`${JSON.stringify(error)}\n`)
  process.stderr.write(`cuirass: ${fault.code}: ${at ? `${at}: ` : ''}${message}\n`)
  return BAD_INPUT.includes(fault.code) ? 2 : 3
}
