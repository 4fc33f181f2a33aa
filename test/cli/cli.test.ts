import { spawnSync } from 'node:child_process'
import { tmpdir } from 'node:os'
import { fileURLToPath } from 'node:url'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readLedger, writeCatalogue, writeLedger } from '@/core/model/catalogue/files'
import { writePlan } from '@/core/model/plan/parse'
import { catalogue, handCar, row } from '../fixtures/plans'

const bin = fileURLToPath(new URL('../../cli/bin/cuirass.mjs', import.meta.url))
const run = (args: string[], input = '') => spawnSync(process.execPath, [bin, ...args], { input, encoding: 'utf8' })

it('reckon: every figure of a job file as JSON', () => {
  const r = run(['reckon', '-'], writePlan(handCar()))
  expect(r.status).toBe(0)
  const out = JSON.parse(r.stdout) as { format: string; figures: { id: string; value: number }[] }
  expect(out.format).toBe('cuirass/reckoning@1')
  expect(out.figures.find((f) => f.id === 'roll/fen-satin/used')?.value).toBeCloseTo(2170, 6)
})

it('layout: a plan by the contract', () => {
  const input = {
    format: 'cuirass/layout@1',
    cutting: 'guillotine',
    gap_mm: 0,
    seconds: 1,
    seed: 1,
    stock: [{ id: 'a', width_mm: 1520, length_mm: 25000, lot: 'A1' }],
    pieces: [{ id: 'bonnet', width_mm: 1400, height_mm: 1100, count: 1, turn: 'fixed', group: 'body' }],
  }
  const r = run(['layout', '-'], JSON.stringify(input))
  expect(r.status).toBe(0)
  expect(JSON.parse(r.stdout)).toEqual({
    format: 'cuirass/layout-plan@1',
    used_mm: 1100,
    bound_mm: 1100,
    proven: true,
    stock: [{ id: 'a', used_mm: 1100, placements: [{ piece: 'bonnet', copy: 1, x_mm: 0, y_mm: 0, turn_deg: 0 }] }],
    unplaced: [],
  })
})

it.each([
  [['layout', '-'], '{', 'truncated'],
  [['layout', '-'], '{"format":"cuirass/layout@1","stock":[],"pieces":[]}', 'too_small'],
  [['reckon', '-'], '{"format":"cuirass/job@9"}', 'later_version'],
  [['reckon', '/no/such/file'], '', 'unreadable'],
])('%j with %j: exit 2, one line, no stack trace', (args, input, cause) => {
  const r = run(args, input)
  expect(r.status).toBe(2)
  expect(JSON.parse(r.stdout)).toMatchObject({ format: 'cuirass/error@1', code: 'bad_input', cause })
  expect(r.stderr.trim().split('\n')).toHaveLength(1)
})

it.each([
  [
    'a stock of no length',
    { stock: [{ id: 'a', width_mm: 1520, length_mm: 0 }], pieces: [{ id: 'p', width_mm: 1, height_mm: 1 }] },
    'stock[0].length_mm',
    /more than 0/,
  ],
  [
    'a piece below nothing',
    { stock: [{ id: 'a', width_mm: 1520, length_mm: 9 }], pieces: [{ id: 'p', width_mm: 1, height_mm: -4 }] },
    'pieces[0].height_mm',
    /more than 0/,
  ],
  [
    'a name twice',
    {
      stock: [{ id: 'a', width_mm: 9, length_mm: 9 }],
      pieces: [
        { id: 'p', width_mm: 1, height_mm: 1 },
        { id: 'p', width_mm: 1, height_mm: 1 },
      ],
    },
    'pieces[1].id',
    /used twice/,
  ],
  [
    'a turn there is not',
    { stock: [{ id: 'a', width_mm: 9, length_mm: 9 }], pieces: [{ id: 'p', width_mm: 1, height_mm: 1, turn: 'half' }] },
    'pieces[0].turn',
    /allowed values/,
  ],
])('layout: %s is refused with its place and what to change', (_, over, at, message) => {
  const r = run(['layout', '-'], JSON.stringify({ format: 'cuirass/layout@1', seconds: 1, ...over }))
  expect(r.status).toBe(2)
  const out = JSON.parse(r.stdout)
  expect(out.at).toBe(at)
  expect(out.message).toMatch(message)
})
it('layout: what fits nowhere is listed with the reason, the rest is laid, by either rule', () => {
  for (const cutting of ['guillotine', 'free']) {
    const ask = {
      format: 'cuirass/layout@1',
      cutting,
      seconds: 1,
      gap_mm: 4,
      stock: [{ id: 'a', width_mm: 1520, length_mm: 5000 }],
      pieces: [
        { id: 'wide', width_mm: 1600, height_mm: 1600, turn: 'quarter' },
        { id: 'long', width_mm: 900, height_mm: 6000 },
        { id: 'ok', width_mm: 100.5, height_mm: 10.25, count: 7 },
      ],
    }
    const out = JSON.parse(run(['layout', '-'], JSON.stringify(ask)).stdout)
    expect(out.unplaced.map((u: { piece: string; why: string }) => [u.piece, u.why])).toEqual([
      ['wide', 'wider than every roll'],
      ['long', 'longer than every roll it fits across'],
    ])
    expect(out.stock[0].placements).toHaveLength(7)
    expect(out.used_mm).toBeCloseTo(10.25, 9)
  }
})

it('an unknown command shows the usage', () => {
  const r = run(['dance'])
  expect(r.status).toBe(2)
  expect(r.stderr).toMatch(/^usage:/)
})

it('works from whatever folder it is called in', () => {
  const r = spawnSync(process.execPath, [bin, 'reckon', '-'], {
    input: writePlan(handCar()),
    encoding: 'utf8',
    cwd: tmpdir(),
  })
  expect([r.status, r.stderr]).toEqual([0, ''])
})
it('tells of itself, of each command, and of its version', () => {
  for (const command of ['reckon', 'layout', 'panel', 'stretch']) {
    const own = run([command, '--help'])
    expect([own.status, own.stdout.startsWith(`cuirass ${command}`)], command).toEqual([0, true])
    expect(run(['--help']).stdout).toContain(own.stdout.trim())
  }
  expect(run(['--version']).stdout).toMatch(/^cuirass \d+\.\d+\.\d+\n$/)
  expect(run(['constructor', 'x']).status).toBe(2)
})
it('no pieces are an empty plan', () => {
  const r = run(
    ['layout', '-'],
    '{"format":"cuirass/layout@1","stock":[{"id":"a","width_mm":1520,"length_mm":9000}],"pieces":[]}',
  )
  expect([r.status, JSON.parse(r.stdout)]).toMatchObject([0, { used_mm: 0, bound_mm: 0, unplaced: [] }])
})

describe('reckon with what the shop brings', () => {
  const plan = handCar()
  const dir = mkdtempSync(join(tmpdir(), 'cuirass-'))
  const put = (name: string, text: string) => {
    writeFileSync(join(dir, name), text)
    return join(dir, name)
  }
  const job = put('job.json', writePlan(plan))
  const shop = put('catalogue.json', writeCatalogue(catalogue, []))
  const figures = (args: string[]) => {
    const r = run(['reckon', job, ...args])
    expect(r.stderr).toBe('')
    const out = JSON.parse(r.stdout) as {
      figures: { id: string; value: number | null; settling?: true }[]
      pieces: { id: string; width_mm: number; height_mm: number; film: string }[]
    }
    return { ...out, byId: new Map(out.figures.map((f) => [f.id, f])) }
  }
  it('the rack covers the plan: nothing is to be ordered; what is not solved is said to settle', () => {
    expect(figures([]).byId.get('rail/film_order')).toMatchObject({ value: 3000 })
    const own = figures(['--catalogue', shop])
    expect(own.byId.get('rail/film_order')).toMatchObject({ value: 0, settling: true })
    expect(own.byId.get('rail/edges')?.settling).toBeUndefined()
    expect(own.pieces.find((p) => p.id === 'bonnet')).toMatchObject({ film: 'fen-satin' })
  })
  it('what happened counts: a step that is done, at the moment that is asked for', () => {
    const done = [row({ kind: 'note', text: 'begun' })]
    const ledger = put('ledger.json', writeLedger(done))
    expect(readLedger(readFileSync(ledger, 'utf8'))).toEqual({ ok: true, value: done })
    figures(['--catalogue', shop, '--ledger', ledger, '--now', '2031-03-03T08:00Z'])
  })
  it.each([
    [['--catalogue', '/no/such/file'], '--catalogue', 'unreadable'],
    [['--catalogue', put('not.json', '{')], '--catalogue', 'truncated'],
    [
      ['--catalogue', put('other.json', '{"format":"cuirass/catalogue@1","paint":1}')],
      '--catalogue paint',
      'unknown_key',
    ],
    [
      ['--catalogue', put('liar.json', '{"format":"cuirass/catalogue@1","solutions":[{"kind":"stretch","key":"x"}]}')],
      '--catalogue solutions[0].key',
      'invalid_format',
    ],
    [
      ['--ledger', put('ledger-of-another.json', '{"format":"cuirass/ledger@1","entries":[{"id":"a"}]}')],
      '--ledger entries[0].at',
      'invalid_type',
    ],
    [['--now', 'yesterday'], '--now', 'bad_option'],
    [['--now', '2031-03-03T08:00'], '--now', 'bad_option'],
    [['--colour', 'red'], '--colour', 'bad_option'],
  ])('%j is refused at its place', (args, at, cause) => {
    const r = run(['reckon', job, ...args])
    expect(r.status).toBe(2)
    expect(JSON.parse(r.stdout)).toMatchObject({ format: 'cuirass/error@1', code: 'bad_input', cause, at })
    expect(r.stderr.trim().split('\n')).toHaveLength(1)
  })
})
