import { firstFault } from '@/core/kit/first-fault'
import { readJson } from '@/core/kit/json-guard'
import { panelMesh } from '@/core/engines/stretch/panel-mesh'
import type { TriMesh } from '@/core/solve/mesh'
import { Panel } from '@/core/model/vehicle/schema'
import { numberOption, parseOptions } from './options'
import { read } from './read'
import { fail, print, writeTo } from './write'

const TRIANGLES = { usual: '5000', min: 200, max: 80_000 }

/** `cuirass panel PANEL.json …`: the mesh of a taped panel, one of a job file's `panels`. */
export async function panel(file: string, args: readonly string[]): Promise<number> {
  const asked = parseOptions(args, { out: { type: 'string' }, triangles: { type: 'string' } })
  if (!asked.ok) return fail(asked.error)
  const { out, triangles = TRIANGLES.usual } = asked.value
  const count = numberOption('--triangles', triangles, TRIANGLES.min, TRIANGLES.max)
  if (!count.ok) return fail(count.error)
  const bytes = read(file)
  if (!bytes.ok) return fail(bytes.error)
  const json = readJson(new TextDecoder().decode(bytes.value))
  if (!json.ok) return fail(json.error)
  const parsed = Panel.safeParse(json.value)
  if (!parsed.success)
    return fail({ ...firstFault(parsed.error), code: 'bad_panel', facts: { why: firstFault(parsed.error).code } })
  const made = panelMesh(parsed.data, Math.round(count.value))
  if (!made.ok) return fail(made.error)
  const { mesh } = made.value
  if (out === undefined) {
    await print(objText(mesh))
    return 0
  }
  const written = writeTo('--out', out, objText(mesh))
  if (!written.ok) return fail(written.error)
  const [count3, count1] = [mesh.triangles.length / 3, mesh.positions.length / 3]
  await print(`${JSON.stringify({ format: 'cuirass/panel-mesh@1', triangles: count3, vertices: count1 })}\n`)
  return 0
}

/** A mesh as an OBJ file, mm. */
function objText({ positions, triangles }: TriMesh): string {
  const lines = ['# mm']
  for (let v = 0; v < positions.length; v += 3) lines.push(`v ${positions.subarray(v, v + 3).join(' ')}`)
  for (let t = 0; t < triangles.length; t += 3)
    lines.push(`f ${Array.from(triangles.subarray(t, t + 3), (v) => v + 1).join(' ')}`)
  return `${lines.join('\n')}\n`
}
