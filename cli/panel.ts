import { writeFileSync } from 'node:fs'
import { firstFault } from '@/core/kit/first-fault'
import { readJson } from '@/core/kit/json-guard'
import { panelMesh } from '@/core/engines/stretch/panel-mesh'
import { Panel } from '@/core/model/vehicle/schema'
import { fail, read } from './stretch'

/** `cuirass panel PANEL.json …`: the mesh of a taped panel, one of a job file's `panels`. */
export async function panel(file: string, args: readonly string[]): Promise<number> {
  let out: string | null = null
  let triangles = 5000
  for (let i = 0; i < args.length; i += 2) {
    const [name, value] = [args[i] as string, args[i + 1]]
    if (name === '--out' && value !== undefined) out = value
    else if (
      name === '--triangles' &&
      Number.isInteger(Number(value)) &&
      Number(value) >= 200 &&
      Number(value) <= 80_000
    )
      triangles = Number(value)
    else
      return fail({ code: 'bad_option', at: name, facts: { why: 'give --out FILE, or --triangles from 200 to 80000' } })
  }
  const bytes = read(file)
  if (!bytes.ok) return fail(bytes.error)
  const json = readJson(new TextDecoder().decode(bytes.value))
  if (!json.ok) return fail(json.error)
  const parsed = Panel.safeParse(json.value)
  if (!parsed.success)
    return fail({ ...firstFault(parsed.error), code: 'bad_panel', facts: { why: firstFault(parsed.error).code } })
  const made = panelMesh(parsed.data, triangles)
  if (!made.ok) return fail(made.error)
  const { positions, triangles: list } = made.value.mesh
  const lines = ['# mm']
  for (let v = 0; v < positions.length; v += 3) lines.push(`v ${positions[v]} ${positions[v + 1]} ${positions[v + 2]}`)
  for (let t = 0; t < list.length; t += 3)
    lines.push(`f ${[0, 1, 2].map((k) => (list[t + k] as number) + 1).join(' ')}`)
  const text = `${lines.join('\n')}\n`
  if (out === null) await new Promise<void>((done) => process.stdout.write(text, () => done()))
  else {
    try {
      writeFileSync(out, text)
    } catch (error) {
      return fail({
        code: 'unreadable',
        at: '--out',
        facts: { file: out, why: (error as NodeJS.ErrnoException).code ?? 'error' },
      })
    }
    process.stdout.write(
      `${JSON.stringify({ format: 'cuirass/panel-mesh@1', triangles: list.length / 3, vertices: positions.length / 3 })}\n`,
    )
  }
  return 0
}
