import { existsSync, readFileSync, statSync } from 'node:fs'
import { dirname, join } from 'node:path'
import ts from 'typescript'
import { describe, expect, it } from 'vitest'

/** Files and packages that a file loads with itself: no types, and nothing that is loaded later. */
function loads(file: string): string[] {
  const text = readFileSync(file, 'utf8')
  // What the server does is only called from a page.
  if (text.startsWith("'use server'")) return []
  const source = ts.createSourceFile(file, text, ts.ScriptTarget.Latest, false)
  return source.statements.flatMap((s) => {
    if (!(ts.isImportDeclaration(s) || ts.isExportDeclaration(s)) || !s.moduleSpecifier) return []
    if (ts.isImportDeclaration(s) ? s.importClause?.isTypeOnly : s.isTypeOnly) return []
    const from = (s.moduleSpecifier as ts.StringLiteral).text
    const base = from.startsWith('@/') ? from.slice(2) : from.startsWith('.') ? join(dirname(file), from) : null
    if (base === null) return [`package ${from}`]
    return ['', '.ts', '.tsx', '/index.ts']
      .map((end) => base + end)
      .filter((f) => /\.tsx?$/.test(f) && existsSync(f) && statSync(f).isFile())
  })
}

function reach(...from: string[]): string[] {
  const seen = new Set<string>(from)
  for (const file of seen) if (!file.startsWith('package ')) for (const next of loads(file)) seen.add(next)
  return [...seen]
}

/** Large, and not needed before something is typed, cut or searched. */
const HEAVY =
  /^(package (zod|clipper-lib|delaunator|react-bootstrap\/Modal|react-bootstrap\/Offcanvas)|core\/solve\/(pack|mesh|heat)\/)/

describe('what is loaded at first', () => {
  it('a reckoning brings neither solvers of film, surfaces and heat nor the checking of what comes in', () => {
    const files = reach('core/reckon/reckoner.ts')
    expect(files.filter((f) => HEAVY.test(f))).toEqual([])
    expect(files).toContain('core/stages/roll/roll.ts')
  })

  it('the bay opens with what hands need: the rest comes after it', () => {
    const files = reach('web/bay/bay.tsx', 'web/job/job-state.tsx', 'web/job/over-the-job.tsx')
    expect(files.filter((f) => HEAVY.test(f))).toEqual([])
    expect(files).toContain('web/bay/now-view.tsx')
  })

  it('would see them: with every solver at hand they are there', () => {
    const files = reach('core/reckon/reckon.ts')
    expect(files).toContain('package clipper-lib')
    expect(files).toContain('core/solve/pack/bins/pack.ts')
  })
})
