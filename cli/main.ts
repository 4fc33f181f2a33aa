import { readFileSync } from 'node:fs'
import { ok, type Fault, type Result } from '@/core/kit/result'
import type { Packing } from '@/core/solve/pack'
import { readJson } from '@/core/kit/json-guard'
import type { NoAnswer } from '@/core/kit/no-answer'
import { messageOf, noAnswerText, UNPLACED } from './messages'

const HELP: Record<string, string> = {
  reckon: `cuirass reckon JOB.json [--catalogue CATALOGUE.json] [--ledger LEDGER.json] [--now 2031-03-03T08:00Z]
  Every figure and finding of a job file, with its working. The history of a job gives the job file for download, and
  beside it what the shop brings to it (catalogue) and what happened in the bay (ledger). Without them: the sheets in
  the job, an empty rack, nothing done yet.`,
  layout: `cuirass layout FILE
  Pieces onto rolls by straight cuts or freely, with a proven bound: cuirass/layout@1 in, cuirass/layout-plan@1 out.
  "seconds" is the budget of wall time; "gap_mm" the clear space between pieces. No pieces make an empty plan.`,
  panel: `cuirass panel PANEL.json [--triangles 5000] --out mesh.obj
  The mesh of a taped panel (one of a job file's panels), mm.`,
  stretch: `cuirass stretch MESH [--limit 0.10] [--shrink 0] [--seam FILE] [--slit FILE] [--laid FILE] [--propose] [--out flat.obj]
  A panel's mesh (OBJ, STL, PLY; mm) laid flat with the least worst stretch; --propose finds seams and relief cuts.`,
  heat: `cuirass heat FILE
  Heat through the layers of a panel, at a point ("kind": "point") or under a gun that moves along an edge ("sweep"):
  cuirass/heat@1 in, cuirass/heat-result@1 out. Energies count into the panel: what is stored is their sum.`,
  schedule: `cuirass schedule FILE
  Tasks in time: waits, windows, people, bays, open hours: cuirass/schedule@1 in, cuirass/schedule-plan@1 out, with a
  proven bound. Fewest late, then the earliest finish; about one second. Exit 3: cycle, crew_too_small, never_fits,
  window_impossible, with the tasks at fault.`,
  'heat-plan': `cuirass heat-plan FILE
  How to move the gun so that a whole edge gets into the band and nothing over the limit: cuirass/heat-plan@1 in,
  cuirass/heat-plan-result@1 out. Exit 3: cannot_reach, band_too_narrow (with the best plan), limit_below_band.`,
}
const USAGE = `usage: cuirass COMMAND FILE [options]   (- reads standard input; JSON comes out on standard output)

${Object.values(HELP).join('\n\n')}

cuirass COMMAND --help tells of one command, cuirass --version of this one.
Bad input: exit 2, with cuirass/error@1 on standard output and one line on standard error; sound input without an
answer: exit 3, the same way.`
/** Rounds make a schedule the same again; the clock is there for machines that would take too long over them. */
const SCHEDULE_SECONDS = 0.9
const SCHEDULE_ROUNDS = 400

/** An answer, or that there is none. */
type Answer = { answer: unknown } | { none: NoAnswer }
/** Each loads what it needs and no more: a layout of a second cannot wait for the whole core. */
const COMMANDS: Record<string, (text: string) => Promise<Result<Answer>>> = {
  heat: async (text) => {
    const json = readJson(text)
    const result = json.ok ? (await import('@/core/engines/heat/heat-contract')).heatByContract(json.value) : json
    return result.ok ? ok({ answer: result.value }) : result
  },
  schedule: async (text) => {
    const { scheduleByContract } = await import('@/core/engines/schedule/contract')
    const { timeBudget } = await import('@/core/kit/budget')
    const json = readJson(text)
    const budget = timeBudget(performance.now.bind(performance), SCHEDULE_SECONDS, SCHEDULE_ROUNDS)
    const result = json.ok ? scheduleByContract(json.value, budget) : json
    if (!result.ok) return result
    return ok('plan' in result.value ? { answer: result.value.plan } : result.value)
  },
  'heat-plan': async (text) => {
    const { heatPlanByContract } = await import('@/core/engines/heat/heat-plan-contract')
    const json = readJson(text)
    const result = json.ok ? heatPlanByContract(json.value) : json
    if (!result.ok) return result
    return ok('plan' in result.value ? { answer: result.value.plan } : result.value)
  },
  layout: async (text) => {
    const { layoutByContract } = await import('@/core/engines/roll/contract')
    const json = readJson(text)
    if (!json.ok) return json
    const sinceStartMs = performance.now()
    // Somebody who watches is told of each better plan; scripts are not.
    const better = (p: Packing) =>
      process.stderr.write(
        `${Math.round(p.used.reduce((s, u) => s + u.length, 0))} mm, at least ${Math.floor(p.bound)} mm\n`,
      )
    const plan = layoutByContract(json.value, () => performance.now(), {
      sinceStartMs,
      ...(process.stderr.isTTY ? { better } : {}),
    })
    if (!plan.ok) return plan
    const unplaced = plan.value.unplaced.map((u) => ({ ...u, why: UNPLACED[u.why] }))
    return ok({ answer: { ...plan.value, unplaced } })
  },
}

const version = (): string =>
  (JSON.parse(readFileSync(new URL('./package.json', import.meta.url), 'utf8')) as { version: string }).version

function bad(fault: Fault): number {
  const message = messageOf(fault)
  const at = fault.at ? { at: fault.at } : {}
  const error = { format: 'cuirass/error@1', code: 'bad_input', cause: fault.code, ...at, message }
  process.stdout.write(`${JSON.stringify(error)}\n`)
  process.stderr.write(`cuirass: ${fault.at ? `${fault.at}: ` : ''}${message}\n`)
  return 2
}

/** Sound input, and no answer to it. */
function noAnswer(none: NoAnswer): number {
  const { code, named } = none
  const message = noAnswerText(none)
  const error = { format: 'cuirass/error@1', code, message, ...(named ? { tasks: named } : {}) }
  process.stdout.write(`${JSON.stringify(error)}\n`)
  process.stderr.write(`cuirass: ${message}\n`)
  return 3
}

/** Runs one command; the exit code. JSON goes to standard output, one line of error to standard error. */
export async function main(args: string[]): Promise<number> {
  const [command = '', file, ...rest] = args
  const say = (text: string): number => {
    process.stdout.write(`${text}\n`)
    return 0
  }
  if (command === '--version') return say(`cuirass ${version()}`)
  if (command === '--help' || command === 'help') return say((file && Object.hasOwn(HELP, file) && HELP[file]) || USAGE)
  if (Object.hasOwn(HELP, command) && (file === '--help' || rest.includes('--help'))) return say(HELP[command] ?? USAGE)
  if (command === 'reckon' && file) return print(await (await import('./reckon')).reckonFiles(file, rest))
  if (command === 'panel' && file) return (await import('./panel')).panel(file, rest)
  if (command === 'stretch' && file)
    return (await import('./stretch')).stretch(file, rest, performance.now.bind(performance))
  const run = Object.hasOwn(COMMANDS, command) ? COMMANDS[command] : undefined
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
  return 'none' in result.value ? noAnswer(result.value.none) : print(ok(result.value.answer))
}

async function print(result: Result<unknown>): Promise<number> {
  if (!result.ok) return bad(result.error)
  await new Promise<void>((done) => process.stdout.write(`${JSON.stringify(result.value, null, 1)}\n`, () => done()))
  return 0
}
