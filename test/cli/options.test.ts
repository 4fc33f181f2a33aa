import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'
import { numberOption, parseOptions } from '@/cli/options'
import { messageOf, UNPLACED, warningText } from '@/cli/messages'
import { handCar } from '../fixtures/plans'

const bin = fileURLToPath(new URL('../../cli/bin/cuirass.mjs', import.meta.url))
const run = (...args: string[]) => spawnSync(process.execPath, [bin, ...args], { encoding: 'utf8' })
const dir = mkdtempSync(join(tmpdir(), 'options-'))
const OPTIONS = {
  out: { type: 'string' },
  flag: { type: 'boolean' },
  line: { type: 'string', multiple: true },
} as const

describe('options of the command line', () => {
  it('are read by name, in any order, several where that is meant, also with an equals sign', () => {
    expect(parseOptions(['--flag', '--line', 'a', '--out=x.obj', '--line', 'b'], OPTIONS)).toEqual({
      ok: true,
      value: { flag: true, line: ['a', 'b'], out: 'x.obj' },
    })
    expect(parseOptions([], OPTIONS)).toEqual({ ok: true, value: {} })
  })
  it.each([
    [['--fold', '1'], '--fold', 'there is no such option'],
    [['--out'], '--out', 'it takes a value'],
    [['--flag=yes'], '--flag', 'it takes a value'],
    [['more.json'], undefined, 'one file is enough; options begin with --'],
  ])('%j is refused, naming it', (args, at, why) => {
    const out = parseOptions(args, OPTIONS)
    expect(out).toMatchObject({ ok: false, error: { code: 'bad_option', facts: { why } } })
    if (at && !out.ok) expect(out.error.at).toContain(at)
  })
  it.each([
    ['0.5', true],
    ['0', true],
    ['1', true],
    ['1.01', false],
    ['-0.1', false],
    ['much', false],
    ['', false],
    ['Infinity', false],
  ])('a share of “%s” from 0 to 1: %s', (text, good) => {
    expect(numberOption('--limit', text, 0, 1).ok).toBe(good)
  })
})

describe('the panel command', () => {
  const file = join(dir, 'bonnet.json')
  writeFileSync(file, JSON.stringify(handCar().panels[0]))
  it('writes the mesh to a file and says how large it is, or to standard output', () => {
    const out = join(dir, 'bonnet.obj')
    const r = run('panel', file, '--triangles', '400', '--out', out)
    expect(r.status).toBe(0)
    const told = JSON.parse(r.stdout) as { format: string; triangles: number; vertices: number }
    expect(told.format).toBe('cuirass/panel-mesh@1')
    const lines = readFileSync(out, 'utf8').trim().split('\n')
    expect(lines.filter((l) => l.startsWith('f '))).toHaveLength(told.triangles)
    expect(lines.filter((l) => l.startsWith('v '))).toHaveLength(told.vertices)
    expect(run('panel', file, '--triangles', '400').stdout).toBe(readFileSync(out, 'utf8'))
  })
  it.each([
    [[file, '--triangles', '20'], 'bad_option'],
    [[file, '--colour', 'red'], 'bad_option'],
    [[file, '--out', join(dir, 'no', 'such', 'folder.obj')], 'unreadable'],
    [[join(dir, 'none.json')], 'unreadable'],
  ])('%j: exit 2, one line', (args, code) => {
    const r = run('panel', ...args)
    expect(r.status).toBe(2)
    expect(JSON.parse(r.stdout)).toMatchObject({ format: 'cuirass/error@1', code })
    expect(r.stderr.trim().split('\n')).toHaveLength(1)
  })
})

it('every warning, reason and unknown fault has its words', () => {
  for (const w of [
    { code: 'collapsed_mended', collapsed: 1 },
    { code: 'parts_apart', parts: 2 },
    { code: 'stopped_early' },
    { code: 'lies_on_itself' },
    { code: 'squeezed_beside_laid', squeeze: 0.031 },
    { code: 'very_small', acrossMm: 1.4 },
    { code: 'very_large', acrossMm: 40_000 },
  ] as const)
    expect(warningText(w)).not.toMatch(/undefined|NaN|\{/)
  expect(warningText({ code: 'squeezed_beside_laid', squeeze: 0.031 })).toContain('3.1 %')
  expect(Object.values(UNPLACED).every((text) => text.length > 10)).toBe(true)
  expect(messageOf({ code: 'never_heard_of' })).toContain('never_heard_of')
})
