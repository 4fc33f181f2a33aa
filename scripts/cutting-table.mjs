import { mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { Stop, endWith } from './say.mjs'

/** How fast the simulated blade runs, mm/s: a job of some minutes takes some seconds. */
const BLADE_MM_S = 20_000
const TICK_MS = 250
const MOST_BYTES = 20_000_000

const lengthOf = (points, closed) =>
  points.reduce((sum, p, i) => {
    const q = points[i + 1] ?? (closed ? points[0] : null)
    return q ? sum + Math.hypot(q[0] - p[0], q[1] - p[1]) : sum
  }, 0)

/** Outlines of pieces in a drawing: how many, and how long the blade's path is. Throws with what is wrong. */
export function readDrawing(name, text) {
  const outlines = name.endsWith('.svg') ? fromSvg(text) : fromDxf(text)
  if (outlines.length === 0) throw new Stop('no outline on the layer pieces')
  if (outlines.some((o) => o.some((p) => !Number.isFinite(p[0]) || !Number.isFinite(p[1]))))
    throw new Stop('a point that is no number')
  return { pieces: outlines.length, cutMm: outlines.reduce((s, o) => s + lengthOf(o, true), 0) }
}
function fromSvg(text) {
  if (!/<svg[\s>]/.test(text)) throw new Stop('not an SVG drawing')
  if (!/\bwidth="[\d.]+mm"/.test(text)) throw new Stop('the drawing does not say its size in mm')
  const layer = /<g id="pieces"[^>]*>([\s\S]*?)<\/g>/.exec(text)?.[1] ?? ''
  return [...layer.matchAll(/ d="M([^"]+)Z"/g)].map((m) =>
    m[1].split('L').map((p) => p.trim().split(/\s+/).map(Number)),
  )
}
function fromDxf(text) {
  const lines = text.split(/\r?\n/)
  if (!lines.some((l) => l.trim() === 'ENTITIES') || (lines.at(-1)?.trim() !== 'EOF' && lines.at(-2)?.trim() !== 'EOF'))
    throw new Stop('not a whole DXF drawing')
  const pairs = []
  for (let i = 0; i + 1 < lines.length; i += 2) pairs.push([Number(lines[i]), lines[i + 1].trim()])
  const out = []
  let open = null
  for (const [code, value] of pairs) {
    if (code === 0) {
      if (open?.layer === 'pieces' && open.points.length > 2) out.push(open.points)
      open = value === 'LWPOLYLINE' ? { layer: '', points: [] } : null
    } else if (open && code === 8) open.layer = value
    else if (open && code === 10) open.points.push([Number(value), 0])
    else if (open && code === 20 && open.points.length > 0) open.points.at(-1)[1] = Number(value)
  }
  return out
}

/** Watches a folder: takes each drawing, cuts it at its pace, and writes how far it is. */
export function watchFolder(dir, { now = () => Date.now(), bladeMmS = BLADE_MM_S } = {}) {
  for (const part of ['in', 'work', 'reports']) mkdirSync(join(dir, part), { recursive: true })
  const running = new Map()
  const report = (file, over) => {
    const path = join(dir, 'reports', `${file}.json`)
    writeFileSync(
      `${path}.part`,
      JSON.stringify({
        file,
        state: 'received',
        reason: null,
        pieces: 0,
        cutMm: 0,
        doneMm: 0,
        at: new Date(now()).toISOString(),
        ...over,
      }),
    )
    renameSync(`${path}.part`, path)
  }
  // What a stop left half cut is said to be so.
  for (const file of readdirSync(join(dir, 'work'))) {
    report(file, { state: 'rejected', reason: 'the table was stopped while it cut this' })
    renameSync(join(dir, 'work', file), join(dir, 'work', `.${file}.old`))
  }
  return () => {
    for (const file of readdirSync(join(dir, 'in'))
      .filter((f) => !f.startsWith('.'))
      .sort()) {
      const path = join(dir, 'work', file)
      renameSync(join(dir, 'in', file), path)
      try {
        if (!/\.(svg|dxf)$/.test(file)) throw new Stop('only SVG and DXF drawings are cut')
        const text = readFileSync(path, 'utf8')
        if (text.length > MOST_BYTES) throw new Stop('larger than 20 MB')
        const drawing = readDrawing(file, text)
        running.set(file, { ...drawing, began: now() })
        report(file, { state: 'received', ...drawing })
      } catch (error) {
        report(file, {
          state: 'rejected',
          reason: error instanceof Stop ? error.message : 'the drawing cannot be read',
        })
        renameSync(path, join(dir, 'work', `.${file}.old`))
      }
    }
    for (const [file, job] of running) {
      const doneMm = Math.min(job.cutMm, ((now() - job.began) / 1000) * bladeMmS)
      const over = doneMm >= job.cutMm
      report(file, { state: over ? 'done' : 'cutting', pieces: job.pieces, cutMm: job.cutMm, doneMm })
      if (!over) continue
      running.delete(file)
      renameSync(join(dir, 'work', file), join(dir, 'work', `.${file}.old`))
    }
  }
}

if (process.argv[1] && import.meta.url === pathToFileURL(resolve(process.argv[1])).href) {
  const dir = process.argv[2]
  if (!dir) endWith(new Stop('Give the folder that the table watches.'))
  const turn = watchFolder(dir)
  setInterval(turn, TICK_MS)
  console.log('ready')
}
