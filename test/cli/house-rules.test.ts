import { spawnSync } from 'node:child_process'
import { cpSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { tmpdir } from 'node:os'
import { expect, it } from 'vitest'

const root = process.cwd()

/** Names of the rules that a small planted tree breaks, by the project's own rules. */
function broken(files: Record<string, string>): string[] {
  const dir = mkdtempSync(join(tmpdir(), 'house-'))
  try {
    for (const name of ['.dependency-cruiser.cjs', 'tsconfig.depcruise.json']) cpSync(join(root, name), join(dir, name))
    for (const [name, text] of Object.entries(files)) {
      mkdirSync(dirname(join(dir, name)), { recursive: true })
      writeFileSync(join(dir, name), text)
    }
    const run = spawnSync(
      process.execPath,
      [
        join(root, 'node_modules/dependency-cruiser/bin/dependency-cruise.mjs'),
        '--config',
        '.dependency-cruiser.cjs',
        '-T',
        'json',
        'core',
      ],
      { cwd: dir, encoding: 'utf8' },
    )
    const report = JSON.parse(run.stdout) as { summary: { violations: { rule: { name: string } }[] } }
    return [...new Set(report.summary.violations.map((v) => v.rule.name))].sort()
  } finally {
    rmSync(dir, { recursive: true, force: true })
  }
}
const leaf = 'export const leaf = 1\n'

it('the rules of the house let through what uses only the floors below it', () => {
  expect(
    broken({
      'core/kit/a.ts': leaf,
      'core/model/film/b.ts': "export { leaf } from '../../kit/a'\n",
      'core/engines/roll/c.ts': "export { leaf } from '../../model/film/b'\n",
    }),
  ).toEqual([])
})
it('a planted import that points upward, out of a stage, or off the floors fails', () => {
  expect(
    broken({ 'core/engines/roll/a.ts': leaf, 'core/model/film/b.ts': "export { leaf } from '../../engines/roll/a'\n" }),
  ).toContain('floor-model')
  expect(
    broken({ 'core/stages/film/a.ts': leaf, 'core/stages/roll/b.ts': "export { leaf } from '../film/a'\n" }),
  ).toEqual(['stages-apart'])
  expect(broken({ 'core/attic/a.ts': leaf, 'core/reckon/b.ts': "export { leaf } from '../attic/a'\n" })).toContain(
    'on-a-floor',
  )
})
it('a circle between two folders fails, though no two files form one', () => {
  expect(
    broken({
      'core/engines/roll/a.ts': leaf,
      'core/engines/pieces/b.ts': "export { leaf } from '../roll/a'\n",
      'core/engines/pieces/c.ts': leaf,
      'core/engines/roll/d.ts': "export { leaf } from '../pieces/c'\n",
    }),
  ).toEqual(['no-circles-of-folders'])
})
