// @vitest-environment node
import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { Plan } from '@/core/model/plan/schema'
import { reckon } from '@/core/reckon/reckon'
import { DEMO_JOBS } from '@/db/demo/jobs'
import { heatRecordPaper, layingCardsPaper, trimPlanPaper } from '@/web/threads/papers'
import type { PaperInput } from '@/web/threads/jobs'
import { catalogue, row } from '../fixtures/plans'

const pickup = Plan.parse(DEMO_JOBS.find((j) => j.stand === 'finished')?.make())
const { points, edges } = reckon(pickup, catalogue, [])
const [first] = points
const input: PaperInput = {
  jobId: '5a170000-0000-4000-8000-00000000000e',
  plan: pickup,
  handedOver: null,
  catalogue,
  ledger: first
    ? [
        row(
          { kind: 'reading', pieceId: first.pieceId, pointId: first.id, tempC: 88, gunAway: true },
          '2026-11-24T10:00:00.000Z',
        ),
      ]
    : [],
  units: { lengthUnit: 'mm', tempUnit: 'C', locale: 'en-GB', currency: 'EUR', timeZone: 'UTC' },
  shop: { name: 'Saltmarsh Film & Wrap', town: 'Eddermouth' },
  now: '2026-11-24T12:00:00.000Z',
  appUrl: '',
}

/** The text of a PDF as another program reads it (poppler), where the machine has it; else null. */
function textOf(pdf: Uint8Array): string | null {
  const file = join(mkdtempSync(join(tmpdir(), 'paper-')), 'a.pdf')
  writeFileSync(file, pdf)
  try {
    return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })
  } catch {
    return null
  }
}

const made = async (paper: (input: PaperInput) => Promise<{ kind: string }>) => {
  const out = (await paper(input)) as { kind: string; body: Uint8Array; type: string }
  expect([out.kind, out.type]).toEqual(['file', 'application/pdf'])
  expect(Buffer.from(out.body.subarray(0, 5)).toString()).toBe('%PDF-')
  return out.body
}

describe('papers of a job', () => {
  it('the heat record names every place, what it reached, and what is missing', async () => {
    const body = await made(heatRecordPaper)
    expect(body.length).toBeGreaterThan(6000)
    const text = textOf(body)
    if (text === null) return
    expect(text).toContain('Heat record')
    expect(text).toContain(`1 of ${points.length} places read hot enough`)
    expect(text).toContain('88 °C')
    expect(text.match(/not read/g)).toHaveLength(points.length - 1)
  })
  it('the trim plan has every panel, and each of its edges by its letter and length', async () => {
    const body = await made(trimPlanPaper)
    expect(body.length).toBeGreaterThan(6000)
    const text = textOf(body)
    if (text === null) return
    for (const panel of pickup.panels) expect(text).toContain(panel.name)
    expect(text.match(/° *,? *(wait|heat|none)/g)?.length ?? 0).toBeGreaterThanOrEqual(edges.edges.length)
  })
  it('the laying cards have every panel with its steps', async () => {
    const body = await made(layingCardsPaper)
    expect(body.length).toBeGreaterThan(6000)
    const text = textOf(body)
    if (text === null) return
    for (const panel of pickup.panels) expect(text).toContain(`${panel.name}:`)
    expect(text.match(/Liner:/g)).toHaveLength(pickup.panels.length)
  })
})
