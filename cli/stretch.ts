import { readFileSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import { readJson } from '@/core/kit/json-guard'
import { err, ok, type Fault, type Result } from '@/core/kit/result'
import { timeBudget } from '@/core/kit/budget'
import { flatFromFile, flatObj, meshFromFile } from '@/core/engines/stretch/flat-panel'
import { waysOnMesh } from '@/core/engines/stretch/mesh-ways'
import { messageOf } from './messages'

const Line = z.strictObject({
  format: z.literal('cuirass/line@1'),
  vertices: z.array(z.number().int().min(0)).min(2).max(100_000),
})
const Region = z.strictObject({
  format: z.literal('cuirass/region@1'),
  triangles: z.array(z.number().int().min(0)).min(1).max(1_000_000),
})
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

export function fail(fault: Fault): number {
  const message = messageOf(fault)
  const { triangle, vertex } = fault.facts ?? {}
  const at =
    fault.at ??
    (triangle !== undefined ? `triangle ${triangle}` : vertex !== undefined ? `vertex ${vertex}` : undefined)
  process.stdout.write(
    `${JSON.stringify({ format: 'cuirass/error@1', code: fault.code, ...(at ? { at } : {}), message })}\n`,
  )
  process.stderr.write(`cuirass: ${fault.code}: ${at ? `${at}: ` : ''}${message}\n`)
  return BAD_INPUT.includes(fault.code) ? 2 : 3
}

interface Asked {
  limit: number
  shrink: number
  out: string | null
  lines: number[][]
  laid: number[]
  propose: boolean
}
function options(args: readonly string[]): Result<Asked> {
  const asked: Asked = { limit: 0.1, shrink: 0, out: null, lines: [], laid: [], propose: false }
  for (let i = 0; i < args.length; i++) {
    const name = args[i] as string
    if (name === '--tightest') continue
    if (name === '--propose') {
      asked.propose = true
      continue
    }
    const value = args[++i]
    if (value === undefined) return err({ code: 'bad_option', at: name, facts: { why: 'it takes a value' } })
    if (name === '--out') asked.out = value
    else if (name === '--limit' || name === '--shrink') {
      const n = Number(value)
      const most = name === '--shrink' ? 0.5 : 10
      if (!Number.isFinite(n) || n < 0 || n > most)
        return err({ code: 'bad_option', at: name, facts: { why: `a fraction from 0 to ${most}` } })
      asked[name === '--limit' ? 'limit' : 'shrink'] = n
    } else if (name === '--seam' || name === '--slit' || name === '--laid') {
      const text = read(value)
      if (!text.ok) return text
      const json = readJson(new TextDecoder().decode(text.value))
      if (!json.ok) return json
      const line = (name === '--laid' ? Region : Line).safeParse(json.value)
      if (!line.success)
        return err({
          code: 'bad_option',
          at: name,
          facts: { why: `${line.error.issues[0]?.path.join('.') || 'file'}: ${line.error.issues[0]?.message ?? ''}` },
        })
      if ('vertices' in line.data) asked.lines.push(line.data.vertices)
      else asked.laid.push(...line.data.triangles)
    } else return err({ code: 'bad_option', at: name, facts: { why: 'there is no such option' } })
  }
  return ok(asked)
}
export function read(file: string): Result<Uint8Array> {
  try {
    return ok(readFileSync(file === '-' ? 0 : file))
  } catch (error) {
    return err({ code: 'unreadable', facts: { file, why: (error as NodeJS.ErrnoException).code ?? 'error' } })
  }
}

/** Ways are looked for this long, s. */
const WAYS_SECONDS = 10

/** `cuirass stretch MESH --propose`: seams and relief cuts found on the mesh, each solved, the best first. */
async function propose(bytes: Uint8Array, name: string, asked: Asked, clockMs: () => number): Promise<number> {
  const mesh = meshFromFile(bytes, name)
  if (!mesh.ok) return fail(mesh.error)
  const { spent } = timeBudget(clockMs, WAYS_SECONDS)
  const found = waysOnMesh(mesh.value, { limit: asked.limit, shrink: asked.shrink, ...(spent ? { spent } : {}) })
  if (!found.ok) return fail(found.error)
  const ways = found.value.ways.map((w) => ({
    kind: w.kind,
    stretch: { max: w.stretch },
    over_limit_mm2: w.overLimitMm2,
    cut_mm: w.cutMm,
    pieces: w.pieces,
    lines: w.lines,
  }))
  await new Promise<void>((done) =>
    process.stdout.write(
      `${JSON.stringify({ format: 'cuirass/stretch-ways@1', whole: { stretch: { max: found.value.whole.report.stretch.max } }, ways }, null, 1)}\n`,
      () => done(),
    ),
  )
  return 0
}

/** `cuirass stretch MESH …`: the flat film of a surface with the least worst stretch. */
export async function stretch(file: string, args: readonly string[], clockMs: () => number): Promise<number> {
  const asked = options(args)
  if (!asked.ok) return fail(asked.error)
  const bytes = read(file)
  if (!bytes.ok) return fail(bytes.error)
  let told = clockMs()
  if (asked.value.propose) return propose(bytes.value, file, asked.value, clockMs)
  const flat = flatFromFile(bytes.value, file, {
    ...asked.value,
    progress: (share) => {
      if (!process.stderr.isTTY || clockMs() < told + 500) return
      told = clockMs()
      process.stderr.write(`${Math.round(100 * share)} %\n`)
    },
  })
  if (!flat.ok) return fail(flat.error)
  if (asked.value.out !== null) {
    try {
      writeFileSync(asked.value.out, flatObj(flat.value))
    } catch (error) {
      return fail({
        code: 'unreadable',
        at: '--out',
        facts: { file: asked.value.out, why: (error as NodeJS.ErrnoException).code ?? 'error' },
      })
    }
  }
  await new Promise<void>((done) =>
    process.stdout.write(`${JSON.stringify(flat.value.report, null, 1)}\n`, () => done()),
  )
  return 0
}
