import { z } from 'zod'
import { readJson } from '@/core/kit/json-guard'
import { err, ok, type Result } from '@/core/kit/result'
import { timeBudget } from '@/core/kit/budget'
import { flatFromFile, flatObj, meshFromFile } from '@/core/engines/stretch/flat-file'
import { waysOutOnMesh } from '@/core/engines/stretch/mesh-ways'
import { warningText } from './messages'
import { numberOption, parseOptions } from './options'
import { read } from './read'
import { fail, print, writeTo } from './write'

const Line = z.strictObject({
  format: z.literal('cuirass/line@1'),
  vertices: z.array(z.number().int().min(0)).min(2).max(100_000),
})
const Region = z.strictObject({
  format: z.literal('cuirass/region@1'),
  triangles: z.array(z.number().int().min(0)).min(1).max(1_000_000),
})

interface Asked {
  limit: number
  shrink: number
  out: string | null
  lines: number[][]
  laid: number[]
  propose: boolean
}

const OPTIONS = {
  limit: { type: 'string', default: '0.1' },
  shrink: { type: 'string', default: '0' },
  out: { type: 'string' },
  seam: { type: 'string', multiple: true },
  slit: { type: 'string', multiple: true },
  laid: { type: 'string', multiple: true },
  propose: { type: 'boolean', default: false },
  // What is made without being asked for: the tightest map.
  tightest: { type: 'boolean' },
} as const

function options(args: readonly string[]): Result<Asked> {
  const given = parseOptions(args, OPTIONS)
  if (!given.ok) return given
  const { seam = [], slit = [], laid = [], out = null, propose } = given.value
  const limit = numberOption('--limit', given.value.limit, 0, 10)
  if (!limit.ok) return limit
  const shrink = numberOption('--shrink', given.value.shrink, 0, 0.5)
  if (!shrink.ok) return shrink
  const asked: Asked = { limit: limit.value, shrink: shrink.value, out, lines: [], laid: [], propose }
  for (const [name, files] of [
    ['--seam', seam],
    ['--slit', slit],
  ] as const)
    for (const file of files) {
      const line = fileOf(name, file, Line)
      if (!line.ok) return line
      asked.lines.push(line.value.vertices)
    }
  for (const file of laid) {
    const region = fileOf('--laid', file, Region)
    if (!region.ok) return region
    asked.laid.push(...region.value.triangles)
  }
  return ok(asked)
}

/** A small file that an option names, by its schema. Errors: unreadable, bad_option, those of `readJson`. */
function fileOf<T>(option: string, file: string, schema: z.ZodType<T>): Result<T> {
  const bytes = read(file)
  if (!bytes.ok) return bytes
  const json = readJson(new TextDecoder().decode(bytes.value))
  if (!json.ok) return json
  const parsed = schema.safeParse(json.value)
  if (parsed.success) return ok(parsed.data)
  const [issue] = parsed.error.issues
  const why = `${issue?.path.join('.') || 'file'}: ${issue?.message ?? ''}`
  return err({ code: 'bad_option', at: option, facts: { why } })
}

/** Ways are looked for this long, s. */
const WAYS_SECONDS = 10

/** `cuirass stretch MESH --propose`: seams and relief cuts found on the mesh, each solved, the best first. */
async function propose(bytes: Uint8Array, name: string, asked: Asked, clockMs: () => number): Promise<number> {
  const mesh = meshFromFile(bytes, name)
  if (!mesh.ok) return fail(mesh.error)
  const { spent } = timeBudget(clockMs, WAYS_SECONDS)
  const found = waysOutOnMesh(mesh.value, { limit: asked.limit, shrink: asked.shrink, ...(spent ? { spent } : {}) })
  if (!found.ok) return fail(found.error)
  const ways = found.value.ways.map((w) => ({
    kind: w.kind,
    stretch: { max: w.stretch },
    over_limit_mm2: w.overLimitMm2,
    cut_mm: w.cutMm,
    pieces: w.pieces,
    lines: w.lines,
  }))
  const whole = { stretch: { max: found.value.whole.report.stretch.max } }
  await print(`${JSON.stringify({ format: 'cuirass/stretch-ways@1', whole, ways }, null, 1)}\n`)
  return 0
}

/** `cuirass stretch MESH …`: the flat film of a surface with the least worst stretch. */
export async function stretch(file: string, args: readonly string[], clockMs: () => number): Promise<number> {
  const asked = options(args)
  if (!asked.ok) return fail(asked.error)
  const bytes = read(file)
  if (!bytes.ok) return fail(bytes.error)
  if (asked.value.propose) return propose(bytes.value, file, asked.value, clockMs)
  let told = clockMs()
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
    const written = writeTo('--out', asked.value.out, flatObj(flat.value))
    if (!written.ok) return fail(written.error)
  }
  const { report } = flat.value
  await print(`${JSON.stringify({ ...report, warnings: report.warnings.map(warningText) }, null, 1)}\n`)
  return 0
}
