import { readFileSync } from 'node:fs'
import type { Fault, Result } from '@/core/kit/result'
import { readJson } from '@/core/kit/json-guard'
import { messageOf } from './messages'

const USAGE = 'usage: cuirass reckon JOB.json | cuirass layout FILE | cuirass panel PANEL.json [--triangles 5000] --out mesh.obj | cuirass stretch MESH [--limit 0.10] [--shrink 0] [--seam FILE] [--slit FILE] [--laid FILE] [--propose] [--out flat.obj]   (- reads standard input)' // prettier-ignore
/** Each loads what it needs and no more: a layout of a second cannot wait for the whole core. */
const COMMANDS: Record<string, (text: string) => Promise<Result<unknown>>> = {
  reckon: async (text) => {
    const { readPlan } = await import('@/core/plan/parse')
    const { EMPTY_CATALOGUE } = await import('@/core/reckon/catalogue')
    const { reckoningJson } = await import('@/core/reckon/output')
    const { reckon } = await import('@/core/reckon/reckon')
    const plan = readPlan(text)
    if (!plan.ok) return plan
    const now = new Date().toISOString().slice(0, 16)
    return {
      ok: true,
      value: reckoningJson(reckon(plan.value, { ...EMPTY_CATALOGUE, films: plan.value.film.sheets, now }, [])),
    }
  },
  layout: async (text) => {
    const { layoutByContract } = await import('@/core/roll/contract')
    const json = readJson(text)
    if (!json.ok) return json
    const sinceStartMs = performance.now()
    // Somebody who watches is told of each better plan; scripts are not.
    if (!process.stderr.isTTY) return layoutByContract(json.value, () => performance.now(), { sinceStartMs })
    return layoutByContract(json.value, () => performance.now(), {
      sinceStartMs,
      better: (p) =>
        process.stderr.write(
          `${Math.round(p.used.reduce((s, u) => s + u.length, 0))} mm, at least ${Math.floor(p.bound)} mm\n`,
        ),
    })
  },
}

function bad(fault: Fault): number {
  const message = messageOf(fault)
  process.stdout.write(
    `${JSON.stringify({ format: 'cuirass/error@1', code: 'bad_input', cause: fault.code, ...(fault.at ? { at: fault.at } : {}), message })}\n`,
  )
  process.stderr.write(`cuirass: ${fault.at ? `${fault.at}: ` : ''}${message}\n`)
  return 2
}

/** Runs one command; the exit code. JSON goes to standard output, one line of error to standard error. */
export async function main(args: string[]): Promise<number> {
  const [command = '', file, ...rest] = args
  if (command === 'panel' && file) return (await import('./panel')).panel(file, rest)
  if (command === 'stretch' && file)
    return (await import('./stretch')).stretch(file, rest, performance.now.bind(performance))
  if (command === '--help' || command === 'help') {
    process.stdout.write(`${USAGE}\n`)
    return 0
  }
  const run = COMMANDS[command]
  if (!run || !file || rest.length > 0) {
    process.stderr.write(`${USAGE}\n`)
    return 2
  }
  let text: string
  try {
    text = readFileSync(file === '-' ? 0 : file, 'utf8')
  } catch (error) {
    return bad({ code: 'unreadable', facts: { file, why: (error as NodeJS.ErrnoException).code ?? 'error' } })
  }
  const result = await run(text)
  if (!result.ok) return bad(result.error)
  await new Promise<void>((done) => process.stdout.write(`${JSON.stringify(result.value, null, 1)}\n`, () => done()))
  return 0
}
