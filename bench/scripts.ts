import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { runInNewContext } from 'node:vm'
import { tableRow } from './table'

const BUILD = '.next'
const MANIFEST = 'page_client-reference-manifest.js'

interface Manifest {
  /** Scripts of each layout and page on the way to this one. */
  entryJSFiles?: Record<string, string[]>
}

/** Bytes of a script as it is sent, packed. */
const packed = (file: string): number => gzipSync(readFileSync(join(BUILD, file))).length

function manifestOf(file: string): Manifest {
  const scope: { globalThis?: unknown; __RSC_MANIFEST?: Record<string, Manifest> } = {}
  scope.globalThis = scope
  runInNewContext(readFileSync(file, 'utf8'), scope)
  return Object.values(scope.__RSC_MANIFEST ?? {})[0] ?? {}
}

/** What each page loads of scripts at first, beyond what the framework itself does. Wants a production build. */
export function scriptsBench(): string {
  const built = join(BUILD, 'build-manifest.json')
  if (!existsSync(built)) throw new Error('There is no production build: npm run build')
  const frame: string[] = JSON.parse(readFileSync(built, 'utf8')).rootMainFiles
  const own = frame.reduce((sum, file) => sum + packed(file), 0)
  const app = join(BUILD, 'server', 'app')
  const pages = readdirSync(app, { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith(MANIFEST))
    .map((file) => {
      const files = new Set(Object.values(manifestOf(join(app, file)).entryJSFiles ?? {}).flat())
      const bytes = [...files].filter((f) => !frame.includes(f)).reduce((sum, f) => sum + packed(f), 0)
      const page = file
        .slice(0, -MANIFEST.length)
        .replace(/\([^)]*\)/g, '')
        .replace(/\/+/g, '/')
        .replace(/\/$/, '')
      return { page: page === '' ? '/' : `/${page.replace(/^\//, '')}`, bytes }
    })
    .filter(({ page }) => !page.includes('/_'))
    .sort((a, b) => a.bytes - b.bytes)
  const kB = (bytes: number) => `${(bytes / 1000).toFixed(0)} kB`
  return `## First load of scripts

Packed, beyond the framework's own ${kB(own)}: every script of a page's layouts and of itself, nothing loaded before.

| page | scripts |
| ---- | ------- |
${pages.map(({ page, bytes }) => tableRow(page, kB(bytes))).join('\n')}
`
}
