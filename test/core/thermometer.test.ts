import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/kit/random'
import { readReadings } from '@/core/stages/bay/reading-import'
import { readingTable } from '@/core/stages/bay/reading-table'
import type { LogRow } from '@/core/model/log/schema'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { seenAt, simulatedFigures, type Scene } from '@/outside/thermometer'
import { figureOf, isSteady } from '@/web/bay/use-thermometer'
import { catalogue, row } from '../fixtures/plans'

const scene = (over: Partial<Scene> = {}): Scene => ({ filmC: 100, awayS: 5, mirror: false, dulled: false, ...over })
const figures = (s: Scene, count: number): number[] => {
  const made = simulatedFigures(s, seeded(7))
  return Array.from({ length: count }, () => (made.next() as { value: { tempC: number } }).value.tempC)
}

describe('a thermometer and how it is reached', () => {
  it('in the air stream it shows 130 where the film has 100; the gun away some seconds, the film', () => {
    expect(seenAt(scene(), 0)).toBeCloseTo(130, 6)
    expect(seenAt(scene(), 3)).toBeGreaterThan(94)
    expect(seenAt(scene(), 3)).toBeLessThan(100)
  })

  it('a bare mirror shows mostly the room; on tape it shows the film', () => {
    expect(seenAt(scene({ mirror: true }), 4)).toBeLessThan(45)
    expect(seenAt(scene({ mirror: true, dulled: true }), 4)).toBe(seenAt(scene(), 4))
  })

  it('comes late, and steadies: the first figures climb, later ones lie close together', () => {
    const list = figures(scene(), 24)
    expect(list[0]).toBeLessThan(80)
    expect(isSteady(list.slice(0, 6))).toBe(false)
    expect(isSteady(list)).toBe(true)
    expect(Math.abs((list.at(-1) ?? 0) - seenAt(scene(), 5 + 23 * 0.25))).toBeLessThan(2)
  })

  it('read too soon it shows more than later, and the noise never gets over a degree', () => {
    const soon = figures(scene({ awayS: 0 }), 30)
    expect(Math.max(...soon)).toBeGreaterThan((soon.at(-1) ?? 0) + 6)
    const still = figures(scene({ awayS: 20 }), 60).slice(30)
    still.forEach((c, i) => expect(Math.abs(c - seenAt(scene(), 20 + (30 + i) * 0.25))).toBeLessThan(1.6))
  })

  it('text, nothing and what is no number are no figure', () => {
    expect(figureOf('{"tempC":91.5}')).toBe(91.5)
    for (const bad of ['', 'Lo', '{}', '{"tempC":"91"}', '{"tempC":null}', '[91]', '91', '{"tempC":1e999}'])
      expect(figureOf(bad), bad).toBeNull()
  })
})

describe('readings from a file', () => {
  const plan = Plan.parse(DEMO_JOBS[0]?.make())
  const jobId = '5a170000-0000-4000-8000-00000000000a'
  const pointsOf = (ledger: LogRow[]) => reckon(plan, catalogue, ledger).points
  const points = pointsOf([])
  const [a, b] = points
  if (!a || !b) throw new Error('no points')
  const read = (rows: string[][], ledger: LogRow[] = []) => {
    const out = readReadings(rows, { jobId, points, ledger })
    if (!out.ok) throw new Error(JSON.stringify(out.error))
    return out.value
  }
  const HEAD = ['point', 'temp_c', 'gun_away', 'at_utc']
  const good = [a.id, '91.5', 'yes', '2026-11-24T10:00:00.000Z']

  it('what goes out comes in again: each row once, places without a reading left alone', () => {
    const payload = { kind: 'reading' as const, pieceId: a.pieceId, pointId: a.id, tempC: 91.5, gunAway: true }
    const ledger = [row(payload, '2026-11-24T10:00:00.000Z')]
    const table = readingTable(pointsOf(ledger), ledger, (id) => id)
    // Into a job that has it: known. Into one that lost it: there again, with its moment.
    expect(read(table, ledger)).toMatchObject({ readings: [], known: 1, faults: [] })
    const fresh = read(table)
    expect(fresh.readings).toHaveLength(1)
    expect(fresh.readings[0]).toMatchObject({ at: '2026-11-24T10:00:00.000Z', payload })
  })

  it('the same row has the same id, another one another: brought twice it counts once', () => {
    const other = [b.id, '91,5', 'no', '2026-11-24T10:00:00Z']
    const [x, y] = [read([HEAD, good, other]).readings, read([HEAD, other, good, good]).readings]
    expect(x.map((r) => r.id).sort()).toEqual(y.map((r) => r.id).sort())
    expect(new Set(x.map((r) => r.id)).size).toBe(2)
    for (const { id } of x) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-8[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
    const known = x.map((r) => ({ ...row(r.payload, r.at), id: r.id }))
    expect(read([HEAD, good, other], known)).toMatchObject({ readings: [], known: 2 })
  })

  it('a moment of any zone is the same moment; without one it is UTC', () => {
    const at = (text: string) => read([HEAD, [a.id, '90', 'yes', text]]).readings[0]?.at
    expect(at('2026-11-24T10:00')).toBe('2026-11-24T10:00:00.000Z')
    expect(at('2026-11-24T10:00:05.25Z')).toBe('2026-11-24T10:00:05.250Z')
    expect(at('2026-11-24T23:30:00-02:00')).toBe('2026-11-25T01:30:00.000Z')
    expect(at('2026-11-24T12:30:00+0230')).toBe('2026-11-24T10:00:00.000Z')
    for (const bad of ['2026-13-24T10:00', '2026-11-24', '24.11.2026 10:00', '2026-11-24T10:00:77Z', ''])
      expect(at(bad), bad).toBeUndefined()
  })

  it('a bad row is told by line and column and holds back no other', () => {
    const bad = [
      ['no-such-point', '90', 'yes', good[3] ?? ''],
      [a.id, '900', 'yes', good[3] ?? ''],
      [a.id, 'hot', 'yes', good[3] ?? ''],
      [a.id, '90', 'perhaps', good[3] ?? ''],
      [a.id, '90', 'yes', 'yesterday'],
    ]
    const out = read([HEAD, ...bad, good])
    expect(out.readings).toHaveLength(1)
    expect(out.faults.map((f) => [f.line, f.column, f.code])).toEqual([
      [2, 'point', 'no_such_point'],
      [3, 'temp_c', 'no_temperature'],
      [4, 'temp_c', 'no_temperature'],
      [5, 'gun_away', 'yes_or_no'],
      [6, 'at_utc', 'no_such_moment'],
    ])
  })

  it('a file of another kind is refused whole, with what it lacks', () => {
    const out = readReadings(
      [
        ['point', 'degrees'],
        ['x', '1'],
      ],
      { jobId, points, ledger: [] },
    )
    expect(!out.ok && out.error[0]?.code).toBe('unknown_column')
    const lacks = readReadings(
      [
        ['point', 'temp_c'],
        ['x', '1'],
      ],
      { jobId, points, ledger: [] },
    )
    expect(!lacks.ok && lacks.error[0]).toMatchObject({ code: 'missing_columns' })
  })
})
